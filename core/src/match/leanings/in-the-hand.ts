import { behindGlass, type Leaning } from './leaning.ts';

/** A sheet of this weight feels mounted already (practice), g/m². */
const FULL_GSM = 350;
const WORTH = 0.9;

export const inTheHand: Leaning = {
  key: 'inTheHand',
  name: 'Weight and feel in the hand',
  holds: 'A print that is handled is judged by the hand first.',
  disagrees: 'Behind glass nobody feels the sheet: there it does not count.',
  weight: 1,
  judge: (w) => {
    const { weightGsm } = w.sheet;
    if (!w.commission.handled || behindGlass(w) || weightGsm === undefined) return undefined;
    const lack = Math.max(0, 1 - weightGsm / FULL_GSM);
    return {
      speaks: lack < 0.15 ? 'for' : lack > 0.4 ? 'against' : 'neither',
      sentence: `It will be handled, and weighs ${weightGsm.toFixed(0)} g/m²${w.sheet.weightClaimed ? ' by its maker’s word' : ''}.`,
      figures: [{ name: 'weight', value: weightGsm, unit: 'g/m²', weighed: true }],
      cost: WORTH * lack,
    };
  },
};
