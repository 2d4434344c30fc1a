import { latest } from '../observations.ts';
import type { BenchMeasure } from './measure.ts';

const NO_SCAN = { shape: 'missing', why: 'A raking-light scan is missing.' } as const;

export const textureWavelength: BenchMeasure = {
  key: 'textureWavelength',
  name: 'Texture, wavelength',
  unit: 'mm',
  definition: 'Wavelength with most relief in it, between 0.2 and 4 mm, from a scan under a raking lamp.',
  source: 'raking-light scan, Fourier transform',
  digits: 2,
  scale: 'unjudged',
  words: ['coarser', 'finer'],
  observe: (observations) => {
    const found = latest(observations, 'texture');
    return found ? { shape: 'scalar', value: found.wavelengthMm, sd: found.wavelengthSd } : NO_SCAN;
  },
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
  observe: (observations) => {
    const found = latest(observations, 'texture');
    return found ? { shape: 'scalar', value: found.amplitudeL, sd: found.amplitudeSd } : NO_SCAN;
  },
};
