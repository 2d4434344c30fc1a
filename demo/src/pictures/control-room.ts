import type { Scene } from './scene.ts';
import { clamp01, fractal, mix, ramp, valueNoise } from './noise.ts';

/** Saturated: the control room under sodium light, panels with lit keys, a green trace. */
export function controlRoom(widthPx: number, heightPx: number): Scene {
  const wear = fractal(valueNoise(31), 5);
  const grain = valueNoise(32);
  const pick = (i: number, j: number) => ((((i * 73856093) ^ (j * 19349663)) >>> 0) % 1000) / 1000;
  return {
    fileName: 'control-room-sodium.tif',
    title: 'Control room, sodium light',
    widthPx,
    heightPx,
    shade(x, y) {
      const lamp = Math.exp(-(((x - 0.45) / 0.75) ** 2) - ((y + 0.1) / 0.8) ** 2);
      const light = 0.3 + 0.75 * lamp;
      const dirt = 0.75 + 0.5 * (wear(x * 7, y * 7) - 0.5);
      let colour: readonly [number, number, number] = [0.98 * light * dirt, 0.38 * light * dirt, 0.006 * light * dirt];
      // The desk: rows of panels.
      if (y > 0.42) {
        const px = x * 8.2;
        const py = (y - 0.42) * 11;
        const [i, j] = [Math.floor(px), Math.floor(py)];
        const [fx, fy] = [px - i, py - j];
        const edge = Math.min(fx, fy, 1 - fx, 1 - fy);
        const shade = 0.6 + 0.6 * light;
        colour = mix(
          [0.06 * shade, 0.035 * shade, 0.012],
          [0.55 * shade * dirt, 0.17 * shade * dirt, 0.006],
          ramp(0.03, 0.07, edge),
        );
        const [kx, ky] = [fx * 4, fy * 3];
        const key = pick(i * 7 + Math.floor(kx), j * 5 + Math.floor(ky));
        const inside = Math.min(kx % 1, ky % 1, 1 - (kx % 1), 1 - (ky % 1));
        if (edge > 0.1 && inside > 0.18) {
          const lit = ramp(0.18, 0.26, inside);
          const lamps: [number, number, number][] = [
            [0.9, 0.03, 0.02],
            [0.02, 0.62, 0.12],
            [0.95, 0.62, 0.02],
            [0.03, 0.12, 0.85],
          ];
          if (key > 0.6) colour = mix(colour, lamps[Math.floor(key * 997) % 4], lit);
          else colour = mix(colour, [0.4 * shade, 0.12 * shade, 0.005], lit * 0.7);
        }
      }
      // The tube: a dark green face with a trace.
      const [tx, ty] = [(x - 1.02) / 0.26, (y - 0.24) / 0.17];
      const round = Math.max(Math.abs(tx), Math.abs(ty)) + 0.15 * Math.hypot(tx, ty);
      if (round < 1) {
        const trace = Math.abs(ty - 0.35 * Math.sin(tx * 9) * Math.exp(-tx * tx * 2));
        colour = mix(
          [0.004, 0.03, 0.01],
          [0.05, 0.85, 0.15],
          clamp01(Math.exp(-((trace / 0.035) ** 2)) + 0.18 * Math.exp(-trace * 5)),
        );
        colour = mix(colour, [0.03, 0.015, 0.004], ramp(0.92, 1, round));
      }
      const g = 1 + 0.06 * (grain(x * 900, y * 900) - 0.5);
      return [colour[0] * g, colour[1] * g, colour[2] * g];
    },
  };
}
