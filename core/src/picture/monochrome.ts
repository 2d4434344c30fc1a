import type { OccupiedCells } from './cells.ts';

/** Bounds of what counts as one tint, our own: from looking at pictures, and not from a standard. */
const B = {
  /** A picture of one tone says nothing of a tint that follows the tone, L* from its 2 % to its 98 %. */
  spanL: 15,
  /** A tint stronger than this is colour, mean C*. */
  tint: 32,
  /** Beyond so much chroma off the tint of its tone a colour is looked at, ΔC*; or beyond so many times the middle one. */
  off: 5,
  timesMiddle: 4,
  /** Grain and a scanner's noise lie no further off than this in the middle. */
  noise: 3.5,
  /** The same hue as the tint, no more than so many times as strong, is still the tint, uneven. */
  hueDeg: 35,
  times: 3,
  beside: 6,
  /** Share of the picture that may be off for all that. */
  share: 0.002,
} as const;
/** Tones a tint is looked at in; each takes the middle of itself and its neighbours, so that a thing of one tone bends nothing. */
const TONES = 26;
const NEIGHBOURS = 2;
/** A tone that holds less of the picture has no say. */
const LEAST_SHARE = 0.0005;

/** How a picture without colour of its own is tinted. */
export interface Monochrome {
  /** Mean C* of the tint over the picture. */
  readonly tint: number;
}

/**
 * Whether a picture has no colour but a tint that follows its tone: grain, a scanner's noise and uneven yellowing are
 * let pass, a coloured thing of two thousandths of the picture is not.
 * @returns undefined for a picture of colour, and for one of a single tone that is not grey
 */
export function monochromeOf({ count, data }: OccupiedCells, spanL: number): Monochrome | undefined {
  const toneOf = (L: number) => Math.max(0, Math.min(TONES - 1, Math.round((L / 100) * (TONES - 1))));
  const means = tintByTone({ count, data }, toneOf);
  const off: { far: number; share: number; like: boolean }[] = [];
  let tint = 0;
  for (let i = 0; i < count * 4; i += 4) {
    const [a, b, share] = [data[i + 1]!, data[i + 2]!, data[i + 3]!];
    const [ma, mb] = means[toneOf(data[i]!)]!;
    const [C, M] = [Math.hypot(a, b), Math.hypot(ma, mb)];
    tint += share * M;
    const cosine = C * M > 0 ? (a * ma + b * mb) / (C * M) : 0;
    const like = cosine > Math.cos((B.hueDeg * Math.PI) / 180) && C < B.times * M + B.beside;
    off.push({ far: Math.hypot(a - ma, b - mb), share, like });
  }
  const middle = middleOf(off);
  if (middle > B.noise || tint > B.tint) return undefined;
  const bound = Math.max(B.off, B.timesMiddle * middle);
  const odd = off.reduce((sum, o) => sum + (o.far > bound && !o.like ? o.share : 0), 0);
  if (odd > B.share || (spanL < B.spanL && tint > B.noise)) return undefined;
  return { tint };
}

/** The middle a* and b* at each tone. */
function tintByTone(
  { count, data }: OccupiedCells,
  toneOf: (L: number) => number,
): (readonly [a: number, b: number])[] {
  const byTone = Array.from({ length: TONES }, () => [] as number[]);
  for (let i = 0; i < count * 4; i += 4) byTone[toneOf(data[i]!)]!.push(i);
  const own = byTone.map((cells) => {
    const share = cells.reduce((sum, i) => sum + data[i + 3]!, 0);
    if (share < LEAST_SHARE) return undefined;
    const middle = (c: 1 | 2) => middleOf(cells.map((i) => ({ far: data[i + c]!, share: data[i + 3]! })));
    return [middle(1), middle(2)] as const;
  });
  return own.map((_, tone) => {
    const about = own.slice(Math.max(0, tone - NEIGHBOURS), tone + NEIGHBOURS + 1).filter((t) => t !== undefined);
    if (about.length === 0) return [0, 0];
    const middle = (c: 0 | 1) => middleOf(about.map((t) => ({ far: t[c], share: 1 })));
    return [middle(0), middle(1)];
  });
}

/** The value that half of the shares do not pass. */
function middleOf(off: readonly { far: number; share: number }[]): number {
  const whole = off.reduce((sum, o) => sum + o.share, 0);
  let sum = 0;
  for (const { far, share } of [...off].sort((p, q) => p.far - q.far)) if ((sum += share) >= whole / 2) return far;
  return 0;
}
