import { colourWords } from '../colour/hue-names.ts';
import { LabCells, type OccupiedCells } from './cells.ts';
import { monochromeOf } from './monochrome.ts';
import type { PictureStructure } from './structure.ts';

/** L* histogram bins, one L* each, centred on 0…100. */
export const LIGHTNESS_BINS = 101;
/** L* and C* are counted in tenths for medians and percentiles. */
const TENTHS = 10;
const FINE_L_BINS = 100 * TENTHS + 1;
const FINE_C_BINS = 200 * TENTHS;
/** Pixels a picture is taken to have where nobody said. */
const USUAL_PIXELS = 250_000;

/** Rises whenever the same picture would give other figures; pictures read by an earlier one are read again. */
export const PICTURE_VERSION = 6;

export type Key = 'low key' | 'average key' | 'high key';

/** A hue in shadows or lights. */
export interface Tint {
  readonly hueDeg: number;
  readonly chroma: number;
}

/** How much colour a picture has, as a printmaker would say. */
export const COLOUR_KINDS = ['black and white', 'toned', 'split-toned', 'colour'] as const;
export type ColourKind = (typeof COLOUR_KINDS)[number];

/** What a picture holds, as plain figures. All shares are 0–1 of its pixels. */
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
  readonly key: Key;
  readonly contrast: 'soft' | 'normal' | 'hard';
  readonly colour: ColourKind;
  /** The rest is absent in figures of the versions before 3. L* of the darkest and lightest thousandth. */
  readonly deepestL?: number;
  readonly highestL?: number;
  /** Toning, where there is one. */
  readonly toning?: { readonly shadows: Tint; readonly lights: Tint };
  /** Colour of the lights, L* above 85, where there are any. */
  readonly lights?: Tint;
  /** Families of colour, the largest first; greys among them. */
  readonly families?: readonly { readonly name: string; readonly share: number; readonly meanChroma: number }[];
  /** Small saturated things: families above C* 55 that are less than 2 % of the picture. */
  readonly accents?: readonly { readonly name: string; readonly share: number; readonly topChroma: number }[];
  readonly structure?: PictureStructure;
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
  /** A tint of less mean chroma is none: black and white. */
  greyTint: 1.8,
  /** A tint too weak to have a hue, C*. */
  greyChroma: 2.5,
  /** Split: shadows and lights are toned in hues so far apart, degrees. */
  splitHueDeg: 60,
} as const;

const FAMILIES_KEPT = 8;
const ACCENT = { chroma: 55, mostShare: 0.02, leastShare: 2e-5 } as const;
/** Where shadows and lights are looked at for their toning, L*. */
const TONED = { shadows: [10, 45], lights: [60, 95] } as const;

export const keyOf = (medianL: number): Key =>
  medianL < PICTURE_BOUNDS.lowKeyMedianL
    ? 'low key'
    : medianL > PICTURE_BOUNDS.highKeyMedianL
      ? 'high key'
      : 'average key';

/**
 * Gathers a picture's Lab a run of pixels at a time, so that no picture need lie in memory whole.
 */
export class PictureTally {
  private pixels = 0;
  private readonly fineL = new Float64Array(FINE_L_BINS);
  private readonly fineC = new Float64Array(FINE_C_BINS);
  private readonly cells: LabCells;
  private nearBlack = 0;
  private nearWhite = 0;
  private saturated = 0;
  private sumL = 0;
  private sumLL = 0;
  private sumC = 0;

  /** @param expected number of pixels that will come, about */
  constructor(expected: number = USUAL_PIXELS) {
    this.cells = new LabCells(expected);
  }

  /** Adds pixels: L*, a*, b* one after another. @param weights how many pixels each of them stands for */
  add(lab: Float32Array, weights?: Float64Array): void {
    const { fineL, fineC } = this;
    const { nearBlackL, nearWhiteL, saturatedChroma } = PICTURE_BOUNDS;
    for (let p = 0, i = 0; i < lab.length; p++, i += 3) {
      const n = weights ? weights[p]! : 1;
      const L = lab[i]!;
      const a = lab[i + 1]!;
      const b = lab[i + 2]!;
      const CC = a * a + b * b;
      const C = Math.sqrt(CC);
      fineL[Math.max(0, Math.min(FINE_L_BINS - 1, Math.round(L * TENTHS)))]! += n;
      fineC[Math.min(FINE_C_BINS - 1, Math.floor(C * TENTHS))]! += n;
      // Bounds are held against the colour itself, not against a bin it was rounded to.
      if (L < nearBlackL) this.nearBlack += n;
      else if (L > nearWhiteL) this.nearWhite += n;
      if (C > saturatedChroma) this.saturated += n;
      this.sumL += n * L;
      this.sumLL += n * L * L;
      this.sumC += n * C;
      this.pixels += n;
    }
    this.cells.add(lab, weights);
  }

