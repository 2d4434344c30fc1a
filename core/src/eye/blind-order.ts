import { seededRandom, shuffled } from '../random.ts';

/** A pair as it is laid before the eye. */
export interface BlindPair {
  /** Which sheet lies left, which right, by number. */
  readonly left: number;
  readonly right: number;
}

/** Letters that look alike under glass are left out. */
const LETTERS = 'ACEFHJKLMNPRTUVWX';

/** Every pair `times` times, in random order, each side as often left as right where that can be. The same seed gives the same order. */
export function blindOrder(count: number, times: number, seed: number): BlindPair[] {
  const random = seededRandom(seed);
  const pairs: BlindPair[] = [];
  for (let i = 0; i < count; i++) {
    for (let j = i + 1; j < count; j++) {
      const start = random() < 0.5;
      for (let t = 0; t < times; t++)
        pairs.push((t % 2 === 0) === start ? { left: i, right: j } : { left: j, right: i });
    }
  }
  return shuffled(pairs, random);
}

/** A code a sheet, two letters, none like another and none telling anything. */
export function blindCodes(count: number, seed: number): string[] {
  const random = seededRandom(seed + 1);
  const all = [...LETTERS].flatMap((p) => [...LETTERS].filter((q) => q !== p).map((q) => p + q));
  return shuffled(all, random).slice(0, count);
}
