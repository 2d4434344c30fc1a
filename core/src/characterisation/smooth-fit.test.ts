import fc from 'fast-check';
import { halton } from '../halton.ts';
import { seededNormal } from '../random.ts';
import { evenGreys } from './even-greys.ts';
import { fitSmooth, type Scattered, type SmoothFit } from './smooth-fit.ts';
import { atNodes, axisModes, latticeModes, modesAt } from './smooth-modes.ts';

const MODES = latticeModes(3, 9, 120);
const places = Array.from({ length: 160 }, (_, i) => [2, 3, 5].map((base) => halton(i + 1, base)));
const smooth = ([r, g, b]: readonly number[]) => 20 + 60 * r ** 1.5 + 15 * g * b - 8 * Math.sin(3 * b);
const scattered = (of: (at: readonly number[]) => number, over: Partial<Scattered> = {}): Scattered => ({
  places,
  values: Float64Array.from(places, of),
  channels: 1,
  ...over,
});
const valueAt = ({ modes, amounts }: SmoothFit, at: readonly number[], channel = 0) =>
  modesAt(modes, at).reduce((s, v, m) => s + v * amounts[channel * modes.count + m], 0);

describe('shapes of a lattice', () => {
  it('along an axis lie at right angles, of mean square 1; the straight ones bend nothing, each further one more', () => {
    const { nodes, shapes, bending } = axisModes(9);
    for (let i = 0; i < nodes; i++)
      for (let j = 0; j <= i; j++) {
        let dot = 0;
        for (let k = 0; k < nodes; k++) dot += (shapes[i * nodes + k] * shapes[j * nodes + k]) / nodes;
        expect(dot).toBeCloseTo(i === j ? 1 : 0, 8);
      }
    expect(Math.max(bending[0], bending[1])).toBeLessThan(1e-6);
    for (let i = 2; i < nodes; i++) expect(bending[i]).toBeGreaterThan(bending[i - 1]);
  });

  it('of a whole lattice are the smoothest there are, the smoothest first', () => {
    const few = latticeModes(3, 9, 20);
    expect(few.count).toBe(20);
    for (let m = 1; m < few.count; m++) expect(few.bending[m]).toBeGreaterThanOrEqual(few.bending[m - 1]);
    expect(Math.max(...few.bending)).toBeLessThanOrEqual(latticeModes(3, 9, 60).bending[20] + 1e-9);
  });

  it('opened at every node are what they are there, place by place (fast-check)', () => {
    const amounts = Float64Array.from({ length: MODES.count }, (_, i) => Math.sin(i * 1.7));
    const [nodes] = atNodes(MODES, amounts, 1);
    fc.assert(
      fc.property(fc.tuple(fc.nat(8), fc.nat(8), fc.nat(8)), ([i, j, k]) => {
        const said = modesAt(MODES, [i / 8, j / 8, k / 8]).reduce((s, v, m) => s + v * amounts[m], 0);
        expect(nodes[(i * 9 + j) * 9 + k]).toBeCloseTo(said, 8);
      }),
    );
  });
});

