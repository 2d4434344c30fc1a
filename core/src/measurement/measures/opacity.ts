import { latest, meanOf } from '../observations.ts';
import type { BenchMeasure } from './measure.ts';

/** Spread of one reading of reflectance, percent (our own assumption). */
const ASSUMED_SD = 0.2;

export const opacity: BenchMeasure = {
  key: 'opacity',
  name: 'Opacity',
  unit: '%',
  definition: 'Reflectance of one sheet over black, over that of a stack of itself: what shows through from behind.',
  source: 'ISO 2471',
  digits: 1,
  scale: 'unjudged',
  words: ['more opaque', 'less opaque'],
  observe: (observations) => {
    const found = latest(observations, 'opacity');
    if (!found) return { shape: 'missing', why: 'A reading over black and over a stack of the sheet is missing.' };
    const [over, stack] = [meanOf(found.overBlack, ASSUMED_SD), meanOf(found.overStack, ASSUMED_SD)];
    const value = (100 * over.mean) / stack.mean;
    return { shape: 'scalar', value, sd: value * Math.hypot(over.sd / over.mean, stack.sd / stack.mean) };
  },
};
