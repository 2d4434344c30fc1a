import type { Figure } from '../figure.ts';
import { textureScans, type Observation, type TextureObservation } from '../observations.ts';
import type { BenchMeasure } from './measure.ts';

const NO_SCAN = { shape: 'missing', why: 'A raking-light scan is missing.' } as const;

type Scanned = Pick<TextureObservation, 'wavelengthMm' | 'wavelengthSd' | 'amplitudeL' | 'amplitudeSd'>;

/**
 * Mean over the places of the sheet that were scanned. Its spread is that of the places among each other, or what each
 * scan says of the next place where that is more: two places may be alike by chance.
 */
function overPlaces(observations: readonly Observation[], value: keyof Scanned, sd: keyof Scanned): Figure {
  const scans = textureScans(observations);
  const n = scans.length;
  if (n === 0) return NO_SCAN;
  const mean = scans.reduce((s, o) => s + o[value], 0) / n;
  const stated = scans.reduce((s, o) => s + o[sd] ** 2, 0) / n;
  const found = n < 2 ? 0 : scans.reduce((s, o) => s + (o[value] - mean) ** 2, 0) / (n - 1);
  return {
    shape: 'scalar',
    value: mean,
    sd: Math.sqrt(Math.max(stated, found) / n),
    ...(n > 1 && { note: `mean of ${n} places` }),
  };
}

export const textureWavelength: BenchMeasure = {
  key: 'textureWavelength',
  name: 'Texture, wavelength',
  unit: 'mm',
  definition: 'Wavelength with most relief in it, between 0.2 and 4 mm, from a scan under a raking lamp.',
  source: 'raking-light scan, Fourier transform',
  digits: 2,
  scale: 'unjudged',
  words: ['coarser', 'finer'],
  observe: (observations) => overPlaces(observations, 'wavelengthMm', 'wavelengthSd'),
};

export const textureAmplitude: BenchMeasure = {
  ...textureWavelength,
  key: 'textureAmplitude',
  name: 'Texture, amplitude',
  unit: 'L*',
  definition: 'Standard deviation of L* between 0.2 and 4 mm under a raking lamp.',
  scale: 'unjudged',
  spoken: true,
  words: ['rougher', 'smoother'],
  claim: { name: 'Surface', says: (paper) => paper.surface },
  likeness: { name: 'Texture', unit: 'L*', digits: 2, one: 0.5, weight: 1 },
  observe: (observations) => overPlaces(observations, 'amplitudeL', 'amplitudeSd'),
};
