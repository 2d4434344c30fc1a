import { CIE_START_NM, CIE_STEP_NM, X_BAR_10, X_BAR_2, Y_BAR_10, Y_BAR_2, Z_BAR_10, Z_BAR_2 } from './cie-tables.ts';
import { ILLUMINANTS } from './illuminant.ts';
import type { Spectrum, Xyz } from './types.ts';

export type Observer = '2' | '10';

const OBSERVERS: Record<Observer, readonly [readonly number[], readonly number[], readonly number[]]> = {
  '2': [X_BAR_2, Y_BAR_2, Z_BAR_2],
  '10': [X_BAR_10, Y_BAR_10, Z_BAR_10],
};

/** Colour matching functions x̄, ȳ, z̄ of an observer on the CIE grid (CIE 15). */
export function observerOf(observer: Observer): readonly [readonly number[], readonly number[], readonly number[]] {
  return OBSERVERS[observer];
}

/** Value of a spectrum at a wavelength: linear between its points, its end values held beyond them (CIE 15 allows the nearest value). */
export function spectrumAt(spectrum: Spectrum, nm: number): number {
  const position = (nm - spectrum.startNm) / spectrum.stepNm;
  const last = spectrum.values.length - 1;
  if (position <= 0) return spectrum.values[0]!;
  if (position >= last) return spectrum.values[last]!;
  const i = Math.floor(position);
  const t = position - i;
  return t === 0 ? spectrum.values[i]! : spectrum.values[i]! * (1 - t) + spectrum.values[i + 1]! * t;
}

/** Weights W(λ) on the CIE grid such that XYZ = Σ R(λ)·W(λ); k = 100/Σ S·ȳ. */
interface Weights {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly z: Float64Array;
}

const weightCache = new WeakMap<Spectrum, Map<Observer, Weights>>();

function weights(illuminant: Spectrum, observer: Observer): Weights {
  let byObserver = weightCache.get(illuminant);
  if (!byObserver) weightCache.set(illuminant, (byObserver = new Map()));
  const known = byObserver.get(observer);
  if (known) return known;
  const [xb, yb, zb] = OBSERVERS[observer];
  const power = xb.map((_, i) => spectrumAt(illuminant, CIE_START_NM + i * CIE_STEP_NM));
  const k = 100 / power.reduce((sum, s, i) => sum + s * yb[i]!, 0);
  const made = {
    x: Float64Array.from(power, (s, i) => k * s * xb[i]!),
    y: Float64Array.from(power, (s, i) => k * s * yb[i]!),
    z: Float64Array.from(power, (s, i) => k * s * zb[i]!),
  };
  byObserver.set(observer, made);
  return made;
}

/**
 * Tristimulus values of a reflectance (CIE 15): k·Σ R(λ)·S(λ)·x̄(λ), summed at 10 nm from 340 to 830 nm. A reflectance that
 * covers less is held at its end values, so a perfect diffuser gives the white exactly, whatever its range.
 */
export function spectrumToXyz(
  reflectance: Spectrum,
  illuminant: Spectrum = ILLUMINANTS.D50,
  observer: Observer = '2',
): Xyz {
  const w = weights(illuminant, observer);
  let X = 0;
  let Y = 0;
  let Z = 0;
  for (let i = 0; i < w.x.length; i++) {
    const r = spectrumAt(reflectance, CIE_START_NM + i * CIE_STEP_NM);
    X += r * w.x[i]!;
    Y += r * w.y[i]!;
    Z += r * w.z[i]!;
  }
  return [X, Y, Z];
}

/**
 * White of an illuminant by the same sum: the XYZ of a perfect diffuser. Use it with {@link spectrumToXyz} so that R =
 * 1 is L* 100, 0, 0.
 */
export function illuminantWhite(illuminant: Spectrum = ILLUMINANTS.D50, observer: Observer = '2'): Xyz {
  const w = weights(illuminant, observer);
  const sum = (v: Float64Array) => v.reduce((s, x) => s + x, 0);
  return [sum(w.x), sum(w.y), sum(w.z)];
}
