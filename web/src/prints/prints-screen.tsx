import { memo, useCallback, useEffect } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { DecisionView } from '@rakuen/contract/matches';
import type { PrintView } from '@rakuen/contract/prints';
import { SETTINGS } from '@rakuen/core/print/settings';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useDecisionsQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Seal } from '../parts/seal.tsx';
import { useGradually } from '../parts/use-gradually.ts';
import { moveFocus } from '../parts/use-keys.ts';
import { useTable } from '../table/use-table.ts';
import { useBeginPrintMutation, usePrintsQuery } from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';

type Start = (what: { pictureId: string; conditionId: string } | { printId: string }) => void;

/** What was chosen and waits to be printed, what was begun, and the prints that were made. */
export function PrintsScreen() {
  const navigate = useNavigate();
  const made = usePrintsQuery('printed');
  const begun = usePrintsQuery('waiting');
  const { left, picture } = useTable();
  const [begin, beginning] = useBeginPrintMutation();
  const start = useCallback<Start>(
    (what) =>
      void begin(what)
        .unwrap()
        .then((print) => navigate(`/prints/${print.id}`))
        .catch(() => undefined),
    [begin, navigate],
  );
  useBeginFromAddress(start);
  const chosen = useChosen([...(made.data ?? []), ...(begun.data ?? [])]);
  const nothing = made.data?.length === 0 && begun.data?.length === 0 && chosen.length === 0;
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')}>
        {picture && left && (
          <Button disabled={beginning.isLoading} onClick={() => start({ pictureId: picture.id, conditionId: left.id })}>
            Begin {picture.title} on {left.paper.name}
          </Button>
        )}
      </ScreenHead>
      <PrintPlaces />
      <ErrorNote error={made.error ?? begun.error ?? beginning.error} />
      {made.isLoading && <Waiting what="Fetching the prints" />}
      {chosen.length > 0 && <Chosen chosen={chosen} busy={beginning.isLoading} onStart={start} />}
      {begun.data && begun.data.length > 0 && <Begun prints={begun.data} />}
      {nothing && (
        <Empty
          title="Nothing was printed yet"
          action={<Button onClick={() => void navigate('/match')}>To the match</Button>}
        >
          Choose a paper for a picture first; then begin its print here. Every setting is there already, and only what
          differs from last time asks to be looked at.
        </Empty>
      )}
      {made.data && made.data.length > 0 && <Made prints={made.data} onStart={start} />}
    </>
  );
}

/** Of each picture and paper the newest stamp counts; what is chosen and was never begun waits. */
function useChosen(prints: readonly PrintView[]): DecisionView[] {
  const { data: decisions = [] } = useDecisionsQuery();
  const newest = new Map([...decisions].reverse().map((d) => [`${d.pictureId} ${d.conditionId}`, d]));
  return [...newest.values()].filter(
    (d) => d.stamp === 'chosen' && !prints.some((p) => p.pictureId === d.pictureId && p.conditionId === d.conditionId),
  );
}

/** Pictures and print conditions by their ids. */
function useNames() {
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  return {
    titleOf: (id: string) => pictures.find((p) => p.id === id)?.title ?? '',
    conditionOf: (id: string) => conditions.find((c) => c.id === id),
  };
}

