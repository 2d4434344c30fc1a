import { deltaE2000 } from '../colour/difference.ts';
import { three } from '../colour/three.ts';
import type { Lab } from '../colour/types.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { median } from '../session/strip-check.ts';
import type { Reading } from './reading.ts';
import { groupPatches, noiseAt, repeatability, type PatchGroup } from './repeats.ts';
import { commonPatches, type PatchPair } from './same-print.ts';
import type { Thresholds } from './thresholds.ts';

/** A patch of both sets. */
export interface ComparedPatch {
  /** Its name in the later set. */
  readonly id: string;
  /** Device values 0–1, where the readings state them. */
  readonly device?: readonly number[];
  readonly later: Lab;
  readonly first: Lab;
  readonly deltaE00: number;
  /** Further apart than chance explains, judged against all other patches. */
  readonly beyondNoise: boolean;
}

/** Mean colour difference from the mean over passes, ΔE00, and how many patches were read more than once. */
export interface PassSpread {
  readonly meanDeltaE00: number;
  readonly patches: number;
}

/** Two sets of readings held against each other patch by patch. */
export interface SetComparison {
  readonly common: number;
  /** ΔE00 over the common patches. */
  readonly mean: number;
  readonly p95: number;
  readonly max: number;
  /** Mean ΔE00 that the noise of both sets alone would give; absent where one of them has no repeated patch. */
  readonly noise?: number;
  /** Of the later and of the first set; absent where no patch was read twice. */
  readonly passes: { readonly later?: PassSpread; readonly first?: PassSpread };
  /**
   * Share of re-dealt differences that are at least as systematic as the ones measured, 0–1. Small values speak for a
   * real change.
   */
  readonly chance: number;
  readonly verdict: SetVerdict;
  /** Patches beyond noise by themselves: stains and misreadings, or a colour that changed alone. */
  readonly singles: number;
  /** The patches furthest apart, the furthest first. */
  readonly worst: readonly ComparedPatch[];
}

export const SET_VERDICTS = [
  'too few patches',
  'within your noise',
  'a few patches differ',
  'too small to see',
  'visible edge to edge',
  'visible across the room',
] as const;
export type SetVerdict = (typeof SET_VERDICTS)[number];

/** Fewest common patches from which chance can be told from change: with five, 1 in 32 re-dealings is as extreme. */
const MIN_PATCHES = 6;
/** Re-dealings of the differences; with 199 the smallest chance is 1 in 200. */
const REDEALS = 199;
/** Two sets are called different below this chance: at most two of a hundred pairs that are the same. */
const CHANCE = 0.02;
/**
 * A single patch is beyond noise from here on, ΔE00, and from so many times the middle of the patches a little darker or
 * a little lighter, and from so many times what its repeats say (our own choice): an instrument is not as sure of a
 * black as of a white.
 */
const SINGLE = { deltaE00: 1, dark: { belowL: 30, deltaE00: 3 }, times: 8, neighbours: 12, noises: 4 };
const MAX_WORST = 12;
/** Draws for each patch behind the mean difference that noise gives. */
const NOISE_DRAWS = 8;

/**
 * Compares two readings over the patches both hold. Whether they differ is decided without assuming a noise level: were
 * both read from the same print, each patch's difference would be as likely as its opposite. So the signs are dealt
 * again at random, and the systematic part of the differences (the part that a cubic in CIELAB explains) is compared
 * with that of the re-dealt ones (a randomisation test after Fisher 1935).
 * @param later a reading
 * @param first another, under the same measurement condition
 * @returns undefined where they share no patch
 */
