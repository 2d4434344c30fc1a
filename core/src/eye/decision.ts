import { seededRandom } from '../random.ts';
import type { PairedChoice } from './bradley-terry.ts';

/** What the answers of a blind comparison allow to be said. */
export const EYE_VERDICTS = ['distinguishable', 'no difference found', 'too few looks'] as const;
export type EyeVerdict = (typeof EYE_VERDICTS)[number];

export interface EyeDecision {
  readonly verdict: EyeVerdict;
  /** How often guessing gives answers at least as one-sided, 0–1. */
  readonly chance: number;
  /** How often so many looks find a difference of the size expected, 0–1. */
  readonly power: number;
}

/**
 * How clear a difference is: how often the best of the prints is chosen over the least, the others lying evenly between
 * (our own scale).
 */
export const CLARITIES = {
  obvious: { name: 'obvious: seen 19 times in 20', share: 0.95 },
  clear: { name: 'clear: seen 9 times in 10', share: 0.9 },
  slight: { name: 'slight: seen 3 times in 4', share: 0.75 },
} as const;
export type Clarity = keyof typeof CLARITIES;

/** Guessing gives answers this one-sided in one comparison of twenty: from there on prints are called distinguishable. */
export const CHANCE_LIMIT = 0.05;
/** A comparison that misses the expected difference more often than once in five decides nothing (Cohen 1988, 2.4). */
export const POWER_WANTED = 0.8;
/** Most looks that are counted through one by one: beyond, guesses are drawn. */
const MAX_COUNTED = 14;
const DRAWS = 10_000;
const MAX_TIMES = 60;

/**
 * Decides by the answers alone, without an approximation: every answer is dealt again as a guess, and how one-sided the
 * guesses come out is compared with the answers. “Can’t tell” stays as it is: it is half a choice each way.
 * @param count prints compared
 * @param clarity the difference that was expected before the first look
 */
export function decide(count: number, choices: readonly PairedChoice[], clarity: Clarity): EyeDecision {
  const chance = chanceOf(count, choices);
  const pairs = (count * (count - 1)) / 2;
  const decided = choices.filter((c) => c.said !== 'neither').length;
  const power = powerOf(count, Math.floor(decided / pairs), clarity);
  const verdict =
    chance <= CHANCE_LIMIT
      ? 'distinguishable'
      : powerOf(count, Math.floor(choices.length / pairs), clarity) >= POWER_WANTED
        ? 'no difference found'
        : 'too few looks';
  return { verdict, chance, power };
}

/** Which two prints each look showed, by number. */
interface Looks {
  readonly first: Int32Array;
  readonly second: Int32Array;
}
const looksAt = (pairs: readonly (readonly [first: number, second: number])[]): Looks => ({
  first: Int32Array.from(pairs, ([p]) => p),
  second: Int32Array.from(pairs, ([, q]) => q),
});

/** Sum over prints of the square of how often each was chosen less how often it was not. */
function oneSidedness(count: number, { first, second }: Looks, firstWins: (i: number) => boolean): number {
  const score = new Float64Array(count);
  for (let i = 0; i < first.length; i++) {
    const won = firstWins(i) ? 1 : -1;
    score[first[i]!]! += won;
    score[second[i]!]! -= won;
  }
  let sum = 0;
  for (let i = 0; i < count; i++) sum += score[i]! * score[i]!;
  return sum;
}

/** How often guesses are at least as one-sided as the answers. */
function chanceOf(count: number, choices: readonly PairedChoice[]): number {
  const decided = choices.filter((c) => c.said !== 'neither');
  const n = decided.length;
  if (n === 0) return 1;
  const looks = looksAt(decided.map((c) => [c.first, c.second]));
  const measured = oneSidedness(count, looks, (i) => decided[i]!.said === 'first');
  // With one pair the answers are a binomial: its tails are exact for any number of looks.
  if (count === 2) return binomialTails(n, (n + Math.sqrt(measured / 2)) / 2);
  if (n <= MAX_COUNTED) {
    let asMuch = 0;
    for (let way = 0; way < 2 ** n; way++)
      if (oneSidedness(count, looks, (i) => ((way >> i) & 1) === 1) >= measured) asMuch++;
    return asMuch / 2 ** n;
  }
  const random = seededRandom(n);
  let asMuch = 1;
  for (let k = 0; k < DRAWS; k++) if (oneSidedness(count, looks, () => random() < 0.5) >= measured) asMuch++;
  return asMuch / (DRAWS + 1);
}