function Chosen({ chosen, busy, onStart }: { chosen: readonly DecisionView[]; busy: boolean; onStart: Start }) {
  const { titleOf, conditionOf } = useNames();
  return (
    <section aria-label="Chosen, not yet printed" className="mb-7">
      <h2 className="mb-1">Chosen, not yet printed</h2>
      <ul onKeyDown={moveFocus} className="border-t border-edge">
        {chosen.map((d) => (
          <li key={d.id} className="flex flex-wrap items-center gap-x-4 border-b border-line py-2">
            <Seal stamp="chosen" small />
            <span className="min-w-0 flex-1">
              <span className="font-serif">{titleOf(d.pictureId)}</span> on{' '}
              <span className="font-serif">{conditionOf(d.conditionId)?.paper.name}</span>
              <span className="block text-[13px] text-quiet">{d.reason}</span>
            </span>
            <Button disabled={busy} onClick={() => onStart({ pictureId: d.pictureId, conditionId: d.conditionId })}>
              Begin the print
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Begun({ prints }: { prints: readonly PrintView[] }) {
  const { titleOf, conditionOf } = useNames();
  return (
    <section aria-label="Waiting for the printer" className="mb-7">
      <h2 className="mb-1">Waiting for the printer</h2>
      <ul onKeyDown={moveFocus} className="border-t border-edge">
        {prints.map((p) => (
          <li key={p.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2">
            <span className="min-w-0 flex-1">
              <Link to={`/prints/${p.id}`} className="font-serif underline decoration-line underline-offset-3">
                {titleOf(p.pictureId)} on {conditionOf(p.conditionId)?.paper.name}
              </Link>
              , {size(p)}
            </span>
            <span className="text-[13px] text-quiet">{p.settings.printer}</span>
            <span className="text-[13px]">{toCheck(p)}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Only what differs from what went before is asked for. */
function toCheck({ unchecked = [] }: PrintView): string {
  if (unchecked.length === 0) return 'ready';
  return `check ${unchecked.map((key) => SETTINGS[key].name.toLowerCase()).join(', ')}`;
}

function Made({ prints, onStart }: { prints: PrintView[]; onStart: Start }) {
  const { titleOf, conditionOf } = useNames();
  const shown = useGradually(prints, 'made');
  const again = useCallback((printId: string) => onStart({ printId }), [onStart]);
  return (
    <section aria-label="Prints made">
      <h2 className="mb-1">Prints made</h2>
      <ul onKeyDown={moveFocus} className="border-t border-edge">
        {shown.map((p) => (
          <PrintLine
            key={p.id}
            print={p}
            title={titleOf(p.pictureId)}
            paper={conditionOf(p.conditionId)?.paper.name ?? ''}
            condition={conditionOf(p.conditionId) ? conditionLine(conditionOf(p.conditionId)!) : ''}
            onAgain={again}
          />
        ))}
      </ul>
    </section>
  );
}

const size = (p: PrintView) =>
  `${formatNumber(p.widthMm, 0)} × ${formatNumber(p.heightMm, 0)} mm${p.copies > 1 ? `, ${p.copies} copies` : ''}`;

/** A link from the match begins the print it names. */
function useBeginFromAddress(start: Start): void {
  const [params, setParams] = useSearchParams();
  const [pictureId, conditionId] = [params.get('picture'), params.get('condition')];
  useEffect(() => {
    if (!pictureId || !conditionId) return;
    setParams({}, { replace: true });
    start({ pictureId, conditionId });
    // Begun once for an address, whatever is drawn anew.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [pictureId, conditionId]);
}

const PrintLine = memo(function PrintLine({
  print,
  title,
  paper,
  condition,
  onAgain,
}: {
  print: PrintView;
  title: string;
  paper: string;
  condition: string;
  onAgain: (printId: string) => void;
}) {
  const { settings: s } = print;
  return (
    <li
      tabIndex={0}
      data-row
      className="unseen-unlaid grid grid-cols-[72px_minmax(0,1fr)_auto] items-start gap-x-4 border-b border-line py-2.5"
    >
      <img
        src={`/api/pictures/${print.pictureId}/preview`}
        alt=""
        loading="lazy"
        className="max-h-14 w-[72px] object-contain object-left-top"
      />
      <div className="min-w-0">
        <p>
          <Link
            to={`/prints/${print.id}`}
            className="font-serif text-[1.08rem] underline decoration-line underline-offset-3 hover:decoration-ink"
          >
            {title} on {paper}
          </Link>
          , {size(print)}
        </p>
        <p className="text-[13px]">
          {day(print.printedOn)} · {condition} · {[s.resolution, s.intent].filter(Boolean).join(', ')}
          {s.blackPointCompensation && ', black point compensated'}, sharpening {s.sharpening}
        </p>
        <p className="text-[13px]">
          <b>{print.verdict}</b>
          {print.verdictReason && `: ${print.verdictReason}`}
          {print.misprints > 0 && ` Spoiled on the way: ${print.misprints}, ${print.misprintCause}.`}
        </p>
      </div>
      <QuietButton onClick={() => onAgain(print.id)} aria-label={`Print ${title} again`}>
        Again
      </QuietButton>
    </li>
  );
});
