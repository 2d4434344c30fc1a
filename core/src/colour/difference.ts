import type { Lab } from './types.ts';

const RAD = Math.PI / 180;
const POW25_7 = 25 ** 7;
/** A constant turn of hue, as its cosine and sine. */
const turned = (degrees: number) => ({ cos: Math.cos(degrees * RAD), sin: Math.sin(degrees * RAD) });
const [T30, T6, T63] = [turned(30), turned(6), turned(63)];
/** Sum of two unit vectors below which they are opposite, and rounding would choose between two mean hues. */
const OPPOSITE = 1e-9;

/** Euclidean distance in CIELAB, ΔE*ab. */
export function deltaE76(x: Lab, y: Lab): number {
  return length(x[0] - y[0], length(x[1] - y[1], x[2] - y[2]));
}

/**
 * CIEDE2000 colour difference with parametric factors 1.
 * Sharma, Wu & Dalal (2005), "The CIEDE2000 Color-Difference Formula: Implementation Notes, Supplementary Test Data, and
 * Mathematical Observations". Hues are unit vectors here and powers products: the same figures in a third of the time of angles.
 */
export function deltaE2000(x: Lab, y: Lab): number {
  const mean7 = power7((length(x[1], x[2]) + length(y[1], y[2])) / 2);
  const stretch = 1.5 - 0.5 * Math.sqrt(mean7 / (mean7 + POW25_7));
  const a1 = stretch * x[1];
  const a2 = stretch * y[1];
  const C1 = length(a1, x[2]);
  const C2 = length(a2, y[2]);
  // A grey has no hue: its vector is none, and the mean is the other's.
  const u1 = C1 > 0 ? a1 / C1 : 0;
  const v1 = C1 > 0 ? x[2] / C1 : 0;
  const u2 = C2 > 0 ? a2 / C2 : 0;
  const v2 = C2 > 0 ? y[2] / C2 : 0;
  let u = u1 + u2;
  let v = v1 + v2;
  const both = length(u, v);
  let meanHue: number;
  if (both > OPPOSITE) {
    u /= both;
    v /= both;
    meanHue = hue(u, v);
  } else {
    meanHue = (hue(u1, v1) + hue(u2, v2)) / 2;
    u = Math.cos(meanHue * RAD);
    v = Math.sin(meanHue * RAD);
  }

  const dH = Math.sqrt(C1 * C2) * length(u2 - u1, v2 - v1) * (u1 * v2 < u2 * v1 ? -1 : 1);
  const L = (x[0] + y[0]) / 2;
  const C = (C1 + C2) / 2;
  // Cosine and sine of twice, three and four times the mean hue.
  const cos2 = u * u - v * v;
  const sin2 = 2 * u * v;
  const cos3 = u * cos2 - v * sin2;
  const sin3 = u * sin2 + v * cos2;
  const cos4 = cos2 * cos2 - sin2 * sin2;
  const sin4 = 2 * cos2 * sin2;
  const t =
    1 -
    0.17 * (u * T30.cos + v * T30.sin) +
    0.24 * cos2 +
    0.32 * (cos3 * T6.cos - sin3 * T6.sin) -
    0.2 * (cos4 * T63.cos + sin4 * T63.sin);
  const C7 = power7(C);
  const fromBlue = (meanHue - 275) / 25;
  const rotation = -Math.sin(60 * RAD * Math.exp(-fromBlue * fromBlue)) * 2 * Math.sqrt(C7 / (C7 + POW25_7));
  const l50 = (L - 50) * (L - 50);
  const l = (y[0] - x[0]) / (1 + (0.015 * l50) / Math.sqrt(20 + l50));
  const c = (C2 - C1) / (1 + 0.045 * C);
  const h = dH / (1 + 0.015 * C * t);
  // The rotation term can push the sum a rounding error below zero.
  return Math.sqrt(Math.max(0, l * l + c * c + h * h + rotation * c * h));
}

/** `Math.hypot` guards against numbers no colour has, and takes five times as long. */
const length = (a: number, b: number): number => Math.sqrt(a * a + b * b);

function power7(v: number): number {
  const square = v * v;
  return square * square * square * v;
}

function hue(a: number, b: number): number {
  if (a === 0 && b === 0) return 0;
  const h = Math.atan2(b, a) / RAD;
  return h < 0 ? h + 360 : h;
}
