import { latest, meanOf, type GlossObservation } from '../observations.ts';
import { NOISE_WIDTH } from '../difference.ts';
import type { BenchMeasure } from './measure.ts';

/** What stands in for the spread of a gloss reading that was not repeated, gloss units (our own assumption). */
const ASSUMED_SD = 0.5;

const NO_BLACK = 'A gloss reading of full black at 60° is missing.';

const at = (angleDeg: GlossObservation['angleDeg'], use: string): BenchMeasure => ({
  key: `gloss${angleDeg}`,
  name: `Gloss at ${angleDeg}°`,
  unit: 'GU',
  definition: `Gloss of the bare sheet at ${angleDeg}°, black glass of index 1.567 = 100; ${use}.`,
  source: 'ISO 2813',
  digits: 1,
  scale: 'percent',
  toldInUnit: true,
  words: ['glossier', 'less glossy'],
  echoes: angleDeg === 60 ? undefined : 'gloss60',
  likeness: angleDeg === 60 ? { name: 'Gloss at 60°', unit: 'GU', digits: 0, one: 8, weight: 1 } : undefined,
  observe: (observations) => {
    const found = latest(observations, 'gloss', (o) => o.angleDeg === angleDeg);
    if (!found) return { shape: 'missing', why: `A gloss reading at ${angleDeg}° is missing.` };
    const { mean, sd } = meanOf(found.white, ASSUMED_SD);
    return { shape: 'scalar', value: mean, sd };
  },
});

export const gloss20 = at(20, 'the angle for high gloss');
export const gloss60 = at(60, 'the angle for all');
export const gloss85 = at(85, 'the angle for matt sheets');

export const glossBlack: BenchMeasure = {
  key: 'glossBlack',
  name: 'Gloss of black at 60°',
  unit: 'GU',
  definition: 'Gloss of full black at 60°: what the ink itself throws back.',
  source: 'ISO 2813',
  digits: 1,
  scale: 'unjudged',
  spoken: true,
  words: ['shinier in its blacks', 'less shiny in its blacks'],
  observe: (observations) => {
    const found = latest(observations, 'gloss', (o) => o.angleDeg === 60 && o.black.length > 0);
    if (!found) return { shape: 'missing', why: NO_BLACK };
    const { mean, sd } = meanOf(found.black, ASSUMED_SD);
    return { shape: 'scalar', value: mean, sd };
  },
};

export const glossDifferential: BenchMeasure = {
  key: 'glossDifferential',
  name: 'Gloss differential',
  unit: 'GU',
  definition:
    'Gloss of full black less gloss of the bare sheet, at 60°: above 0 the ink is shinier than its sheet, below 0 duller.',
  source: 'ISO 2813',
  digits: 1,
  scale: 'unjudged',
  words: ['shinier in its ink than in its sheet', 'duller in its ink than in its sheet'],
  observe: (observations) => {
    const found = latest(observations, 'gloss', (o) => o.angleDeg === 60 && o.black.length > 0);
    if (!found) return { shape: 'missing', why: NO_BLACK };
    const [white, black] = [meanOf(found.white, ASSUMED_SD), meanOf(found.black, ASSUMED_SD)];
    const [value, sd] = [black.mean - white.mean, Math.hypot(white.sd, black.sd)];
    const sure = Math.abs(value) > NOISE_WIDTH * sd;
    const note = !sure ? 'ink and sheet alike' : value > 0 ? 'ink shinier than its sheet' : 'ink duller than its sheet';
    return { shape: 'scalar', value, sd, note };
  },
};
