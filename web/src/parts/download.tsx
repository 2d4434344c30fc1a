import { useRef, useState, type MouseEvent, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { ApiError } from '@rakuen/contract/settings';
import { Button, QuietButton } from './button.tsx';
import { ErrorNote } from './messages.tsx';

const MEGA = 1e6;

interface Asked {
  href: string;
  /** Sent by POST where it is there. */
  body?: object;
}

/** How far a file is: being made, on its way with so many of so many bytes, or saved under its name. */
type State =
  | { at: 'rest' }
  | { at: 'making' }
  | { at: 'coming'; bytes: number; of?: number }
  | { at: 'saved'; name: string; notSet?: string }
  | { at: 'failed'; error: Partial<ApiError> };

/** Name of a file as the server states it (RFC 6266). */
const nameOf = (disposition: string | null, href: string): string => {
  const encoded = /filename\*=UTF-8''([^;]+)/i.exec(disposition ?? '')?.[1];
  if (encoded) return decodeURIComponent(encoded);
  return /filename="?([^";]+)/i.exec(disposition ?? '')?.[1] ?? href.split('?')[0].split('/').at(-1)!;
};

const UNREACHED: ApiError = {
  statusCode: 503,
  message: 'Rakuen does not answer.',
  remedy: 'Check that it still runs in its terminal, and try again.',
};

async function faultOf(answer: Response): Promise<Partial<ApiError>> {
  const said = (await answer.json().catch(() => undefined)) as Partial<ApiError> | undefined;
  return said?.message ? said : { message: 'The file could not be made.', remedy: 'Reload the page and try again.' };
}

async function bytesOf(answer: Response, onBytes: (bytes: number) => void, type: string): Promise<Blob> {
  const reader = answer.body?.getReader();
  if (!reader) return answer.blob();
  const parts: BlobPart[] = [];
  let bytes = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return new Blob(parts, { type });
    parts.push(value);
    bytes += value.length;
    onBytes(bytes);
  }
}

function save(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  // The browser reads it after the click.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** Fetches files and saves them; what goes wrong stays on the page. */
function useDownload() {
  const [state, setState] = useState<State>({ at: 'rest' });
  const running = useRef<AbortController>(undefined);
  const start = async ({ href, body }: Asked) => {
    if (running.current) return;
    const { signal } = (running.current = new AbortController());
    setState({ at: 'making' });
    try {
      const answer = await fetch(href, {
        signal,
        ...(body && {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify(body),
        }),
      });
      if (!answer.ok) return setState({ at: 'failed', error: await faultOf(answer) });
      const of = Number(answer.headers.get('content-length')) || undefined;
      const type = answer.headers.get('content-type') ?? '';
      const blob = await bytesOf(answer, (bytes) => setState({ at: 'coming', bytes, of }), type);
      const name = nameOf(answer.headers.get('content-disposition'), href);
      save(blob, name);
      setState({ at: 'saved', name, notSet: answer.headers.get('x-not-set') ?? undefined });
    } catch {
      setState(signal.aborted ? { at: 'rest' } : { at: 'failed', error: UNREACHED });
    } finally {
      running.current = undefined;
    }
  };
  return { state, start, cancel: () => running.current?.abort() };
}

interface DownloadProps extends Asked {
  /** What is downloaded, for those who hear the page; the words on it by themselves where absent. */
  label?: string;
  className?: string;
  title?: string;
  /** A button of its own, and not a word in a line. */
  as?: 'link' | 'button' | 'main button';
  /** Where an error can be mended. */
  mend?: { to: string; words: string };
  children: ReactNode;
}

/** A file to be saved: every download of the page. The page stays, says how far it is, and what went wrong. */
export function Download({ href, body, label, className, title, as = 'link', mend, children }: DownloadProps) {
  const { state, start, cancel } = useDownload();
  const click = (e: MouseEvent) => {
    // A file by GET can be opened in another tab, as any link.
    if (e.ctrlKey || e.metaKey || e.shiftKey) return;
    e.preventDefault();
    void start({ href, body });
  };
  const busy = state.at === 'making' || state.at === 'coming';
  return (
    <>
      {as === 'link' && !body ? (
        <a
          href={href}
          aria-label={label}
          title={title}
          aria-busy={busy}
          onClick={click}
          className={
            className ??
            'inline-flex min-h-7 items-center underline decoration-line underline-offset-3 hover:decoration-ink'
          }
        >
          {children}
        </a>
      ) : as === 'link' ? (
        <QuietButton aria-label={label} aria-busy={busy} onClick={click} className={className}>
          {children}
        </QuietButton>
      ) : (
        <Button main={as === 'main button'} aria-label={label} disabled={busy} onClick={click} className={className}>
          {children}
        </Button>
      )}
      <Progress state={state} onCancel={cancel} />
      {state.at === 'failed' && (
        <div className="w-full">
          <ErrorNote error={state.error} />
          {mend && (
            <Link to={mend.to} className="underline decoration-line underline-offset-3">
              {mend.words}
            </Link>
          )}
        </div>
      )}
    </>
  );
}

function Progress({ state, onCancel }: { state: State; onCancel: () => void }) {
  if (state.at === 'making' || state.at === 'coming')
    return (
      <span role="status" className="text-[13px] text-quiet">
        {state.at === 'making'
          ? 'writing…'
          : state.of
            ? `${Math.round((100 * state.bytes) / state.of)} %`
            : `${(state.bytes / MEGA).toFixed(1)} MB`}{' '}
        <QuietButton onClick={onCancel}>Cancel</QuietButton>
      </span>
    );
  if (state.at === 'saved' && state.notSet)
    return (
      <span role="status" className="text-[13px] font-semibold">
        Letters that no face here has are shown as ?: {lettersOf(state.notSet)}.
      </span>
    );
  return null;
}

/** Letters with their numbers, from U+1F600 U+10330. */
const lettersOf = (numbers: string): string =>
  numbers
    .split(' ')
    .map((n) => `${String.fromCodePoint(parseInt(n.slice(2), 16))} (${n})`)
    .join(', ');
