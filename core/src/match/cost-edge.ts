import { scoreOf, TIE, type RankedSheet } from './rank.ts';
import type { SheetQualities } from './sheet.ts';

/** A sheet's price against what it gives, money itself not counted into it. */
export interface Priced {
  readonly id: string;
  readonly pricePerM2: number;
  /** 0–10, as the score, but for what the sheet costs. */
  readonly fit: number;
  /** A sheet that costs no more and fits as well or better, as far as anyone can tell; absent on the edge. */
  readonly beatenBy?: string;
  /** A cheaper sheet that may fit as well, for all that is known: within the spread of their scores. */
  readonly closeTo?: string;
}

export interface CostEdge {
  /** ISO 4217; prices of one currency alone are compared. */
  readonly currency: string;
  /** From the cheapest on. */
  readonly sheets: readonly Priced[];
}

/** What is asked of a sheet's place in a match. */
export interface Placed extends Pick<RankedSheet, 'id' | 'cost' | 'scoreSd'> {
  readonly reasons: readonly Pick<RankedSheet['reasons'][number], 'leaning' | 'cost'>[];
}

/** Prices nearer than this are the same. */
const SAME_PRICE = 0.01;

/**
 * Which sheets are worth their price: those that nothing as cheap equals. Fits that can't be told apart count as equal,
 * so that a dearer sheet must be visibly better to stand on the edge.
 * @returns the currency most of the sheets are priced in; undefined where fewer than two are
 */
export function costEdge(places: readonly Placed[], sheets: readonly SheetQualities[]): CostEdge | undefined {
  const priced = places.flatMap((place) => {
    const { pricePerM2, currency } = sheets.find((s) => s.id === place.id) ?? {};
    if (pricePerM2 === undefined || currency === undefined) return [];
    const money = place.reasons.find((r) => r.leaning === 'money')?.cost ?? 0;
    return [{ id: place.id, pricePerM2, currency, cost: place.cost - money, sd: place.scoreSd }];
  });
  const currencies = [...new Set(priced.map((p) => p.currency))];
  const of = (currency: string) => priced.filter((p) => p.currency === currency);
  const [currency] = currencies.sort((a, b) => of(b).length - of(a).length);
  if (!currency || of(currency).length < 2) return undefined;
  const alike = of(currency).sort((p, q) => p.pricePerM2 - q.pricePerM2 || p.cost - q.cost);
  return {
    currency,
    sheets: alike.map((p): Priced => {
      const better = alike
        .filter((q) => {
          const cheaper = q.pricePerM2 < p.pricePerM2 * (1 - SAME_PRICE);
          const noDearer = q.pricePerM2 <= p.pricePerM2 * (1 + SAME_PRICE);
          return (cheaper && q.cost < p.cost + TIE) || (noDearer && q.cost < p.cost - TIE);
        })
        .sort((q, r) => q.cost - r.cost)[0];
      const close = alike.find(
        (q) =>
          q.pricePerM2 < p.pricePerM2 * (1 - SAME_PRICE) && scoreOf(p.cost) - scoreOf(q.cost) < Math.max(p.sd, q.sd),
      );
      return {
        id: p.id,
        pricePerM2: p.pricePerM2,
        fit: scoreOf(p.cost),
        ...(better ? { beatenBy: better.id } : close && { closeTo: close.id }),
      };
    }),
  };
}
