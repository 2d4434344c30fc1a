import type { SheetModel } from '@rakuen/core/simulation/sheet';

/** The invented papers as physics; the studio's catalogue gives them names. */
export const SHEETS = {
  baryta: { reflectance: 0.945, warmth: 0.022, brightener: 0, surfaceReflection: 0.0016, yuleNielsen: 1.6, inkHold: 1, inkLimit: 12 },
  lustre: { reflectance: 0.935, warmth: 0.02, brightener: 0.45, surfaceReflection: 0.0026, yuleNielsen: 1.7, inkHold: 0.95, inkLimit: 12 },
  mattSmooth: { reflectance: 0.935, warmth: 0.035, brightener: 0, surfaceReflection: 0.0135, yuleNielsen: 1.9, inkHold: 0.74, inkLimit: 5 },
  mattBright: { reflectance: 0.945, warmth: 0.02, brightener: 0.6, surfaceReflection: 0.0125, yuleNielsen: 1.9, inkHold: 0.77, inkLimit: 5 },
  metallic: { reflectance: 0.8, warmth: 0.05, brightener: 0, surfaceReflection: 0.0032, yuleNielsen: 1.7, inkHold: 0.8, inkLimit: 5 },
  mulberry: { reflectance: 0.86, warmth: 0.13, brightener: 0, surfaceReflection: 0.02, yuleNielsen: 2.3, inkHold: 0.5, inkLimit: 3 },
} as const satisfies Record<string, SheetModel>;
