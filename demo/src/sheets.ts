import { CLASS_SHEETS, RELIEFS } from '@rakuen/core/simulation/stand-in';
import type { SheetModel } from '@rakuen/core/simulation/sheet';

/**
 * The invented papers as physics; the studio's catalogue gives them names. What a mill claims and what a scale finds
 * differ a little, as they do.
 */
export const SHEETS = {
  baryta: { ...CLASS_SHEETS.baryta, brightener: 0, relief: RELIEFS.smooth, weightGsm: 313, thicknessUm: 401 },
  /** The same name, a later box: a new coating, a little brightener, thinner. */
  barytaReformulated: {
    ...CLASS_SHEETS.baryta,
    reflectance: 0.952,
    warmth: 0.016,
    surfaceReflection: 0.0021,
    inkHold: 0.97,
    roughnessNm: 80,
    brightener: 0.09,
    relief: RELIEFS.smooth,
    weightGsm: 301,
    thicknessUm: 378,
  },
  lustre: { ...CLASS_SHEETS.lustre, brightener: 0.45, relief: RELIEFS['fine tooth'], weightGsm: 261, thicknessUm: 270 },
  mattSmooth: { ...CLASS_SHEETS.cotton, brightener: 0, relief: RELIEFS.smooth, weightGsm: 311, thicknessUm: 488 },
  mattBright: {
    ...CLASS_SHEETS.matt,
    reflectance: 0.945,
    warmth: 0.02,
    surfaceReflection: 0.0125,
    inkHold: 0.77,
    brightener: 0.6,
    relief: RELIEFS['ultra smooth'],
    weightGsm: 216,
    thicknessUm: 301,
  },
  metallic: { ...CLASS_SHEETS.metallic, brightener: 0, relief: RELIEFS.smooth, weightGsm: 282, thicknessUm: 288 },
  mulberry: { ...CLASS_SHEETS.uncoated, brightener: 0, relief: RELIEFS.rough, weightGsm: 68, thicknessUm: 176 },
  gloss: { ...CLASS_SHEETS.gloss, brightener: 0.35, relief: RELIEFS['ultra smooth'], weightGsm: 239, thicknessUm: 252 },
  /** Baryta that was whitened. */
  barytaBright: {
    ...CLASS_SHEETS.baryta,
    reflectance: 0.949,
    warmth: 0.018,
    brightener: 0.38,
    relief: RELIEFS['fine tooth'],
    weightGsm: 306,
    thicknessUm: 352,
  },
  ragTextured: {
    ...CLASS_SHEETS.cotton,
    warmth: 0.042,
    brightener: 0,
    relief: RELIEFS.textured,
    weightGsm: 319,
    thicknessUm: 583,
  },
  canvas: { ...CLASS_SHEETS.canvas, brightener: 0.2, relief: RELIEFS.rough, weightGsm: 378, thicknessUm: 447 },
} as const satisfies Record<string, SheetModel>;
