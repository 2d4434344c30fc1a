import { formatNumber } from '../../measurement/show.ts';
import { behindGlass, type Leaning } from './leaning.ts';

/**
 * What twice the price takes from a sheet: of an open edition behind glass, of one that is felt, of a small numbered
 * one (our own starts).
 */
const EACH_DOUBLING = { openBehindGlass: 0.55, open: 0.3, numbered: 0.03 } as const;

export const money: Leaning = {
  key: 'money',
  name: 'What the sheet costs',
  holds: 'Behind glass, or in an open edition, good enough at a quarter of the price keeps the studio open.',
  disagrees: 'The best sheet always; and the dear one for a numbered edition.',
  weight: 1,
  judge: (w) => {
    const { pricePerM2, currency } = w.sheet;
    const { cheapestPerM2 } = w.field;
    if (pricePerM2 === undefined || cheapestPerM2 === undefined || cheapestPerM2 <= 0) return undefined;
    const numbered = w.commission.editionOf !== undefined;
    const each = numbered
      ? EACH_DOUBLING.numbered
      : behindGlass(w)
        ? EACH_DOUBLING.openBehindGlass
        : EACH_DOUBLING.open;
    const times = pricePerM2 / cheapestPerM2;
    const edition = numbered ? `an edition of ${w.commission.editionOf}` : 'an open edition';
    return {
      speaks: numbered || (times > 1.2 && times < 2) ? 'neither' : times >= 2 ? 'against' : 'for',
      sentence: `It costs ${currency} ${formatNumber(pricePerM2, 2)} a square metre, ${times < 1.05 ? 'the least of these' : `${formatNumber(times, 1)} times the cheapest of these`}; this is ${edition}${behindGlass(w) ? ' behind glass' : ''}.`,
      figures: [{ name: 'price', value: pricePerM2, unit: `${currency} per m²` }],
      cost: each * Math.log2(Math.max(1, times)),
    };
  },
};
