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

/** The inks a printer lays down: three colours, two greys, a black for either kind of coating. */
export interface InkSetModel {
  readonly cyan: InkModel;
  readonly magenta: InkModel;
  readonly yellow: InkModel;
  readonly lightGrey: InkModel;
  readonly grey: InkModel;
  /** Photo black for gloss classes, matt black for matt ones. */
  readonly photoBlack: InkModel;
  readonly mattBlack: InkModel;
  /** What a film of it does to the surface: pigment lies on top and smooths it, dye sinks in and leaves it. */
  readonly film: {
    /** Refractive index of the dried film; bare coatings are taken as 1.5. */
    readonly index: number;
    /** Roughness under full black, as a share of the bare sheet's. */
    readonly roughness: number;
    /** Bronzing as a practised eye grades it on a glossy sheet, 0 none to 4 strong. */
    readonly bronzing: number;
  };
}

/** Density of an ink on the bench grid. */
export function inkDensity(ink: InkModel): number[] {
  return Array.from({ length: BENCH_GRID.count }, (_, i) => {
    const nm = BENCH_GRID.startNm + i * BENCH_GRID.stepNm;
    return ink.bands.reduce(
      (sum, b) => sum + b.density * Math.exp(-(((nm - b.peakNm) / (nm < b.peakNm ? b.belowNm : b.aboveNm)) ** 4)),
      ink.flat,
    );
  });
}

/** Pigment inks of a wide-gamut desktop printer. Bands are flat-topped, as pigments near saturation are. */
export const PIGMENT_INKS: InkSetModel = {
  cyan: { bands: [{ density: 1.75, peakNm: 655, belowNm: 88, aboveNm: 170 }], flat: 0.015 },
  magenta: {
    bands: [
      { density: 1.75, peakNm: 540, belowNm: 55, aboveNm: 46 },
      { density: 0.22, peakNm: 420, belowNm: 60, aboveNm: 60 },
    ],
    flat: 0.012,
  },
  yellow: { bands: [{ density: 1.7, peakNm: 430, belowNm: 120, aboveNm: 66 }], flat: 0.008 },
  lightGrey: { bands: [{ density: 0.03, peakNm: 450, belowNm: 90, aboveNm: 60 }], flat: 0.3 },
  grey: { bands: [{ density: 0.07, peakNm: 470, belowNm: 110, aboveNm: 90 }], flat: 0.82 },
  photoBlack: { bands: [{ density: 0.2, peakNm: 640, belowNm: 140, aboveNm: 160 }], flat: 2.62 },
  mattBlack: { bands: [{ density: 0.12, peakNm: 480, belowNm: 120, aboveNm: 160 }], flat: 2.5 },
  film: { index: 1.58, roughness: 0.8, bronzing: 1 },
};

/**
 * Another maker's pigment refill for the same printer: near, but not equal. Its magenta is redder, its greys are
 * warmer, its black is thinner, and it bronzes.
 */
export const REFILL_PIGMENT_INKS: InkSetModel = {
  cyan: { bands: [{ density: 1.6, peakNm: 648, belowNm: 90, aboveNm: 160 }], flat: 0.024 },
  magenta: {
    bands: [
      { density: 1.68, peakNm: 532, belowNm: 56, aboveNm: 44 },
      { density: 0.3, peakNm: 420, belowNm: 62, aboveNm: 60 },
    ],
    flat: 0.018,
  },
  yellow: { bands: [{ density: 1.6, peakNm: 434, belowNm: 120, aboveNm: 68 }], flat: 0.012 },
  lightGrey: { bands: [{ density: 0.06, peakNm: 450, belowNm: 90, aboveNm: 70 }], flat: 0.27 },
  grey: { bands: [{ density: 0.15, peakNm: 455, belowNm: 110, aboveNm: 80 }], flat: 0.74 },
  photoBlack: { bands: [{ density: 0.3, peakNm: 440, belowNm: 120, aboveNm: 120 }], flat: 1.95 },
  mattBlack: { bands: [{ density: 0.25, peakNm: 440, belowNm: 120, aboveNm: 130 }], flat: 2.2 },
  film: { index: 1.62, roughness: 0.72, bronzing: 3 },
};

/** Dye inks: purer bands, a black that lets deep red through and turns under tungsten. */
export const DYE_INKS: InkSetModel = {
  cyan: { bands: [{ density: 2.15, peakNm: 652, belowNm: 78, aboveNm: 130 }], flat: 0.004 },
  magenta: {
    bands: [
      { density: 2.2, peakNm: 542, belowNm: 51, aboveNm: 40 },
      { density: 0.1, peakNm: 415, belowNm: 60, aboveNm: 60 },
    ],
    flat: 0.004,
  },
  yellow: { bands: [{ density: 2.1, peakNm: 428, belowNm: 120, aboveNm: 64 }], flat: 0.003 },
  lightGrey: { bands: [{ density: 0.27, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.05 },
  grey: { bands: [{ density: 0.75, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.13 },
  photoBlack: { bands: [{ density: 2.45, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.4 },
  mattBlack: { bands: [{ density: 2.45, peakNm: 540, belowNm: 260, aboveNm: 165 }], flat: 0.4 },
  film: { index: 1.51, roughness: 0.97, bronzing: 0 },
};
