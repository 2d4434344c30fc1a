import { mapThree } from '../colour/three.ts';
import { bradford } from '../colour/adaptation.ts';
import { CIE_START_NM, CIE_STEP_NM } from '../colour/cie-tables.ts';
import { excitation } from './excitation.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { labRoot } from '../colour/lab.ts';
import { illuminantWhite, observerOf, spectrumAt } from '../colour/spectrum.ts';
import { ROOM, type Glass } from './glass.ts';
import type { Lab, Spectrum, Xyz } from '../colour/types.ts';

/**
 * A print as spectra, ready to be looked at under any light: what it reflects, and what its brightener gives back under
 * D50, apart. Patches lie after one another, `bands` values each.
 */
export interface SheetSpectra {
  readonly startNm: number;
  readonly stepNm: number;
  readonly bands: number;
  /** Reflectance factors without luminescence. */
  readonly reflected: Float32Array;
  /** Luminescent part of the factor under D50; absent where nothing is known of it. */
  readonly luminous?: Float32Array;
  /** Set where `luminous` was not read but estimated from the white. */
  readonly estimated?: GlowBetween;
}

/** Between what an estimated luminescence lies, nine times in ten: shares of the estimate. */
export interface GlowBetween {
  readonly least: number;
  readonly most: number;
  /** The spectra begin too late to see where the band rises, and the interval is wider for it. */
  readonly startsLate: boolean;
}

/** The same sheet, were more or less of what was read luminescence. @param share of what is taken for it */
export function withGlow(sheet: SheetSpectra, share: number): SheetSpectra {
  const { reflected, luminous } = sheet;
  if (!luminous) return sheet;
  return {
    ...sheet,
    reflected: reflected.map((v, i) => v - (share - 1) * luminous[i]!),
    luminous: luminous.map((v) => share * v),
  };
}

/** How spectra become colours under one light behind one glass: two sets of weights, and a veil. */
export interface Lighting {
  readonly reflected: readonly Float64Array[];
  readonly luminous: readonly Float64Array[];
  /** The room's light on the glass, XYZ. */
  readonly veil: Xyz;
  /** To D50, the eye adapted to the light, relative to the white: nine numbers, row by row. */
  readonly toD50: Float64Array;
}

/**
 * Weights on the sheet's own bands, for a light and a glass. Luminescence follows the UV that reaches the sheet, by the
 * excitation of a stilbene-like brightener; a sheet read without UV alone has none to give. The eye is adapted to the
 * bare light (linear Bradford), so that the perfect diffuser stays white.
 */
export function lighting(
  light: Spectrum,
  glass: Glass,
  grid: Pick<SheetSpectra, 'startNm' | 'stepNm' | 'bands'>,
): Lighting {
  const key = [glass.key, grid.startNm, grid.stepNm, grid.bands].join();
  let known = knownLighting.get(light);
  if (!known) knownLighting.set(light, (known = new Map()));
  let made = known.get(key);
  if (!made) known.set(key, (made = weigh(light, glass, grid)));
  return made;
}

/** Lightings by light; all sheets of one instrument share theirs. */
const knownLighting = new WeakMap<Spectrum, Map<string, Lighting>>();

