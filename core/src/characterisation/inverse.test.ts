import { scatteredChart, SHEETS } from '../../test/sheets.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { hueDegrees } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { seededRandom } from '../random.ts';
import { readChart } from '../simulation/instrument.ts';
import { inverter } from './inverse.ts';
import { labAt, nodePlaces } from './lattice.ts';
import { printModel } from './print-model.ts';
import { reachOf } from './reach.ts';
import { relativePrint } from './relative-print.ts';
import { compensated, RENDERINGS, toned } from './renderings.ts';

const print = relativePrint(printModel([readChart(SHEETS.cotton, scatteredChart(460), 'M1', 7)]).labs);
const send = inverter(print.lattice, print.reach);
const rendering = (key: string) => RENDERINGS.find((r) => r.key === key)!.aim(print, 0);

describe('what must be sent', () => {
  it('is exact within the gamut: residual below 0.05 ΔE00', () => {
    const random = seededRandom(2);
    for (let i = 0; i < 1000; i++) {
      const wanted = labAt(print.lattice, [random(), random(), random()]);
      expect(deltaE2000(wanted, labAt(print.lattice, send(wanted).device))).toBeLessThan(0.05);
    }
  });

  it('is found too where the way there is crooked: a device whose darks stand still and turn back, its greys among them', () => {
    const nodes = 17;
    const values = new Float32Array(nodes ** 3 * 3);
    // Darks level off, and on the way from no blue to a grey the shadows turn yellow first.
    const bend = (v: number) => 15 + 85 * Math.max(0, (v - 0.15) / 0.85) ** 1.2;
    let n = 0;
    for (const [r, g, b] of nodePlaces(3, nodes)) {
      const grey = 0.3 * r + 0.6 * g + 0.1 * b;
      const yellow = 14 * Math.exp(-(((b - 0.12) / 0.05) ** 2)) * Math.exp(-(((grey - 0.2) / 0.07) ** 2));
      values.set([bend(grey), 90 * (r - g) * (0.3 + grey), 40 * ((r + g) / 2 - b) * (0.3 + grey) + yellow], n);
      n += 3;
    }
    const crooked = { axes: 3, nodes, values } as const;
    const find = inverter(crooked, reachOf(crooked));
    for (let L = 18; L <= 98; L += 0.5)
      expect(deltaE2000([L, 0, 0], labAt(crooked, find([L, 0, 0]).device))).toBeLessThan(0.05);
  });

  it('outside keeps hue before chroma', () => {
    for (let h = 0; h < 360; h += 15) {
      const wanted: Lab = [55, 110 * Math.cos((h * Math.PI) / 180), 110 * Math.sin((h * Math.PI) / 180)];
      const sent = send(wanted);
      expect(sent.off).toBeGreaterThan(0.5);
      const turned = Math.abs(((hueDegrees(labAt(print.lattice, sent.device)) - h + 540) % 360) - 180);
      expect(turned).toBeLessThan(12);
    }
  });

  it('no ramp and no hue circle jumps: each step is near the mean of its neighbours', () => {
    const circle = Array.from({ length: 180 }, (_, i): Lab => {
      const h = (i * 2 * Math.PI) / 180;
      return [55, 25 * Math.cos(h), 25 * Math.sin(h)];
    });
    const ramp = Array.from({ length: 101 }, (_, i): Lab => [i, 0, 0]);
    for (const line of [circle, ramp.slice(25)]) {
      const sent = line.map((lab) => labAt(print.lattice, send(lab).device));
      for (let i = 1; i + 1 < sent.length; i++)
        for (const c of [0, 1, 2] as const)
          expect(Math.abs(sent[i - 1][c] - 2 * sent[i][c] + sent[i + 1][c])).toBeLessThan(1);
    }
  });
});

describe('renderings', () => {
  it('black compensated takes black to the sheet’s black, and leaves white (ISO 18619)', () => {
    const aim = rendering('relative');
    expect(aim([0, 0, 0])[0]).toBeCloseTo(print.blackL, 4);
    expect(aim([100, 0, 0])[0]).toBeCloseTo(100, 6);
    // Linear in XYZ: half way in luminance stays half way.
    expect(compensated(0, 20)([76.0693, 0, 0])[0]).toBeGreaterThan(76.0693);
  });

  it.each(['perceptual', 'saturation'])('%s keeps the order of tones and of chroma, and every hue', (key) => {
    const aim = rendering(key);
    const greys = Array.from({ length: 101 }, (_, L) => aim([L, 0, 0]));
    expect(greys.every((g, i) => i === 0 || g[0] > greys[i - 1][0])).toBe(true);
    for (let h = 0; h < 360; h += 10) {
      const [ca, cb] = [Math.cos((h * Math.PI) / 180), Math.sin((h * Math.PI) / 180)];
      let before = 0;
      for (let C = 5; C <= 120; C += 5) {
        const to = aim([55, C * ca, C * cb]);
        const chroma = Math.hypot(to[1], to[2]);
        expect(chroma).toBeGreaterThanOrEqual(before - 1e-6);
        before = chroma;
        expect(Math.abs(((hueDegrees(to) - h + 540) % 360) - 180)).toBeLessThan(0.01);
      }
    }
  });

  it('perceptual lands within reach, whatever is asked', () => {
    const aim = rendering('perceptual');
    const random = seededRandom(8);
    for (let i = 0; i < 300; i++) {
      const lab: Lab = [random() * 100, random() * 200 - 100, random() * 200 - 100];
      expect(send(aim(lab)).off).toBeLessThan(2.5);
    }
  });

  it('hardly moves what is well within', () => {
    expect(deltaE2000(rendering('perceptual')([60, 15, 10]), [60, 15, 10])).toBeLessThan(1.5);
    expect(toned(0, 18)(100)).toBeCloseTo(100, 6);
    expect(toned(0, 18)(0)).toBeCloseTo(18, 6);
  });
});
