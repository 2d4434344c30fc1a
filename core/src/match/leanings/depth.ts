import { oneDigit, percent, sentenceCase } from '../words.ts';
import type { Leaning } from './leaning.ts';

/** From this share of true black on a picture stands on its black. */
const ALL_BLACK = 0.15;
/** A black of this L* has no depth left beside one of nought. */
const NO_DEPTH_L = 22;
const WORTH = 1.6;

export const depth: Leaning = {
  key: 'depth',
  name: 'Depth of the black',
  holds: 'A picture with a true black, or with hard contrast, wants a sheet that has one.',
  disagrees: 'Others hold that a picture is carried by its middle tones, whatever its black.',
  weight: 1,
  judge: ({ match, picture }) => {
    const need = Math.max(Math.min(1, picture.nearBlackShare / ALL_BLACK), picture.contrast === 'hard' ? 0.35 : 0);
    if (need < 0.02) return undefined;
    const lack = Math.min(1, match.blackL / NO_DEPTH_L);
    return {
      speaks: lack < 0.3 ? 'for' : lack > 0.55 ? 'against' : 'neither',
      sentence: sentenceCase(
        `${percent(picture.nearBlackShare)} of the picture is true black${picture.contrast === 'hard' ? ' and its contrast is hard' : ''}; here white stands to black as ${oneDigit(match.contrastRatio)} to 1 where it will hang.`,
      ),
      figures: [
        { name: 'near black', value: picture.nearBlackShare * 100, unit: '%' },
        { name: 'contrast where it will hang', value: match.contrastRatio, unit: ': 1', weighed: true },
      ],
      cost: WORTH * need * lack,
    };
  },
};
