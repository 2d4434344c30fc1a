import type { Scene } from './scene.ts';
import { fractal, mix, ramp, valueNoise } from './noise.ts';

/** Long soft greys: pylons going into fog, nothing black, nothing white. */
export function fogPylons(widthPx: number, heightPx: number): Scene {
  const drift = fractal(valueNoise(41), 4);
  const grain = valueNoise(42);
  const pylons = [
    { x: 0.28, height: 0.62, depth: 0.35 },
    { x: 0.72, height: 0.4, depth: 0.62 },
    { x: 1.0, height: 0.26, depth: 0.8 },
    { x: 1.18, height: 0.17, depth: 0.9 },
  ];
  return {
    fileName: 'pylons-in-fog.tif',
    title: 'Pylons, seven in the morning',
    widthPx,
    heightPx,
    shade(x, y) {
      const fog = 0.36 + 0.1 * (drift(x * 2, y * 3) - 0.5) + 0.06 * (1 - y);
      let v = y > 0.8 ? fog * (1 - 0.35 * ramp(0.8, 1, y) * (0.6 + 0.4 * drift(x * 9, y * 30))) : fog;
      for (const p of pylons) {
        const up = (0.82 - y) / p.height;
        if (up < 0 || up > 1) continue;
        const half = p.height * (0.13 * (1 - up) + 0.012);
        const u = (x - p.x) / half;
        const arm = [0.66, 0.8, 0.92].some(
          (a) => Math.abs(up - a) < 0.012 && Math.abs(x - p.x) < p.height * 0.2 * (1.3 - a),
        );
        const leg = Math.abs(Math.abs(u) - 1) < 0.1;
        const brace = Math.abs(u) < 1 && Math.abs(Math.sin(up * 34 + u * 1.6)) < 0.09;
        if (arm || leg || brace) v = v * p.depth + (1 - p.depth) * 0.05;
      }
      const g = v * (1 + 0.03 * (grain(x * 900, y * 900) - 0.5));
      return mix([g * 0.97, g, g * 1.02], [g, g, g], 0.5);
    },
  };
}
