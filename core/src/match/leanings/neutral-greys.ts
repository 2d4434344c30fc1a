import { oneDigit } from '../words.ts';
import { ofGreys, type Leaning } from './leaning.ts';

const EACH_CHROMA = 0.22;
const EACH_TURN = 0.18;
/** Less is seen by nobody (practice: half a step side by side). */
const UNSEEN = 0.5;

export const neutralGreys: Leaning = {
  key: 'neutralGreys',
  name: 'Neutral greys in every light',
  holds: 'A picture without colour shows every tinge, and every turn of the greys from one lamp to the next.',
  disagrees: 'Those who tone their pictures mind a tinge less than a break in it.',
  weight: 1,
  judge: (w) => {
    const { greysOff, metamerism, monochrome } = w.sheet;
    if (!ofGreys(w) || (greysOff === undefined && metamerism === undefined)) return undefined;
    const off = Math.max(0, (greysOff ?? 0) - UNSEEN);
    const turn = Math.max(0, (metamerism ?? 0) - UNSEEN);
    const said = [
      ...(greysOff === undefined
        ? []
        : [`its greys stray ${oneDigit(greysOff)} C* from the line between white and black`]),
      ...(metamerism === undefined ? [] : [`they turn by up to ${oneDigit(metamerism)} ΔE00 from lamp to lamp`]),
    ].join(', and ');
    return {
      speaks: off + turn < 1 ? 'for' : off > 1.5 || turn > 2 ? 'against' : 'neither',
      sentence: `The picture is without colour: ${said}${monochrome ? ', in the driver’s own black-and-white mode' : ''}.`,
      figures: [
        ...(greysOff === undefined ? [] : [{ name: 'greys off their line', value: greysOff, unit: 'C*' }]),
        ...(metamerism === undefined ? [] : [{ name: 'greys turn', value: metamerism, unit: 'ΔE00' }]),
      ],
      cost: EACH_CHROMA * off + EACH_TURN * turn,
    };
  },
};