/** Chance that a fair coin thrown n times falls on one side k times or more, either side. */
function binomialTails(n: number, k: number): number {
  const most = Math.round(Math.max(k, n - k));
  let tail = 0;
  for (let i = most; i <= n; i++) tail += Math.exp(logChoose(n, i) - n * Math.LN2);
  return Math.min(1, 2 * tail);
}
function logChoose(n: number, k: number): number {
  let sum = 0;
  for (let i = 1; i <= k; i++) sum += Math.log((n - k + i) / i);
  return sum;
}

/** Strengths of the prints on the Bradley–Terry scale: evenly spaced, the ends apart by the logit of the share. */
const strengths = (count: number, clarity: Clarity) => {
  const { share } = CLARITIES[clarity];
  const ends = Math.log(share / (1 - share));
  return Array.from({ length: count }, (_, i) => (ends * i) / (count - 1));
};

/**
 * How often a comparison finds a difference of that clarity: comparisons are drawn by the Bradley–Terry model, and
 * decided against the limit that guesses give.
 * @param times how often each pair is seen
 */
export function powerOf(count: number, times: number, clarity: Clarity): number {
  if (times < 1 || count < 2) return 0;
  const key = `${count}/${times}/${clarity}`;
  const known = POWERS.get(key) ?? drawnPower(count, times, clarity);
  POWERS.set(key, known);
  return known;
}
/** What was drawn once: the same question has the same answer. */
const POWERS = new Map<string, number>();
const POWER_DRAWS = 3000;

function drawnPower(count: number, times: number, clarity: Clarity): number {
  const scale = strengths(count, clarity);
  if (count === 2) return binomialPower(times, CLARITIES[clarity].share);
  const pairs = scale.flatMap((_, i) =>
    scale.slice(i + 1).flatMap((__, k) => Array.from({ length: times }, () => [i, i + 1 + k] as const)),
  );
  const looks = looksAt(pairs);
  const random = seededRandom(count * 100 + times);
  const draw = (firstWins: (i: number) => number) =>
    Array.from({ length: POWER_DRAWS }, () => oneSidedness(count, looks, (i) => random() < firstWins(i)));
  const guesses = draw(() => 0.5).sort((a, b) => b - a);
  // Ties with the limit are not beyond it.
  const limit = guesses[Math.floor(CHANCE_LIMIT * POWER_DRAWS)]!;
  const firstWins = pairs.map(([p, q]) => 1 / (1 + Math.exp(scale[q]! - scale[p]!)));
  const seen = draw((i) => firstWins[i]!);
  return seen.filter((v) => v > limit).length / POWER_DRAWS;
}
function binomialPower(n: number, share: number): number {
  let power = 0;
  for (let k = 0; k <= n; k++)
    if (binomialTails(n, k) <= CHANCE_LIMIT)
      power += Math.exp(logChoose(n, k) + k * Math.log(share) + (n - k) * Math.log(1 - share));
  return power;
}

/** Fewest times each pair must be seen to find a difference of that clarity in four of five comparisons; undefined beyond 60. */
export function timesNeeded(count: number, clarity: Clarity): number | undefined {
  // Power grows with the looks but for small steps: halve the way, then the steps that are left.
  if (count < 2 || powerOf(count, MAX_TIMES, clarity) < POWER_WANTED) return undefined;
  let [low, high] = [0, MAX_TIMES];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (powerOf(count, middle, clarity) >= POWER_WANTED) high = middle;
    else low = middle;
  }
  return high;
}
