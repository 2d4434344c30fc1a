import { labToXyz, xyzToLab } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { WHITE_ICC } from '../colour/white.ts';
import type { Reach } from './reach.ts';

/** What a rendering has to know of a sheet, relative to its white. */
export interface RelativeSheet {
  /** L* of the darkest grey, relative to the sheet's white. */
  readonly blackL: number;
  readonly reach: Reach;
}

/** Ways of bringing a file's colours onto a sheet, as they are written beside a print. */
export const RENDERING_NAMES = {
  relative: 'relative, black compensated',
  uncompensated: 'relative, black not compensated',
  perceptual: 'perceptual',
  saturation: 'saturation',
  absolute: 'absolute',
} as const;
export type RenderingKey = keyof typeof RENDERING_NAMES;
export const RENDERING_KEYS = Object.keys(RENDERING_NAMES) as RenderingKey[];

/** How a file's colours are brought onto a sheet. */
export interface Rendering {
  readonly key: RenderingKey;
  readonly name: string;
  /** Colours keep the file's own white instead of the sheet's. */
  readonly absolute: boolean;
  /** Colour aimed at (relative to the sheet's white) for a colour of the file. @param sourceBlackL L* of the file's black */
  readonly aim: (sheet: RelativeSheet, sourceBlackL: number) => (lab: Lab) => Lab;
}

/**
 * Black point compensation: XYZ scaled so that the file's black becomes the sheet's and white stays (ISO 18619).
 * Blacks are taken as neutral.
 */
export function compensated(sourceBlackL: number, sheetBlackL: number): (lab: Lab) => Lab {
  const y = (L: number) => labToXyz([L, 0, 0])[1] / 100;
  const [from, to] = [y(sourceBlackL), y(sheetBlackL)];
  const a = (1 - to) / (1 - from);
  const b = 1 - a;
  return (lab) => {
    const xyz = labToXyz(lab);
    return xyzToLab([a * xyz[0] + b * WHITE_ICC[0], a * xyz[1] + b * WHITE_ICC[1], a * xyz[2] + b * WHITE_ICC[2]]);
  };
}

/** Shares of the reach up to which colours stay as they are. */
const KNEE = { perceptual: 0.7, saturation: 0.85 } as const;
/** How much the focus of compression moves with a colour's own lightness; the rest is the lightness at which its hue is ripest. */
const FOCUS_MOVES = 0.7;
/** How sharply darks bend towards the sheet's black. */
const TOE = 2.2;

/** Lightness so that black becomes the sheet's, mid-tones and lights hardly move, and the order of tones is kept. */
export function toned(sourceBlackL: number, sheetBlackL: number): (L: number) => number {
  const ends = (L: number) => (Math.max(0, L) ** TOE + sheetBlackL ** TOE) ** (1 / TOE);
  const top = ends(100);
  return (L) => {
    const own = (100 * (L - sourceBlackL)) / (100 - sourceBlackL);
    return sheetBlackL + ((ends(own) - sheetBlackL) * (100 - sheetBlackL)) / (top - sheetBlackL);
  };
}

/** Everything beyond the knee is drawn in towards 1, never past it and never out of order. */
const drawnIn = (ratio: number, knee: number) =>
  ratio <= knee ? ratio : knee + (1 - knee) * (1 - Math.exp(-(ratio - knee) / (1 - knee)));

/**
 * Lightness and chroma drawn in along lines towards a focus on the grey axis that moves with the colour: hue stays,
 * order stays, and what lies well inside the sheet's reach is not touched.
 */
function compressing(knee: number, gain: number) {
  return (sheet: RelativeSheet, sourceBlackL: number) => {
    const tone = toned(sourceBlackL, sheet.blackL);
    // Tables ask level by level: the tone of the last is kept.
    const last = Float64Array.of(NaN, NaN);
    return ([L0, a, b]: Lab): Lab => {
      if (L0 !== last[0]) last.set([L0, tone(L0)]);
      const L = last[1]!;
      const own = Math.sqrt(a * a + b * b);
      const C = own * gain;
      if (C < 1e-6) return [L, 0, 0];
      const hue = Math.atan2(b, a);
      const ripe = sheet.reach.ripest(hue);
      const focus = ripe + FOCUS_MOVES * (L - ripe);
      const end = sheet.reach.edge(focus, L, C, hue);
      if (end <= 0) return [L, 0, 0];
      const t = drawnIn(1 / end, knee) * end;
      const by = (t * C) / own;
      return [focus + t * (L - focus), by * a, by * b];
    };
  };
}

const DECLARED: readonly Omit<Rendering, 'name'>[] = [
  {
    key: 'relative',
    absolute: false,
    aim: (sheet, sourceBlackL) => compensated(sourceBlackL, sheet.blackL),
  },
  { key: 'uncompensated', absolute: false, aim: () => (lab) => lab },
  { key: 'perceptual', absolute: false, aim: compressing(KNEE.perceptual, 1) },
  { key: 'saturation', absolute: false, aim: compressing(KNEE.saturation, 1.2) },
  { key: 'absolute', absolute: true, aim: () => (lab) => lab },
];
/** Every rendering, declared. */
export const RENDERINGS: readonly Rendering[] = DECLARED.map((r) => ({ ...r, name: RENDERING_NAMES[r.key] }));
