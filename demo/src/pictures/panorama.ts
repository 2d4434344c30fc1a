import type { Scene } from './scene.ts';
import { fractal, mix, ramp, valueNoise } from './noise.ts';

/** Three to one: the whole array across the plain under a cold clear sky. */
export function panorama(widthPx: number, heightPx: number): Scene {
  const plain = fractal(valueNoise(91), 5);
  const hills = fractal(valueNoise(92), 4);
  const grain = valueNoise(93);
  return {
    fileName: 'the-array.tif',
    title: 'The array, from the water tower',
    widthPx,
    heightPx,
    shade(x, y) {
      const horizon = 0.56 - 0.05 * hills(x * 1.6, 3);
      let c = mix([0.11, 0.22, 0.47], [0.6, 0.67, 0.7], ramp(0, horizon, y));
      if (y > horizon) c = mix([0.16, 0.15, 0.16], [0.2, 0.17, 0.13], ramp(horizon, 0.6, y));
      if (y > 0.585) {
        const near = ramp(0.585, 1, y);
        const v = 0.34 + 0.3 * (plain(x * (10 - 6 * near), y * 60) - 0.4) + 0.1 * near;
        c = [v * 1.02, v * 0.94, v * 0.8];
      }
      for (let i = 0; i < 9; i++) {
        const [cx, size] = [0.2 + i * 0.33, 0.075 - 0.006 * Math.abs(i - 4)];
        const [u, w] = [(x - cx) / size, (y - 0.5) / size];
        if (u * u + (w * 1.5) ** 2 < 1) c = mix([0.28, 0.29, 0.31], [0.82, 0.81, 0.78], ramp(0.9, -0.9, u + w));
        else if (Math.abs(u) < 0.16 + 0.2 * ramp(0.5, 1.6, w) && w > 0.4 && w < 1.5) c = [0.1, 0.1, 0.11];
      }
      const g = 1 + 0.04 * (grain(x * 700, y * 700) - 0.5);
      return [c[0] * g, c[1] * g, c[2] * g];
    },
  };
}
