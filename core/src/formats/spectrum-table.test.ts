import fc from 'fast-check';
import { FormatError } from './format-error.ts';
import { parseLightSpectrum } from './spectrum-table.ts';
import { spectrumAt } from '../colour/spectrum.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const rows = (sign: string, decimal: '.' | ',' = '.') =>
  Array.from({ length: 41 }, (_, i) => [380 + i * 10, (0.5 + i / 40).toFixed(3).replace('.', decimal)].join(sign)).join(
    '\n',
  );

describe('a lamp from a file', () => {
  it.each([
    ['commas', `nm,power\n${rows(',')}`],
    ['semicolons and decimal commas', `Wellenlänge;Leistung\r\n${rows(';', ',')}`],
    ['tabs', rows('\t')],
    ['spaces and a comment', `# lamp by the easel\n${rows('  ')}`],
  ])('is read with %s', (_, text) => {
    const { spectrum } = parseLightSpectrum(bytes(text));
    expect(spectrumAt(spectrum, 560)).toBeCloseTo(0.5 + 18 / 40, 3);
    // Nobody measured its UV.
    expect(spectrumAt(spectrum, 340)).toBe(0);
  });

  it.each([
    ['words in the middle', rows(',').replace('500,0.800', '500,bright'), /no wavelength/],
    ['wavelengths out of order', rows(',').replace('500,', '490,'), /follows/],
    ['micrometres', rows(',').replace('380,', '0.38,'), /no wavelength of light/],
    ['negative power', rows(',').replace('500,0.800', '500,-0.8'), /less than nothing/],
    ['too narrow a span', rows(',').split('\n').slice(8, 24).join('\n'), /runs from/],
    ['hardly anything', '400,1\n500,1', /Only 2/],
    ['darkness', rows(',').replace(/,.*$/gm, ',0'), /no light/],
  ])('%s are refused', (_, text, says) => expect(() => parseLightSpectrum(bytes(text))).toThrow(says));

  it('noise never breaks it (fast-check)', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 400 }), (noise) => {
        try {
          parseLightSpectrum(noise);
        } catch (error) {
          expect(error).toBeInstanceOf(FormatError);
        }
      }),
    );
  });
});
