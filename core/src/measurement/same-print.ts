import { deltaE2000 } from '../colour/difference.ts';
import type { Lab } from '../colour/types.ts';
import type { Reading, SpectralGrid } from './reading.ts';
import { groupPatches, noiseAt, repeatability, type PatchGroup, type Repeatability } from './repeats.ts';
import { groupSpectrum } from './spectra-of-group.ts';

/** The same patch in two readings. */
export interface PatchPair {
  readonly p: PatchGroup;
  readonly q: PatchGroup;
}

/** How two readings differ where both hold the same patch. */
export interface PrintDifference {
  /** Patches that both hold. */
  readonly common: number;
  /** Over nine tenths of the common patches, the worst tenth left out; ΔE00 between readings under one measurement condition, else the part that UV leaves alone. */
  readonly mean: number;
  readonly p95: number;
  readonly white?: number;
  /** Of the darkest common patch. */
  readonly black?: number;
  /** Mean difference that the noise of both readings alone would give. */
  readonly noise: number;
  /** `deltaE00`, or `lightness`: ΔL* of the wavelengths a brightener does not reach, between unlike measurement conditions. */
  readonly measuredBy: 'deltaE00' | 'lightness';
}

const keyOf = (device: readonly number[]) => device.map((v) => Math.round(v * 10_000)).join();

/**
 * Patches that two readings share: by their device values where both hold them, by their names or order where neither
 * does and both hold as many. A reading with device values and one without share none.
 */
export function commonPatches(p: Reading, q: Reading): PatchPair[] {
  const [own, its] = [groupPatches(p), groupPatches(q)];
  const [byDevice, itsByDevice] = [own, its].map((groups) => groups.some((g) => g.device));
  if (byDevice !== itsByDevice) return [];
  if (!byDevice) return byNumber(own, its);
  if (p.deviceSpace !== q.deviceSpace) return [];
  const found = new Map(its.flatMap((g) => (g.device ? [[keyOf(g.device), g] as const] : [])));
  return own.flatMap((g) => {
    const match = g.device && found.get(keyOf(g.device));
    return match ? [{ p: g, q: match }] : [];
  });
}

/** Pairs by the names of patches where both readings name the same ones, once each; else by their order. */
function byNumber(own: readonly PatchGroup[], its: readonly PatchGroup[]): PatchPair[] {
  if (own.length !== its.length) return [];
  const named = new Map(its.map((g) => [g.members[0]!.id, g]));
  const match = own.map((p) => named.get(p.members[0]!.id));
  const whole = named.size === its.length && match.every((q) => q !== undefined);
  return own.map((p, i) => ({ p, q: whole ? match[i]! : its[i]! }));
}

/** From here on brightener gives no light back, nm. */
const BEYOND_GLOW_NM = 560;
const FEWEST_BANDS = 4;
/** L* of a root of reflectance. */
const L_OF_ROOT = 116;

export const sameGrid = (a: SpectralGrid | undefined, b: SpectralGrid | undefined): boolean =>
  a !== undefined && b !== undefined && a.startNm === b.startNm && a.stepNm === b.stepNm && a.count === b.count;

/** How far two patches lie apart in what UV does not change: ΔL* of the long waves, or of the whole where no spectra are held. */
function lightnessApart(p: Reading, q: Reading): (pair: PatchPair) => number {
  const from = p.spectralGrid && Math.ceil((BEYOND_GLOW_NM - p.spectralGrid.startNm) / p.spectralGrid.stepNm);
  const spectral =
    sameGrid(p.spectralGrid, q.spectralGrid) && from !== undefined && p.spectralGrid!.count - from >= FEWEST_BANDS;
  return (pair) => {
    const [a, b] = spectral ? [groupSpectrum(p, pair.p)?.values, groupSpectrum(q, pair.q)?.values] : [];
    if (!a || !b) return Math.abs(pair.p.lab[0] - pair.q.lab[0]);
    let square = 0;
    for (let i = from!; i < a.length; i++) square += (root(a[i]!) - root(b[i]!)) ** 2;
    return L_OF_ROOT * Math.sqrt(square / (a.length - from!));
  };
}
const root = (r: number) => Math.cbrt(Math.max(0, r));

