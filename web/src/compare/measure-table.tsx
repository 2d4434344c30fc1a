import { ArrowDownUp, EyeOff } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import { differenceOf } from '@rakuen/core/measurement/difference';
import { inOrder, marksOf } from '@rakuen/core/measurement/marks';
import { alikeMeasures, comparable, unlike } from '@rakuen/core/measurement/basis';
import type { Figure } from '@rakuen/core/measurement/figure';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { MEASURE_GROUPS, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { formatNumber, supportedDigits } from '@rakuen/core/measurement/show';
import { CLAIMS } from '@rakuen/core/measurement/claims';
import { describePair } from '@rakuen/core/measurement/sentences';
import type { Thresholds } from '@rakuen/core/measurement/thresholds';
import { QuietButton } from '../parts/button.tsx';
import { Claimed, Measured } from '../parts/figure.tsx';
import { TickField } from '../parts/form.tsx';
import { GroupHead } from '../parts/group-head.tsx';
import { conditionLine, NOT_CLAIMED, settingLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { useRemembered } from '../parts/remembered.ts';
import type { LitCondition } from './use-light.ts';

const EVERY = new Map(MEASURES.map((m) => [m.key, m]));

/** Figures of a measure that may be put in one order; the others come after, without one. */
function figuresOf(laid: readonly LitCondition[], m: Measure) {
  const alike = new Set(comparable(m, laid));
  return laid.map((c) => ({ id: c.id, figure: alike.has(c) ? c.facts?.figures[m.key] : undefined, condition: c }));
}

interface Laid {
  readonly laid: readonly LitCondition[];
  readonly left: LitCondition;
  readonly right: LitCondition;
}

/** Every measure of all that lies on the table: put in order, hidden, with spread, or as differences from the sheet in the left hand. */
export function MeasureTable({ laid, left, right, thresholds }: Laid & { thresholds: Thresholds }) {
  const shown = useShown();
  const { by } = shown;
  const order = by ? inOrder(figuresOf(laid, EVERY.get(by)!), EVERY.get(by)!).map((f) => f.condition) : laid;
  const columns = laid.length + 2;
  return (
    <section aria-label="Measures of all papers">
      <Tools shown={shown} />
      {/* What is said to a screen reader alone stands where it belongs, and not beside the page. */}
      <div className="relative" role="region" aria-label="All measures">
        <table className="w-full table-fixed border-collapse text-[13px] [&_.whitespace-pre]:whitespace-pre-wrap min-[1200px]:text-[14px]">
          <colgroup>
            <col className="w-[17%] min-[1600px]:w-[20%]" />
            <col className="w-[13%]" />
            {order.map((c) => (
              <col key={c.id} />
            ))}
          </colgroup>
          <Head {...{ laid, order, left, right }} />
          {groupsOf(left, right, thresholds, shown.away).map((group) => (
            <tbody key={group.name}>
              <GroupHead name={group.name} columns={columns} />
              {group.measures.map((m) => (
                <MeasureRow
                  key={m.key}
                  measure={m}
                  {...{ laid, order, left, right, thresholds }}
                  spread={shown.spread}
                  differences={shown.differences}
                  ordered={by === m.key}
                  onOrder={() => shown.setBy(by === m.key ? undefined : m.key)}
                  onHide={() => shown.hide([...shown.away, m.key])}
                />
              ))}
            </tbody>
          ))}
          <Claims {...{ order, left, right, columns }} />
        </table>
      </div>
    </section>
  );
}

/** What of the table is shown, and in which order. */
function useShown() {
  const [by, setBy] = useState<string>();
  const [spreadSaid, setSpread] = useRemembered('spread-shown', 'yes');
  const [differences, setDifferences] = useState(false);
  const [hidden, setHidden] = useRemembered('hidden-measures', '');
  return {
    by,
    setBy,
    spread: spreadSaid === 'yes',
    setSpread: (on: boolean) => setSpread(on ? 'yes' : 'no'),
    differences,
    setDifferences,
    away: new Set(hidden.split(',').filter(Boolean)),
    hide: (keys: readonly string[]) => setHidden([...new Set(keys)].join(',')),
  };
}
type Shown = ReturnType<typeof useShown>;

/** What parts the two in hand comes first, as plainly as it is seen; the rest in its groups. */
function groupsOf(left: LitCondition, right: LitCondition, thresholds: Thresholds, away: ReadonlySet<string>) {
  const apart = left.id === right.id ? [] : partingMeasures(left, right, thresholds).filter((m) => !away.has(m.key));
  return [
    { name: 'What parts the two in hand', measures: apart },
    ...MEASURE_GROUPS.map(({ name, measures }) => ({
      name,
      measures: measures.filter((m) => !away.has(m.key) && !apart.includes(m)),
    })),
  ].filter((g) => g.measures.length > 0);
}

const inHand = (c: LitCondition, { left, right }: Pick<Laid, 'left' | 'right'>) =>
  c.id === left.id || c.id === right.id ? 'bg-sheet' : '';

function Tools({ shown }: { shown: Shown }) {
  const { away, by } = shown;
  return (
    <div className="flex flex-wrap items-center gap-x-6">
      <TickField
        label="Differences from the left hand"
        checked={shown.differences}
        onChange={(e) => shown.setDifferences(e.target.checked)}
      />
      <TickField label="With their spread" checked={shown.spread} onChange={(e) => shown.setSpread(e.target.checked)} />
      {by && <QuietButton onClick={() => shown.setBy(undefined)}>In the order of the table again</QuietButton>}
      {away.size > 0 && (
        <QuietButton onClick={() => shown.hide([])}>
          Show {away.size} hidden {away.size === 1 ? 'measure' : 'measures'}
        </QuietButton>
      )}
      <span className="ml-auto text-[13px] text-quiet">
        ▲ best, ▽ least; where no mark stands, schools differ or nothing surely parts them
      </span>
    </div>
  );
}

/** Every paper by its letter, with what it is printed with. */
function Head({ laid, order, left, right }: Laid & { order: readonly LitCondition[] }) {
  const letter = new Map(laid.map((c, i) => [c.id, MARKS[i].letter]));
  return (
    // The head stays in sight while the rows go by under it.
    <thead className="sticky -top-5 z-10 bg-ground shadow-[0_1px_0_var(--edge)]">
      <tr className="align-bottom">
        <th scope="col" className="py-1 pr-2 text-left font-normal text-quiet">
          Measured
        </th>
        <th scope="col" className="py-1 pr-2 text-left font-normal text-quiet">
          Left, right
        </th>
        {order.map((c) => (
          <th key={c.id} scope="col" className={`px-1.5 py-1 text-left font-normal ${inHand(c, { left, right })}`}>
            <span className="font-serif font-semibold">{letter.get(c.id)}</span>{' '}
            {c.id === left.id && <span className="text-quiet">left hand</span>}
            {c.id === right.id && <span className="text-quiet">right hand</span>}
            <span className="block truncate font-serif" title={`${c.paper.name}, ${conditionLine(c)}`}>
              {c.paper.name}
            </span>
            <span className="block truncate text-[12px] text-quiet" title={conditionLine(c)}>
              {settingLine(c)}
            </span>
          </th>
        ))}
      </tr>
    </thead>
  );
}

function Claims({
  order,
  left,
  right,
  columns,
}: Omit<Laid, 'laid'> & { order: readonly LitCondition[]; columns: number }) {
  return (
    <tbody>
      <GroupHead name="As the makers claim" columns={columns} />
      {CLAIMS.map(({ key, claim }) => (
        <tr key={key} className="border-b border-line">
          <th scope="row" className="py-1 pr-2 text-left font-normal">
            {claim.name}, claimed
          </th>
          <td className="py-1 pr-2 text-quiet">not judged</td>
          {order.map((c) => (
            <td key={c.id} className={`px-1.5 py-1 break-words ${inHand(c, { left, right })}`}>
              <Claimed>{claim.says(c.paper) ?? NOT_CLAIMED}</Claimed>
            </td>
          ))}
        </tr>
      ))}
    </tbody>
  );
}

interface RowProps extends Laid {
  readonly measure: Measure;
  readonly order: readonly LitCondition[];
  readonly thresholds: Thresholds;
  readonly spread: boolean;
  readonly differences: boolean;
  /** The papers stand in its order. */
  readonly ordered: boolean;
  readonly onOrder: () => void;
  readonly onHide: () => void;
}

/** One measure of every paper. */
function MeasureRow({ measure: m, laid, order, left, right, thresholds, spread, differences, ...row }: RowProps) {
  const [l, r] = [left.facts?.figures[m.key], right.facts?.figures[m.key]];
  const why = unlike(m, left, right);
  const difference = l && r && !why ? differenceOf(m, l, r, thresholds) : undefined;
  const placed = new Set(comparable(m, laid));
  const marks = marksOf(figuresOf(laid, m), m, thresholds);
  return (
    <tr className="group border-b border-line align-baseline">
      <th scope="row" className="relative py-1 pr-2 text-left font-normal" title={m.definition}>
        {m.name}{' '}
        <span className="text-[12px] text-quiet">{m.unit === ': 1' || m.name.endsWith(m.unit) ? '' : m.unit}</span>
        <span className="absolute top-1 right-0 flex bg-ground opacity-0 group-focus-within:opacity-100 group-hover:opacity-100 [@media(hover:none)]:opacity-100">
          <RowButton label={`Order the papers by ${m.name}`} pressed={row.ordered} onClick={row.onOrder}>
            <ArrowDownUp size={13} aria-hidden />
          </RowButton>
          <RowButton label={`Hide ${m.name}`} onClick={row.onHide}>
            <EyeOff size={13} aria-hidden />
          </RowButton>
        </span>
      </th>
      <td className="py-1 pr-2 text-[12.5px] leading-tight">
        {difference ? (
          difference.verdict
        ) : (
          <span className="text-[12px] text-quiet">
            {why && isThere(l) && isThere(r) ? `not compared: ${why}` : '—'}
          </span>
        )}
      </td>
      {order.map((c, place) => (
        <td key={c.id} className={`px-1.5 py-1 ${inHand(c, { left, right })}`}>
          {row.ordered && placed.has(c) && <span className="mr-1 text-[12px] text-quiet">{place + 1}.</span>}
          {differences && c.id !== left.id && !unlike(m, left, c) ? (
            <DifferenceCell measure={m} of={c} from={left} />
          ) : (
            <Measured measure={m} condition={c} unit={m.unit === ': 1'} />
          )}
          {marks.has(c.id) && (
            <span className="ml-1 text-[11px]">
              <span aria-hidden>{marks.get(c.id) === 'best' ? '▲' : '▽'}</span>
              <span className="sr-only"> {marks.get(c.id)}</span>
            </span>
          )}
          {spread && !differences && <Spread measure={m} of={c} />}
        </td>
      ))}
    </tr>
  );
}

/** Measures in which the two in hand differ so that it can be seen, the plainest first. */
function partingMeasures(left: LitCondition, right: LitCondition, thresholds: Thresholds): Measure[] {
  if (!left.facts || !right.facts) return [];
  return describePair(alikeMeasures(left, right), left.facts.figures, right.facts.figures, thresholds)
    .filter((t) => t.verdict.startsWith('visible'))
    .map((t) => EVERY.get(t.measure)!);
}

function RowButton({
  label,
  pressed,
  onClick,
  children,
}: {
  label: string;
  pressed?: boolean;
  onClick: () => void;
  children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      aria-pressed={pressed}
      onClick={onClick}
      className={`-my-1 flex size-[26px] items-center justify-center rounded-[3px] hover:bg-field ${pressed ? 'bg-field' : ''}`}
    >
      {children}
    </button>
  );
}

/** How far a paper lies from the one in the left hand, with its sign. */
function DifferenceCell({ measure, of, from }: { measure: Measure; of: LitCondition; from: LitCondition }) {
  const [p, q] = [of.facts?.figures[measure.key], from.facts?.figures[measure.key]];
  if (p?.shape === 'colour' && q?.shape === 'colour')
    return <>{[0, 1, 2].map((c) => signed(p.lab[c] - q.lab[c], 1)).join('  ')}</>;
  if (p?.shape !== 'scalar' || q?.shape !== 'scalar') return <span className="text-quiet">—</span>;
  return <>{signed(p.value - q.value, supportedDigits(Math.hypot(p.sd, q.sd), measure.digits))}</>;
}

const isThere = (f: Figure | undefined) => f !== undefined && f.shape !== 'missing';
const signed = (value: number, digits: number) => `${value > 0 ? '+' : ''}${formatNumber(value, digits)}`;

function Spread({ measure, of }: { measure: Measure; of: LitCondition }) {
  const figure = of.facts?.figures[measure.key];
  if (!figure || figure.shape === 'missing') return null;
  return (
    <span className="text-[12px] whitespace-nowrap text-quiet">
      {' '}
      ± {figure.sd < 0.01 ? '<0.01' : formatNumber(figure.sd, figure.sd < 1 ? 2 : 0)}
    </span>
  );
}
