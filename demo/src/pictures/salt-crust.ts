import type { Scene } from './scene.ts';
import { cells, fractal, mix, ramp, valueNoise } from './noise.ts';

/** High key: the salt crust at noon, polygons with raised seams, hardly a shadow, a paler sky. */
export function saltCrust(widthPx: number, heightPx: number): Scene {
  const crust = cells(21);
  const fine = fractal(valueNoise(22), 5);
  const grain = valueNoise(23);
  const horizon = 0.24;
  return {
    fileName: 'salt-crust-noon.tif',
    title: 'Salt crust at noon',
    widthPx,
    heightPx,
    shade(x, y) {
      let colour: readonly [number, number, number];
      if (y < horizon) colour = mix([0.7, 0.78, 0.86], [0.86, 0.88, 0.88], ramp(0, horizon, y));
      else {
        // Perspective: what lies near is large.
        const depth = 0.12 / (y - horizon + 0.035);
        const [first, second, id] = crust((x - 0.75) * depth * 9, depth * 26);
        const seam = ramp(0.09, 0.0, second - first);
        const side = ramp(0.2, 0.05, second - first) - seam;
        const plate =
          0.7 + 0.16 * (((id * 2654435761) >>> 8) % 100) * 0.01 + 0.22 * (fine(x * depth * 60, depth * 160) - 0.5);
        colour = mix([plate, plate * 0.985, plate * 0.95], [0.93, 0.93, 0.92], seam);
        colour = mix(colour, [0.36, 0.4, 0.46], 0.75 * side);
        colour = mix(colour, [0.86, 0.88, 0.88], ramp(horizon + 0.12, horizon, y) * 0.8);
      }
      const g = 1 + 0.02 * (grain(x * 900, y * 900) - 0.5);
      return [colour[0] * g, colour[1] * g, colour[2] * g];
    },
  };
}
