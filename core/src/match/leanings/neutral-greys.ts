import { oneDigit } from '../words.ts';
import { ofGreys, type Leaning } from './leaning.ts';

const EACH_CHROMA = 0.22;
const EACH_TURN = 0.18;
/** Less is seen by nobody (practice: half a step side by side). */
const UNSEEN = 0.5;

export const neutralGreys: Leaning = {
  key: 'neutralGreys',
  name: 'Neutral greys in every light',
  holds:
    'A black-and-white or toned picture shows every tinge of its greys as they are printed, and every shift of them from one lamp to the next.',
  disagrees: 'Those who tone their pictures mind a tinge less than a break in it.',
  weight: 1,
  judge: (w) => {
    const { greysOff, metamerism, monochrome } = w.sheet;
    if (!ofGreys(w)) return undefined;
    // The driver's own mode is printed as it was read; everything else goes through the model, which evens its greys.
    const deviation = monochrome ? greysOff : w.match.greysDeviation;
    if (deviation === undefined) return undefined;
    const off = Math.max(0, deviation - UNSEEN);
    const turn = Math.max(0, (metamerism ?? 0) - UNSEEN);
    const how = monochrome ? 'in the driver’s own black-and-white mode' : 'as they are sent for this print';
    const kind = w.picture.colour === 'black and white' ? 'black and white' : w.picture.colour;
    const shift =
      metamerism === undefined
        ? ''
        : `; the sheet’s greys shift by up to ${oneDigit(metamerism)} ΔE00 from lamp to lamp`;
    return {
      speaks: off + turn < 1 ? 'for' : off > 1.5 || turn > 2 ? 'against' : 'neither',
      sentence: `The picture is ${kind}: its greys print within ${oneDigit(deviation)} C* of neutral ${how}${shift}.`,
      figures: [
        { name: 'deviation of the greys from neutral', value: deviation, unit: 'C*', weighed: true },
        ...(metamerism === undefined
          ? []
          : [{ name: 'grey shift between lights', value: metamerism, unit: 'ΔE00', weighed: true }]),
      ],
      cost: EACH_CHROMA * off + EACH_TURN * turn,
    };
  },
};
