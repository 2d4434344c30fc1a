import { seededRandom, shuffled } from '../random.ts';

/** A pair as it is shown. */
export interface BlindPair {
  /** Which print is on the left, which on the right, by number. */
  readonly left: number;
  readonly right: number;
}

/** Letters that look alike under glass are left out. */
const LETTERS = 'ACEFHJKLMNPRTUVWX';

/**
 * Every pair `times` times, round by round in random order. Each print is on the left as often as on the right, to
 * within one, and so is each print within a pair. With three prints or more no pair follows itself. The same seed gives
 * the same order.
 */
export function blindOrder(count: number, times: number, seed: number): BlindPair[] {
  const random = seededRandom(seed);
  const pairs = orientedPairs(count, random);
  const out: BlindPair[] = [];
  for (let round = 0; round < times; round++) {
    const next = shuffled(pairs, random);
    const before = out[out.length - 1];
    if (before && next.length > 1 && samePair(next[0]!, before)) {
      const other = 1 + Math.floor(random() * (next.length - 1));
      [next[0], next[other]] = [next[other]!, next[0]!];
    }
    // Sides change every round, so that a pair's two sides stay even to one.
    out.push(...next.map(({ left, right }) => (round % 2 === 0 ? { left, right } : { left: right, right: left })));
  }
  return out;
}

const samePair = (p: BlindPair, q: BlindPair) =>
  Math.min(p.left, p.right) === Math.min(q.left, q.right) && Math.max(p.left, p.right) === Math.max(q.left, q.right);

/**
 * Every pair once, its sides such that each print is on the left as often as on the right, to within one: around a
 * circle, each print is left of the half that follows it.
 */
function orientedPairs(count: number, random: () => number): BlindPair[] {
  const circle = shuffled(
    Array.from({ length: count }, (_, i) => i),
    random,
  );
  const swap = random() < 0.5;
  const pairs: BlindPair[] = [];
  for (let i = 0; i < count; i++) {
    for (let j = i + 1; j < count; j++) {
      const ahead = j - i;
      // Opposite prints of an even circle: the first half is left of the second.
      const first = 2 * ahead <= count;
      const [left, right] = first === swap ? [circle[j]!, circle[i]!] : [circle[i]!, circle[j]!];
      pairs.push({ left, right });
    }
  }
  return pairs;
}

/** A code for each print: two letters, no two alike, in an order that gives nothing away. */
export function blindCodes(count: number, seed: number): string[] {
  const random = seededRandom(seed + 1);
  const all = [...LETTERS].flatMap((p) => [...LETTERS].filter((q) => q !== p).map((q) => p + q));
  return shuffled(all, random).slice(0, count);
}
