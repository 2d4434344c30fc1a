import { memo, useDeferredValue, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { LedgerEntry, LedgerView } from '@rakuen/contract/ledger';
import { WHEREABOUTS, type Whereabout } from '@rakuen/core/print/whereabouts';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { questionOf } from '../app/steps.ts';
import { Download } from '../parts/download.tsx';
import { QuietButton } from '../parts/button.tsx';
import { day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Seal } from '../parts/seal.tsx';
import { useGradually } from '../parts/use-gradually.ts';
import { moveFocus } from '../parts/use-keys.ts';
import { Answer } from './answer.tsx';
import { BackupsPlace } from './backups-place.tsx';
import { useLedgerInfiniteQuery, type Asked } from './ledger-api.ts';
import { Places } from './places.tsx';
import { HappenedPlace } from './happened-place.tsx';
import { WriteNote } from './notes.tsx';
import { ReadBack } from './read-back.tsx';

/** Everything decided and printed, newest first. */
export function LedgerScreen({ place }: { place: 'entries' | 'happened' | 'backups' }) {
  if (place === 'entries') return <EntriesPlace />;
  return (
    <>
      <ScreenHead title="Ledger" question={questionOf('/ledger')} />
      <Places />
      {place === 'happened' ? <HappenedPlace /> : <BackupsPlace />}
    </>
  );
}

/** What is asked of the ledger; what is left open is not asked. */
function useAsked() {
  const [params] = useSearchParams();
  const [words, setWords] = useState(params.get('q') ?? '');
  const [kind, setKind] = useState('');
  const asked = useDeferredValue(words.trim());
  const [since, setSince] = useState('');
  const [until, setUntil] = useState('');
  const query = {
    ...(asked && { q: asked }),
    ...(kind && { kind }),
    ...(since && { since }),
    ...(until && { until }),
  };
  const any = [words, kind, since, until].some(Boolean);
  return { query, any, words, setWords, kind, setKind, since, setSince, until, setUntil };
}

function EntriesPlace() {
  const at = useAsked();
  const { data, error, isLoading } = useLedgerInfiniteQuery(at.query);
  const first = data?.pages[0];
  return (
    <>
      <ScreenHead title="Ledger" question={questionOf('/ledger')}>
        <Filters at={at} />
        <TakenAway query={at.query} />
      </ScreenHead>
      <Places />
      <div className="mb-4 flex flex-wrap items-start gap-3">
        <WriteNote />
        <ReadBack />
      </div>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Opening the ledger" />}
      {first?.total === 0 &&
        (at.any ? (
          <p>Nothing in the ledger speaks of that.</p>
        ) : (
          <Empty
            title="The ledger is blank"
            action={
              <Link className="underline" to="/match">
                To the match
              </Link>
            }
          >
            Each stamp and each print is entered here, with its reason and every setting.
          </Empty>
        ))}
      {first && first.total > 0 && <Answer answer={first.answer} asked={Object.keys(at.query).length > 0} />}
      {first && first.total > 0 && <Years key={JSON.stringify(at.query)} query={at.query} first={first} />}
    </>
  );
}

/** Entries by calendar year, where there are several: each can be folded, and of a folded one nothing is fetched. */
function Years({ query, first }: { query: Asked; first: LedgerView }) {
  const { years = [], total } = first;
  const [unfolded, setUnfolded] = useState<readonly string[]>(() =>
    total <= first.entries.length ? years.map((y) => y.year) : years.slice(0, 1).map((y) => y.year),
  );
  if (years.length < 2) return <Entries query={query} />;
  return years.map(({ year, entries }) => {
    const open = unfolded.includes(year);
    return (
      <section key={year} aria-label={year} className="border-t border-edge">
        <h2 className="text-[1.1rem]">
          <button
            type="button"
            aria-expanded={open}
            className="flex min-h-10 w-full items-baseline gap-3 py-1.5 text-left"
            onClick={() => setUnfolded(open ? unfolded.filter((y) => y !== year) : [...unfolded, year])}
          >
            <span aria-hidden className="w-3">
              {open ? '▾' : '▸'}
            </span>
            {year}
            <span className="font-sans text-[13px] text-quiet">
              {entries} {entries === 1 ? 'entry' : 'entries'}
            </span>
          </button>
        </h2>
        {open && <Entries query={within(query, year)} />}
      </section>
    );
  });
}

/** What is asked, within a year. */
const within = (query: Asked, year: string): Asked => ({
  ...query,
  since: [query.since ?? '', `${year}-01-01`].sort().at(-1),
  until: [query.until ?? '9999', `${year}-12-31`].sort()[0],
});

function Entries({ query }: { query: Asked }) {
  const { data, error, isLoading, hasNextPage, fetchNextPage } = useLedgerInfiniteQuery(query);
  const all = useMemo(() => data?.pages.flatMap((p) => p.entries), [data]);
  const entries = useGradually(all, JSON.stringify(query));
  return (
    <>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Loading the entries" />}
      <ol onKeyDown={moveFocus}>
        {entries.map((e) => (
          <Entry key={e.id} entry={e} />
        ))}
      </ol>
      {hasNextPage && (
        <p className="my-3 flex items-baseline gap-4">
          <QuietButton onClick={() => void fetchNextPage()}>Show older</QuietButton>
          <span className="text-[13px] text-quiet">
            {all?.length} of {data?.pages[0].total}
          </span>
        </p>
      )}
    </>
  );
}

/** Words, kind and days. */
function Filters({ at }: { at: ReturnType<typeof useAsked> }) {
  return (
    <>
      <input
        type="search"
        value={at.words}
        onChange={(e) => at.setWords(e.target.value)}
        placeholder="Paper, picture, word"
        aria-label="Search the ledger"
        maxLength={200}
        className="min-h-8 w-52 rounded-[3px] border border-edge bg-field px-2"
      />
      <select
        aria-label="Show"
        value={at.kind}
        onChange={(e) => at.setKind(e.target.value)}
        className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
      >
        <option value="">all</option>
        <option value="decision">decisions</option>
        <option value="print">prints</option>
        <option value="misprint">misprints</option>
        <option value="trial">media settings</option>
        <option value="number">numbers</option>
        <option value="move">where prints went</option>
        <option value="note">notes</option>
      </select>
      <label className="flex items-center gap-1">
        <span className="text-quiet">from</span>
        <input
          type="date"
          value={at.since}
          onChange={(e) => at.setSince(e.target.value)}
          className="min-h-8 rounded-[3px] border border-edge bg-field px-1"
        />
      </label>
      <label className="flex items-center gap-1">
        <span className="text-quiet">to</span>
        <input
          type="date"
          value={at.until}
          onChange={(e) => at.setUntil(e.target.value)}
          className="min-h-8 rounded-[3px] border border-edge bg-field px-1"
        />
      </label>
    </>
  );
}

/** The same as files. */
function TakenAway({ query }: { query: object }) {
  const exported = new URLSearchParams({ ...query }).toString();
  const link = (format: string) => `/api/ledger.${format}${exported && `?${exported}`}`;
  return (
    <>
      <Download href={link('csv')}>CSV</Download>
      <Download href={link('json')}>JSON</Download>
      <Download href={link('pdf')}>Contact sheet</Download>
    </>
  );
}

const Entry = memo(function Entry({ entry: e }: { entry: LedgerEntry }) {
  const [open, setOpen] = useState(false);
  const stamp = e.kind === 'decision';
  return (
    <li
      tabIndex={0}
      data-row
      className="unseen-unlaid grid grid-cols-[96px_104px_minmax(0,1fr)] items-baseline gap-x-4 border-t border-line py-2.5"
    >
      <time dateTime={e.at}>{day(e.at)}</time>
      <span>
        {stamp ? <Seal stamp={e.outcome as Stamp} small /> : <span className="text-[13px]">{outcomeOf(e)}</span>}
      </span>
      <div className="min-w-0">
        <p className="break-words">
          {e.pictureId && <PageLink to={`/ledger/pictures/${e.pictureId}`}>{e.picture}</PageLink>}
          {e.pictureId && e.paperId && ' on '}
          {e.paperId && (
            <PageLink to={e.kind === 'print' ? `/prints/${e.id}` : `/ledger/papers/${e.paperId}`}>{e.paper}</PageLink>
          )}
        </p>
        {e.reason && <p className="font-serif break-words whitespace-pre-line">{e.reason}</p>}
        <details
          className="text-[13px]"
          onToggle={(t) => setOpen(t.currentTarget.open)}
          hidden={!e.condition && detailsOf(e).length === 0}
        >
          <summary className="cursor-pointer text-quiet">{e.condition || 'details'}</summary>
          <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-4">
            {(open ? detailsOf(e) : []).map(([key, value]) => (
              <div key={key} className="contents">
                <dt className="text-quiet">{DETAIL_NAMES[key] ?? key}</dt>
                <dd className="break-words">{shown(key, value)}</dd>
              </div>
            ))}
          </dl>
        </details>
      </div>
    </li>
  );
});

/** What is told of it besides; ids are for those who read the file. */
const detailsOf = ({ details }: LedgerEntry) => Object.entries(details).filter(([key]) => !FOR_FILES.includes(key));

function PageLink({ to, children }: { to: string; children: string }) {
  return (
    <Link
      to={to}
      className="font-serif text-[1.06rem] underline decoration-line underline-offset-3 hover:decoration-ink"
    >
      {children}
    </Link>
  );
}

/** What came of it, with what it is. */
function outcomeOf({ kind, outcome, details }: LedgerEntry): string {
  if (kind === 'number') return `${String(details.written)}, ${WHEREABOUTS[outcome as Whereabout]?.name ?? outcome}`;
  if (kind === 'move')
    return [details.written, WHEREABOUTS[outcome as Whereabout]?.name ?? outcome].filter(Boolean).join(', ');
  if (kind === 'note') return 'note';
  if (kind === 'misprint') return `spoiled: ${outcome}`;
  return kind === 'trial' ? `setting: ${outcome}` : `print, ${outcome}`;
}

/** Kept for files that are read back; no words of a page. */
const FOR_FILES = [
  'printId',
  'finding',
  'recipeId',
  'recipeValues',
  'recipeChangedAt',
  'series',
  'number',
  'of',
  'carriedOver',
];

const DETAIL_NAMES: Record<string, string> = {
  acceptedBy: 'box accepted by',
  batch: 'box',
  blackInk: 'black ink',
  blackOvercoat: 'black overcoat',
  blackPointCompensation: 'black point compensation',
  code: 'record code',
  costDeltaE: 'cost then, ΔE00',
  decidedBy: 'decided by',
  decidedWhy: 'why',
  dryingMinutes: 'drying, min',
  headHeight: 'head height',
  heightMm: 'height, mm',
  inkSet: 'ink set',
  judgedIn: 'judged in',
  liftStops: 'lift, stops',
  lostShare: 'out of gamut then',
  mediaSetting: 'media setting',
  minutes: 'minutes at the printer',
  misprintCause: 'misprint cause',
  misprints: 'sheets spoiled',
  notChecked: 'not checked',
  notCheckedWhy: 'why not checked',
  outsideShare: 'outside the gamut',
  pictureHash: 'SHA-256 of the picture',
  place: 'place in the ranking then',
  printFile: 'print file',
  printFileHash: 'SHA-256 of the print file',
  printMode: 'print mode',
  profileHash: 'SHA-256 of the profile',
  recipeName: 'recipe name',
  recipeVersion: 'recipe version',
  recordedAt: 'recorded',
  score: 'score then, of 10',
  widthMm: 'width, mm',
  written: 'number',
};

function shown(key: string, value: string | number | boolean): string {
  if (key === 'score') return Number(value).toFixed(1);
  if (key === 'outsideShare' || key === 'lostShare') return `${(Number(value) * 100).toFixed(1)} % of the picture`;
  if (key === 'costDeltaE') return Number(value).toFixed(2);
  if (key === 'recordedAt' || key === 'on') return day(String(value));
  if (/hash$/i.test(key)) return `${String(value).slice(0, 12)}…`;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  return String(value);
}
