import { bulk as bulkOf } from '../../paper.ts';
import { latest, meanOf, type Observation } from '../observations.ts';
import type { Figure } from '../figure.ts';
import { formatNumber } from '../show.ts';
import { claimedAmount } from './claimed-amount.ts';
import type { BenchMeasure } from './measure.ts';

/** What stands in for the spread where one sheet or one place was measured (our own assumptions). */
const ASSUMED = { shareOfWeight: 0.01, stackUm: 3 };

const MISSING_WEIGHT: Figure = { shape: 'missing', why: 'Sheets were not weighed yet.' };
const MISSING_STACK: Figure = { shape: 'missing', why: 'A stack was not put under the micrometer yet.' };

function weightOf(observations: readonly Observation[]): Figure {
  const found = latest(observations, 'weight');
  if (!found) return MISSING_WEIGHT;
  const perGram = 1e6 / (found.widthMm * found.heightMm);
  const { mean, sd } = meanOf(found.grams, ASSUMED.shareOfWeight * found.grams[0]!);
  return { shape: 'scalar', value: mean * perGram, sd: sd * perGram };
}

function thicknessOf(observations: readonly Observation[]): Figure {
  const found = latest(observations, 'thickness');
  if (!found) return MISSING_STACK;
  const { mean, sd } = meanOf(found.stackUm, ASSUMED.stackUm);
  return { shape: 'scalar', value: mean / found.sheets, sd: sd / found.sheets };
}

export const weight: BenchMeasure = {
  key: 'weight',
  name: 'Weight',
  unit: 'g/m²',
  definition: 'Grams of a sheet over its area, mean of the sheets that were weighed.',
  source: 'ISO 536',
  digits: 0,
  scale: 'unjudged',
  spoken: true,
  words: ['heavier', 'lighter in the hand'],
  claim: claimedAmount('Weight', 'g/m²', ['heavier', 'lighter'], (paper) => paper.weightGsm),
  likeness: { name: 'Weight', unit: 'g/m²', digits: 0, one: 40, weight: 0.5, claimed: (paper) => paper.weightGsm },
  observe: weightOf,
};

export const thickness: BenchMeasure = {
  key: 'thickness',
  name: 'Thickness',
  unit: 'µm',
  definition: 'Thickness of a stack over its number of sheets.',
  source: 'ISO 534',
  digits: 0,
  scale: 'unjudged',
  spoken: true,
  words: ['thicker', 'thinner'],
  claim: claimedAmount('Thickness', 'µm', ['thicker', 'thinner'], (paper) => paper.thicknessUm),
  observe: thicknessOf,
};

export const bulk: BenchMeasure = {
  key: 'bulk',
  name: 'Bulk',
  unit: 'cm³/g',
  definition: 'Thickness over weight: how much air a sheet holds.',
  source: 'ISO 534',
  digits: 2,
  scale: 'unjudged',
  words: ['bulkier', 'denser'],
  claim: {
    name: 'Bulk',
    says: (paper) => {
      const claimed = bulkOf(paper.thicknessUm, paper.weightGsm);
      return claimed === undefined ? undefined : `${formatNumber(claimed, 2)} cm³/g`;
    },
  },
  observe: (observations) => {
    const [w, t] = [weightOf(observations), thicknessOf(observations)];
    if (w.shape !== 'scalar') return MISSING_WEIGHT;
    if (t.shape !== 'scalar') return MISSING_STACK;
    const value = t.value / w.value;
    return { shape: 'scalar', value, sd: value * Math.hypot(t.sd / t.value, w.sd / w.value) };
  },
};
