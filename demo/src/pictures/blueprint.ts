import type { Scene } from './scene.ts';
import { fractal, mix, valueNoise } from './noise.ts';

/** To be reproduced: a drawing in ink on a sheet gone warm with age, all of it plain ground but for the lines. */
export function blueprint(widthPx: number, heightPx: number): Scene {
  const paper = fractal(valueNoise(81), 5);
  const line = (d: number, width: number) => (Math.abs(d) < width ? 1 : 0);
  return {
    fileName: 'drawing-of-the-mount.tif',
    title: 'Drawing of the mount, 1958',
    widthPx,
    heightPx,
    shade(x, y) {
      const age = 0.97 + 0.05 * (paper(x * 3, y * 3) - 0.5);
      const ground: [number, number, number] = [0.83 * age, 0.79 * age, 0.68 * age];
      const r = Math.hypot(x - 0.55, y - 0.45);
      const angle = Math.atan2(y - 0.45, x - 0.55);
      let ink = 0;
      for (const radius of [0.12, 0.2, 0.31]) ink = Math.max(ink, line(r - radius, 0.0016));
      if (r > 0.12 && r < 0.31) ink = Math.max(ink, line(Math.sin(angle * 12) * r, 0.0012));
      if (x > 0.12 && x < 1.38 && y > 0.08 && y < 0.92)
        ink = Math.max(
          ink,
          line(x - 0.12, 0.004),
          line(x - 1.378, 0.004),
          line(y - 0.082, 0.004),
          line(y - 0.918, 0.004),
        );
      if (x > 1.0 && x < 1.34 && y > 0.55 && y < 0.88)
        ink = Math.max(
          ink,
          line(((y * 60) % 1) - 0.5, 0.04) * (paper(x * 70, Math.floor(y * 60) * 7) > 0.42 ? 0.8 : 0),
        );
      if (Math.abs(y - 0.45) < 0.0012 && x > 0.18 && x < 0.95) ink = Math.max(ink, 0.7);
      return mix(ground, [0.05, 0.085, 0.2], ink);
    },
  };
}
