import type { Scene } from './scene.ts';
import { cells, fractal, mix, ramp, valueNoise } from './noise.ts';

/** Busy texture: lichen in rosettes on weathered concrete, detail to the last pixel. */
export function lichen(widthPx: number, heightPx: number): Scene {
  const stone = fractal(valueNoise(51), 6);
  const edge = fractal(valueNoise(52), 4);
  const rosettes = cells(53);
  const grain = valueNoise(54);
  return {
    fileName: 'lichen-on-concrete.tif',
    title: 'Lichen on the plinth',
    widthPx,
    heightPx,
    shade(x, y) {
      const rough = stone(x * 22, y * 22);
      const pits = ramp(0.62, 0.7, stone(x * 60 + 9, y * 60));
      let c = mix([0.2, 0.19, 0.175], [0.5, 0.48, 0.45], rough);
      c = mix(c, [0.045, 0.042, 0.04], pits * 0.8);
      const w = 0.35 * (edge(x * 12, y * 12) - 0.5);
      const [near, , id] = rosettes(x * 5.5 + w, y * 5.5 + w);
      const kind = ((id * 2654435761) >>> 9) % 5;
      const reach = 0.25 + 0.12 * (kind % 3) + 0.2 * (edge(x * 30, y * 30) - 0.5);
      if (near < reach && kind < 4) {
        const lobes = 0.55 + 0.9 * (edge(x * 85, y * 85) - 0.35);
        const colours = [
          [0.42, 0.33, 0.035],
          [0.3, 0.36, 0.24],
          [0.5, 0.21, 0.03],
          [0.36, 0.4, 0.36],
        ];
        c = mix(
          c,
          colours[kind].map((v) => v * lobes),
          ramp(reach, reach - 0.05, near),
        );
      }
      const g = 1 + 0.3 * (grain(x * 420, y * 420) - 0.5);
      return [c[0] * g, c[1] * g, c[2] * g];
    },
  };
}
