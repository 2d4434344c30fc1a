import { formatNumber } from '../../measurement/show.ts';
import { behindGlass, editionOpenness, type Leaning } from './leaning.ts';

/**
 * What twice the price takes from a sheet: of an edition of three, of an open one that is felt, of an open one behind
 * glass, and where an economical print is asked for (judged, our own defaults). Editions between three and open lie between, by the logarithm of their number.
 */
const EACH_DOUBLING = { ofThree: 0.03, open: 0.3, openBehindGlass: 0.55, economical: 0.8 } as const;

export const money: Leaning = {
  key: 'money',
  name: 'What the sheet costs',
  holds: 'Behind glass, or in a large or open edition, good enough at a quarter of the price keeps the studio open.',
  disagrees: 'The best sheet always; and the dear one for a small edition.',
  weight: 1,
  judge: (w) => {
    const { pricePerM2, currency } = w.sheet;
    const { cheapestPerM2 } = w.field;
    if (pricePerM2 === undefined || cheapestPerM2 === undefined || cheapestPerM2 <= 0) return undefined;
    const { editionOf, priceClass } = w.commission;
    if (priceClass === 'best') return undefined;
    const open = behindGlass(w) ? EACH_DOUBLING.openBehindGlass : EACH_DOUBLING.open;
    const each =
      priceClass === 'economical'
        ? EACH_DOUBLING.economical
        : EACH_DOUBLING.ofThree + editionOpenness(editionOf) * (open - EACH_DOUBLING.ofThree);
    const times = pricePerM2 / cheapestPerM2;
    const cost = each * Math.log2(Math.max(1, times));
    const edition =
      priceClass === 'economical'
        ? 'an economical print'
        : `${editionOf === undefined ? 'an open edition' : `an edition of ${editionOf}`}${behindGlass(w) ? ' behind glass' : ''}`;
    return {
      speaks: times < 1.2 ? 'for' : cost > 0.3 ? 'against' : 'neither',
      sentence: `It costs ${currency} ${formatNumber(pricePerM2, 2)} a square metre, ${times < 1.05 ? 'the least of these' : `${formatNumber(times, 1)} times the cheapest of these`}; this is ${edition}.`,
      figures: [{ name: 'price', value: pricePerM2, unit: `${currency} per m²`, weighed: true }],
      cost,
    };
  },
};
