import type { Lab } from './types.ts';

const RAD = Math.PI / 180;
const POW25_7 = 25 ** 7;

/** Euclidean distance in CIELAB, ΔE*ab. */
export function deltaE76(x: Lab, y: Lab): number {
  return Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
}

/**
 * CIEDE2000 colour difference with parametric factors 1.
 * Sharma, Wu & Dalal (2005), "The CIEDE2000 Color-Difference Formula: Implementation Notes, Supplementary Test Data, and
 * Mathematical Observations".
 */
export function deltaE2000(x: Lab, y: Lab): number {
  const c1 = Math.hypot(x[1], x[2]);
  const c2 = Math.hypot(y[1], y[2]);
  const cMean7 = ((c1 + c2) / 2) ** 7;
  const g = 0.5 * (1 - Math.sqrt(cMean7 / (cMean7 + POW25_7)));
  const a1 = (1 + g) * x[1];
  const a2 = (1 + g) * y[1];
  const C1 = Math.hypot(a1, x[2]);
  const C2 = Math.hypot(a2, y[2]);
  const h1 = hue(a1, x[2]);
  const h2 = hue(a2, y[2]);

  const dL = y[0] - x[0];
  const dC = C2 - C1;
  const grey = C1 * C2 === 0;
  let dh = grey ? 0 : h2 - h1;
  if (dh > 180) dh -= 360;
  else if (dh < -180) dh += 360;
  const dH = 2 * Math.sqrt(C1 * C2) * Math.sin((dh / 2) * RAD);

  const L = (x[0] + y[0]) / 2;
  const C = (C1 + C2) / 2;
  let h = h1 + h2;
  if (!grey) {
    if (Math.abs(h1 - h2) > 180) h += h < 360 ? 360 : -360;
    h /= 2;
  }
  const t =
    1 -
    0.17 * Math.cos((h - 30) * RAD) +
    0.24 * Math.cos(2 * h * RAD) +
    0.32 * Math.cos((3 * h + 6) * RAD) -
    0.2 * Math.cos((4 * h - 63) * RAD);
  const C7 = C ** 7;
  const rotation = -Math.sin(60 * Math.exp(-(((h - 275) / 25) ** 2)) * RAD) * 2 * Math.sqrt(C7 / (C7 + POW25_7));
  const l50 = (L - 50) ** 2;
  const l = dL / (1 + (0.015 * l50) / Math.sqrt(20 + l50));
  const c = dC / (1 + 0.045 * C);
  const hh = dH / (1 + 0.015 * C * t);
  // The rotation term can push the sum a rounding error below zero.
  return Math.sqrt(Math.max(0, l * l + c * c + hh * hh + rotation * c * hh));
}

function hue(a: number, b: number): number {
  if (a === 0 && b === 0) return 0;
  const h = Math.atan2(b, a) / RAD;
  return h < 0 ? h + 360 : h;
}
