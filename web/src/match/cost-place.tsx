import type { ConditionHead } from '@rakuen/contract/conditions';
import type { CostEdge, Priced } from '@rakuen/core/match/cost-edge';
import { formatNumber } from '@rakuen/core/measurement/show';

/** Width of the scale of fit, from 0 to 10. */
const SCALE_PX = 110;

/** What each sheet costs against what it gives, and which are worth their price. */
export function CostPlace({
  edge,
  unpriced,
  conditionOf,
}: {
  edge: CostEdge;
  /** Ranked, and not compared here. */
  unpriced: readonly string[];
  conditionOf: (id: string) => ConditionHead | undefined;
}) {
  const papers = [...edge.sheets.map((s) => s.id), ...unpriced].map((id) => conditionOf(id)?.paperId);
  const nameOf = (id: string) => {
    const c = conditionOf(id);
    if (!c) return 'a removed condition';
    // One paper in two printers is two sheets here: what parts them is said.
    const twice = papers.filter((p) => p === c.paperId).length > 1;
    return twice ? `${c.paper.name}, ${c.printer}, ${c.mediaSetting}` : c.paper.name;
  };
  const wordsOn = ({ beatenBy, closeTo }: Priced) => {
    if (beatenBy) return `${nameOf(beatenBy)} gives as much or more, for no more`;
    return closeTo ? `a close call with ${nameOf(closeTo)}, which costs less` : 'worth its price';
  };
  return (
    <section aria-label="Cost against fit">
      <h3>What it costs, and what it gives</h3>
      <table className="w-full">
        <thead>
          <tr className="text-left text-quiet">
            <th className="font-normal">Sheet</th>
            <th className="pr-4 text-right font-normal">{edge.currency} a m²</th>
            <th className="font-normal">Fit, money not counted</th>
            <th className="font-normal">
              <span className="sr-only">Worth its price</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {edge.sheets.map((s) => (
            <tr key={s.id} className="border-t border-line align-baseline">
              <th
                scope="row"
                className={`py-0.5 pr-3 text-left font-serif ${s.beatenBy ? 'font-normal' : 'font-semibold'}`}
              >
                {nameOf(s.id)}
              </th>
              <td className="pr-4 text-right tabular-nums">{formatNumber(s.pricePerM2, 2)}</td>
              <td className="whitespace-nowrap">
                <svg width={SCALE_PX + 8} height="10" aria-hidden="true" className="mr-2 inline-block align-middle">
                  <line x1="4" x2={SCALE_PX + 4} y1="5" y2="5" stroke="var(--color-line)" />
                  <circle
                    cx={4 + (s.fit / 10) * SCALE_PX}
                    cy="5"
                    r="3.5"
                    fill={s.beatenBy ? 'var(--color-sheet)' : 'var(--color-ink)'}
                    stroke="var(--color-ink)"
                  />
                </svg>
                {formatNumber(s.fit, 1)}
              </td>
              <td>{wordsOn(s)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-quiet">
        Prices are claimed, by the price lists. Worth its price: no sheet as cheap serves this picture as well, as far
        as it can be told.
        {unpriced.length > 0 &&
          ` Not compared, since no price in ${edge.currency} is known: ${unpriced.map(nameOf).join(', ')}.`}
      </p>
    </section>
  );
}
