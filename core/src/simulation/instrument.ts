import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Rgb } from '../colour/types.ts';
import type { MeasurementCondition, Reading } from '../measurement/reading.ts';
import { seededNormal, seededRandom } from '../random.ts';
import type { ChartPatch } from './chart.ts';
import { press, type PressModel, type Print } from './printer.ts';
import { BENCH_GRID } from './sheet.ts';

/** How a hand-held spectrophotometer repeats on one patch: a share of the reading and a floor (our own model). */
const NOISE = { share: 0.0008, floor: 0.00006, perBand: 0.0003 };
/** Share of a reading by which a full flake glints from one reading of a patch to the next. */
const GLINT = 0.006;
/** Share of the reading lost with every strip since the white tile was last read (our own model). */
const DRIFT_PER_STRIP = 0.0004;

/** What one pass of the instrument gives of every patch. */
export const BENCH_CONDITIONS = ['M0', 'M1', 'M2'] as const;
export type BenchCondition = (typeof BENCH_CONDITIONS)[number];

/** What can go wrong with a strip, and now and then does. */
export const FAULTS = ['slipped', 'doubled', 'dirty', 'turned', 'skipped', 'repeated', 'stopped'] as const;
export type Fault = (typeof FAULTS)[number];
/** One strip in this many goes wrong, as practised hands have it (our own assumption). */
const FAULT_EVERY = 16;

/** Reflectance factors by measurement condition: patch × band, 380–730 nm at 10 nm. */
export type StripSpectra = Record<BenchCondition, number[][]>;

/** Prints of one sheet as the instrument meets them in one pass. */
export function benchPrints(model: PressModel): Record<BenchCondition, Print> {
  return { M0: press(model, 'M0'), M1: press(model, 'M1'), M2: press(model, 'M2') };
}

/** Does this strip go wrong, and how? The same seed, strip and attempt give the same answer. */
export function faultOf(seed: number, strip: number, attempt: number): Fault | undefined {
  const random = seededRandom(seed * 7919 + strip * 131 + attempt * 17);
  return random() * FAULT_EVERY < 1 ? FAULTS[Math.floor(random() * FAULTS.length)] : undefined;
}

/** One pass over a strip. */
export interface StripPass {
  /** Every strip of the sheet, in order, as it was printed. */
  readonly strips: readonly (readonly Rgb[])[];
  readonly strip: number;
  readonly seed: number;
  /** Strips read since the instrument was last calibrated. */
  readonly sinceCalibration: number;
  readonly fault?: Fault;
  /** Flake of the sheet, 0–1. */
  readonly flake: number;
}

/**
 * Reads one strip in M0, M1 and M2. A slipped strip has missed its first patch and ends on bare paper; a doubled one is the strip
 * before, read again; on a dirty one a patch is stained; on a turned sheet the strip from the other end comes backwards.
 * A patch in the further half may be skipped or read twice, or the instrument stands still from there on.
 */
export function readStrip(prints: Record<BenchCondition, Print>, pass: StripPass): StripSpectra {
  const { strips, strip, fault } = pass;
  const last = strips.length - 1;
  const own = strips[strip]!;
  const padded = (list: readonly Rgb[]) => Array.from({ length: own.length }, (_, i): Rgb => list[i] ?? [1, 1, 1]);
  const at = faultPlace(own.length, pass.seed);
  const seen = padded(
    {
      slipped: () => own.slice(1),
      doubled: () => strips[strip === 0 ? Math.min(1, last) : strip - 1]!,
      turned: () => [...strips[last - strip]!].reverse(),
      skipped: () => [...own.slice(0, at), ...own.slice(at + 1)],
      repeated: () => [...own.slice(0, at), ...own.slice(at - 1, -1)],
      stopped: () => own.map((rgb, i) => (i < at ? rgb : own[at - 1]!)),
      dirty: () => own,
      none: () => own,
    }[fault ?? 'none'](),
  );
  const random = seededRandom(pass.seed);
  const stained = fault === 'dirty' ? stainedPatch(own, random) : -1;
  const normal = seededNormal(pass.seed + 1);
  const drift = 1 - DRIFT_PER_STRIP * pass.sinceCalibration;
  const spectra: StripSpectra = { M0: [], M1: [], M2: [] };
  seen.forEach((rgb, patch) => {
    // One flash after another on the same spot: what the spot does is the same for all three, the bands' noise is not.
    const lift = drift * (1 + Math.hypot(NOISE.share, GLINT * pass.flake) * normal());
    const floor = NOISE.floor * normal();
    for (const condition of BENCH_CONDITIONS) {
      spectra[condition].push(
        prints[condition](rgb).map((r, band) => {
          // Coffee: it takes the blue first.
          const stain = patch === stained ? 0.72 - 0.3 * (1 - band / BENCH_GRID.count) : 1;
          return Math.max(0, r * stain * lift * (1 + NOISE.perBand * normal()) + floor);
        }),
      );
    }
  });
  return spectra;
}

/** Patch of a strip from which on it is read wrong, from 0: in its further half, and at least three before its end. */
export function faultPlace(patches: number, seed: number): number {
  const half = Math.ceil(patches / 2);
  return Math.max(1, Math.min(patches - 3, half + Math.floor(seededRandom(seed + 2)() * half)));
}

/** Where the coffee fell: on a patch light enough for it to be seen, if the strip has one. */
function stainedPatch(own: readonly Rgb[], random: () => number): number {
  const light = own.flatMap(([r, g, b], i) => ((r + g + b) / 3 > 0.45 ? [i] : []));
  return light.length > 0 ? light[Math.floor(random() * light.length)]! : Math.floor(random() * own.length);
}

/** Reads a whole chart without a fault, in one measurement condition; the same seed gives the same readings. */
export function readChart(
  model: PressModel,
  chart: readonly ChartPatch[],
  condition: MeasurementCondition,
  seed: number,
): Reading {
  const print = press(model, condition);
  const normal = seededNormal(seed);
  const share = Math.hypot(NOISE.share, GLINT * model.sheet.flake);
  const white = illuminantWhite();
  const patches = chart.map(({ id, rgb }) => {
    const lift = 1 + share * normal();
    const floor = NOISE.floor * normal();
    const reflectance = print(rgb).map((r) => Math.max(0, r * lift * (1 + NOISE.perBand * normal()) + floor));
    const xyz = spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values: reflectance });
    return { id, device: rgb, reflectance, xyz, lab: xyzToLab(xyz, white) };
  });
  return { patches, deviceSpace: 'RGB', spectralGrid: BENCH_GRID, colourFrom: 'spectrum', condition, backing: 'white' };
}
