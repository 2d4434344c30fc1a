import type { SetComparisonView } from '@rakuen/contract/readings';
import type { ComparedPatch } from '@rakuen/core/measurement/set-comparison';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { Lab } from '@rakuen/core/colour/types';
import { screenColour } from '../parts/screen-colour.ts';

const deltaE = (value: number) => formatNumber(value, value < 0.1 ? 2 : 1);
const count = (n: number) => `${n} ${n === 1 ? 'patch' : 'patches'}`;

/** What two sets amount to, patch by patch: a verdict first, then the figures behind it. */
export function patchwiseWords(c: SetComparisonView): string {
  const figures = `mean ${deltaE(c.mean)}, 95th percentile ${deltaE(c.p95)}, largest ${deltaE(c.max)} ΔE00 over ${count(c.common)} in both sets`;
  switch (c.verdict) {
    case 'too few patches':
      return `Too few patches in both sets to compare them: ${c.common}. At least six are needed.`;
    case 'within your noise':
      return `No difference beyond the noise of the readings: ${figures}.`;
    case 'a few patches differ':
      return `${c.singles} of ${count(c.common)} ${c.singles === 1 ? 'differs' : 'differ'} by up to ${deltaE(c.max)} ΔE00; the others agree. Read ${c.singles === 1 ? 'it' : 'them'} again.`;
    case 'too small to see':
      return `A real difference, too small to see: ${figures}.`;
    default:
      return `Prints of these two sets differ, ${c.verdict}: ${figures}.`;
  }
}

/** Two sets patch by patch: spread of the differences, the noise of both, and the patches furthest apart. */
export function Patchwise({ compared: c }: { compared: SetComparisonView }) {
  return (
    <section aria-label="Patch by patch" className="mt-4">
      <h4 className="font-semibold">Patch by patch</h4>
      <dl className="flex flex-wrap gap-x-8 gap-y-1 py-1">
        <Value name="Patches in both">{c.common}</Value>
        <Value name="Mean" unit="ΔE00">
          {formatNumber(c.mean, 2)}
        </Value>
        <Value name="95th percentile" unit="ΔE00">
          {formatNumber(c.p95, 2)}
        </Value>
        <Value name="Largest" unit="ΔE00">
          {formatNumber(c.max, 2)}
        </Value>
        <Value
          name="Noise of both alone"
          unit={c.noise === undefined ? undefined : 'ΔE00'}
          title="Mean difference that repeated readings of one and the same print would give, from the repeats in both sets"
        >
          {c.noise === undefined ? 'not known: a set repeats no patch' : formatNumber(c.noise, 2)}
        </Value>
        <Value
          name="Chance"
          title="How often noise alone gives differences as systematic as these, found by dealing their signs again 199 times"
        >
          {c.chance <= 0.005 ? 'under 1 in 100' : `${formatNumber(100 * c.chance, 0)} in 100`}
        </Value>
        {(
          [
            ['Repeatability, later set', c.laterPasses],
            ['Repeatability, earlier set', c.firstPasses],
          ] as const
        ).map(
          ([name, passes]) =>
            passes && (
              <Value
                key={name}
                name={name}
                unit="ΔE00"
                title={`Mean difference of a pass from the mean of all passes, over ${count(passes.patches)} read more than once`}
              >
                {formatNumber(passes.meanDeltaE00, 2)}
              </Value>
            ),
        )}
      </dl>
      <details className="mt-1">
        <summary className="min-h-8 cursor-pointer py-1">The {count(c.worst.length)} furthest apart</summary>
        <div className="scroll-quiet overflow-x-auto" tabIndex={0} role="region" aria-label="Patches furthest apart">
          <table className="border-t border-edge">
            <thead>
              <tr className="text-left text-[13px] text-quiet">
                {['Patch', 'Device values', 'Later', 'Earlier', 'ΔE00', ''].map((h, i) => (
                  <th key={i} scope="col" className="py-1 pr-5 font-normal">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {c.worst.map((patch, i) => (
                <WorstRow key={i} patch={patch} />
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </section>
  );
}

function Value({
  name,
  unit,
  title,
  children,
}: {
  name: string;
  unit?: string;
  title?: string;
  children: React.ReactNode;
}) {
  return (
    <div title={title}>
      <dt className="text-[13px] text-quiet">{name}</dt>
      <dd>
        {children} {unit && <span className="text-quiet">{unit}</span>}
      </dd>
    </div>
  );
}

function WorstRow({ patch }: { patch: ComparedPatch }) {
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-1 pr-5 text-left font-normal">
        {patch.id}
      </th>
      <td className="py-1 pr-5 whitespace-nowrap">
        {patch.device?.map((v) => formatNumber(255 * v, 0)).join(' ') ?? <span className="text-quiet">not stated</span>}
      </td>
      {[patch.later, patch.first].map((lab, i) => (
        <td key={i} className="py-1 pr-5 whitespace-pre">
          <Swatch lab={lab} /> {lab.map((v) => formatNumber(v, 1)).join('  ')}
        </td>
      ))}
      <td className="py-1 pr-5 font-semibold">{formatNumber(patch.deltaE00, 2)}</td>
      <td className="py-1 text-[13px] text-quiet">{patch.beyondNoise && 'beyond the noise of its like'}</td>
    </tr>
  );
}

const Swatch = ({ lab }: { lab: Lab }) => (
  <span
    aria-hidden
    className="inline-block size-3.5 border border-line align-[-2px]"
    style={{ background: screenColour(lab).css }}
  />
);
