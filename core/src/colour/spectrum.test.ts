import fc from 'fast-check';
import { ILLUMINANTS } from './illuminant.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { spectrumAt, spectrumToXyz } from './spectrum.ts';
import type { Spectrum } from './types.ts';

const values = fc.array(fc.double({ min: 0, max: 1.2, noNaN: true }), { minLength: 36, maxLength: 36 });
const at10 = (list: number[]): Spectrum => ({ startNm: 380, stepNm: 10, values: list });

describe('tristimulus values of a spectrum (CIE 15)', () => {
  it('are linear in the reflectance, under every light', () => {
    fc.assert(
      fc.property(values, values, fc.double({ min: 0, max: 1, noNaN: true }), (p, q, t) => {
        for (const { power } of TABLE_LIGHTS) {
          const mixed = spectrumToXyz(at10(p.map((v, i) => v * t + q[i] * (1 - t))), power);
          const [x, y] = [spectrumToXyz(at10(p), power), spectrumToXyz(at10(q), power)];
          mixed.forEach((v, c) => expect(v).toBeCloseTo(x[c] * t + y[c] * (1 - t), 8));
        }
      }),
      { numRuns: 40 },
    );
  });

  it('do not depend on the step a straight spectrum was written at', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        (low, rise) => {
          const line = (stepNm: number): Spectrum => ({
            startNm: 340,
            stepNm,
            values: Array.from({ length: 490 / stepNm + 1 }, (_, i) => low + (rise * i * stepNm) / 490),
          });
          const ten = spectrumToXyz(line(10));
          for (const step of [5, 7, 35]) spectrumToXyz(line(step)).forEach((v, c) => expect(v).toBeCloseTo(ten[c], 9));
        },
      ),
    );
  });

  it('a darker spectrum is never lighter', () => {
    fc.assert(
      fc.property(
        values,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (v, t) => spectrumToXyz(at10(v.map((x) => x * t)))[1] <= spectrumToXyz(at10(v))[1] + 1e-9,
      ),
    );
  });

  it('between its points a spectrum is straight, beyond its ends it is held', () => {
    const s: Spectrum = { startNm: 400, stepNm: 20, values: [0.2, 0.4, 0.3] };
    expect([380, 400, 410, 420, 430, 440, 700].map((nm) => spectrumAt(s, nm))).toEqual([
      0.2,
      0.2,
      expect.closeTo(0.3, 12),
      0.4,
      expect.closeTo(0.35, 12),
      0.3,
      0.3,
    ]);
  });

  it('a blue-less light has less Z than daylight', () => {
    const white = at10(new Array(36).fill(1));
    expect(spectrumToXyz(white, ILLUMINANTS.A)[2]).toBeLessThan(spectrumToXyz(white, ILLUMINANTS.D65)[2] / 2);
  });
});
