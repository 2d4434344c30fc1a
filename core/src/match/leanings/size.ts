import type { Leaning } from './leaning.ts';

const TOO_SMALL = 3;

export const size: Leaning = {
  key: 'size',
  name: 'Large enough',
  holds: 'A sheet that does not come in the size is another print.',
  disagrees: 'A smaller print may be the better one.',
  weight: 1,
  judge: ({ sheet, commission }) => {
    if (sheet.longestMm === undefined || sheet.longestMm >= commission.longSideMm) return undefined;
    return {
      speaks: 'against',
      sentence: `The longest side it is kept in is ${sheet.longestMm.toFixed(0)} mm; the print is to be ${commission.longSideMm.toFixed(0)} mm.`,
      figures: [{ name: 'longest side', value: sheet.longestMm, unit: 'mm', weighed: true }],
      cost: TOO_SMALL,
    };
  },
};
