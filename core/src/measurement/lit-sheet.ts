import { bradford } from '../colour/adaptation.ts';
import { CIE_START_NM, CIE_STEP_NM } from '../colour/cie-tables.ts';
import { excitation } from '../colour/excitation.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { xyzToLab } from '../colour/lab.ts';
import { apply } from '../colour/matrix.ts';
import { illuminantWhite, observerOf, spectrumAt } from '../colour/spectrum.ts';
import { ROOM, type Glass } from '../colour/table-lights.ts';
import type { Lab, Spectrum, Xyz } from '../colour/types.ts';

/**
 * A print as spectra, ready to be looked at under any light: what it reflects, and what its brightener gives back under D50, apart. Patches lie after one
 * another, `bands` values each.
 */
export interface SheetSpectra {
  readonly startNm: number;
  readonly stepNm: number;
  readonly bands: number;
  /** Reflectance factors without luminescence. */
  readonly reflected: Float32Array;
  /** Luminescent part of the factor under D50; absent where the sheet was not read with and without UV. */
  readonly luminous?: Float32Array;
}

/** How spectra become colours under one light behind one glass: two sets of weights, and a veil. */
export interface Lighting {
  readonly reflected: readonly Float64Array[];
  readonly luminous: readonly Float64Array[];
  /** The room's light on the glass, XYZ. */
  readonly veil: Xyz;
  /** To D50, the eye adapted to the light. */
  readonly toD50: (xyz: Xyz) => Lab;
}

/**
 * Weights on the sheet's own bands, for a light and a glass. Luminescence follows the UV that reaches the sheet, by the excitation of a stilbene-like
 * brightener; a sheet read without UV alone has none to give. The eye is adapted to the bare light (linear Bradford), so that the perfect diffuser stays white.
 */
export function lighting(light: Spectrum, glass: Glass, { startNm, stepNm, bands }: Pick<SheetSpectra, 'startNm' | 'stepNm' | 'bands'>): Lighting {
  const [xb, yb, zb] = observerOf('2');
  const power = xb.map((_, i) => spectrumAt(light, CIE_START_NM + i * CIE_STEP_NM));
  const k = 100 / power.reduce((sum, s, i) => sum + s * yb[i], 0);
  const uv = (of: (nm: number) => number) => {
    let sum = 0;
    for (let nm = 340; nm <= 410; nm += 10) sum += of(nm) * excitation(nm);
    return sum;
  };
  // The glass filters the light on its way in; what comes out passes it once more.
  const gain = uv((nm) => spectrumAt(light, nm) * glass.transmits(nm)) / uv((nm) => spectrumAt(ILLUMINANTS.D50, nm));
  const [reflected, luminous] = [0, 1].map(() => [0, 1, 2].map(() => new Float64Array(bands)));
  [xb, yb, zb].forEach((bar, c) => {
    bar.forEach((weight, i) => {
      const nm = CIE_START_NM + i * CIE_STEP_NM;
      const out = glass.transmits(nm);
      // Shared out between the two bands about it; beyond the ends the end band holds.
      const place = Math.min(bands - 1, Math.max(0, (nm - startNm) / stepNm));
      const low = Math.min(bands - 2, Math.floor(place));
      const share = place - low;
      const seen = k * power[i] * weight * out * out;
      // The luminous part is kept relative to D50's own light at the wavelength; given back, it is light of its own.
      const given = k * spectrumAt(ILLUMINANTS.D50, nm) * gain * weight * out;
      reflected[c][low] += seen * (1 - share);
      reflected[c][low + 1] += seen * share;
      luminous[c][low] += given * (1 - share);
      luminous[c][low + 1] += given * share;
    });
  });
  const white = illuminantWhite(light);
  const d50 = illuminantWhite();
  const adapt = bradford(white, d50);
  return { reflected, luminous, veil: white.map((v) => v * glass.reflects * ROOM) as unknown as Xyz, toD50: (xyz) => xyzToLab(apply(adapt, xyz), d50) };
}

/** Tristimulus values of every patch, X Y Z after one another. */
export function litXyz(sheet: SheetSpectra, under: Lighting): Float64Array {
  const { bands, reflected, luminous } = sheet;
  const count = reflected.length / bands;
  const out = new Float64Array(count * 3);
  for (let p = 0; p < count; p++) {
    const at = p * bands;
    for (let c = 0; c < 3; c++) {
      const [w, v] = [under.reflected[c], under.luminous[c]];
      let sum = under.veil[c];
      for (let i = 0; i < bands; i++) sum += reflected[at + i] * w[i];
      if (luminous) for (let i = 0; i < bands; i++) sum += luminous[at + i] * v[i];
      out[p * 3 + c] = sum;
    }
  }
  return out;
}

/** CIELAB of every patch for an eye adapted to the light, corresponding colours under D50. */
export function litLabs(xyz: Float64Array, { toD50 }: Lighting): Lab[] {
  return Array.from({ length: xyz.length / 3 }, (_, p) => toD50([xyz[p * 3], xyz[p * 3 + 1], xyz[p * 3 + 2]]));
}
