import fc from 'fast-check';
import { labToXyz } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { seededNormal } from '../random.ts';
import { densitySd } from './noise.ts';
import { gamutOfReading } from './gamut-of-reading.ts';
import { neutralRamp } from './neutral-ramp.ts';
import { readingFacts } from './reading-facts.ts';
import type { PatchReading, Reading } from './reading.ts';
import { ASSUMED_REPEATABILITY, groupPatches, noiseAt, repeatability } from './repeats.ts';

const patch = (id: string, device: number[] | undefined, lab: Lab): PatchReading => ({
  id,
  device,
  lab,
  xyz: labToXyz(lab),
});
const reading = (patches: PatchReading[]): Reading => ({
  patches,
  deviceSpace: patches[0].device?.length === 4 ? 'CMYK' : 'RGB',
  colourFrom: 'Lab',
});

describe('repeated patches', () => {
  it('are averaged, and their pooled deviation is that of the textbook', () => {
    // Two groups: 10, 12, 14 (deviation 2) and 50, 50.4 (variance 0.08): pooled √((8 + 0.08) / 3).
    const r = reading([
      patch('a', [0, 0, 0], [10, 0, 0]),
      patch('b', [0, 0, 0], [12, 0, 0]),
      patch('c', [0, 0, 0], [14, 0, 0]),
      patch('d', [1, 1, 1], [50, 0, 0]),
      patch('e', [1, 1, 1], [50.4, 0, 0]),
    ]);
    const groups = groupPatches(r);
    expect(groups.map((g) => [g.lab[0], g.count])).toEqual([
      [12, 3],
      [50.2, 2],
    ]);
    const found = repeatability(groups);
    expect(found.degreesOfFreedom).toBe(3);
    expect(noiseAt(found, 50)[0]).toBeCloseTo(Math.sqrt(8.08 / 3), 12);
    expect(noiseAt(found, 50)[1]).toBe(0);
  });

  it('tell the noise where it is: blacks, greys and whites each their own, once each was read often enough', () => {
    const read = (L: number, by: number) =>
      [-1.5, -0.5, 0.5, 1.5].map((i) => patch(`${L}-${i}`, [L / 100, 0, 0], [L + i * by, 0, 0]));
    const found = repeatability(groupPatches(reading([...read(10, 0.02), ...read(50, 0.1), ...read(95, 0.3)])));
    for (const [L, by] of [
      [10, 0.02],
      [50, 0.1],
      [95, 0.3],
    ] as const)
      expect(noiseAt(found, L)[0]).toBeCloseTo(by * Math.sqrt(5 / 3), 9);
  });

  it('that were copied to the last digit are one reading and tell no noise', () => {
    const twice = [1, 2, 3, 4, 5].map((i) => patch(`w${i}`, [1, 1, 1], [95.25, 0.5, -2.25]));
    const groups = groupPatches(reading([patch('k', [0, 0, 0], [10, 0, 0]), ...twice]));
    expect(groups[1].count).toBe(1);
    expect(repeatability(groups)).toBe(ASSUMED_REPEATABILITY);
  });

  it('too few of them, and our own assumption stands in and is told apart', () => {
    const groups = groupPatches(
      reading([
        patch('a', [0, 0, 0], [10, 0, 0]),
        patch('b', [1, 1, 1], [95, 0, 0]),
        patch('c', [1, 1, 1], [95.2, 0, 0]),
      ]),
    );
    expect(repeatability(groups)).toEqual(ASSUMED_REPEATABILITY);
    expect(repeatability(groups).degreesOfFreedom).toBeUndefined();
  });

  it('without device values no patch is taken for another', () => {
    expect(groupPatches(reading([patch('a', undefined, [10, 0, 0]), patch('b', undefined, [10, 0, 0])]))).toHaveLength(
      2,
    );
  });

  it('recovers the noise an instrument was given, within a fifth', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 0.5, noNaN: true }), fc.integer({ min: 1, max: 1000 }), (sd, seed) => {
        const normal = seededNormal(seed);
        const patches = Array.from({ length: 400 }, (_, i) =>
          patch(String(i), [(i % 40) / 39, 0, 0], [40 + (i % 40) * 0.9 + sd * normal(), sd * normal(), sd * normal()]),
        );
        const found = repeatability(groupPatches(reading(patches)));
        for (const c of noiseAt(found, 50)) expect(Math.abs(c / sd - 1)).toBeLessThan(0.2);
      }),
      { numRuns: 20 },
    );
  });

  it('density carries noise as its derivative says', () => {
    const lab: Lab = [12, 0, 0];
    const density = (L: number) => -Math.log10(labToXyz([L, 0, 0])[1] / 100);
    const numeric = (density(12 - 0.001) - density(12 + 0.001)) / 0.002;
    const r = { bands: [{ toL: Infinity, lab: [0.05, 9, 9] as const }] };
    expect(densitySd(r, { lab, count: 1 })).toBeCloseTo(0.05 * numeric, 6);
    expect(densitySd(r, { lab, count: 4 })).toBeCloseTo((0.05 * numeric) / 2, 6);
  });
});

