import fc from 'fast-check';
import type { Reading } from '../measurement/reading.ts';
import { writeCsv } from './csv-write.ts';
import { readingFromDelimited } from './delimited.ts';

/** A spreadsheet's way of reading RFC 4180: quotes keep commas, doubled quotes are one. */
function cells(line: string): string[] {
  return [...line.matchAll(/("(?:[^"]|"")*"|[^,]*)(?:,|$)/g)]
    .slice(0, -1)
    .map((m) => (m[1].startsWith('"') ? m[1].slice(1, -1).replaceAll('""', '"') : m[1]));
}

describe('readings as CSV (RFC 4180)', () => {
  it('a plain spreadsheet reader finds every value in its column', () => {
    const unit = fc.double({ min: 0, max: 1, noNaN: true });
    const name = fc.string({ minLength: 1, maxLength: 8, unit: fc.constantFrom(...'aZ 9,"'.split('')) });
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            id: name,
            device: fc.tuple(unit, unit, unit),
            reflectance: fc.array(unit, { minLength: 4, maxLength: 4 }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (list) => {
          const reading: Reading = {
            colourFrom: 'spectrum',
            deviceSpace: 'RGB',
            spectralGrid: { startNm: 400, stepNm: 100, count: 4 },
            patches: list.map((p) => ({ ...p, lab: [50, -1, 2], xyz: [18, 18.4, 15] })),
          };
          const lines = writeCsv(reading).split('\r\n');
          expect(lines.pop()).toBe('');
          const [head, ...rows] = lines.map((l) => cells(`${l},`).slice(0, 14));
          expect(head).toEqual([
            'name',
            'RGB_R',
            'RGB_G',
            'RGB_B',
            'XYZ_X',
            'XYZ_Y',
            'XYZ_Z',
            'LAB_L',
            'LAB_A',
            'LAB_B',
            '400',
            '500',
            '600',
            '700',
          ]);
          // Where no value is full only fractions tell the scale.
          const scale = list.some((p) => p.device.some((v) => v > 0.9999)) ? 255 : 1;
          rows.forEach((row, i) => {
            expect(row[0]).toBe(list[i].id);
            expect(Number(row[1])).toBeCloseTo(list[i].device[0] * scale, 3);
            expect(row.slice(7, 10)).toEqual(['50', '-1', '2']);
            expect(Number(row[13])).toBeCloseTo(list[i].reflectance[3], 5);
          });
        },
      ),
    );
  });

  it('how it was measured goes with the table and comes back', () => {
    const reading: Reading = {
      colourFrom: 'Lab',
      deviceSpace: 'RGB',
      condition: 'M2',
      instrument: 'Bench, no. 7',
      createdAt: '2026-03-01T10:00:00Z',
      backing: 'black',
      patches: [
        [0, 30],
        [1, 95],
      ].map(([v, L], i) => ({ id: `A${i}`, device: [v, v, v], lab: [L, 0, 0], xyz: [18, 18, 15] })),
    };
    const bytes = new TextEncoder().encode(writeCsv(reading));
    const { reading: back } = readingFromDelimited(bytes);
    const { condition, instrument, createdAt, backing } = reading;
    expect(back).toMatchObject({ condition, instrument, createdAt, backing });
    expect(back.patches.map((p) => p.lab)).toEqual(reading.patches.map((p) => p.lab));
    // A column that changes from row to row says nothing of all of them.
    const mixed = writeCsv(reading).replace(/M2(?=[^\n]*\r\n$)/, 'M1');
    expect(readingFromDelimited(new TextEncoder().encode(mixed)).reading.condition).toBeUndefined();
    // What is not known is no column.
    const { condition: _, ...unstated } = reading;
    expect(writeCsv(unstated).split('\r\n')[0]).not.toContain('MEASUREMENT_CONDITION');
  });

  it('a name that a spreadsheet would run stays text', () => {
    const csv = writeCsv({ colourFrom: 'Lab', patches: [{ id: '=1+1', lab: [50, 0, 0], xyz: [18, 18, 15] }] });
    expect(csv.split('\r\n')[1]).toMatch(/^'=1\+1,/);
  });
});
