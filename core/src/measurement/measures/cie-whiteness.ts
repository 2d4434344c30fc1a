import { groupSpectrum, NO_SPECTRA, spreadOver } from '../spectra-of-group.ts';
import { cieWhiteness } from '../whiteness.ts';
import type { PatchMeasure } from './measure.ts';

const OUTSIDE = 'outside the formula’s limits';

export const whiteness: PatchMeasure = {
  key: 'whiteness',
  name: 'CIE whiteness',
  unit: 'W10',
  definition:
    'Whiteness W10 of the bare paper, D65 and 10°; 100 for the perfect diffuser, more for a bluish white. With M1 readings the UV is D50’s.',
  source: 'CIE 15 (memory)',
  digits: 1,
  scale: 'unjudged',
  words: ['whiter', 'less white'],
  needs: ['white'],
  compute: ({ reading, white }) => {
    const spectrum = groupSpectrum(reading, white);
    if (!spectrum) return { shape: 'missing', why: NO_SPECTRA };
    const { whiteness: value, valid } = cieWhiteness(spectrum);
    return {
      shape: 'scalar',
      value,
      sd: spreadOver(reading, white, (s) => cieWhiteness(s).whiteness),
      note: valid ? undefined : OUTSIDE,
    };
  },
};

export const tint: PatchMeasure = {
  key: 'tint',
  name: 'CIE tint',
  unit: 'T10',
  definition: 'Tint T10 of the bare paper, D65 and 10°; positive is greenish, negative reddish.',
  source: 'CIE 15 (memory)',
  digits: 1,
  scale: 'unjudged',
  words: ['greener in tint', 'redder in tint'],
  needs: ['white'],
  compute: ({ reading, white }) => {
    const spectrum = groupSpectrum(reading, white);
    if (!spectrum) return { shape: 'missing', why: NO_SPECTRA };
    const { tint: value, valid } = cieWhiteness(spectrum);
    return {
      shape: 'scalar',
      value,
      sd: spreadOver(reading, white, (s) => cieWhiteness(s).tint),
      note: valid ? undefined : OUTSIDE,
    };
  },
};
