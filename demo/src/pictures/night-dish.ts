import { seededRandom } from '@rakuen/core/random';
import type { Scene } from './scene.ts';
import { clamp01, fractal, mix, ramp, valueNoise } from './noise.ts';

/** Low key: a dish against the night sky, a rim of last light, stars, the plain nearly black. */
export function nightDish(widthPx: number, heightPx: number): Scene {
  const cloud = fractal(valueNoise(11), 4);
  const grain = valueNoise(12);
  const random = seededRandom(13);
  const stars = Array.from({ length: 420 }, () => ({
    x: random() * 1.5,
    y: random() * 0.78,
    r: 0.0006 + 0.0014 * random() ** 6,
    glow: 0.1 + 0.9 * random() ** 3,
  }));
  const grid: (typeof stars)[] = Array.from({ length: 64 * 64 }, () => []);
  const cellOf = (x: number, y: number) => Math.floor(y * 40) * 64 + Math.floor(x * 40);
  for (const s of stars) grid[cellOf(s.x, s.y)].push(s);
  const horizon = 0.83;
  return {
    fileName: 'dish-at-night.tif',
    title: 'The fourth dish, after ten',
    widthPx,
    heightPx,
    shade(x, y) {
      const low = ramp(0.2, horizon, y);
      let colour = mix([0.0015, 0.0026, 0.008], [0.012, 0.02, 0.046], low);
      colour = mix(colour, [0.03, 0.026, 0.035], 0.5 * ramp(0.45, 0.9, cloud(x * 2.2, y * 4)) * low);
      for (const s of grid[cellOf(x, y)]) {
        const d = Math.hypot(x - s.x, y - s.y) / s.r;
        if (d < 3) colour = mix(colour, [0.9, 0.92, 1], clamp01(s.glow * Math.exp(-d * d)));
      }
      // The bowl, seen from below: an ellipse tilted to the left, its inner face lit at the rim.
      const [cx, cy] = [0.86, 0.42];
      const u = (x - cx) * Math.cos(-0.5) - (y - cy) * Math.sin(-0.5);
      const v = (x - cx) * Math.sin(-0.5) + (y - cy) * Math.cos(-0.5);
      const e = Math.hypot(u / 0.34, v / 0.15);
      if (e < 1) {
        const ribs = 0.5 + 0.5 * Math.cos(Math.atan2(v / 0.15, u / 0.34) * 24);
        const face = 0.006 + 0.02 * ramp(0.2, 1, e) * (0.6 + 0.4 * ribs);
        colour = mix(
          [face * 0.8, face * 0.9, face * 1.25],
          [0.42, 0.36, 0.3],
          ramp(0.965, 0.99, e) * clamp01(0.2 + u * 2),
        );
      } else if (Math.abs(x - 0.85) < 0.03 + 0.11 * ramp(0.5, horizon, y) && y > 0.5 && y < horizon + 0.02) {
        const strut =
          Math.abs(Math.sin((x * 38 + y * 30) * 1.2)) < 0.35 || Math.abs(Math.sin((x * 38 - y * 30) * 1.2)) < 0.35;
        if (strut) colour = [0.0016, 0.0018, 0.0024];
      }
      if (y > horizon) {
        const crust = 0.0025 + 0.009 * cloud(x * 14, y * 60) * ramp(1.02, horizon, y);
        colour = [crust * 0.9, crust, crust * 1.2];
      }
      const g = 1 + 0.08 * (grain(x * 900, y * 900) - 0.5);
      return [colour[0] * g, colour[1] * g, colour[2] * g];
    },
  };
}
