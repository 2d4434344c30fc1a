/** 32-bit light is counted by the codes of an even lightness, or the darks would fall together. */
const CODE_GAMMA = 2.4;
export const lightOf = (code: number): number => code ** CODE_GAMMA;
/** sRGB's own value of a code (IEC 61966-2-1): what is without a profile is taken to have its primaries. */
export const lightAsSrgb = (code: number): number => {
  const v = lightOf(code);
  return v <= 0.0031308 ? v * 12.92 : 1.055 * v ** (1 / 2.4) - 0.055;
};

/** Light as 16-bit codes; what is not a number is black. */
export function codesOfLight(light: Float32Array): { samples: Uint16Array; beyond: boolean } {
  const samples = new Uint16Array(light.length);
  let beyond = false;
  for (let i = 0; i < light.length; i++) {
    const v = light[i];
    if (v < -1e-4 || v > 1 + 1e-4) beyond = true;
    samples[i] = v > 0 ? (v < 1 ? Math.round(v ** (1 / CODE_GAMMA) * 65_535) : 65_535) : 0;
  }
  return { samples, beyond };
}

/** Samples of a run as whole codes, whatever the file holds. */
export const codesOf = (samples: Uint8Array | Uint16Array | Float32Array) =>
  samples instanceof Float32Array ? codesOfLight(samples) : { samples, beyond: false };
