import { percent, sentenceCase } from '../words.ts';
import { textureFigure, textureKnown, textureSeen, textureWords, type Leaning } from './leaning.ts';

const WORTH = 1.2;
/** Things that a tooth suits (practice). */
const SUITED = ['foliage', 'bark or stone', 'fur or feather'] as const;

export const textureWelcome: Leaning = {
  key: 'busyDetail',
  name: 'Texture with busy detail',
  holds: 'Woodland, lichen, fur and bark welcome a sheet with tooth; so does a picture with a shallow focus.',
  disagrees: 'The sheet should vanish behind the picture, say others.',
  weight: 1,
  judge: (w) => {
    const structure = w.picture.structure;
    if (!structure || !textureKnown(w)) return undefined;
    const suited = SUITED.some((h) => w.hints.includes(h)) ? 0.35 : 0;
    const busy = Math.min(
      1,
      Math.max(0, structure.busyShare - structure.smoothShare * 0.5) + suited + (structure.shallowFocus ? 0.15 : 0),
    );
    if (busy < 0.15) return undefined;
    const seen = textureSeen(w);
    return {
      speaks: seen > 0.2 ? 'for' : 'neither',
      sentence: sentenceCase(
        `${percent(structure.busyShare)} of the picture is busy detail, which a tooth suits; ${textureWords(w)}.`,
      ),
      figures: [...textureFigure(w), { name: 'busy detail', value: structure.busyShare * 100, unit: '%' }],
      // A sheet without tooth lacks what the detail would gain; it loses nothing else.
      cost: WORTH * busy * (1 - Math.min(1, seen * 2)),
    };
  },
};
