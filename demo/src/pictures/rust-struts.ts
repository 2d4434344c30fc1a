import type { Scene } from './scene.ts';
import { fractal, mix, ramp, valueNoise } from './noise.ts';

/** Saturated warm: rusted struts at dusk, the sun behind the last of them. */
export function rustStruts(widthPx: number, heightPx: number): Scene {
  const rust = fractal(valueNoise(61), 5);
  const cloud = fractal(valueNoise(62), 4);
  const grain = valueNoise(63);
  return {
    fileName: 'struts-at-dusk.tif',
    title: 'Struts, last sun',
    widthPx,
    heightPx,
    shade(x, y) {
      const glow = Math.exp(-((x - 1.05) ** 2 * 2.2 + (y - 0.62) ** 2 * 5));
      let c = mix([0.1, 0.05, 0.11], [0.85, 0.26, 0.03], ramp(0, 0.75, y));
      c = mix(c, [1, 0.62, 0.12], glow * 0.9);
      c = mix(c, [0.42, 0.1, 0.09], 0.5 * ramp(0.5, 0.8, cloud(x * 2, y * 7)));
      const beams = [
        [0.12, 0.35, 0.07],
        [0.75, -0.5, 0.055],
        [1.2, 0.22, 0.085],
      ] as const;
      for (const [at, slope, half] of beams) {
        const d = x - at - slope * (y - 0.5);
        if (Math.abs(d) > half) continue;
        const scale = rust(x * 24, y * 24);
        const lit = ramp(half, -half, d) * 0.5 + glow * 0.4;
        c = mix([0.05, 0.012, 0.006], [0.5, 0.15, 0.025], scale * (0.35 + lit));
        if (Math.abs(Math.abs(d) - half * 0.7) < half * 0.05) c = mix(c, [0.006, 0.004, 0.004], 0.8);
      }
      if (y > 0.9) c = mix(c, [0.02, 0.009, 0.01], ramp(0.9, 0.95, y));
      const g = 1 + 0.05 * (grain(x * 900, y * 900) - 0.5);
      return [c[0] * g, c[1] * g, c[2] * g];
    },
  };
}
