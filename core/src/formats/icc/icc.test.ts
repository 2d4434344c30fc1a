import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { scatteredChart, SHEETS } from '../../../test/sheets.ts';
import { makeProfile } from '../../characterisation/make-profile.ts';
import { printModel } from '../../characterisation/print-model.ts';
import { TABLE_LIGHTS } from '../../light/table-lights.ts';
import { readChart } from '../../simulation/instrument.ts';
import { FormatError } from '../format-error.ts';
import { decodeLab16, encodeLab16, throughLut16 } from './lut16.ts';
import { readLut16, readProfile } from './profile-read.ts';

const model = printModel([readChart(SHEETS.cotton, scatteredChart(120), 'M1', 7)]);
const words = {
  description: 'Cotton test',
  licence: 'None',
  createdAt: new Date('2026-03-04T05:06:07Z'),
  matt: true,
  readings: 'CGATS.17',
};
const made = (version: 2 | 4) =>
  makeProfile(model, { version, grid: 17, greys: 'paper', light: TABLE_LIGHTS[0] }, words);

describe('profiles written and read', () => {
  it.each([2, 4] as const)('version %i comes back whole, with its readings', (version) => {
    const read = readProfile(made(version));
    expect(read.header).toMatchObject({
      major: version,
      deviceClass: 'prtr',
      colourSpace: 'RGB',
      connectionSpace: 'Lab',
    });
    expect(read.description).toBe('Cotton test');
    expect([...read.tags.keys()]).toEqual(
      expect.arrayContaining(['A2B0', 'A2B1', 'A2B2', 'B2A0', 'B2A1', 'B2A2', 'gamt', 'wtpt', 'chad', 'cprt', 'targ']),
    );
    expect(new TextDecoder().decode(read.tags.get('targ')!.subarray(8))).toBe('CGATS.17\0');
  });

  it('paper is sent without ink, and there and back is the same colour', () => {
    const profile = readProfile(made(2));
    const [toLab, fromLab, gamut] = ['A2B1', 'B2A1', 'gamt'].map((tag) => readLut16(profile, tag));
    expect(throughLut16(fromLab, encodeLab16(100, 0, 0), 'Lab').every((v) => v > 65530)).toBe(true);
    const [L, a, b] = decodeLab16(
      ...(throughLut16(toLab, throughLut16(fromLab, encodeLab16(60, 12, -8), 'Lab')) as [number, number, number]),
    );
    expect(Math.hypot(L - 60, a - 12, b + 8)).toBeLessThan(1);
    expect(throughLut16(gamut, encodeLab16(60, 12, -8), 'Lab')[0]).toBe(0);
    expect(throughLut16(gamut, encodeLab16(60, 100, -90), 'Lab')[0]).toBeGreaterThan(1000);
  });

  it('16-bit Lab as ICC.1 has it in lut16Type', () => {
    expect(encodeLab16(100, 0, 0)).toEqual([0xff00, 0x8000, 0x8000]);
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 100, noNaN: true }),
        fc.double({ min: -127, max: 127, noNaN: true }),
        (L, a) => {
          const back = decodeLab16(...encodeLab16(L, a, -a));
          expect(Math.abs(back[0] - L)).toBeLessThan(0.001);
          expect(Math.abs(back[1] - a)).toBeLessThan(0.003);
        },
      ),
    );
  });
});

describe('profiles that are damaged', () => {
  const whole = made(4);
  it('every tag cut short, moved out or of a wrong type is refused by its name', () => {
    const names = [...readProfile(whole).tags.keys()];
    names.forEach((name, i) => {
      const entry = 132 + i * 12;
      const with32 = (at: number, value: number) => {
        const copy = Uint8Array.from(whole);
        new DataView(copy.buffer).setUint32(at, value);
        return copy;
      };
      const offset = new DataView(whole.buffer).getUint32(entry + 4);
      for (const broken of [with32(entry + 4, whole.length), with32(entry + 8, 0x7fffffff), with32(entry + 8, 4)])
        expect(() => readProfile(broken)).toThrow(new RegExp(name));
      expect(() => readProfile(with32(offset, 0x7a7a7a7a))).toThrow(/type that doesn’t belong/);
    });
  });

  it('any bytes give a profile or a FormatError, nothing else', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 1200 }), fc.integer({ min: 0, max: 255 })), {
          minLength: 1,
          maxLength: 12,
        }),
        fc.integer({ min: 0, max: whole.length }),
        (changes, cut) => {
          const copy = whole.slice(0, cut % 3 === 0 ? cut : undefined);
          for (const [at, value] of changes) if (at < copy.length) copy[at] = value;
          try {
            readProfile(copy);
          } catch (error) {
            expect(error).toBeInstanceOf(FormatError);
          }
        },
      ),
    );
  });

  it('profiles of others are read (sRGB, Debian icc-profiles-free)', () => {
    const bytes = readFileSync(new URL('../../../test/fixtures/sRGB.icc', import.meta.url));
    expect(readProfile(bytes).header).toMatchObject({ deviceClass: 'mntr', colourSpace: 'RGB' });
  });
});
