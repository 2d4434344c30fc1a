import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { Figure as FigureData } from '@rakuen/core/measurement/figure';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { formatFigure, formatNumber } from '@rakuen/core/measurement/show';

/** A measured figure: upright; a click opens where it came from. What can't be computed says which reading is missing. */
export function Measured({ measure, condition, unit = true, note = false }: { measure: Measure; condition: ConditionView; unit?: boolean; note?: boolean }) {
  const figure = condition.facts?.figures[measure.key];
  if (!figure) return <Missing why="Nothing was measured of it yet." />;
  if (figure.shape === 'missing') return <Missing why={figure.why} />;
  return (
    <Popover.Root>
      <Popover.Trigger className="rounded-[2px] px-0.5 text-left underline decoration-line decoration-dotted underline-offset-4 hover:decoration-ink">
        {formatFigure(measure, figure)}
        {unit && figure.shape === 'scalar' && <span className="text-quiet"> {measure.unit}</span>}
        {note && figure.shape === 'scalar' && figure.note && <span className="text-quiet">, {figure.note}</span>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={6} collisionPadding={12} className="z-50 w-80 border border-edge bg-sheet p-4 text-[13px]">
          <Source measure={measure} figure={figure} condition={condition} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Source({ measure, figure, condition }: { measure: Measure; figure: Exclude<FigureData, { shape: 'missing' }>; condition: ConditionView }) {
  const reading = condition.readings.find((r) => r.primary);
  const spread = figure.sd < 0.001 ? 'below 0.001' : formatNumber(figure.sd, figure.sd < 0.01 ? 4 : figure.sd < 1 ? 3 : 0);
  return (
    <div className="space-y-2">
      <p className="font-serif text-[15px]">{measure.name}, measured</p>
      <p>{measure.definition}</p>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-0.5">
        <Term name="Repeatability">
          ± {spread} {figure.shape === 'colour' ? 'ΔE*ab' : measure.unit} (1 s){condition.facts?.repeats === undefined && ', our own assumption: nothing was read twice'}
        </Term>
        {figure.shape === 'scalar' && figure.note && <Term name="Note">{figure.note}</Term>}
        <Term name="Reading">{reading?.fileName ?? '—'}</Term>
        <Term name="Condition">{reading?.measurementCondition ?? 'not stated'}, D50, 2°</Term>
        <Term name="Measured">{reading?.measuredAt ?? 'date not stated'}</Term>
        <Term name="Instrument">{reading?.instrument ?? 'not stated'}</Term>
        <Term name="Source">{measure.source}</Term>
      </dl>
    </div>
  );
}

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