describe('what a chart holds', () => {
  const levels = [0, 0.25, 0.5, 0.75, 1];
  const cube = (without?: string) =>
    levels
      .flatMap((r) => levels.flatMap((g) => levels.map((b) => [r, g, b])))
      .filter((d) => d.join() !== without)
      .map((d, i) =>
        patch(String(i), d, [
          10 + 85 * ((d[0] + d[1] + d[2]) / 3),
          60 * (d[0] - d[1]),
          50 * ((d[0] + d[1]) / 2 - d[2]),
        ]),
      );

  it('a net of the device cube is taken as its surface; with a hole in it, the hull of all colours', () => {
    const whole = reading(cube());
    expect(gamutOfReading(whole, groupPatches(whole)).method).toBe('device surface');
    const holed = reading(cube('1,0.5,0'));
    expect(gamutOfReading(holed, groupPatches(holed)).method).toBe('modified hull');
  });

  it('white is the bare paper by its device values even when another patch is lighter', () => {
    const facts = readingFacts(reading([...cube(), patch('glint', [0.5, 0.5, 0.51], [99, 0, 0])]));
    expect(facts.white.lab[0]).toBe(95);
    expect(facts.black.lab[0]).toBe(10);
  });

  it('greys on the line have no chroma off it; one that strays is found at its distance', () => {
    const white: Lab = [95, 1, 4];
    const black: Lab = [15, -1, 0];
    const on = (step: number): Lab => [black[0] + 80 * step, black[1] + 2 * step, black[2] + 4 * step];
    const steps = Array.from({ length: 11 }, (_, i) => i / 10);
    const greys = steps.map((s) =>
      patch(`g${s}`, [s, s, s], s === 0.5 ? [on(s)[0], on(s)[1] + 3, on(s)[2] + 4] : on(s)),
    );
    const r = reading(greys);
    const ramp = neutralRamp(r, groupPatches(r), white)!;
    expect(ramp).toHaveLength(11);
    for (const s of ramp) expect(s.chromaOffLine).toBeCloseTo(s.step === 0.5 ? 5 : 0, 9);
  });

  it('of inks the line ends at full black ink, not at the darker four-ink black', () => {
    const greys = [0, 0.25, 0.5, 0.75, 1].map((k) => patch(`k${k}`, [0, 0, 0, k], [95 - 79 * k, 2 * k, 4 - 4 * k]));
    const facts = readingFacts(reading([...greys, patch('four', [1, 1, 1, 1], [8, -6, 9])]));
    expect(facts.black.lab[0]).toBe(8);
    for (const s of facts.ramp!) expect(s.chromaOffLine).toBeCloseTo(0, 9);
  });

  it('four greys are no ramp', () => {
    const r = reading([0, 0.3, 0.6, 1].map((s) => patch(String(s), [s, s, s], [10 + 85 * s, 0, 0])));
    expect(neutralRamp(r, groupPatches(r), [95, 0, 0])).toBeUndefined();
  });
});
