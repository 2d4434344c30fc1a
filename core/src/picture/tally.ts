import { LabCells, type OccupiedCells } from './cells.ts';

/** L* histogram bins, one L* each, centred on 0…100. */
export const LIGHTNESS_BINS = 101;
/** L* and C* are counted in tenths for medians and percentiles. */
const TENTHS = 10;
const FINE_L_BINS = 100 * TENTHS + 1;
const FINE_C_BINS = 200 * TENTHS;
/** Pixels a picture is taken to have where nobody said. */
const USUAL_PIXELS = 250_000;

/** What a picture holds, as plain figures. All shares are 0–1 of its pixels. */
/** Rises whenever the same picture would give other figures; pictures read by an earlier one are read again. */
export const PICTURE_VERSION = 2;

export interface PictureFigures {
  /** Absent in figures of the first version. */
  readonly version?: number;
  readonly pixelsRead: number;
  /** Share of pixels about each whole L* from 0 to 100: half below and half above it. */
  readonly lightness: readonly number[];
  readonly meanL: number;
  /** To a tenth of L*. */
  readonly medianL: number;
  /** L* below which 2 % (and 98 %) of the pixels lie. */
  readonly darkL: number;
  readonly lightL: number;
  /** Standard deviation of L*: the picture's global contrast. */
  readonly contrastSdL: number;
  /** Share with L* below 10. */
  readonly nearBlackShare: number;
  /** Share with L* above 95. */
  readonly nearWhiteShare: number;
  readonly meanChroma: number;
  /** C* below which 95 % of the pixels lie. */
  readonly chroma95: number;
  /** Share with C* above 60. */
  readonly saturatedShare: number;
  readonly key: 'low key' | 'average key' | 'high key';
  readonly contrast: 'soft' | 'normal' | 'hard';
  readonly colour: 'black and white' | 'toned' | 'colour';
}

/** Where the words begin; our own bounds, from looking at pictures and not from a standard. */
export const PICTURE_BOUNDS = {
  lowKeyMedianL: 35,
  highKeyMedianL: 68,
  softSdL: 15,
  hardSdL: 27,
  nearBlackL: 10,
  nearWhiteL: 95,
  saturatedChroma: 60,
  /** 99 % of a black-and-white picture has less chroma than this. */
  greyChroma: 2.5,
  /** Toned: mean chroma away from a smooth tone-to-tint curve stays below this. */
  tonedSpread: 2,
} as const;

/**
 * Gathers a picture's Lab a run of pixels at a time, so that no picture need lie in memory whole.
 */
export class PictureTally {
  private pixels = 0;
  private readonly lightness = new Float64Array(LIGHTNESS_BINS);
  private readonly fineL = new Float64Array(FINE_L_BINS);
  private readonly fineC = new Float64Array(FINE_C_BINS);
  private readonly cells: LabCells;
  private nearBlack = 0;
  private nearWhite = 0;
  private saturated = 0;
  private sumL = 0;
  private sumLL = 0;
  private sumC = 0;
  // By tone: sums of a*, b* and their squares, to tell a tint that follows the tone from colour.
  private readonly tint = Array.from({ length: 11 }, () => ({ n: 0, a: 0, b: 0, aa: 0, bb: 0 }));

  /** @param expected number of pixels that will come, about */
  constructor(expected: number = USUAL_PIXELS) {
    this.cells = new LabCells(expected);
  }

  /** Adds pixels: L*, a*, b* one after another. */
  add(lab: Float32Array): void {
    for (let i = 0; i < lab.length; i += 3) {
      const L = lab[i];
      const a = lab[i + 1];
      const b = lab[i + 2];
      const C = Math.sqrt(a * a + b * b);
      this.lightness[Math.max(0, Math.min(100, Math.round(L)))]++;
      this.fineL[Math.max(0, Math.min(FINE_L_BINS - 1, Math.round(L * TENTHS)))]++;
      this.fineC[Math.min(FINE_C_BINS - 1, Math.floor(C * TENTHS))]++;
      // Bounds are held against the pixel itself, not against a bin it was rounded to.
      if (L < PICTURE_BOUNDS.nearBlackL) this.nearBlack++;
      if (L > PICTURE_BOUNDS.nearWhiteL) this.nearWhite++;
      if (C > PICTURE_BOUNDS.saturatedChroma) this.saturated++;
      this.sumL += L;
      this.sumLL += L * L;
      this.sumC += C;
      const t = this.tint[Math.max(0, Math.min(10, Math.round(L / 10)))];
      t.n++;
      t.a += a;
      t.b += b;
      t.aa += a * a;
      t.bb += b * b;
      this.cells.add(L, a, b);
    }
    this.pixels += lab.length / 3;
  }

  /** The figures and the occupied cells of all pixels added. */
  finish(): { figures: PictureFigures; cells: OccupiedCells } {
    const n = this.pixels;
    if (n === 0) throw new RangeError('The picture has no pixels.');
    const share = Array.from(this.lightness, (v) => v / n);
    const below = (bins: ArrayLike<number>, part: number) => {
      let sum = 0;
      for (let i = 0; i < bins.length; i++) if ((sum += bins[i]) >= part * n) return i / TENTHS;
      return (bins.length - 1) / TENTHS;
    };
    const meanL = this.sumL / n;
    const contrastSdL = Math.sqrt(Math.max(0, this.sumLL / n - meanL * meanL));
    const medianL = below(this.fineL, 0.5);
    const B = PICTURE_BOUNDS;
    const figures: PictureFigures = {
      version: PICTURE_VERSION,
      pixelsRead: n,
      lightness: share,
      meanL,
      medianL,
      darkL: below(this.fineL, 0.02),
      lightL: below(this.fineL, 0.98),
      contrastSdL,
      nearBlackShare: this.nearBlack / n,
      nearWhiteShare: this.nearWhite / n,
      meanChroma: this.sumC / n,
      chroma95: below(this.fineC, 0.95),
      saturatedShare: this.saturated / n,
      key: medianL < B.lowKeyMedianL ? 'low key' : medianL > B.highKeyMedianL ? 'high key' : 'average key',
      contrast: contrastSdL < B.softSdL ? 'soft' : contrastSdL > B.hardSdL ? 'hard' : 'normal',
      colour:
        below(this.fineC, 0.99) < B.greyChroma
          ? 'black and white'
          : this.spreadOfTint() < B.tonedSpread
            ? 'toned'
            : 'colour',
    };
    return { figures, cells: this.cells.occupied(n) };
  }

  /** How far a* and b* stray from their mean at the same tone: small when the tint follows the tone. */
  private spreadOfTint(): number {
    let squares = 0;
    for (const t of this.tint) {
      if (t.n === 0) continue;
      squares += t.aa - (t.a * t.a) / t.n + t.bb - (t.b * t.b) / t.n;
    }
    return Math.sqrt(Math.max(0, squares) / this.pixels);
  }
}
