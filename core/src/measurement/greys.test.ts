import fc from 'fast-check';
import { labToXyz } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { crossovers } from './measures/crossovers.ts';
import { linearity } from './measures/linearity.ts';
import type { Figure } from './figure.ts';
import { greyAt, neutralRamp, rampOf } from './neutral-ramp.ts';
import { rampSd } from './ramp-noise.ts';
import { readingFacts } from './reading-facts.ts';
import type { Reading } from './reading.ts';
import { groupPatches } from './repeats.ts';

const STEPS = 11;
const patch = (id: string, device: readonly number[], lab: Lab) => ({ id, device, lab, xyz: labToXyz(lab) });
/** A reading of greys from black to paper, with the colours of a cube's corners, so that it is a chart. */
function reading(greyAtStep: (t: number) => Lab): Reading {
  const greys = Array.from({ length: STEPS }, (_, i) => i / (STEPS - 1));
  return {
    colourFrom: 'Lab',
    deviceSpace: 'RGB',
    condition: 'M1',
    patches: greys.map((t, i) => patch(`g${i}`, [t, t, t], greyAtStep(t))),
  };
}
const straight = (t: number): Lab => [10 + 85 * t, 0, 0];
const value = (figure: Figure) => (figure.shape === 'scalar' ? figure.value : undefined);
const measured = (greyAtStep: (t: number) => Lab) => {
  const facts = readingFacts(reading(greyAtStep));
  return { crossed: crossovers.compute(facts), off: linearity.compute(facts), facts };
};

describe('the greys of a print', () => {
  it('on the line from black to paper cross nothing and depart from nothing', () => {
    const { crossed, off } = measured(straight);
    expect([value(crossed), value(off)]).toEqual([0, expect.closeTo(0, 9)]);
  });

  it('that swing from green to red cross over once, and where is said', () => {
    const { crossed } = measured((t) => [10 + 85 * t, t === 0 || t === 1 ? 0 : t < 0.5 ? -2 : 2, 0]);
    expect(crossed).toMatchObject({ value: 1, note: 'a* at 50 %' });
  });

  it('that stray by less than half a ΔE cross nothing: no eye finds it', () => {
    const { crossed } = measured((t) => [10 + 85 * t, t < 0.5 ? -0.4 : 0.4, 0]);
    expect(value(crossed)).toBe(0);
  });

  it('each axis is counted by itself, and each way back', () => {
    const wave = (t: number) => (t === 0 || t === 1 ? 0 : 3 * Math.sign(Math.sin(3 * Math.PI * t)));
    const { crossed } = measured((t) => [10 + 85 * t, wave(t), -wave(t)]);
    expect(value(crossed)).toBe(4);
  });

  it('that are lighter in the middle say by how much, and where', () => {
    const { off } = measured((t) => [10 + 85 * t + 6 * Math.sin(Math.PI * t), 0, 0]);
    expect(value(off)).toBeCloseTo(6, 6);
    expect(off).toMatchObject({ note: 'lighter than its aim at 50 %' });
    const dark = measured((t) => [10 + 85 * t - 6 * Math.sin(Math.PI * t), 0, 0]).off;
    expect(dark).toMatchObject({ note: 'darker than its aim at 50 %' });
  });

  it('the tint of the paper is no tinge of the greys: they lead to it (fast-check)', () =>
    fc.assert(
      fc.property(
        fc.tuple(fc.double({ min: -6, max: 6, noNaN: true }), fc.double({ min: -6, max: 6, noNaN: true })),
        ([a, b]) => {
          const { crossed, facts } = measured((t) => [10 + 85 * t, a * t, b * t]);
          expect(value(crossed)).toBe(0);
          for (const step of facts.ramp!) expect(step.chromaOffLine).toBeLessThan(1e-9);
        },
      ),
    ));

  it('a figure of greys has a spread, the larger the noisier the readings; without greys there is none', () => {
    const noisy = (by: number) => {
      const { patches, ...rest } = reading(straight);
      const twice = patches.flatMap((p, i) => [
        p,
        patch(`${p.id} #2`, p.device!, [p.lab[0] + by * (i % 2 ? 1 : -1), by, -by]),
      ]);
      return readingFacts({ ...rest, patches: twice });
    };
    const spread = (by: number) => rampSd(noisy(by), (ramp) => ramp[5].lab[0]);
    expect(spread(1)).toBeGreaterThan(spread(0.1));
    expect(rampSd({ ...noisy(1), ramp: undefined }, () => 1)).toBe(0);
  });
});

describe('a ramp', () => {
  const greys = [0, 0.2, 0.5, 0.8, 1].map((step) => ({ step, lab: straight(step) }));

  it('is dark to light, whatever order it was read in', () => {
    const mixed = [greys[3], greys[0], greys[4], greys[2], greys[1]];
    expect(rampOf(mixed, straight(1)).map((s) => s.step)).toEqual([0, 0.2, 0.5, 0.8, 1]);
  });

  it('between two steps is between their colours; beyond the ends it is the end (fast-check)', () =>
    fc.assert(
      fc.property(fc.double({ min: -0.5, max: 1.5, noNaN: true }), (step) => {
        const L = greyAt(greys, step)[0];
        expect(L).toBeCloseTo(10 + 85 * Math.min(1, Math.max(0, step)), 9);
      }),
    ));

  it('of CMYK is black ink alone; four greys are too few', () => {
    const black = (k: number) => patch(`k${k}`, [0, 0, 0, k], straight(1 - k));
    const inked = patch('c', [0.5, 0, 0, 0], [60, -20, -20]);
    const of = (ks: readonly number[]): Reading => ({
      colourFrom: 'Lab',
      deviceSpace: 'CMYK',
      patches: [...ks.map(black), inked],
    });
    const five = of([0, 0.25, 0.5, 0.75, 1]);
    expect(neutralRamp(five, groupPatches(five), straight(1))!.map((s) => s.step)).toEqual([0, 0.25, 0.5, 0.75, 1]);
    const four = of([0, 0.5, 0.75, 1]);
    expect(neutralRamp(four, groupPatches(four), straight(1))).toBeUndefined();
  });
});
