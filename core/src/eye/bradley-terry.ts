/** What was said of one pair: which of the two, by number, or that they could not be told apart. */
export interface PairedChoice {
  readonly first: number;
  readonly second: number;
  readonly said: 'first' | 'second' | 'neither';
}

/** A place on the scale. */
export interface Placed {
  /** Natural logarithm of the strength, the mean of all being 0. */
  readonly scale: number;
  /** Standard error; infinite where the choices do not bound it. */
  readonly error: number;
}

export interface EyeScale {
  readonly places: readonly Placed[];
  /** Likelihood-ratio χ² of "all are alike", and its degrees of freedom. */
  readonly chiSquared: number;
  readonly degreesOfFreedom: number;
}

const ROUNDS = 2000;
const CLOSE = 1e-10;
/** Half a choice each way between every pair keeps a sheet that never lost from running off the scale. */
const PRIOR = 0.5;

/**
 * Bradley–Terry scale (Bradley & Terry 1952) by minorisation and maximisation (Hunter 2004). A pair that could not be
 * told apart counts as half a choice each way.
 * @param count things compared
 * @param steadied adds half a choice each way to every pair that met, so that perfect records stay finite; off for textbook data
 */
export function bradleyTerry(count: number, choices: readonly PairedChoice[], steadied = true): EyeScale {
  const wins = Array.from({ length: count }, () => new Float64Array(count));
  for (const { first, second, said } of choices) {
    wins[first]![second]! += said === 'first' ? 1 : said === 'neither' ? 0.5 : 0;
    wins[second]![first]! += said === 'second' ? 1 : said === 'neither' ? 0.5 : 0;
  }
  const raw = wins.map((row) => Float64Array.from(row));
  if (steadied)
    for (let i = 0; i < count; i++)
      for (let j = 0; j < count; j++) if (i !== j && raw[i]![j]! + raw[j]![i]! > 0) wins[i]![j]! += PRIOR;
  let strength = new Float64Array(count).fill(1);
  for (let round = 0; round < ROUNDS; round++) {
    const next = strength.map((own, i) => {
      let [won, met] = [0, 0];
      for (let j = 0; j < count; j++) {
        if (j === i) continue;
        won += wins[i]![j]!;
        met += (wins[i]![j]! + wins[j]![i]!) / (own + strength[j]!);
      }
      return met === 0 ? own : Math.max(won / met, 1e-12);
    });
    const mean = Math.exp(next.reduce((s, v) => s + Math.log(v), 0) / count);
    const settled = next.map((v) => v / mean);
    const moved = settled.reduce((most, v, i) => Math.max(most, Math.abs(Math.log(v / strength[i]!))), 0);
    strength = settled;
    if (moved < CLOSE) break;
  }
  const scale = Array.from(strength, Math.log);
  const errors = standardErrors(scale, wins);
  const likelihood = (of: (i: number, j: number) => number) => {
    let sum = 0;
    for (let i = 0; i < count; i++)
      for (let j = 0; j < count; j++) if (raw[i]![j]! > 0) sum += raw[i]![j]! * Math.log(of(i, j));
    return sum;
  };
  const chiSquared = Math.max(
    0,
    2 * (likelihood((i, j) => strength[i]! / (strength[i]! + strength[j]!)) - likelihood(() => 0.5)),
  );
  const degreesOfFreedom = Math.max(1, count - 1);
  return {
    places: scale.map((s, i) => ({ scale: s, error: errors[i]! })),
    chiSquared,
    degreesOfFreedom,
  };
}

/** Square roots of the diagonal of the inverse information, the scale's sum held at 0. */
function standardErrors(scale: readonly number[], wins: readonly Float64Array[]): number[] {
  const n = scale.length;
  // Information with a row and a column of ones for the constraint.
  const A = Array.from({ length: n + 1 }, () => new Float64Array(2 * (n + 1)));
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) {
      if (i === j) continue;
      const p = 1 / (1 + Math.exp(scale[j]! - scale[i]!));
      const w = (wins[i]![j]! + wins[j]![i]!) * p * (1 - p);
      A[i]![i]! += w;
      A[i]![j]! -= w;
    }
    A[i]![n] = A[n]![i] = 1;
  }
  for (let i = 0; i <= n; i++) A[i]![n + 1 + i] = 1;
  for (let i = 0; i <= n; i++) {
    let pivot = i;
    for (let k = i + 1; k <= n; k++) if (Math.abs(A[k]![i]!) > Math.abs(A[pivot]![i]!)) pivot = k;
    if (Math.abs(A[pivot]![i]!) < 1e-12) return new Array<number>(n).fill(Infinity);
    [A[i], A[pivot]] = [A[pivot]!, A[i]!];
    const by = A[i]![i]!;
    for (let c = 0; c < 2 * (n + 1); c++) A[i]![c]! /= by;
    for (let k = 0; k <= n; k++) {
      const times = A[k]![i]!;
      if (k !== i && times !== 0) for (let c = 0; c < 2 * (n + 1); c++) A[k]![c]! -= times * A[i]![c]!;
    }
  }
  return Array.from({ length: n }, (_, i) => Math.sqrt(Math.max(0, A[i]![n + 1 + i]!)));
}
