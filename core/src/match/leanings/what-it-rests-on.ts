import { unknownTo } from '../vetoes.ts';
import { oneDigit } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** A b* that differs by less than is said is the same in every sentence. */
const bears = ([low, high]: readonly [number, number]): boolean => high - low >= 0.1;

/** Costs nothing: it says where a sheet's figures are not of the same kind as its neighbours'. */
export const whatItRestsOn: Leaning = {
  key: 'whatItRestsOn',
  name: 'What the figures rest on',
  holds:
    'A sheet read wet, told by a profile, or in a lamp its brightener was not read for or is only estimated, is not quite compared with one that was measured dry.',
  disagrees: 'Nobody.',
  weight: 1,
  judge: ({ sheet, field, commission }) => {
    const said = [
      ...(sheet.told ? ['its colours are told by a profile and were not measured'] : []),
      ...(field.conditions && sheet.measurementCondition
        ? [
            `it was read under ${sheet.measurementCondition}, others under ${field.conditions.filter((c) => c !== sheet.measurementCondition).join(' and ')}`,
          ]
        : []),
      ...(sheet.brightenerUnknown
        ? ['it was not read both with and without UV, so that what its brightener does where it will hang is not known']
        : []),
      ...(sheet.estimatedWhite && bears(sheet.estimatedWhite.between)
        ? [
            `what its brightener does where it will hang is estimated from one spectrum (b* of its white there ${oneDigit(sheet.estimatedWhite.between[0])} to ${oneDigit(sheet.estimatedWhite.between[1])}${sheet.estimatedWhite.startsLate ? ', the wider as its spectra begin too late to see the violet' : ''}), where a sheet read with and without UV is measured`,
          ]
        : []),
      ...(sheet.wet ? ['it was read before its print had dried'] : []),
      ...unknownTo(sheet, commission.vetoes),
    ];
    if (said.length === 0) return undefined;
    return { speaks: 'neither', sentence: `Mind that ${said.join(', and ')}.`, figures: [], cost: 0 };
  },
};
