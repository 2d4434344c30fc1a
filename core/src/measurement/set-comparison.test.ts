import { differenceCiede2000 } from 'culori';
import { FOREIGN_PRINTERS, foreignChart, foreignTruth } from '../../test/foreign-printers.ts';
import { labToXyz } from '../colour/lab.ts';
import { three } from '../colour/three.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { seededNormal, seededRandom } from '../random.ts';
import type { Reading } from './reading.ts';
import { compareSets, passSpread } from './set-comparison.ts';
import { groupPatches } from './repeats.ts';
import { DEFAULT_THRESHOLDS } from './thresholds.ts';

const DEVICE = foreignChart(100);
const few: Rgb[] = Array.from({ length: 24 }, (_, i): Rgb => [(i % 4) / 3, ((i >> 2) % 3) / 2, i % 2]);
const labsOf = (printer: number, device: readonly Rgb[]) => device.map(foreignTruth(FOREIGN_PRINTERS[printer]!));

interface Made {
  labs: readonly Lab[];
  device?: readonly Rgb[];
  sd: (L: number) => number;
  passes?: number;
  seed: number;
}
function read({ labs, device = DEVICE, sd, passes = 1, seed }: Made): Reading {
  const normal = seededNormal(seed);
  return {
    deviceSpace: 'RGB',
    colourFrom: 'Lab',
    condition: 'M1',
    patches: Array.from({ length: passes }, (_, pass) =>
      labs.map((true_, i) => {
        const lab = three((c) => true_[c]! + sd(true_[0]) * normal());
        return { id: `A${i + 1}${pass > 0 ? ` #${pass + 1}` : ''}`, device: device[i], lab, xyz: labToXyz(lab) };
      }),
    ).flat(),
  };
}
const compared = (later: Reading, first: Reading) => compareSets(later, first, DEFAULT_THRESHOLDS)!;
const turned =
  (deg: number) =>
  ([L, a, b]: Lab): Lab => {
    const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
    return [L, a * c - b * s, a * s + b * c];
  };
const quiet = () => 0.05;

describe('two sets of one print condition, patch by patch', () => {
  it('hues turned by 8° are seen, though white, black and greys agree; mean, 95th and largest are those of CIEDE2000', () => {
    const labs = labsOf(0, DEVICE);
    const [later, first] = [labs.map(turned(8)), labs];
    const c = compared(read({ labs: later, sd: () => 0, seed: 1 }), read({ labs: first, sd: () => 0, seed: 2 }));
    expect(c.verdict).toBe('visible across the room');
    // By another library, over the patches that differ in device values.
    const ciede = differenceCiede2000();
    const asLab = ([l, a, b]: Lab) => ({ mode: 'lab65' as const, l, a, b });
    const seen = new Map(DEVICE.map((d, i) => [d.join(), ciede(asLab(later[i]!), asLab(first[i]!))]));
    const off = [...seen.values()].sort((a, b) => a - b);
    expect(c.common).toBe(off.length);
    expect(c.mean).toBeCloseTo(off.reduce((s, v) => s + v, 0) / off.length, 6);
    expect(c.p95).toBeCloseTo(off[Math.ceil(0.95 * off.length) - 1]!, 6);
    expect(c.max).toBeCloseTo(off.at(-1)!, 6);
    expect(c.worst[0]!.deltaE00).toBe(c.max);
    expect(c.mean).toBeGreaterThan(2);
  });

  it.each([
    ['even noise, one pass', () => 0.2, 1],
    ['even noise, two passes', () => 0.2, 2],
    ['a noisy instrument', () => 1, 1],
    ['noisier in the blacks', (L: number) => (L < 30 ? 0.6 : 0.1), 1],
    ['noisier in the blacks, two passes', (L: number) => (L < 30 ? 0.6 : 0.1), 2],
  ])('one print read twice is called different in at most 5 of 100: %s', (_, sd, passes) => {
    let different = 0;
    for (let n = 0; n < 100; n++) {
      const device = n % 2 ? DEVICE : few;
      const labs = labsOf(n % 6, device);
      const [p, q] = [0, 1].map((k) => read({ labs, device, sd, passes, seed: 300 + 2 * n + k }));
      if (compared(p!, q!).verdict !== 'within your noise') different++;
    }
    expect(different).toBeLessThanOrEqual(5);
  });

  it.each<[string, (lab: Lab) => Lab, string]>([
    ['lighter by 0.5 L*', ([L, a, b]) => [L + 0.5, a, b], 'too small to see'],
    ['a yellower paper, by 2.2 b* in the white', ([L, a, b]) => [L, a, b + (2.2 * L) / 100], 'visible edge to edge'],
    ['hues turned by 8°', turned(8), 'visible across the room'],
  ])('a real change is found behind the noise and called what it is: %s', (_, change, verdict) => {
    for (let n = 0; n < 6; n++) {
      const labs = labsOf(n, DEVICE);
      const sd = () => 0.15;
      const c = compared(read({ labs: labs.map(change), sd, seed: 2 * n + 1 }), read({ labs, sd, seed: 2 * n + 2 }));
      expect(c.verdict).toBe(verdict);
      expect(c.chance).toBeLessThanOrEqual(0.01);
    }
  });

  it('two stained patches are named and do not make the prints different', () => {
    const labs = labsOf(1, DEVICE);
    const stained = labs.map((lab, i): Lab => (i === 20 || i === 41 ? [lab[0] - 9, lab[1], lab[2] + 6] : lab));
    const c = compared(read({ labs: stained, sd: quiet, seed: 5 }), read({ labs, sd: quiet, seed: 6 }));
    expect(c.verdict).toBe('a few patches differ');
    expect(c.singles).toBe(2);
    expect(c.worst.filter((w) => w.beyondNoise).map((w) => w.id)).toEqual(expect.arrayContaining(['A21', 'A42']));
  });

  it('the noise of both alone is what repeated readings differ by; unknown where a set repeats nothing', () => {
    const labs = labsOf(2, DEVICE);
    const sd = () => 0.3;
    const [p, q] = [1, 2].map((seed) => read({ labs, sd, passes: 3, seed }));
    const c = compared(p!, q!);
    expect(c.noise! / c.mean).toBeGreaterThan(0.85);
    expect(c.noise! / c.mean).toBeLessThan(1.15);
    const [single, other] = [3, 4].map((seed) => read({ labs: labsOf(2, few), device: few, sd, seed }));
    const known = new Set(few.map((d) => d.join())).size === few.length;
    if (known) expect(compared(single!, other!).noise).toBeUndefined();
  });

  it('too few common patches say nothing; none at all is no comparison', () => {
    const labs = labsOf(0, DEVICE);
    const [p, q] = [1, 2].map((seed) => read({ labs: labs.slice(0, 5), sd: quiet, seed }));
    expect(compared(p!, q!).verdict).toBe('too few patches');
    const other = read({
      labs: labs.slice(0, 2),
      device: [
        [0.123, 0, 0],
        [0, 0.123, 0],
      ],
      sd: quiet,
      seed: 3,
    });
    expect(compareSets(p!, other, DEFAULT_THRESHOLDS)).toBeUndefined();
  });

  it('repeatability is the mean difference of a pass from the mean of all', () => {
    // Lightness alone, near L* 50, where a step of L* is about a step of ΔE00.
    const labs: Lab[] = [
      [49, 0, 0],
      [51, 0, 0],
      [50, 0, 0],
      [50, 0, 0],
    ];
    const device: Rgb[] = [
      [0.5, 0.5, 0.5],
      [0.5, 0.5, 0.5],
      [0.4, 0.4, 0.4],
      [0.3, 0.3, 0.3],
    ];
    const reading = read({ labs, device, sd: () => 0, seed: 1 });
    const spread = passSpread(groupPatches(reading))!;
    expect(spread.patches).toBe(1);
    expect(spread.meanDeltaE00).toBeCloseTo(1, 2);
    expect(passSpread(groupPatches({ ...reading, patches: reading.patches.slice(2) }))).toBeUndefined();
  });

  it('whether they differ does not hang on the order of the patches', () => {
    const random = seededRandom(4);
    const labs = labsOf(3, DEVICE);
    const [p, q] = [1, 2].map((seed) => read({ labs, sd: () => 0.2, seed }));
    const mixed = { ...q!, patches: [...q!.patches].sort(() => random() - 0.5) };
    expect(compared(p!, mixed).mean).toBeCloseTo(compared(p!, q!).mean, 9);
  });
});
