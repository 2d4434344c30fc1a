import { cholesky, solveCholesky } from '../characterisation/linear-algebra.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { spectrumAt } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';
import type { MeasurementCondition, SpectralGrid } from '../measurement/reading.ts';
import { excitation } from './excitation.ts';
import type { GlowBetween } from './lit-sheet.ts';

/**
 * A paper's brightener as one spectrum of its bare white lets it be told: a narrow band in the blue that stands on a
 * reflectance which changes slowly. An estimate, held between what no brightener and a strong one would give.
 */
export interface EstimatedBrightener {
  /** What it adds to the factor, by band, for a strength of 1. */
  readonly unit: readonly number[];
  /** Factor at its peak: the estimate, and the ends of the interval that holds nine of ten. */
  readonly strength: number;
  readonly low: number;
  readonly high: number;
  /** The spectrum begins too late to see where the band rises: the interval is wider for it. */
  readonly startsLate: boolean;
}

/** Bands that stilbene-like brighteners give back: peak, and half widths (1/e) to both sides, nm (memory). */
const PEAKS = [430, 437, 444];
const RISES = [13, 20, 27, 34];
const TAILS = [25, 34, 44];
/** How far the band of a real one strays from all of these, as a share of its strength, and over how many nm (practice). */
const STRAY = { share: 0.13, nm: 18, about: 445, reach: 50 };

/** A spread about none, and the strongest there is: factor at the peak (practice). */
const STRENGTH_SD = 0.18;
const STRONGEST = 0.6;
/** Instrument and fibre, factor. */
const NOISE_SD = 0.003;

/** Bands that bear on it, nm. */
const FROM_NM = 380;
const TO_NM = 680;
const LATEST_START_NM = 420;
const LATE_FROM_NM = 390;
const FEWEST_BANDS = 12;
/** Less than this in the red is no paper white. */
const LEAST_WHITE = 0.3;
/** Real sheets stray more than a model of them: the interval is that many times wider, and more where it starts late (practice). */
const WIDER = 1.1;
const WIDER_LATE = 1.4;

/** An unprinted base: how wide its fall towards the blue is and where its violet edge lies, nm; how much it bends beside both, factor. */
interface Base {
  readonly fallNm: number;
  readonly edgeNm: number;
  readonly bend: number;
}
const BASES: readonly Base[] = [30, 48, 75].flatMap((fallNm) =>
  [385, 397].flatMap((edgeNm) => [0.002, 0.008].map((bend) => ({ fallNm, edgeNm, bend }))),
);

const bell = (x: number, width: number) => Math.exp(-((x / width) ** 2));
const edge = (nm: number, at: number, width: number) => 1 / (1 + Math.exp((nm - at) / width));
const FALL_NM = 440;
const EDGE_WIDTH_NM = 6;

/** Factor of a usual base: most fall a little towards the blue, coatings at their edge, a brightener where it takes its light (practice). */
const usual = (nm: number, { fallNm, edgeNm }: Base): number =>
  0.9 - 0.03 * edge(nm, FALL_NM, fallNm) - 0.05 * edge(nm, edgeNm, EDGE_WIDTH_NM) - 0.1 * excitation(nm);

/** How far bases stray from the usual one, and how alike at two wavelengths: covariance of the factors (practice). */
function together(p: number, q: number, { fallNm, edgeNm, bend }: Base): number {
  const both = (sd: number, shape: (nm: number) => number) => sd ** 2 * shape(p) * shape(q);
  return (
    both(0.12, () => 1) +
    both(0.02, (nm) => (nm - 550) / 150) +
    both(0.05, (nm) => edge(nm, FALL_NM, fallNm)) +
    both(0.15, (nm) => edge(nm, edgeNm, EDGE_WIDTH_NM)) +
    both(0.3, excitation) +
    bend ** 2 * bell(p - q, 110) +
    (bend / 6) ** 2 * bell(p - q, 50)
  );
}

const stray = (p: number, q: number): number =>
  STRAY.share ** 2 * bell(p - q, STRAY.nm) * bell(p - STRAY.about, STRAY.reach) * bell(q - STRAY.about, STRAY.reach);

/** One guess at the band and the base: strength and its spread, and the logarithm of how well it explains the spectrum. */
interface Guess {
  readonly unit: readonly number[];
  readonly mean: number;
  readonly sd: number;
  readonly evidence: number;
}
/** A guess this far behind the best bears on nothing any more, natural logarithm. */
const NEGLIGIBLE = 7;

/**
 * @param white factors of the bare white with its luminescence, one a band of the grid
 * @param condition under which it was read; unstated is taken for D50 with its UV
 * @returns undefined where it can't be told: read without UV, too little of the spectrum, or no paper white
 */
