import { wavelengthIn } from './cgats-columns.ts';
import { spectralBlock, suggestMapping, withSpectralBlock, type NamedTable } from './column-mapping.ts';
import { parseDelimited } from './delimited.ts';
import { fileKind } from './file-kind.ts';
import { READING_FORMATS, readingExtensions, readingFormatsInWords, readingsFromFile } from './reading-formats.ts';

const bytes = (text: string) => new TextEncoder().encode(text);
const NMS = Array.from({ length: 36 }, (_, i) => 380 + 10 * i);
const HEADINGS: readonly (readonly [string, (nm: number) => string])[] = [
  ['380 nm', (nm) => `${nm} nm`],
  ['nm380', (nm) => `nm${nm}`],
  ['R380', (nm) => `R${nm}`],
  ['380.0', (nm) => `${nm}.0`],
  ['SPECTRAL_NM_380', (nm) => `SPECTRAL_NM_${nm}`],
  ['λ380', (nm) => `λ${nm}`],
  ['R(380 nm) [%]', (nm) => `R(${nm} nm) [%]`],
  ['Reflectance 380nm', (nm) => `Reflectance ${nm}nm`],
];

describe('spectral columns are recognised as one block, however they are headed', () => {
  it.each(
    HEADINGS.flatMap(([name, head]) =>
      (['one', 'per cent'] as const).flatMap((scale) =>
        (['point', 'comma'] as const).map((sign) => [name, scale, sign, head] as const),
      ),
    ),
  )('%s, in parts of %s, decimal %s: a flat grey of 18 %% is L* 49.50', (_, scale, sign, head) => {
    const value = (r: number) => {
      const text = (scale === 'one' ? r : r * 100).toFixed(4);
      return sign === 'point' ? text : text.replace('.', ',');
    };
    const row = (id: string, r: number) => [id, ...NMS.map(() => value(r))].join(';');
    const text = [['Patch', ...NMS.map(head)].join(';'), row('A1', 0.9), row('A2', 0.18)].join('\n');
    const [{ reading }] = readingsFromFile(bytes(text)) as [ReturnType<typeof readingsFromFile>[number]];
    expect(reading.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
    expect(reading.patches[1]!.lab[0]).toBeCloseTo(49.496, 2);
  });

  it('a name that is no wavelength is none', () => {
    for (const name of ['P380', 'Lot 1200', 'R', '99', 'A380B', 'nm', 'RGB_R'])
      expect(wavelengthIn(name)).toBeUndefined();
  });
});

describe('a wrong guess is corrected for the block at once', () => {
  const table: NamedTable = {
    ...parseDelimited(
      bytes(
        [
          ['Patch', 'Page', ...NMS.map((_, i) => `S${i + 1}`)].join(','),
          ['A1', '1', ...NMS.map(() => '0.5')].join(','),
        ].join('\n'),
      ),
    ),
    headed: true,
  };

  it('columns that are only counted become the spectrum from a first wavelength and a step', () => {
    const guess = suggestMapping(table);
    expect(spectralBlock(guess, table.columns)).toBeUndefined();
    const said = withSpectralBlock(guess, { from: 2, to: 37, startNm: 380, stepNm: 10 });
    expect(said.roles.filter((r) => r === 'nm')).toHaveLength(36);
    expect(spectralBlock(said, table.columns)).toEqual({ from: 2, to: 37, startNm: 380, stepNm: 10 });
    const text = [table.columns, ...table.rows].map((r) => r.join(',')).join('\n');
    const [{ reading }] = readingsFromFile(bytes(text), said) as [ReturnType<typeof readingsFromFile>[number]];
    expect(reading.spectralGrid).toEqual({ startNm: 380, stepNm: 10, count: 36 });
  });

  it('what is stated of the block counts more than its names; without a block nothing stays spectral', () => {
    const named = suggestMapping({ ...table, columns: ['Patch', 'Page', ...NMS.map((nm) => `R${nm}`)] });
    expect(spectralBlock(named, ['Patch', 'Page', ...NMS.map((nm) => `R${nm}`)])).toEqual({
      from: 2,
      to: 37,
      startNm: 380,
      stepNm: 10,
    });
    expect(withSpectralBlock(named, undefined).roles).not.toContain('nm');
    const moved = withSpectralBlock(named, { from: 3, to: 37, startNm: 400, stepNm: 5 });
    expect(moved).toMatchObject({ startNm: 400, stepNm: 5 });
    expect(moved.roles.slice(0, 4)).toEqual(['id', '', '', 'nm']);
  });
});

describe('formats of readings declare how they are picked and recognised', () => {
  it('every format has endings and a hint, and pickers list them all', () => {
    for (const { extensions, hint } of READING_FORMATS) {
      expect(extensions.length).toBeGreaterThan(0);
      for (const e of extensions) expect(readingExtensions()).toContain(e);
      expect(readingFormatsInWords()).toContain(hint);
    }
  });

  it('a format that is added is picked, and dropped as readings, by its declaration alone', () => {
    const added = {
      name: 'Invented',
      source: 'this test',
      extensions: ['.inv'],
      hint: 'INV (this test)',
      recognises: (b: Uint8Array) => b[0] === 0 && b[1] === 0x49,
      read: () => [],
    };
    (READING_FORMATS as unknown[]).unshift(added);
    try {
      expect(readingExtensions()).toContain('.inv');
      expect(fileKind(Uint8Array.of(0, 0x49, 1, 2, 0, 0))).toBe('readings');
      expect(readingsFromFile(Uint8Array.of(0, 0x49))).toEqual([]);
    } finally {
      (READING_FORMATS as unknown[]).shift();
    }
    expect(fileKind(Uint8Array.of(0, 0x49, 1, 2, 0, 0))).toBeUndefined();
  });
});