/**
 * How two readings differ over the patches both hold. Under one measurement condition by ΔE00; under two of them by the
 * part of the spectrum that brightener does not reach.
 * @returns undefined where they share no patch
 */
export function differenceOf(p: Reading, q: Reading): PrintDifference | undefined {
  const pairs = commonPatches(p, q);
  if (pairs.length === 0) return undefined;
  const alike = p.condition === q.condition;
  const apart = alike ? ({ p: a, q: b }: PatchPair) => deltaE2000(a.lab, b.lab) : lightnessApart(p, q);
  const off = pairs.map(apart);
  // A misread patch that is read again disagrees, and is what the second reading is for: the worst tenth is let pass.
  const sorted = [...off].sort((a, b) => a - b);
  const usual = sorted.slice(0, Math.max(2, Math.floor(0.9 * sorted.length)));
  const [ownNoise, itsNoise] = [p, q].map((r) => repeatability(groupPatches(r)));
  const noises = pairs.map((pair) => Math.hypot(sdOf(ownNoise!, pair.p), sdOf(itsNoise!, pair.q)));
  const white = pairs.findIndex((pair) => isBare(p, pair.p));
  const darkest = pairs.reduce((least, { p: g }, i) => (g.lab[0] < pairs[least]!.p.lab[0] ? i : least), 0);
  return {
    common: pairs.length,
    mean: usual.reduce((s, v) => s + v, 0) / usual.length,
    p95: usual[Math.min(usual.length - 1, Math.ceil(0.95 * usual.length) - 1)]!,
    white: white < 0 ? undefined : off[white],
    black: pairs[darkest]!.p.lab[0] < BLACK_L ? off[darkest] : undefined,
    noise: noises.reduce((s, v) => s + v, 0) / noises.length,
    measuredBy: alike ? 'deltaE00' : 'lightness',
  };
}

/** A patch darker than this counts as the black of a reading (our own choice; the blackest matt prints end at L* 20). */
const BLACK_L = 35;

/** Root mean square distance of a mean from the truth by the noise of its readings, ΔE. */
function sdOf(r: Repeatability, { lab, count }: PatchGroup): number {
  const [sL, sa, sb]: Lab = noiseAt(r, lab[0]);
  return Math.hypot(sL, sa, sb) / Math.sqrt(count);
}

function isBare({ deviceSpace }: Reading, { device }: PatchGroup): boolean {
  const bare = deviceSpace === 'CMYK' ? 0 : 1;
  return device?.every((v) => v === bare) ?? false;
}

/**
 * How far two readings of one print condition may lie apart, beyond their noise: instrument, day and box together
 * (our own choice: prints of one condition on other days lie 0.3 to 0.8 ΔE00 apart, two papers of one class 2 and more).
 */
export const DRIFT = { mean: 1, p95: 2.5, white: 1, black: 2 } as const;

/** Where in a difference drift is exceeded first; undefined where the two agree. */
export function whyNotAlike(d: PrintDifference): string | undefined {
  const unit = d.measuredBy === 'deltaE00' ? 'ΔE00' : 'ΔL* of what UV leaves alone';
  const room = 2 * d.noise;
  const found = (
    [
      ['mean', d.mean, `in the mean of ${d.common} common patches`],
      ['white', d.white, 'in white'],
      ['black', d.black, 'in black'],
      ['p95', d.p95, `in the worst of ${d.common} common patches`],
    ] as const
  ).find(([key, value]) => value !== undefined && value > DRIFT[key] + room);
  return found && `they differ by ${found[1]!.toFixed(1)} ${unit} ${found[2]}, more than noise and drift explain`;
}

/**
 * Why two readings are not joined; undefined where they agree in the patches both hold, white and black among them.
 */
export function whyNotJoined(p: Reading, q: Reading): string | undefined {
  const d = differenceOf(p, q);
  return d ? whyNotAlike(d) : 'no patch is common to both, so they can’t be compared';
}
