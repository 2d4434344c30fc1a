import type { Scene } from './scene.ts';
import { clamp01, fractal, ramp, valueNoise } from './noise.ts';

/** Black-and-white, toned a little warm: the receiver hall, light through high windows, a true black under the stairs. */
export function tonedHall(widthPx: number, heightPx: number): Scene {
  const wall = fractal(valueNoise(101), 5);
  const grain = valueNoise(102);
  return {
    fileName: 'receiver-hall.tif',
    title: 'Receiver hall, north windows',
    widthPx,
    heightPx,
    shade(x, y) {
      let v = 0.12 + 0.1 * (wall(x * 4, y * 4) - 0.4);
      for (let i = 0; i < 4; i++) {
        const cx = 0.24 + i * 0.33;
        const [u, w] = [(x - cx) / 0.1, (y - 0.3) / 0.22];
        if (Math.abs(u) < 1 && Math.abs(w) < 1)
          v = Math.abs(((u + 1) * 1.5) % 1) < 0.06 || Math.abs(((w + 1) * 2) % 1) < 0.06 ? 0.03 : 0.9;
        // The light lies in bars on the floor, and in the air.
        const beam = Math.abs(x - cx + (y - 0.3) * 0.25) < 0.13 && y > 0.5;
        if (beam) v += (y > 0.75 ? 0.42 : 0.08) * ramp(0.13, 0.06, Math.abs(x - cx + (y - 0.3) * 0.25));
      }
      if (y > 0.75) v *= 0.75 + 0.5 * (wall(x * 8, y * 50) - 0.5);
      const stairs = y > 0.86 - 0.42 * x && x < 0.55 && y > 0.45;
      if (stairs) v = Math.sin((y + 0.42 * x) * 90) > 0.2 ? 0.012 : 0.0035;
      v = clamp01(v * (1 + 0.14 * (grain(x * 700, y * 700) - 0.5)));
      const warm = 0.06 * (1 - v);
      return [v * (1 + warm), v, v * (1 - 1.6 * warm)];
    },
  };
}
