import { formatNumber } from '../measurement/show.ts';
import type { PictureFigures } from '../picture/tally.ts';
import type { Reason } from './leanings/leaning.ts';
import { LEANINGS } from './leanings/registry.ts';
import type { MatchFigures } from './match-figures.ts';
import type { SheetQualities } from './sheet.ts';

/** One place in the ranking of sheets for a picture. */
export interface RankedSheet {
  readonly id: string;
  /** From 1; sheets that can't be told apart share a place. */
  readonly place: number;
  /** What the sheet costs the picture, in ΔE00 over the whole of it; the leanings included. Lower is better. */
  readonly cost: number;
  readonly reasons: readonly Reason[];
  readonly figures: MatchFigures;
}

/** Costs nearer than this are not told apart by anyone; then the cheaper sheet comes first. ΔE00, our own choice. */
export const TIE_DELTA_E = 0.25;

/** The sheets in the order in which they serve the picture, each with its reasons. */
export function rankSheets(
  picture: PictureFigures,
  candidates: readonly { sheet: SheetQualities; figures: MatchFigures }[],
): RankedSheet[] {
  const judged = candidates
    .map(({ sheet, figures }) => {
      const reasons = LEANINGS.flatMap((leaning): Reason[] => {
        const said = leaning.weight > 0 ? leaning.judge({ picture, sheet, match: figures }) : undefined;
        return said ? [{ leaning: leaning.key, ...said, cost: said.cost * leaning.weight }] : [];
      });
      return { sheet, figures, reasons, cost: reasons.reduce((sum, r) => sum + r.cost, 0) };
    })
    .sort((p, q) => p.cost - q.cost);

  const ranked: RankedSheet[] = [];
  let i = 0;
  while (i < judged.length) {
    let end = i + 1;
    while (end < judged.length && judged[end].cost - judged[i].cost < TIE_DELTA_E) end++;
    const tied = judged
      .slice(i, end)
      .sort((p, q) => (p.sheet.pricePerM2 ?? Infinity) - (q.sheet.pricePerM2 ?? Infinity) || p.cost - q.cost);
    tied.forEach((one, at) =>
      ranked.push({
        id: one.sheet.id,
        place: i + 1,
        cost: one.cost,
        figures: one.figures,
        reasons:
          tied.length > 1 && at === 0 && one.sheet.pricePerM2 !== undefined
            ? [
                ...one.reasons,
                tieReason(tied.length, one.cost - tied[1].cost, one.sheet.pricePerM2, one.sheet.currency ?? ''),
              ]
            : one.reasons,
      }),
    );
    i = end;
  }
  return ranked;
}

function tieReason(count: number, apart: number, price: number, currency: string): Reason {
  return {
    leaning: 'price',
    speaks: 'for',
    sentence: `${count} sheets serve this picture equally well (${formatNumber(Math.abs(apart), 2)} ΔE00 apart); this one is named first at ${currency} ${formatNumber(price, 2)} a square metre.`,
    figures: [
      { name: 'difference to the next', value: Math.abs(apart), unit: 'ΔE00' },
      { name: 'price', value: price, unit: `${currency} per m²` },
    ],
    cost: 0,
  };
}
