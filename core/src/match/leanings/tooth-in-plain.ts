import { percent, sentenceCase } from '../words.ts';
import { textureFigure, textureKnown, textureSeen, textureWords, type Leaning } from './leaning.ts';

/** What a sheet without any tooth takes from a picture that is all plain, for those who hold it (judged, our own start). */
const WORTH = 1;
const WORTH_A_WORD = 0.2;

/** The other opinion on texture in plain areas: it weighs nothing until somebody holds it. */
export const toothInPlain: Leaning = {
  key: 'toothInPlain',
  name: 'A tooth gives life to plain areas',
  holds: 'A plain area on a sheet with tooth is alive; on a smooth one it is empty.',
  disagrees: 'A texture must never show in a plain area, say others.',
  weight: 0,
  judge: (w) => {
    const { structure } = w.picture;
    if (!structure || !textureKnown(w) || structure.smoothShare < WORTH_A_WORD) return undefined;
    const seen = Math.min(1, textureSeen(w) * 2);
    return {
      speaks: seen > 0.2 ? 'for' : 'neither',
      sentence: sentenceCase(
        `${percent(structure.smoothShare)} of the picture is plain, which a tooth brings to life; ${textureWords(w)}.`,
      ),
      figures: [...textureFigure(w), { name: 'plain areas', value: structure.smoothShare * 100, unit: '%' }],
      cost: WORTH * structure.smoothShare * (1 - seen),
    };
  },
};
