import type { Scene } from './scene.ts';
import { clamp01, mix, ramp, valueNoise } from './noise.ts';

/** Smooth, skin-like tones: a glazed ceramic insulator before a plain wall. */
export function insulator(widthPx: number, heightPx: number): Scene {
  const grain = valueNoise(71);
  return {
    fileName: 'insulator.tif',
    title: 'Insulator, glazed',
    widthPx,
    heightPx,
    shade(x, y) {
      let c = mix([0.3, 0.27, 0.24], [0.16, 0.145, 0.13], ramp(0.2, 1.5, x + 0.4 * y));
      const shed = y > 0.1 && y < 0.92;
      if (shed) {
        const beat = Math.sin((y - 0.1) * 34) * 0.5 + 0.5;
        const half = 0.15 + 0.11 * beat ** 1.6;
        const u = (x - 0.75) / half;
        if (Math.abs(u) < 1) {
          const round = Math.sqrt(1 - u * u);
          const light = clamp01(0.18 + 0.75 * (round * 0.75 - u * 0.5));
          c = mix([0.11, 0.045, 0.028], [0.72, 0.5, 0.38], light);
          c = mix(c, [0.97, 0.95, 0.92], 0.85 * Math.exp(-((u + 0.42) ** 2) * 90) * ramp(0.35, 0.9, beat));
          c = mix(c, [0.07, 0.03, 0.02], 0.6 * ramp(0.14, 0, beat) * ramp(0, 0.5, Math.abs(u)));
        } else c = mix(c, [0.07, 0.06, 0.055], 0.5 * Math.exp(-Math.max(0, u - 1) * 5) * (u > 0 ? 1 : 0));
      }
      const g = 1 + 0.012 * (grain(x * 900, y * 900) - 0.5);
      return [c[0] * g, c[1] * g, c[2] * g];
    },
  };
}