export function estimateBrightener(
  { startNm, stepNm, count }: SpectralGrid,
  white: readonly number[],
  condition: MeasurementCondition | undefined,
): EstimatedBrightener | undefined {
  if (condition === 'M2' || condition === 'M3') return undefined;
  const all = Array.from({ length: count }, (_, i) => startNm + i * stepNm);
  const places = all.flatMap((nm, i) => (nm >= FROM_NM && nm <= TO_NM ? [i] : []));
  const last = places[places.length - 1];
  if (places.length < FEWEST_BANDS || all[places[0]!]! > LATEST_START_NM || !(white[last!]! > LEAST_WHITE))
    return undefined;
  const units = bandsOver(all, condition === 'M0' ? ILLUMINANTS.A : ILLUMINANTS.D50);
  const seen = { nms: places.map((i) => all[i]!), white: places.map((i) => white[i]!), places };
  const first = BASES.map((base) => ({ base, guesses: guess(seen, units, base, 0) }));
  const likeliest = first.flatMap((f) => f.guesses).reduce((p, q) => (q.evidence > p.evidence ? q : p));
  const guesses = first
    .filter((f) => f.guesses.some((g) => g.evidence > likeliest.evidence - NEGLIGIBLE))
    .flatMap(({ base }) => guess(seen, units, base, Math.max(0, likeliest.mean)));
  const best = Math.max(...guesses.map((g) => g.evidence));
  const likely = guesses
    .filter((g) => g.evidence > best - NEGLIGIBLE)
    .map((g) => ({ ...g, weight: Math.exp(g.evidence - best) }));
  const [low, strength, high] = quantiles(likely, [0.05, 0.5, 0.95]) as [number, number, number];
  const sum = likely.reduce((s, g) => s + g.weight, 0);
  const startsLate = startNm > LATE_FROM_NM;
  const wider = startsLate ? WIDER_LATE : WIDER;
  return {
    unit: all.map((_, i) => likely.reduce((s, g) => s + (g.weight / sum) * g.unit[i]!, 0)),
    strength,
    low: Math.max(0, strength - wider * (strength - low)),
    high: Math.min(STRONGEST, strength + wider * (high - strength)),
    startsLate,
  };
}

/** Every band that may be given back, at a peak of 1: as light of its own over that of the lamp, and as a factor that knows no lamp. */
const bandsOver = (nms: readonly number[], light: Spectrum): number[][] =>
  PEAKS.flatMap((peak) =>
    RISES.flatMap((rise) =>
      TAILS.flatMap((tail) =>
        [(nm: number) => spectrumAt(light, nm), () => 1].map((over) => {
          const raw = nms.map((nm) => bell(nm - peak, nm < peak ? rise : tail) / over(nm));
          const top = Math.max(...raw);
          return raw.map((v) => v / top);
        }),
      ),
    ),
  );

/** Strength of each band on one kind of base: a line in correlated noise (Gaussian process; Rasmussen and Williams 2006, 2.7). */
function guess(
  { nms, white, places }: { nms: readonly number[]; white: readonly number[]; places: readonly number[] },
  units: readonly (readonly number[])[],
  base: Base,
  strength: number,
): Guess[] {
  const n = nms.length;
  const spread = new Float64Array(n * n);
  nms.forEach((p, i) =>
    nms.forEach((q, j) => {
      // The more brightener there is, the more it bears that its band is of another shape.
      spread[i * n + j] = together(p, q, base) + strength ** 2 * stray(p, q) + (i === j ? NOISE_SD ** 2 : 0);
    }),
  );
  const lower = cholesky(spread, n);
  const off = Float64Array.from(white, (v, i) => v - usual(nms[i]!, base));
  const explained = solveCholesky(lower, n, off.slice());
  let size = 0;
  for (let i = 0; i < n; i++) size += Math.log(lower[i * n + i]!);
  const alone = -0.5 * dot(off, explained) - size;
  return units.map((unit) => {
    const own = Float64Array.from(places, (i) => unit[i]!);
    const information = dot(own, solveCholesky(lower, n, own.slice())) + STRENGTH_SD ** -2;
    const towards = dot(own, explained);
    const evidence = alone + 0.5 * (towards ** 2 / information - Math.log(information));
    return { unit, mean: towards / information, sd: information ** -0.5, evidence };
  });
}

const dot = (p: Float64Array, q: Float64Array) => p.reduce((s, v, i) => s + v * q[i]!, 0);

const STEPS = 300;

/** Of a weighed sum of normal distributions, cut off at none and at the strongest. @param shares rising, 0–1 */
function quantiles(parts: readonly (Guess & { readonly weight: number })[], shares: readonly number[]): number[] {
  const density = Array.from({ length: STEPS }, (_, i) => {
    const at = ((i + 0.5) / STEPS) * STRONGEST;
    return parts.reduce((s, { mean, sd, weight }) => s + (weight / sd) * Math.exp(-0.5 * ((at - mean) / sd) ** 2), 0);
  });
  const total = density.reduce((s, v) => s + v, 0);
  const found: number[] = [];
  let passed = 0;
  for (const [i, v] of density.entries()) {
    while (found.length < shares.length && passed + v >= shares[found.length]! * total)
      found.push(((i + (v > 0 ? (shares[found.length]! * total - passed) / v : 0.5)) / STEPS) * STRONGEST);
    passed += v;
  }
  return [...found, ...shares.slice(found.length).map(() => STRONGEST)];
}

/** The ends of the interval as shares of the estimate. */
export const glowBetween = ({ strength, low, high, startsLate }: EstimatedBrightener): GlowBetween => ({
  least: low / strength,
  most: high / strength,
  startsLate,
});

/**
 * What the brightener adds to the factor of a printed patch: its light is woken through the ink and comes out through
 * it once more, where what the patch reflects went through twice.
 * @param patch, white factors with luminescence, by band
 * @returns by band, for the strength of the estimate
 */
export function glowOf(
  patch: ArrayLike<number>,
  white: ArrayLike<number>,
  { unit, strength }: EstimatedBrightener,
): Float64Array {
  const through = (i: number) => Math.sqrt(Math.max(0, Math.min(1, patch[i]! / Math.max(white[i]!, 1e-4))));
  // The violet end stands for the UV, which no instrument reads.
  const woken = through(0);
  return Float64Array.from(unit, (u, i) => strength * u * woken * through(i));
}
