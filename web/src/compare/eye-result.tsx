import { CartesianGrid, ErrorBar, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import type { EyeView } from '@rakuen/contract/eye';
import { type EyeCriterion } from '@rakuen/contract/vocabulary';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { CLARITIES, timesNeeded } from '@rakuen/core/eye/decision';
import type { Figure } from '@rakuen/core/measurement/figure';
import { dmax } from '@rakuen/core/measurement/measures/dmax';
import { unlike } from '@rakuen/core/measurement/basis';
import { white } from '@rakuen/core/measurement/measures/white';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { formatFigure, formatNumber } from '@rakuen/core/measurement/show';
import type { ConditionView } from '@rakuen/contract/conditions';
import { AXIS } from '../parts/chart.ts';
import { printName } from './print-name.ts';

/** The measure that asks what the criterion asks, and which way it points. */
const MEASURED: Partial<Record<EyeCriterion, { measure: Measure; of: (f: Figure) => number | undefined }>> = {
  'deeper black': { measure: dmax, of: (f) => (f.shape === 'scalar' ? f.value : undefined) },
  // Whiter is nearer to the perfect white, in lightness and in tint.
  whiter: { measure: white, of: (f) => (f.shape === 'colour' ? -deltaE2000(f.lab, [100, 0, 0]) : undefined) },
};
const NINETY_FIVE = 1.96;
/** Whether one place stands clear of another: beyond chance, 95 in 100. */
const standsClear = (p: EyeView['places'][number], q: EyeView['places'][number]) =>
  p.scale - q.scale > NINETY_FIVE * Math.hypot(p.error ?? Infinity, q.error ?? Infinity);

type NameOf = (id: string) => ConditionView | undefined;

/** What the eye said: who comes first, how far apart they lie, and where the instrument says otherwise. */
export function EyeResult({ eye, nameOf }: { eye: EyeView; nameOf: NameOf }) {
  const known = eye.places.flatMap((p) => nameOf(p.conditionId) ?? []);
  const nameIn = (id: string) => {
    const one = nameOf(id);
    return one && printName(one, known);
  };
  const data = eye.places.map((p, i) => ({
    ...p,
    rank: eye.places.length - i,
    name: nameIn(p.conditionId) ?? p.code,
    spread: NINETY_FIVE * (p.error ?? 0),
  }));
  return (
    <div className="space-y-3">
      <p className="font-serif text-[1.1rem]">
        {verdictInWords(
          eye,
          data.map((d) => d.name),
        )}{' '}
        <span className="font-sans text-[13px] text-quiet">
          (chance of guessing so {chanceInWords(eye.chance ?? 1)}; χ² {formatNumber(eye.chiSquared ?? 0, 1)}, likelihood
          ratio against “all alike”)
        </span>
      </p>
      <Scale data={data} />
      <JudgedTable data={data} nameOf={nameOf} asked={MEASURED[eye.criterion]} />
      {quarrelsOf(eye, nameOf).map((q) => (
        <p key={q} className="border-l-4 border-ink bg-field px-3 py-1.5">
          {q}
        </p>
      ))}
    </div>
  );
}

const chanceInWords = (chance: number) => (chance < 0.001 ? 'under 0.1 %' : `${formatNumber(100 * chance, 1)} %`);

/** What the answers allow to be said, and where they allow nothing what would. */
function verdictInWords(eye: EyeView, names: readonly string[]): string {
  const clarity = eye.clarity ?? 'clear';
  switch (eye.verdict) {
    case 'distinguishable':
      return standsClear(eye.places[0], eye.places[1])
        ? `By this eye, ${names[0]} comes first.`
        : `This eye distinguishes some of them. ${names[0]} and ${names[1]} lead; which of the two is better it does not decide.`;
    case 'no difference found':
      return `No difference found. So many looks find a difference that is ${CLARITIES[clarity].name} in 4 of 5 comparisons; a smaller one may remain.`;
    default: {
      const needed = timesNeeded(names.length, clarity);
      return `Too few looks to say. ${needed === undefined ? '' : `A difference that is ${CLARITIES[clarity].name} needs each pair ${needed} times; it was seen ${eye.times} ${eye.times === 1 ? 'time' : 'times'}.`}`;
    }
  }
}

/** Where the eye and the instrument disagree: a pair the eye ranks is measured the other way round. */
function quarrelsOf(eye: EyeView, nameOf: NameOf): string[] {
  // What guessing gives as well contradicts no instrument.
  const asked = eye.verdict === 'distinguishable' ? MEASURED[eye.criterion] : undefined;
  const value = (c?: ConditionView) => {
    const f = c?.facts?.figures[asked?.measure.key ?? ''];
    return f && asked?.of(f);
  };
  return eye.places.flatMap((p, i) =>
    eye.places.slice(i + 1).flatMap((q) => {
      const [one, other] = [nameOf(p.conditionId), nameOf(q.conditionId)];
      const [a, b] = [value(one), value(other)];
      // Read wet against dried, or with UV against without: by that the eye is not contradicted.
      const alike = one && other && asked && unlike(asked.measure, one, other) === undefined;
      return alike && standsClear(p, q) && a !== undefined && b !== undefined && a < b
        ? [`The eye puts ${one.paper.name} before ${other.paper.name}; measured it is the other way round.`]
        : [];
    }),
  );
}

type Judged = EyeView['places'][number] & { rank: number; name: string; spread: number };

/** How often each was chosen, with how sure that is. */
function Scale({ data }: { data: readonly Judged[] }) {
  const range = Math.ceil(Math.max(1, ...data.map((d) => Math.abs(d.scale) + d.spread)));
  return (
    <figure className="max-w-[640px]">
      <figcaption className="text-[13px] text-quiet">
        Judged: Bradley–Terry scale, natural logarithms, with 95 % intervals; further right is more often chosen.
      </figcaption>
      <div
        role="img"
        aria-label={data
          .map((d, i) => `${i + 1}. ${d.name}: ${formatNumber(d.scale, 1)}, plus or minus ${formatNumber(d.spread, 1)}`)
          .join('; ')}
      >
        <ResponsiveContainer width="100%" height={60 + 36 * data.length}>
          <ScatterChart margin={{ top: 8, right: 20, bottom: 18, left: 0 }} accessibilityLayer={false}>
            <CartesianGrid stroke="var(--line)" horizontal={false} />
            <XAxis
              type="number"
              dataKey="scale"
              domain={[-range, range]}
              {...AXIS}
              label={{ value: 'less often chosen … more often chosen', position: 'bottom', offset: 0, ...AXIS.label }}
            />
            <YAxis
              type="number"
              dataKey="rank"
              domain={[0.5, data.length + 0.5]}
              ticks={data.map((d) => d.rank)}
              width={210}
              {...AXIS}
              tickFormatter={(rank: number) => data.find((d) => d.rank === rank)?.name ?? ''}
            />
            <Scatter data={[...data]} fill="var(--ink)" isAnimationActive={false}>
              <ErrorBar dataKey="spread" direction="x" stroke="var(--ink)" width={6} />
            </Scatter>
          </ScatterChart>
        </ResponsiveContainer>
      </div>
    </figure>
  );
}

/** The same in figures, beside what the instrument says to the same question. */
function JudgedTable({
  data,
  nameOf,
  asked,
}: {
  data: readonly Judged[];
  nameOf: NameOf;
  asked: (typeof MEASURED)[EyeCriterion];
}) {
  return (
    <table className="max-w-[640px] border-t border-edge">
      <thead>
        <tr className="text-left text-[13px] text-quiet">
          <th scope="col" className="py-1 pr-6 font-normal">
            Print
          </th>
          <th scope="col" className="py-1 pr-6 font-normal">
            judged
          </th>
          {asked && (
            <th scope="col" className="py-1 pr-6 font-normal">
              measured, {asked.measure.name}
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {data.map((d) => {
          const c = nameOf(d.conditionId);
          const f = asked && c?.facts?.figures[asked.measure.key];
          return (
            <tr key={d.conditionId} className="border-t border-line">
              <th scope="row" className="py-1 pr-6 text-left font-serif font-normal">
                {d.name} <span className="font-sans text-[13px] text-quiet">{d.code}</span>
              </th>
              <td className="py-1 pr-6 font-serif">
                {formatNumber(d.scale, 2)} ± {d.error === undefined ? '∞' : formatNumber(d.spread, 2)}
              </td>
              {asked && (
                <td className="py-1 pr-6 whitespace-pre">
                  {f && f.shape !== 'missing'
                    ? `${formatFigure(asked.measure, f)} ${f.shape === 'scalar' ? asked.measure.unit : ''}`
                    : '—'}
                </td>
              )}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
