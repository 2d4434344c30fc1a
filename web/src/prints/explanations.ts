import type { CostView } from '@rakuen/contract/costs';
import type { BoxView } from '@rakuen/contract/stock';
import type { Rate } from '@rakuen/core/cost/spoilage';
import { formatNumber } from '@rakuen/core/measurement/show';
import { day } from '../parts/label.ts';

const money = (amount: number, currency: string) => `${formatNumber(amount, 2)} ${currency}`;
const metres = (mm: number) => `${formatNumber(mm / 1000, 1)} m`;

/** What is left in a box: what it is counted from. */
export function leftExplained(b: BoxView): string {
  const whole = b.kind === 'sheet' ? `${b.sheets} sheets` : metres(b.heightMm);
  const counted = b.counted === undefined ? undefined : b.kind === 'sheet' ? `${b.counted} sheets` : metres(b.counted);
  const begin = counted ? `${counted} when it was counted on ${day(b.countedAt!)}` : `${whole} when it was bought`;
  return `${begin}, less what prints and misprints took from it since.`;
}

/** Price of a sheet or a metre. */
export function eachExplained(b: BoxView): string | undefined {
  if (b.price === undefined) return undefined;
  const of = b.kind === 'sheet' ? `${b.sheets} sheets` : metres(b.heightMm);
  return `${money(b.price, b.currency)} for ${of}, bought ${day(b.boughtOn)}.`;
}

/** What is left in the drawer, in money. */
export const worthExplained = (boxes: readonly BoxView[]): string => {
  const priced = boxes.filter((b) => b.worth !== undefined).length;
  return `What is left in ${priced === 1 ? 'one box' : `${priced} boxes`}, at what each cost. Prices are of the day of purchase.`;
};

/** A rate of spoilage with its interval. */
export const rateExplained = ({ spoilt, of }: Rate): string =>
  `${spoilt} of ${of} sheets were booked as spoiled. The interval holds the true rate in 95 of 100 cases (Wilson 1927).`;

/** The box or roll nothing was taken from for longest; undefined where none lies. */
export function longestIdle(boxes: readonly BoxView[]): BoxView | undefined {
  const since = (b: BoxView) => b.touchedOn ?? b.boughtOn;
  return boxes.filter((b) => b.left > 0).sort((a, b) => since(a).localeCompare(since(b)))[0];
}

/** A line of what a good print costs. */
export function costExplained(name: string, c: CostView, perHour: number, inkPerMl: number): string {
  switch (name) {
    case 'paper':
      return `By ${c.paperFrom}.`;
    case 'ink':
      return `${formatNumber(c.inkMl, 2)} ml at ${money(inkPerMl, c.currency)} a millilitre.`;
    case 'minutes':
      return `${formatNumber(c.minutes, 0)} minutes at ${money(perHour, c.currency)} an hour, five of them at the desk.`;
    case 'spoilage':
      return c.spoilage.of === 0
        ? 'Nothing was printed on this sheet yet: nothing is added.'
        : `${c.spoilage.spoilt} of ${c.spoilage.of} sheets were spoiled here: paper, ink and minutes of those are paid by the good ones.`;
    default:
      return 'For a good print alone, by the studio’s rates.';
  }
}
