import { asThree } from './three.ts';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import Color from 'colorjs.io';
import { illuminantWhite, spectrumToXyz } from './spectrum.ts';
import { ILLUMINANTS } from './illuminant.ts';
import { labToXyz, xyzToLab } from './lab.ts';
import { rgbToLab, ADOBE_RGB_1998, DISPLAY_P3, SRGB, xyzToRgb } from './rgb-space.ts';
import { visualDensity } from './density.ts';
import { deltaE76 } from './difference.ts';
import { absoluteOnWhite, relativeToWhite } from './relative.ts';

const rows = readFileSync(new URL('../../test/fixtures/cie-10nm.csv', import.meta.url), 'utf8')
  .trim()
  .split('\n')
  .map((l) => l.split(','));
const header = rows.shift()!;
const column = (name: string) => rows.map((r) => Number(r[header.indexOf(name)]));

/** Direct summation from the published table, independent of the product's own code. */
function whiteFromTable(illuminant: string, observer: '2' | '10') {
  const s = column(illuminant);
  const bars = ['x', 'y', 'z'].map((c) => column(c + observer));
  const k = 100 / s.reduce((sum, v, i) => sum + v * bars[1][i], 0);
  return bars.map((bar) => k * s.reduce((sum, v, i) => sum + v * bar[i], 0));
}

describe('white points (CIE 15)', () => {
  it.each([
    ['A', 109.85, 35.58],
    ['D50', 96.42, 82.52],
    ['D65', 95.05, 108.88],
  ] as const)('%s lies within 0.15 of the published white, by the published table', (name, X, Z) => {
    const white = illuminantWhite(ILLUMINANTS[name]);
    expect(white[1]).toBeCloseTo(100, 9);
    expect(Math.abs(white[0] - X)).toBeLessThan(0.15);
    expect(Math.abs(white[2] - Z)).toBeLessThan(0.15);
    whiteFromTable(name, '2').forEach((v, i) => expect(white[i]).toBeCloseTo(v, 6));
    whiteFromTable(name, '10').forEach((v, i) => expect(illuminantWhite(ILLUMINANTS[name], '10')[i]).toBeCloseTo(v, 6));
  });

  it.each([
    [380, 10, 36],
    [400, 10, 31],
    [340, 10, 50],
    [380, 5, 71],
    [360, 20, 22],
  ])('a perfect diffuser from %i nm in steps of %i is L* 100, 0, 0 (CIE 15)', (startNm, stepNm, n) => {
    const xyz = spectrumToXyz({ startNm, stepNm, values: new Array(n).fill(1) });
    const lab = xyzToLab(xyz, illuminantWhite());
    expect(lab[0]).toBeCloseTo(100, 9);
    expect(lab[1]).toBeCloseTo(0, 9);
    expect(lab[2]).toBeCloseTo(0, 9);
  });

  it('a flat grey keeps its lightness and has no colour under any light', () => {
    for (const light of Object.values(ILLUMINANTS)) {
      const lab = xyzToLab(
        spectrumToXyz({ startNm: 380, stepNm: 10, values: new Array(36).fill(0.18) }, light),
        illuminantWhite(light),
      );
      expect(lab[0]).toBeCloseTo(49.496, 2);
      expect(Math.hypot(lab[1], lab[2])).toBeLessThan(1e-9);
    }
  });
});

describe('Lab and XYZ', () => {
  const labs = fc.tuple(
    fc.double({ min: 0, max: 100, noNaN: true }),
    fc.double({ min: -120, max: 120, noNaN: true }),
    fc.double({ min: -120, max: 120, noNaN: true }),
  );

  it('there and back is the same colour', () => {
    fc.assert(fc.property(labs, (lab) => deltaE76(xyzToLab(labToXyz(lab)), lab) < 1e-9));
  });

  it('the paper white is L* 100, 0, 0 relative to itself, and the way back is exact', () => {
    fc.assert(
      fc.property(
        labs,
        fc.tuple(
          fc.double({ min: 80, max: 100, noNaN: true }),
          fc.double({ min: -5, max: 5, noNaN: true }),
          fc.double({ min: -12, max: 12, noNaN: true }),
        ),
        (lab, white) => {
          const relative = relativeToWhite(white);
          expect(deltaE76(relative(white), [100, 0, 0])).toBeLessThan(1e-9);
          expect(deltaE76(absoluteOnWhite(white)(relative(lab)), lab)).toBeLessThan(1e-8);
        },
      ),
    );
  });

  it('RGB working spaces agree with colorjs.io to 0.05 ΔE', () => {
    const channel = fc.double({ min: 0, max: 1, noNaN: true });
    for (const [space, id] of [
      [SRGB, 'srgb'],
      [ADOBE_RGB_1998, 'a98rgb'],
      [DISPLAY_P3, 'p3'],
    ] as const) {
      fc.assert(
        fc.property(channel, channel, channel, (r, g, b) => {
          const ours = rgbToLab(space, [r, g, b]);
          const theirs = asThree(new Color(id, [r, g, b]).to('lab').coords.map(Number));
          expect(deltaE76(ours, theirs)).toBeLessThan(0.05);
          xyzToRgb(space, labToXyz(ours)).forEach((v, i) => expect(v).toBeCloseTo([r, g, b][i], 6));
        }),
        { numRuns: 500 },
      );
    }
  });
});

describe('visual density (ISO 5-3)', () => {
  it('is 1 at Y 10, 2 at Y 1, 0 at Y 100', () => {
    expect(visualDensity(10)).toBeCloseTo(1, 12);
    expect(visualDensity(1)).toBeCloseTo(2, 12);
    expect(visualDensity(100)).toBeCloseTo(0, 12);
    expect(visualDensity(0.316228)).toBeCloseTo(2.5, 5);
  });
});