export function compareSets(later: Reading, first: Reading, thresholds: Thresholds): SetComparison | undefined {
  const pairs = commonPatches(later, first);
  if (pairs.length === 0) return undefined;
  const off = pairs.map(({ p, q }) => deltaE2000(p.lab, q.lab));
  const noise = noiseOf(pairs, later, first);
  const limits = limitsOf(pairs, off, noise);
  const systematic = systematicPart(pairs);
  const singles = off.filter((d, i) => d > limits[i]!);
  return {
    common: pairs.length,
    mean: meanOf(off),
    p95: percentile95(off),
    max: Math.max(...off),
    noise: noise && meanOf(noise),
    passes: { later: passSpread(groupPatches(later)), first: passSpread(groupPatches(first)) },
    chance: systematic.chance,
    verdict: verdictOf(pairs.length, systematic, singles.length, thresholds),
    singles: singles.length,
    worst: pairs
      .map(({ p, q }, i) => ({
        id: p.members[0]!.id,
        device: p.device,
        later: p.lab,
        first: q.lab,
        deltaE00: off[i]!,
        beyondNoise: off[i]! > limits[i]!,
      }))
      .sort((a, b) => b.deltaE00 - a.deltaE00)
      .slice(0, MAX_WORST),
  };
}

function verdictOf(count: number, { chance, p95 }: Systematic, singles: number, { deltaE }: Thresholds): SetVerdict {
  if (count < MIN_PATCHES) return 'too few patches';
  // The 95th percentile decides: a change that one colour in twenty shows is seen.
  if (chance < CHANCE && p95 >= deltaE.acrossRoom) return 'visible across the room';
  if (chance < CHANCE && p95 >= deltaE.edgeToEdge) return 'visible edge to edge';
  if (singles > 0) return 'a few patches differ';
  return chance < CHANCE ? 'too small to see' : 'within your noise';
}

/** From which difference on each patch is beyond the noise of its like, ΔE00. */
function limitsOf(pairs: readonly PatchPair[], off: readonly number[], noise: readonly number[] | undefined): number[] {
  const order = pairs.map((_, i) => i).sort((i, j) => pairs[i]!.p.lab[0] - pairs[j]!.p.lab[0]);
  const limits = new Array<number>(off.length);
  order.forEach((patch, at) => {
    const middle = (from: number, to: number) => median(order.slice(Math.max(0, from), to).map((i) => off[i]!));
    // At either end there is nothing beyond: then the near side alone speaks.
    const sides = [middle(at - SINGLE.neighbours, at + 1), middle(at, at + 1 + SINGLE.neighbours)];
    const own = at === 0 ? sides[1]! : at === order.length - 1 ? sides[0]! : Math.max(...sides);
    const { dark } = SINGLE;
    limits[patch] = Math.max(
      pairs[patch]!.p.lab[0] < dark.belowL ? dark.deltaE00 : SINGLE.deltaE00,
      SINGLE.times * own,
      SINGLE.noises * (noise?.[patch] ?? 0),
    );
  });
  return limits;
}

interface Systematic {
  /** Chance that as systematic a difference comes from noise alone. */
  readonly chance: number;
  /** 95th percentile of the systematic part, without what noise adds to it, about ΔE00. */
  readonly p95: number;
}

function systematicPart(pairs: readonly PatchPair[]): Systematic {
  if (pairs.length < MIN_PATCHES) return { chance: 1, p95: 0 };
  const terms = orthogonal(pairs.map(({ p, q }) => cubic(three((c) => (p.lab[c]! + q.lab[c]!) / 2))));
  const apart = pairs.map(({ p, q }) => visibly(p.lab, q.lab));
  /** Each term's share of the differences, their signs dealt. */
  const along = (signs: ArrayLike<number>) =>
    terms.map((term) => {
      const sum: [number, number, number] = [0, 0, 0];
      for (let i = 0; i < apart.length; i++)
        for (let c = 0; c < 3; c++) sum[c]! += signs[i]! * term[i]! * apart[i]![c]!;
      return sum;
    });
  const powerOf = (shares: readonly Lab[]) => shares.reduce((s, [x, y, z]) => s + x * x + y * y + z * z, 0);
  const random = seededRandom(pairs.length);
  const signs = new Int8Array(pairs.length).fill(1);
  const shares = along(signs);
  const measured = powerOf(shares);
  let [asMuch, noise] = [1, 0];
  for (let n = 0; n < REDEALS; n++) {
    for (let i = 0; i < signs.length; i++) signs[i] = random() < 0.5 ? 1 : -1;
    const dealt = powerOf(along(signs));
    noise += dealt / REDEALS;
    if (dealt >= measured) asMuch++;
  }
  const fitted = apart.map((_, i) =>
    Math.hypot(...three((c) => shares.reduce((s, share, k) => s + share[c]! * terms[k]![i]!, 0))),
  );
  const real = measured > 0 ? Math.sqrt(Math.max(0, 1 - noise / measured)) : 0;
  return { chance: asMuch / (REDEALS + 1), p95: real * percentile95(fitted) };
}

