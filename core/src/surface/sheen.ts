/** Half-width of what a gloss meter at 60° takes in: a circle as large as its receptor of 4.4° × 11.7° (ISO 2813). */
const RECEPTOR_DEG = Math.sqrt((4.4 * 11.7) / Math.PI);
/** A lamp or a window is no point: so wide is its own image in a perfect mirror, degrees (our own assumption). */
const LAMP_DEG = 2;
/** Gloss below which a meter reads little but stray light: the lobe is taken no wider than there. */
const LEAST_GU = 0.5;

/**
 * How wide a sheet spreads the image of a lamp, as the standard deviation of a round lobe, degrees: so wide that the
 * meter’s receptor catches the share of it that the gloss units say. An estimate: one angle tells no shape.
 * @param gu gloss units at 60°, 0 and above
 */
export function lobeDeg(gu: number): number {
  const caught = Math.min(0.99, Math.max(LEAST_GU, gu) / 100);
  const sheet = RECEPTOR_DEG / Math.sqrt(-2 * Math.log(1 - caught));
  return Math.hypot(sheet, LAMP_DEG);
}

/** Light a surface mirrors, 0–1: an index of 1.5 near 45° (Fresnel). */
export const MIRRORED = 0.05;
/**
 * Of metallic flake under the ink: how much more it throws into a wide lobe, in the colour of the print, and how wide
 * (our own estimate).
 */
export const FLAKE = { share: 0.12, lobeDeg: 12 } as const;

/**
 * Light of a mirrored lamp over that of a perfect white in the same lamp: the lamp’s light fills the lobe and nothing beyond it.
 * @param offDeg between where the lamp is mirrored to and where the eye is
 */
export function sheen(offDeg: number, lobe: number, mirrored = MIRRORED): number {
  const sigma = (lobe * Math.PI) / 180;
  return (mirrored / (2 * sigma * sigma)) * Math.exp(-((offDeg / lobe) ** 2) / 2);
}

/** Where the lamp stands over the sheet, degrees, and what that is called. */
export const SURFACE_LIGHTS = {
  natural: { name: 'natural', heightDeg: 50 },
  raking: { name: 'raking', heightDeg: 15 },
} as const;
export type SurfaceLight = keyof typeof SURFACE_LIGHTS;

/** Tilt towards the lamp at which it is mirrored straight into the eye, degrees. */
export const mirrorTilt = (light: SurfaceLight): number => (90 - SURFACE_LIGHTS[light].heightDeg) / 2;
/** A sheet in the hand is tilted so far. */
export const MOST_TILT_DEG = 45;
