import { unknownTo } from '../vetoes.ts';
import type { Leaning } from './leaning.ts';

/** Costs nothing: it says where a sheet's figures are not of the same kind as its neighbours'. */
export const whatItRestsOn: Leaning = {
  key: 'whatItRestsOn',
  name: 'What the figures rest on',
  holds:
    'A sheet read wet, told by a profile, or in a lamp its brightener was not read for, is not quite compared with one that was measured dry.',
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
      ...(sheet.wet ? ['it was read before its print had dried'] : []),
      ...unknownTo(sheet, commission.vetoes),
    ];
    if (said.length === 0) return undefined;
    return { speaks: 'neither', sentence: `Mind that ${said.join(', and ')}.`, figures: [], cost: 0 };
  },
};