/** A difference in the direction of CIELAB, its length ΔE00: axes that the eye weighs about alike. */
function visibly(p: Lab, q: Lab): Lab {
  const size = Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
  const by = size === 0 ? 0 : deltaE2000(p, q) / size;
  return three((c) => by * (p[c]! - q[c]!));
}

/** Terms of a cubic in CIELAB, of about unit size. */
function cubic([L, a, b]: Lab): number[] {
  const [x, y, z] = [(L - 50) / 50, a / 60, b / 60];
  return [1, x, y, z, x * x, y * y, z * z, x * y, x * z, y * z, x ** 3, y ** 3, z ** 3, x * y * z];
}

/** Columns made orthogonal and of length one (Gram & Schmidt), as many as the rows carry: a third of them at most. */
function orthogonal(rows: readonly (readonly number[])[]): Float64Array[] {
  const out: Float64Array[] = [];
  for (let k = 0; k < rows[0]!.length && out.length < Math.max(1, rows.length / 3); k++) {
    const column = Float64Array.from(rows, (row) => row[k]!);
    const before = norm(column);
    for (const o of out) {
      const along = column.reduce((s, v, i) => s + v * o[i]!, 0);
      for (let i = 0; i < column.length; i++) column[i]! -= along * o[i]!;
    }
    const length = norm(column);
    if (length > 1e-6 * before) out.push(column.map((v) => v / length));
  }
  return out;
}
const norm = (v: Float64Array) => Math.sqrt(v.reduce((s, x) => s + x * x, 0));

/** How far the passes of a patch lie from their mean; undefined where no patch was read twice. */
export function passSpread(groups: readonly PatchGroup[]): PassSpread | undefined {
  const repeated = groups.filter((g) => g.count > 1);
  if (repeated.length === 0) return undefined;
  const off = repeated.map((g) => meanOf(g.members.map((m) => deltaE2000(m.lab, g.lab))));
  return { meanDeltaE00: meanOf(off), patches: repeated.length };
}

/** Mean difference that the noise of both sets gives each patch, by what repeated patches say of each set. */
function noiseOf(pairs: readonly PatchPair[], later: Reading, first: Reading): number[] | undefined {
  const [p, q] = [later, first].map((r) => repeatability(groupPatches(r)));
  if (p!.degreesOfFreedom === undefined || q!.degreesOfFreedom === undefined) return undefined;
  const normal = seededNormal(1);
  const noisy = ({ lab }: PatchGroup, sd: Lab, count: number): Lab =>
    three((c) => lab[c]! + (sd[c]! * normal()) / Math.sqrt(count));
  return pairs.map((pair) => {
    const [sdP, sdQ] = [noiseAt(p!, pair.p.lab[0]), noiseAt(q!, pair.p.lab[0])];
    const draws = Array.from({ length: NOISE_DRAWS }, () =>
      deltaE2000(noisy(pair.p, sdP, pair.p.count), noisy(pair.p, sdQ, pair.q.count)),
    );
    return meanOf(draws);
  });
}

const meanOf = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;
function percentile95(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.ceil(0.95 * sorted.length) - 1]!;
}
