import { Eye } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { readingBehind, type ShownCondition as Lit } from '@rakuen/core/measurement/basis';
import type { ConditionHead, ConditionView } from '@rakuen/contract/conditions';
import type { ObservationView } from '@rakuen/contract/observations';
import { isEstimated, type Estimated, type Figure as FigureData } from '@rakuen/core/measurement/figure';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import type { Observation } from '@rakuen/core/measurement/observations';
import { formatBetween, formatFigure, formatNumber } from '@rakuen/core/measurement/show';
import { useConditionQuery } from '../api/api.ts';
import { asStated, day } from './label.ts';
import { ErrorNote, Waiting } from './messages.tsx';

/** A print condition as it is shown: as it was measured, or with figures recomputed for another light. */
export type ShownCondition = ConditionView & Pick<Lit, 'lit'>;
/** In a list it is known in part; where a figure comes from is fetched when it is asked. */
type Known = ShownCondition | (ConditionHead & Pick<Lit, 'lit'>);
const isWhole = (c: Known): c is ShownCondition => 'readings' in c;

/**
 * A figure of a condition: measured upright, judged in the serif with an eye, a profile's word italic like a claim; a
 * click opens where it came from. What can't be computed says which reading is missing.
 */
export function Measured({
  measure,
  condition,
  unit = true,
  note = false,
}: {
  measure: Measure;
  condition: Known;
  unit?: boolean;
  note?: boolean;
}) {
  const [asked, setAsked] = useState(false);
  const figures: Readonly<Record<string, FigureData>> = condition.facts?.figures ?? {};
  const figure = figures[measure.key];
  if (!figure) return <Missing why="Nothing was measured of it yet." />;
  if (figure.shape === 'missing') return <Missing why={figure.why} />;
  const kind = kindOf(measure, condition);
  const ofAnotherLight = condition.lit !== undefined && !('observe' in measure) && !condition.lit.keys.has(measure.key);
  const estimated = isEstimated(figure);
  const look = `rounded-[2px] px-0.5 text-left underline underline-offset-4 hover:decoration-ink ${estimated ? 'decoration-quiet decoration-dashed' : 'decoration-line decoration-dotted'} ${kind === 'judged' ? 'font-serif' : kind === 'told by a profile' ? 'italic' : ''}`;
  const words = (
    <>
      <KindSign kind={estimated ? 'estimated' : kind} />
      <span className="whitespace-pre">{formatFigure(measure, figure)}</span>
      {unit && figure.shape === 'scalar' && <span className="text-quiet"> {measure.unit}</span>}
      {ofAnotherLight && (
        <span
          className="text-[11px] text-quiet"
          title={`Measured under D50; not recomputed for ${condition.lit.under}`}
        >
          {' '}
          D50
        </span>
      )}
      {note && figure.shape === 'scalar' && figure.note && <span className="text-quiet">, {figure.note}</span>}
      {note && figure.between && (
        <span className="text-quiet">, estimated, {formatBetween(measure, figure.between)}</span>
      )}
    </>
  );
  // A table holds hundreds of figures: what a click opens is made when one is clicked.
  if (!asked)
    return (
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={false}
        className={look}
        onClick={() => setAsked(true)}
      >
        {words}
      </button>
    );
  return (
    <Popover.Root defaultOpen>
      <Popover.Trigger className={look}>{words}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-50 w-80 border border-edge bg-sheet p-4 text-[13px]"
        >
          {isWhole(condition) ? (
            <Source measure={measure} figure={figure} condition={condition} kind={kind} />
          ) : (
            <FetchedSource measure={measure} figure={figure} id={condition.id} kind={kind} />
          )}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** What sets a figure that was not measured apart from one that was. */
function KindSign({ kind }: { kind: Kind }) {
  if (kind === 'judged')
    return (
      <>
        <Eye size={13} aria-hidden className="mr-1 inline-block align-[-2px]" />
        <span className="sr-only">judged </span>
      </>
    );
  if (kind !== 'estimated') return null;
  return (
    <>
      <span aria-hidden>≈ </span>
      <span className="sr-only">estimated </span>
    </>
  );
}

type Kind = 'measured' | 'estimated' | 'judged' | 'told by a profile';

function kindOf(measure: Measure, { facts }: Known): Kind {
  if (measure.judged) return 'judged';
  const figures: Readonly<Record<string, FigureData>> = facts?.figures ?? {};
  const figure = figures[measure.key];
  if (isEstimated(figure)) return 'estimated';
  return !('observe' in measure) && facts?.source === 'profile' ? 'told by a profile' : 'measured';
}

function FetchedSource({ id, ...of }: Omit<Parameters<typeof Source>[0], 'condition'> & { id: string }) {
  const { data, error } = useConditionQuery(id);
  if (error) return <ErrorNote error={error} />;
  return data ? <Source {...of} condition={data} /> : <Waiting what="Fetching where it comes from" />;
}

function Source({
  measure,
  figure,
  condition,
  kind,
}: {
  measure: Measure;
  figure: Exclude<FigureData, { shape: 'missing' }>;
  condition: ShownCondition;
  kind: Kind;
}) {
  const spread =
    figure.sd < 0.001 ? 'below 0.001' : formatNumber(figure.sd, figure.sd < 0.01 ? 4 : figure.sd < 1 ? 3 : 0);
  const ofPatches = !('observe' in measure);
  return (
    <div className="space-y-2">
      <p className="font-serif text-[15px]">
        {measure.name},{' '}
        {condition.lit?.keys.has(measure.key)
          ? kind === 'estimated'
            ? figure.estimatedFrom === 'lamp'
              ? 'recomputed; the lamp’s UV was not measured'
              : 'recomputed with an estimated brightener'
            : 'recomputed'
          : kind}
      </p>
      <p>{measure.definition}</p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
        {figure.between && (
          <Term name="Estimated">
            {figure.estimatedFrom === 'lamp' ? '' : 'nine times in ten '}
            {figure.shape === 'colour' ? 'b* lies ' : ''}between{' '}
            {formatBetween(measure, figure.between).replace(' to ', ' and ')},{' '}
            {ESTIMATED[figure.estimatedFrom ?? 'brightener']}
          </Term>
        )}
        <Term name={kind === 'judged' ? 'How sure' : kind === 'estimated' ? 'Spread' : 'Repeatability'}>
          ± {spread} {figure.shape === 'colour' ? 'ΔE*ab' : measure.unit} (1 s)
          {kind === 'estimated'
            ? ''
            : kind === 'judged'
              ? ', half a grade: our own assumption of an eye'
              : ofPatches && condition.facts?.repeats === undefined && ', our own assumption: nothing was read twice'}
        </Term>
        {figure.shape === 'scalar' && figure.note && <Term name="Note">{figure.note}</Term>}
        {condition.lit?.keys.has(measure.key) && (
          <Term name="Seen under">
            {condition.lit.under}; from the spectra that were read, the eye used to the light
          </Term>
        )}
        {ofPatches ? (
          <FromReading measure={measure} condition={condition} />
        ) : (
          <FromObservation observation={latestFor(measure, condition)} />
        )}
        <Term name="Source">{measure.source}</Term>
      </dl>
    </div>
  );
}

/** What an estimate rests on, and what would measure it. */
const ESTIMATED: Record<Estimated, string> = {
  brightener: 'from the shape of the white’s one spectrum; a reading without UV (M2) beside it would measure it',
  lamp: 'with no UV in the lamp, and with as much as daylight has; its spectrum from 340 nm on would settle it',
  both: 'from the shape of the white’s one spectrum, and between no UV in the lamp and as much as daylight has',
};

function FromReading({ measure, condition }: { measure: Measure; condition: ShownCondition }) {
  const reading = readingBehind(condition, measure);
  const borrowed = condition.facts?.borrowed?.[measure.key] !== undefined;
  return (
    <>
      <Term name="Reading">
        {reading?.fileName ?? '—'}
        {reading?.batch && `, ${reading.batch}`}
        {borrowed && ': the set that speaks does not hold what this figure asks for'}
      </Term>
      <Term name="Condition">{reading?.measurementCondition ?? 'not stated'}, D50, 2°</Term>
      <Term name="Measured">{reading?.measuredAt ? asStated(reading.measuredAt) : 'date not stated'}</Term>
      <Term name="Instrument">{reading?.instrument ?? 'not stated'}</Term>
    </>
  );
}

function FromObservation({ observation }: { observation?: ObservationView }) {
  if (!observation) return null;
  return (
    <>
      <Term name="By">
        {observation.by}, {day(observation.takenAt)}
      </Term>
      {observation.instrument && <Term name="Instrument">{observation.instrument}</Term>}
      {observation.light && <Term name="Light">{observation.light}</Term>}
      {observation.note && <Term name="Note">{observation.note}</Term>}
    </>
  );
}

/** The observation a bench measure speaks of: the last after which its figure was there. */
function latestFor(measure: Measure, { observations }: ConditionView): ObservationView | undefined {
  if (!('observe' in measure)) return undefined;
  return [...observations]
    .reverse()
    .find(
      (o) =>
        measure.observe([{ kind: o.kind, ...o.value } as Observation]).shape !== 'missing' ||
        OF_TWO[measure.key]?.includes(o.kind),
    );
}
/** Figures that need two observations. */
const OF_TWO: Record<string, readonly string[]> = { bulk: ['weight', 'thickness'] };

export function Term({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt className="text-quiet">{name}</dt>
      <dd className="min-w-0 break-words">{children}</dd>
    </>
  );
}

function Missing({ why }: { why: string }) {
  return (
    <span className="text-quiet" title={why}>
      —<span className="sr-only"> {why}</span>
    </span>
  );
}

/** A maker's claim: italic, with a hollow mark. */
export function Claimed({ children }: { children: ReactNode }) {
  return (
    <span className="claimed" title="As the maker claims it; not measured here">
      <span aria-hidden>◦ </span>
      {children}
      <span className="sr-only"> (claimed)</span>
    </span>
  );
}
