import { labToXyz } from './lab.ts';
import { SRGB, xyzToRgb } from './rgb-space.ts';

/** Codes of sRGB by light, fine enough for eight bits near black. */
const STEPS = 4096;
const CODES = Uint8Array.from({ length: STEPS + 1 }, (_, i) => Math.round(255 * SRGB.encode((i / STEPS) ** 2)));
/** So far beyond, in light, a colour is beyond the screen and not only rounded. */
const BEYOND = 0.004;

/**
 * Colours as a screen of sRGB shows them, its white standing for the perfect diffuser; and how many it can't show.
 * @param labs L*, a*, b* one after another
 */
export function screenPixels(labs: Float32Array): { pixels: Uint8Array; beyond: number } {
  const pixels = new Uint8Array(labs.length);
  let beyond = 0;
  for (let p = 0; p < labs.length; p += 3) {
    const light = xyzToRgb(LIGHT, labToXyz([labs[p]!, labs[p + 1]!, labs[p + 2]!]));
    let out = false;
    for (let c = 0; c < 3; c++) {
      const v = light[c]!;
      if (v < -BEYOND || v > 1 + BEYOND) out = true;
      pixels[p + c] = CODES[Math.round(STEPS * Math.sqrt(v <= 0 ? 0 : v >= 1 ? 1 : v))]!;
    }
    if (out) beyond++;
  }
  return { pixels, beyond };
}

/** sRGB's primaries and white, as light. */
const LIGHT = { ...SRGB, decode: (v: number) => v, encode: (v: number) => v };
