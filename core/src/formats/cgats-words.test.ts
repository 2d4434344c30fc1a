import { readHeader } from './cgats-header.ts';
import { FormatError } from './format-error.ts';
import type { DataTable } from './reading-from-table.ts';
import { withoutPairs } from './spectral-pairs.ts';

const header = (words: Record<string, string>) => readHeader(new Map(Object.entries(words)));

describe('what a header says of the measurement', () => {
  it.each([
    [{ MEASUREMENT_CONDITION: 'M1' }, 'M1'],
    [{ MEASUREMENT_SOURCE: 'Illumination=D50 MeasurementCondition=M2 Filter=UVcut' }, 'M2'],
    [{ FILTER: 'uv cut' }, 'M2'],
    [{ FILTER: 'UV-excluded' }, 'M2'],
    [{ ILLUMINATION_NAME: 'Gas-filled tungsten' }, 'M0'],
    [{ INSTRUMENTATION: 'Bench M3' }, 'M3'],
    [{ INSTRUMENTATION: 'Model M45' }, undefined],
    [{ DESCRIPTOR: 'M1 Street, batch M2' }, undefined],
    [{}, undefined],
  ] as const)('%j: %s', (words, condition) => expect(header(words).condition).toBe(condition));

  it('backing by its word or its letters; nothing is guessed', () => {
    expect(header({ SAMPLE_BACKING: 'White' }).backing).toBe('white');
    expect(header({ MEASUREMENT_SOURCE: 'BB' }).backing).toBe('black');
    expect(header({ SAMPLE_BACKING: 'self' }).backing).toBeUndefined();
  });

  it('the first word that says something is taken', () => {
    expect(header({ INSTRUMENTATION: '', INSTRUMENT: 'Bench' }).instrument).toBe('Bench');
    expect(header({ CREATED: '2026-03-02', PROD_DATE: 'old' }).createdAt).toBe('2026-03-02');
    expect(header({ FILE_DESCRIPTOR: 'Rag, second box' }).description).toBe('Rag, second box');
  });
});

describe('spectra whose wavelengths stand beside their values', () => {
  const columns = ['SAMPLE_ID', ...Array.from({ length: 3 }, () => ['SPECTRAL_NM', 'SPECTRAL_DEC']).flat()];
  const table = (...rows: string[][]): DataTable => ({ columns, rows, rowLines: rows.map((_, i) => i + 10) });

  it('come out with a column a wavelength', () => {
    const made = withoutPairs(
      table(['a', '400', '0.1', '500', '0.2', '600', '0.3'], ['b', '400.0', '0.4', '500', '0.5', '600', '0.6']),
    );
    expect(made.columns).toEqual(['SAMPLE_ID', 'SPECTRAL_NM_400', 'SPECTRAL_NM_500', 'SPECTRAL_NM_600']);
    expect(made.rows).toEqual([
      ['a', '0.1', '0.2', '0.3'],
      ['b', '0.4', '0.5', '0.6'],
    ]);
  });

  it('a row at other wavelengths is told by its line and its wavelengths', () => {
    const odd = table(['a', '400', '0.1', '500', '0.2', '600', '0.3'], ['b', '400', '0.4', '510', '0.5', '600', '0.6']);
    expect(() => withoutPairs(odd)).toThrow(FormatError);
    expect(() => withoutPairs(odd)).toThrow(/gives 510 nm where the first row has 500 nm/);
    try {
      withoutPairs(odd);
    } catch (error) {
      expect(error).toMatchObject({ line: 11, field: 'SPECTRAL_NM' });
    }
  });

  it('any other table is given back as it is', () => {
    const plain: DataTable = {
      columns: ['SAMPLE_ID', 'LAB_L', 'LAB_A', 'LAB_B'],
      rows: [['a', '1', '2', '3']],
      rowLines: [1],
    };
    expect(withoutPairs(plain)).toBe(plain);
  });
});