function weigh(
  light: Spectrum,
  glass: Glass,
  { startNm, stepNm, bands }: Pick<SheetSpectra, 'startNm' | 'stepNm' | 'bands'>,
): Lighting {
  const [xb, yb, zb] = observerOf('2');
  const power = xb.map((_, i) => spectrumAt(light, CIE_START_NM + i * CIE_STEP_NM));
  const k = 100 / power.reduce((sum, s, i) => sum + s * yb[i]!, 0);
  const uv = (of: (nm: number) => number) => {
    let sum = 0;
    for (let nm = 340; nm <= 410; nm += 10) sum += of(nm) * excitation(nm);
    return sum;
  };
  // The glass filters the light on its way in; what comes out passes it once more.
  const gain = uv((nm) => spectrumAt(light, nm) * glass.transmits(nm)) / uv((nm) => spectrumAt(ILLUMINANTS.D50, nm));
  const ofThree = () => [0, 1, 2].map(() => new Float64Array(bands));
  const [reflected, luminous] = [ofThree(), ofThree()];
  [xb, yb, zb].forEach((bar, c) => {
    bar.forEach((weight, i) => {
      const nm = CIE_START_NM + i * CIE_STEP_NM;
      const out = glass.transmits(nm);
      // Shared out between the two bands about it; beyond the ends the end band holds.
      const place = Math.min(bands - 1, Math.max(0, (nm - startNm) / stepNm));
      const low = Math.min(bands - 2, Math.floor(place));
      const share = place - low;
      const seen = k * power[i]! * weight * out * out;
      // The luminous part is kept relative to D50's own light at the wavelength; given back, it is light of its own.
      const given = k * spectrumAt(ILLUMINANTS.D50, nm) * gain * weight * out;
      reflected[c]![low]! += seen * (1 - share);
      reflected[c]![low + 1]! += seen * share;
      luminous[c]![low]! += given * (1 - share);
      luminous[c]![low + 1]! += given * share;
    });
  });
  const white = illuminantWhite(light);
  const d50 = illuminantWhite();
  const toD50 = Float64Array.from(bradford(white, d50).flatMap((row, c) => row.map((v) => v / d50[c]!)));
  return { reflected, luminous, veil: mapThree(white, (v) => v * glass.reflects * ROOM), toD50 };
}

/** Tristimulus values of every patch, X Y Z after one another. */
export function litXyz(sheet: SheetSpectra, under: Lighting): Float64Array {
  const { bands, reflected, luminous } = sheet;
  const out = new Float64Array((reflected.length / bands) * 3);
  for (let p = 0; p < out.length; p += 3) out.set(under.veil, p);
  add(out, reflected, bands, under.reflected);
  if (luminous) add(out, luminous, bands, under.luminous, glowing(sheet));
  return out;
}

/** A brightener gives light back between these, nm; what a reading has beyond them is noise. */
const GLOW_NM = [390, 610] as const;

/** The bands in which a brightener glows: from, to. */
function glowing({ startNm, stepNm, bands }: SheetSpectra): [number, number] {
  const band = (nm: number) => Math.min(bands, Math.max(0, Math.round((nm - startNm) / stepNm)));
  return [band(GLOW_NM[0]), band(GLOW_NM[1])];
}

/** Adds every patch's spectrum, weighted, to its X, Y and Z: each band is fetched once for the three. */
function add(
  out: Float64Array,
  spectra: Float32Array,
  bands: number,
  weights: readonly Float64Array[],
  [from, to] = [0, bands],
): void {
  const [wx, wy, wz] = weights;
  let at = 0;
  for (let p = 0; p < out.length; p += 3) {
    let X = out[p]!;
    let Y = out[p + 1]!;
    let Z = out[p + 2]!;
    for (let i = from; i < to; i++) {
      const v = spectra[at + i]!;
      X += v * wx![i]!;
      Y += v * wy![i]!;
      Z += v * wz![i]!;
    }
    at += bands;
    out[p] = X;
    out[p + 1] = Y;
    out[p + 2] = Z;
  }
}

/** CIELAB of every patch for an eye adapted to the light, corresponding colours under D50. */
export function litLabs(xyz: Float64Array, { toD50: m }: Lighting): Lab[] {
  const labs = new Array<Lab>(xyz.length / 3);
  for (let p = 0, at = 0; p < labs.length; p++, at += 3) {
    const X = xyz[at]!;
    const Y = xyz[at + 1]!;
    const Z = xyz[at + 2]!;
    const fx = labRoot(m[0]! * X + m[1]! * Y + m[2]! * Z);
    const fy = labRoot(m[3]! * X + m[4]! * Y + m[5]! * Z);
    const fz = labRoot(m[6]! * X + m[7]! * Y + m[8]! * Z);
    labs[p] = [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)];
  }
  return labs;
}