  /** The figures and the occupied cells of all pixels added. */
  finish(): { figures: PictureFigures; cells: OccupiedCells } {
    const n = this.pixels;
    if (n === 0) throw new RangeError('The picture has no pixels.');
    const below = (bins: ArrayLike<number>, part: number) => {
      let sum = 0;
      for (let i = 0; i < bins.length; i++) if ((sum += bins[i]!) >= part * n) return i / TENTHS;
      return (bins.length - 1) / TENTHS;
    };
    const meanL = this.sumL / n;
    const contrastSdL = Math.sqrt(Math.max(0, this.sumLL / n - meanL * meanL));
    const medianL = below(this.fineL, 0.5);
    const B = PICTURE_BOUNDS;
    const cells = this.cells.occupied(n);
    const { families, accents } = familiesOf(cells);
    // A small lamp in a grey picture makes it a picture of colour.
    const lamp = accents.length > 0;
    const [darkL, lightL] = [below(this.fineL, 0.02), below(this.fineL, 0.98)];
    const monochrome = lamp ? undefined : monochromeOf(cells, lightL - darkL);
    const grey = monochrome !== undefined && monochrome.tint < B.greyTint;
    const toned = monochrome !== undefined && !grey;
    const toning = toned
      ? { shadows: tintOf(cells, ...TONED.shadows), lights: tintOf(cells, ...TONED.lights) }
      : undefined;
    const split =
      toning?.shadows && toning.lights && apartDeg(toning.shadows, toning.lights) > B.splitHueDeg ? true : false;
    const figures: PictureFigures = {
      version: PICTURE_VERSION,
      pixelsRead: Math.round(n),
      lightness: this.wholeL().map((v) => v / n),
      meanL,
      medianL,
      darkL,
      lightL,
      deepestL: below(this.fineL, 0.001),
      highestL: below(this.fineL, 0.999),
      contrastSdL,
      nearBlackShare: this.nearBlack / n,
      nearWhiteShare: this.nearWhite / n,
      meanChroma: this.sumC / n,
      chroma95: below(this.fineC, 0.95),
      saturatedShare: this.saturated / n,
      key: keyOf(medianL),
      contrast: contrastSdL < B.softSdL ? 'soft' : contrastSdL > B.hardSdL ? 'hard' : 'normal',
      colour: grey ? 'black and white' : split ? 'split-toned' : toned ? 'toned' : 'colour',
      ...(toning?.shadows && toning.lights && { toning: { shadows: toning.shadows, lights: toning.lights } }),
      ...(tintOf(cells, 85, 101) && { lights: tintOf(cells, 85, 101) }),
      families,
      accents,
    };
    return { figures, cells };
  }

  private wholeL(): number[] {
    const whole = new Array<number>(LIGHTNESS_BINS).fill(0);
    this.fineL.forEach((v, tenth) => (whole[Math.floor(tenth / TENTHS + 0.5)]! += v));
    return whole;
  }
}

function tintOf({ count, data }: OccupiedCells, fromL: number, toL: number): Tint | undefined {
  let [a, b, n] = [0, 0, 0];
  for (let i = 0; i < count * 4; i += 4) {
    if (data[i]! < fromL || data[i]! >= toL) continue;
    a += data[i + 1]! * data[i + 3]!;
    b += data[i + 2]! * data[i + 3]!;
    n += data[i + 3]!;
  }
  if (n === 0) return undefined;
  return { hueDeg: ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360, chroma: Math.hypot(a, b) / n };
}

/** Between two tints, degrees; a tint too weak to have a hue is apart from none. */
function apartDeg(p: Tint, q: Tint): number {
  if (Math.min(p.chroma, q.chroma) < PICTURE_BOUNDS.greyChroma) return 0;
  const d = Math.abs(p.hueDeg - q.hueDeg) % 360;
  return Math.min(d, 360 - d);
}

function familiesOf({ count, data }: OccupiedCells) {
  const families = new Map<string, { share: number; sum: number }>();
  const accents = new Map<string, { share: number; top: number }>();
  for (let i = 0; i < count * 4; i += 4) {
    const lab = [data[i]!, data[i + 1]!, data[i + 2]!] as const;
    const share = data[i + 3]!;
    const C = Math.hypot(lab[1], lab[2]);
    // Depth goes with the accent, for a dark red lamp is not a light one; families are of hue alone.
    const name = colourWords(lab);
    const hue = name.replace(/^(deep|light|dark) /, '');
    const family = families.get(hue) ?? { share: 0, sum: 0 };
    families.set(hue, { share: family.share + share, sum: family.sum + share * C });
    if (C < ACCENT.chroma) continue;
    const accent = accents.get(name) ?? { share: 0, top: 0 };
    accents.set(name, { share: accent.share + share, top: Math.max(accent.top, C) });
  }
  return {
    families: [...families]
      .map(([name, f]) => ({ name, share: f.share, meanChroma: f.sum / f.share }))
      .sort((p, q) => q.share - p.share)
      .slice(0, FAMILIES_KEPT),
    accents: [...accents]
      .filter(([, { share }]) => share < ACCENT.mostShare && share > ACCENT.leastShare)
      .map(([name, { share, top }]) => ({ name, share, topChroma: top }))
      .sort((p, q) => q.topChroma - p.topChroma)
      .slice(0, FAMILIES_KEPT),
  };
}