describe('a smooth function through scattered readings', () => {
  it('without noise comes near everywhere, between the places too', () => {
    const fit = fitSmooth(scattered(smooth), MODES);
    const off = Array.from({ length: 60 }, (_, i) => {
      const at = [7, 11, 13].map((base) => halton(i + 1, base));
      return Math.abs(valueAt(fit, at) - smooth(at));
    });
    expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.4);
    expect(Math.max(...off)).toBeLessThan(2);
  });

  it('with noise is smoothed more, and lies nearer the truth than the readings do', () => {
    const normal = seededNormal(3);
    const noise = Float64Array.from(places, () => 2 * normal());
    const clean = fitSmooth(scattered(smooth), MODES);
    const noisy = fitSmooth(
      scattered(smooth, { values: Float64Array.from(places, (at, i) => smooth(at) + noise[i]) }),
      MODES,
    );
    expect(noisy.smoothness).toBeGreaterThan(clean.smoothness);
    const rms = (off: number[]) => Math.sqrt(off.reduce((s, v) => s + v * v, 0) / off.length);
    expect(rms(places.map((at) => valueAt(noisy, at) - smooth(at)))).toBeLessThan(rms([...noise]) * 0.8);
  });

  it('tells what each reading is off once it is left out: as a fit without it says', () => {
    const few = latticeModes(3, 5, 30);
    const fit = fitSmooth(scattered(smooth), few);
    for (const gone of [3, 77, 150]) {
      // The same smoothness: a place that counts for nothing is as good as left out.
      const without = fitSmooth(scattered(smooth, { weights: places.map((_, i) => (i === gone ? 1e-9 : 1)) }), few);
      const off = smooth(places[gone]) - valueAt(without, places[gone]);
      expect(Math.abs(fit.leftOut[gone] - off)).toBeLessThan(Math.max(0.15, Math.abs(off) * 0.15));
    }
  });

  it('a reading that counts more pulls more; each pulls between nothing and all', () => {
    const fit = fitSmooth(scattered(smooth), MODES);
    const heavy = fitSmooth(scattered(smooth, { weights: places.map((_, i) => (i === 10 ? 50 : 1)) }), MODES);
    for (const pull of fit.leverage) {
      expect(pull).toBeGreaterThan(0);
      expect(pull).toBeLessThan(1);
    }
    expect(heavy.leverage[10]).toBeGreaterThan(fit.leverage[10]);
  });

  it('channels beside each other are told as each alone would be', () => {
    const other = ([r, g, b]: readonly number[]) => 5 + 3 * r - 2 * g + b ** 2;
    const both = Float64Array.from(places.flatMap((at) => [smooth(at), other(at)]));
    const fit = fitSmooth({ places, values: both, channels: 2 }, MODES);
    for (const at of places.slice(0, 20)) {
      expect(valueAt(fit, at, 0)).toBeCloseTo(smooth(at), 0);
      expect(valueAt(fit, at, 1)).toBeCloseTo(other(at), 1);
    }
  });

  it('says how far it is, never back and never beyond the end; of one place nothing is made', () => {
    const told: number[] = [];
    fitSmooth(scattered(smooth), MODES, (share) => told.push(share));
    expect(told.length).toBeGreaterThan(2);
    expect(told).toEqual([...told].sort((p, q) => p - q));
    expect(told[told.length - 1]).toBeLessThanOrEqual(1);
    expect(() => fitSmooth({ places: [[0, 0, 0]], values: Float64Array.of(1), channels: 1 }, MODES)).toThrow(
      RangeError,
    );
  });

  it('places speak for the room about them: all of it together, one in a crowd for less', () => {
    const crowd = [...places, ...Array.from({ length: 30 }, (_, i) => [0.5 + i / 1000, 0.5, 0.5])];
    const { rooms } = fitSmooth({ places: crowd, values: Float64Array.from(crowd, smooth), channels: 1 }, MODES);
    expect(rooms.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
    const mean = (from: number, to: number) => rooms.slice(from, to).reduce((s, v) => s + v, 0) / (to - from);
    expect(mean(160, 190)).toBeLessThan(mean(0, 160) / 20);
  });
});

describe('greys of a fitted lattice', () => {
  const nodes = 5;
  const lattice = (greyL: readonly number[]) =>
    Float32Array.from({ length: nodes ** 3 * 3 }, (_, at) => {
      const node = Math.floor(at / 3);
      const [r, g, b] = [Math.floor(node / nodes ** 2), Math.floor(node / nodes) % nodes, node % nodes];
      const grey = r === g && g === b;
      return at % 3 === 0 ? (grey ? greyL[r] : 10 + 20 * ((r + g + b) / 3)) : 0;
    });
  const greysOf = (labs: Float32Array) =>
    Array.from({ length: nodes }, (_, i) => labs[((i * nodes + i) * nodes + i) * 3]);

  it('that rise are left as they are', () => {
    const labs = lattice([10, 30, 50, 70, 90]);
    const before = [...labs];
    const even = evenGreys(labs, nodes, 3);
    expect(even.lift).toBeUndefined();
    expect([...even.labs]).toEqual(before);
  });

  it('that fall back are levelled: none is darker than the one before it', () => {
    const { labs, lift } = evenGreys(lattice([10, 34, 31, 70, 90]), nodes, 3);
    const greys = greysOf(labs);
    for (let i = 1; i < nodes; i++) expect(greys[i]).toBeGreaterThan(greys[i - 1]);
    expect(lift).toBeDefined();
    // Far from the diagonal nothing is moved.
    expect(lift![nodes ** 2 * (nodes - 1)]).toBe(1);
  });

  it('of four inks there is no diagonal of greys', () => {
    const labs = new Float32Array(3 ** 4 * 3);
    expect(evenGreys(labs, 3, 4)).toEqual({ labs });
  });
});
