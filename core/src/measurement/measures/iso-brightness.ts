import { r457 } from '../brightness.ts';
import { groupSpectrum, NO_SPECTRA, spreadOver } from '../spectra-of-group.ts';
import type { PatchMeasure } from './measure.ts';

export const isoBrightness: PatchMeasure = {
  key: 'isoBrightness',
  name: 'R457 (45°:0°)',
  unit: '%',
  definition:
    'Reflectance of the bare paper as a filter around 457 nm sees it, from 45°:0° readings. ISO brightness asks for diffuse light and 0° (d/0) and its own share of UV, so the two are not the same number.',
  source: 'weights of ISO 2470-1 (memory)',
  digits: 1,
  scale: 'unjudged',
  words: ['brighter in blue', 'duller in blue'],
  needs: ['white'],
  compute: ({ reading, white }) => {
    const spectrum = groupSpectrum(reading, white);
    if (!spectrum) return { shape: 'missing', why: NO_SPECTRA };
    return { shape: 'scalar', value: r457(spectrum), sd: spreadOver(reading, white, r457) };
  },
};
