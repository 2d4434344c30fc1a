import { percent, sentenceCase } from '../words.ts';
import { textureFigure, textureKnown, textureSeen, textureWords, type Leaning } from './leaning.ts';

const WORTH = 3;

export const textureSeenInPlain: Leaning = {
  key: 'plainAreas',
  name: 'Texture in plain areas',
  holds: 'A texture must never show in a plain area, and least in skin or a glaze.',
  disagrees: 'Some say that texture gives life to plain areas.',
  weight: 1,
  judge: (w) => {
    const structure = w.picture.structure;
    if (!structure || !textureKnown(w)) return undefined;
    const skin = w.hints.includes('skin') ? Math.max(structure.skinShare, 0.2) : 0;
    // A ground that is blank paper has nothing to disturb.
    const plain = Math.min(1, structure.smoothShare * 0.8 + skin);
    const seen = textureSeen(w);
    if (seen < 0.02 && plain < 0.2) return undefined;
    return {
      speaks: plain > 0.3 && seen < 0.05 ? 'for' : plain * seen > 0.1 ? 'against' : 'neither',
      sentence: sentenceCase(
        `${percent(structure.smoothShare)} of the picture is plain${skin > 0 ? ', skin among it' : ''}; ${textureWords(w)}${seen < 0.05 ? ' and will not be seen' : ` and will be seen from ${(w.commission.viewingMm / 10).toFixed(0)} cm`}.`,
      ),
      figures: [...textureFigure(w), { name: 'plain areas', value: structure.smoothShare * 100, unit: '%' }],
      cost: WORTH * plain * seen,
    };
  },
};
