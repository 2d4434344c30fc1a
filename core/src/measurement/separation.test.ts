import { seededNormal } from '../random.ts';
import { labToXyz } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import type { ScalarFigure } from './figure.ts';
import { highlightSeparation, shadowSeparation } from './measures/separation.ts';
import { readingFacts } from './reading-facts.ts';
import type { Reading } from './reading.ts';
import { levelled, risingCurve } from './tone-curve.ts';

/** A printer's greys by device value: shut below `shut`, and a little noise. */
function read(stepPercent: number, shut: number, noise = 0.03, ends: number[] = []): Reading {
  const normal = seededNormal(stepPercent * 10);
  const n = Math.round(100 / stepPercent);
  const steps = [...new Set([...Array.from({ length: n + 1 }, (_, i) => i / n), ...ends])].sort((p, q) => p - q);
  const colour = (s: number): Lab => {
    const open = Math.max(0, (s - shut) / (1 - shut));
    return [12 + 84 * open ** 1.15 + noise * normal(), noise * normal(), noise * normal()];
  };
  const patches = steps.flatMap((s) =>
    [0, 1, 2].map((i) => {
      const lab = colour(s);
      return { id: `${s}-${i}`, device: [s, s, s], lab, xyz: labToXyz(lab) };
    }),
  );
  return { patches, deviceSpace: 'RGB', colourFrom: 'Lab' };
}
const figure = (reading: Reading, measure = shadowSeparation) => measure.compute(readingFacts(reading)) as ScalarFigure;

describe('first separate shadow and highlight', () => {
  const RAMPS = [1, 2, 3.125, 5];

  it.each([
    ['shadow', shadowSeparation, 0],
    ['shadow', shadowSeparation, 0.04],
    ['highlight', highlightSeparation, 0],
  ] as const)('%s: ramps of 1, 2, 3.1 and 5 %% steps agree within the stated spread (%#)', (_, measure, shut) => {
    const found = RAMPS.map((step) => figure(read(step, shut), measure));
    for (const p of found)
      for (const q of found) expect(Math.abs(p.value - q.value)).toBeLessThanOrEqual(1.96 * Math.hypot(p.sd, q.sd));
    // The finer the ramp, the surer.
    expect(found[0].sd).toBeLessThan(found[3].sd);
  });

  it('follows the printmaker’s own threshold', () => {
    const [fine, half, coarse] = [0.5, 1, 2].map(
      (toldFrom) => shadowSeparation.compute(readingFacts(read(1, 0), [], {}, toldFrom)) as ScalarFigure,
    );
    expect(fine.value).toBeLessThan(half.value);
    expect(coarse.value).toBeGreaterThan(half.value);
    expect(coarse.note).toMatch(/told from ΔE00 2\.0/);
  });

  it('half steps added at the ends do not make anything blocked', () => {
    const plain = figure(read(5, 0));
    const ends = figure(read(5, 0, 0.03, [0.005, 0.01, 0.015, 0.02, 0.025]));
    expect(ends.note).toMatch(/^no step blocked/);
    expect(Math.abs(plain.value - ends.value)).toBeLessThan(1.96 * Math.hypot(plain.sd, ends.sd));
  });

  it('steps that read like black are blocked and counted', () => {
    expect(figure(read(1, 0.04)).note).toMatch(/^4 steps blocked, told from ΔE00 1\.0, read in steps of 1\.0 %$/);
    expect(figure(read(1, 0.04)).value).toBeGreaterThan(4);
  });

  it('a ramp that does not reach the end says so', () => {
    const whole = read(2, 0);
    const cut = { ...whole, patches: whole.patches.filter((p) => p.device![0] > 0.05) };
    expect(shadowSeparation.compute(readingFacts(cut))).toMatchObject({
      shape: 'missing',
      why: expect.stringMatching(/full black/),
    });
  });
});

describe('a curve that never falls', () => {
  it('levels dips to their mean and leaves the rest', () => expect(levelled([1, 3, 2, 4])).toEqual([1, 2.5, 2.5, 4]));

  it('goes through rising points and stays between its neighbours', () => {
    const points = [0, 1, 2, 4, 4.1].map((y, x) => ({ x, y }));
    const curve = risingCurve(points);
    for (const { x, y } of points) expect(curve(x)).toBeCloseTo(y, 12);
    let before = -Infinity;
    for (let x = 0; x <= 4; x += 0.01) {
      expect(curve(x)).toBeGreaterThanOrEqual(before - 1e-12);
      before = curve(x);
    }
  });
});
