import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { levelled } from '../measurement/tone-curve.ts';

/** How far from the grey diagonal a correction reaches, in device values. */
const REACH = 0.12;
/** Least step of L* between two nodes of greys: smaller is a standstill. */
const LEAST_STEP = 0.02;

/**
 * Greys never get lighter as less light is asked for: where a fitted lattice of three axes falls back along its
 * diagonal it is levelled there, and the colours about it move along, less the further away.
 * @param labs Lab of every node, changed in place
 * @returns factors of reflectance by node where something was moved
 */
export function evenGreys(
  labs: Float32Array,
  nodes: number,
  axes: number,
): { labs: Float32Array; lift?: Float32Array } {
  if (axes !== 3) return { labs };
  const grey = (i: number) => (i * nodes + i) * nodes + i;
  const asked = Array.from({ length: nodes }, (_, i) => labs[grey(i) * 3]);
  const even = levelled(asked.map((L, i) => L! - i * LEAST_STEP)).map((L, i) => L + i * LEAST_STEP);
  if (even.every((L, i) => Math.abs(L - asked[i]!) < 1e-6)) return { labs };
  const factor = even.map((L, i) => labToXyz([L, 0, 0])[1] / labToXyz([asked[i]!, 0, 0])[1]);
  const lift = new Float32Array(labs.length / 3).fill(1);
  for (let r = 0; r < nodes; r++)
    for (let g = 0; g < nodes; g++)
      for (let b = 0; b < nodes; b++) {
        const mean = (r + g + b) / 3;
        const away = Math.hypot(r - mean, g - mean, b - mean) / (nodes - 1);
        if (away >= REACH) continue;
        const low = Math.min(nodes - 2, Math.floor(mean));
        const by = factor[low]! + (factor[low + 1]! - factor[low]!) * (mean - low);
        const node = (r * nodes + g) * nodes + b;
        lift[node] = 1 + (by - 1) * (1 - away / REACH) ** 2;
        const [X, Y, Z] = labToXyz([labs[node * 3]!, labs[node * 3 + 1]!, labs[node * 3 + 2]!]);
        labs.set(xyzToLab([X * lift[node], Y * lift[node], Z * lift[node]]), node * 3);
      }
  return { labs, lift };
}

/**
 * Raises every node that is darker than a print can be: smooth shapes overshoot where black sets in, and no model
 * promises a black that nobody read.
 * @param labs Lab of every node, changed in place
 * @param floorL L* of the darkest reading, less its uncertainty
 * @returns factors of reflectance by node where something was moved
 */
export function noDarkerThan(labs: Float32Array, floorL: number): Float32Array | undefined {
  let lift: Float32Array | undefined;
  const floorY = labToXyz([floorL, 0, 0])[1];
  for (let n = 0; n < labs.length; n += 3) {
    if (labs[n]! >= floorL) continue;
    const [X, Y, Z] = labToXyz([labs[n]!, labs[n + 1]!, labs[n + 2]!]);
    const by = floorY / Math.max(Y, 1e-6);
    lift ??= new Float32Array(labs.length / 3).fill(1);
    lift[n / 3] = by;
    labs.set(xyzToLab([X * by, Y * by, Z * by]), n);
  }
  return lift;
}
