import { BENCH_GRID } from './sheet.ts';

/** One absorption band: density at the peak, where it lies, how wide it is on either side, nm. */
interface Band {
  readonly density: number;
  readonly peakNm: number;
  readonly belowNm: number;
  readonly aboveNm: number;
}

/** An ink as its density spectrum at full coverage on a coating that holds all of it. */
export interface InkModel {
  readonly bands: readonly Band[];
  /** Density at all wavelengths. */
  readonly flat: number;
}

/** The inks a printer lays down, as the four an RGB driver speaks to. */
export interface InkSetModel {
  readonly cyan: InkModel;
  readonly magenta: InkModel;
  readonly yellow: InkModel;
  /** Photo black for gloss classes, matt black for matt ones. */
  readonly photoBlack: InkModel;
  readonly mattBlack: InkModel;
}

/** Density of an ink on the bench grid. */
export function inkDensity(ink: InkModel): number[] {
  return Array.from({ length: BENCH_GRID.count }, (_, i) => {
    const nm = BENCH_GRID.startNm + i * BENCH_GRID.stepNm;
    return ink.bands.reduce((sum, b) => sum + b.density * Math.exp(-(((nm - b.peakNm) / (nm < b.peakNm ? b.belowNm : b.aboveNm)) ** 4)), ink.flat);
  });
}

/** Pigment inks of a wide-gamut desktop printer. Bands are flat-topped, as pigments near saturation are. */
export const PIGMENT_INKS: InkSetModel = {
  cyan: { bands: [{ density: 1.75, peakNm: 655, belowNm: 88, aboveNm: 170 }], flat: 0.015 },
  magenta: { bands: [{ density: 1.75, peakNm: 540, belowNm: 55, aboveNm: 46 }, { density: 0.22, peakNm: 420, belowNm: 60, aboveNm: 60 }], flat: 0.012 },
  yellow: { bands: [{ density: 1.7, peakNm: 430, belowNm: 120, aboveNm: 66 }], flat: 0.008 },
  photoBlack: { bands: [{ density: 0.2, peakNm: 640, belowNm: 140, aboveNm: 160 }], flat: 2.62 },
  mattBlack: { bands: [{ density: 0.12, peakNm: 480, belowNm: 120, aboveNm: 160 }], flat: 2.5 },
};

/** Dye inks: purer bands, a black that lets deep red through and turns under tungsten. */
export const DYE_INKS: InkSetModel = {
  cyan: { bands: [{ density: 2.15, peakNm: 652, belowNm: 78, aboveNm: 130 }], flat: 0.004 },
  magenta: { bands: [{ density: 2.2, peakNm: 542, belowNm: 51, aboveNm: 40 }, { density: 0.1, peakNm: 415, belowNm: 60, aboveNm: 60 }], flat: 0.004 },
  yellow: { bands: [{ density: 2.1, peakNm: 428, belowNm: 120, aboveNm: 64 }], flat: 0.003 },
  photoBlack: { bands: [{ density: 2.45, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.4 },
  mattBlack: { bands: [{ density: 2.45, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.4 },
};
