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
    const tied = priceOrder(judged.slice(i, end));
    tied.forEach((one, at) => {
      const cheaper = at === 0 ? cheaperThan(tied) : undefined;
      ranked.push({
        id: one.sheet.id,
        place: i + 1,
        cost: one.cost,
        figures: one.figures,
        reasons: cheaper ? [...one.reasons, cheaper] : one.reasons,
      });
    });
    i = end;
  }
  return ranked;
}

interface Judged {
  readonly sheet: SheetQualities;
  readonly cost: number;
  readonly reasons: readonly Reason[];
  readonly figures: MatchFigures;
}

/** Whether all that have a price have it in one currency: amounts in two are not put in one order. */
function oneCurrency(tied: readonly Judged[]): boolean {
  return new Set(tied.flatMap(({ sheet }) => (sheet.pricePerM2 === undefined ? [] : [sheet.currency]))).size <= 1;
}

/** The cheaper first, where prices can be compared; else as they serve. */
function priceOrder(tied: readonly Judged[]): Judged[] {
  if (!oneCurrency(tied)) return [...tied];
  const price = ({ sheet }: Judged) => sheet.pricePerM2 ?? Infinity;
  return [...tied].sort((p, q) => (price(p) === price(q) ? p.cost - q.cost : price(p) - price(q)));
}

/** Why the first of several that serve alike is named first: said of papers, for one paper under two settings costs the same. */
function cheaperThan(tied: readonly Judged[]): Reason | undefined {
  const [{ sheet, cost }, ...others] = tied;
  const papers = new Set(tied.map((t) => t.sheet.paperId)).size;
  const next = others.find((t) => t.sheet.paperId !== sheet.paperId);
  const dearer = others.some(
    (t) => t.sheet.pricePerM2 !== undefined && t.sheet.pricePerM2 > (sheet.pricePerM2 ?? Infinity),
  );
  if (!next || !dearer || sheet.pricePerM2 === undefined || !oneCurrency(tied)) return undefined;
  return tieReason(papers, cost - next.cost, sheet.pricePerM2, sheet.currency ?? '');
}

function tieReason(count: number, apart: number, price: number, currency: string): Reason {
  return {
    leaning: 'price',
    speaks: 'for',
    sentence: `${count} papers serve this picture equally well (${formatNumber(Math.abs(apart), 2)} ΔE00 to the next); this one is named first at ${currency} ${formatNumber(price, 2)} a square metre.`,
    figures: [
      { name: 'difference to the next', value: Math.abs(apart), unit: 'ΔE00' },
      { name: 'price', value: price, unit: `${currency} per m²` },
    ],
    cost: 0,
  };
}
