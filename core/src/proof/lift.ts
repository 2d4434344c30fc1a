import { labRoot } from '../colour/lab.ts';

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/**
 * A print copy lifted by so many stops: light times 2 to that power in the darks and middle tones, with a shoulder that leaves white where it is. Hue
 * and saturation of the light stay: X, Y and Z grow alike. In place.
 * @param labs L*, a*, b* one after another
 */
export function lift(labs: Float32Array, stops: number): void {
  if (stops === 0) return;
  const gain = 2 ** stops;
  const light = (f: number) => (f ** 3 > EPSILON ? f ** 3 : (116 * f - 16) / KAPPA);
  for (let p = 0; p < labs.length; p += 3) {
    const fy = (labs[p] + 16) / 116;
    const y = light(fy);
    const factor = gain / (1 + (gain - 1) * Math.min(1, Math.max(0, y)));
    const fx = labRoot(light(fy + labs[p + 1] / 500) * factor);
    const lifted = labRoot(y * factor);
    const fz = labRoot(light(fy - labs[p + 2] / 200) * factor);
    labs[p] = 116 * lifted - 16;
    labs[p + 1] = 500 * (fx - lifted);
    labs[p + 2] = 200 * (lifted - fz);
  }
}
