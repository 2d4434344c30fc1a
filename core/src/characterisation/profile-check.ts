import { deltaE2000 } from '../colour/difference.ts';
import { chroma } from '../colour/lab.ts';
import { relativeToWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import { summarise, type ErrorSummary } from './model-error.ts';

/** A patch printed through a profile: what the profile promised and what was read, both absolute (D50). */
export interface PromisedPatch {
  readonly patch: string;
  readonly promised: Lab;
  readonly read: Lab;
}

/** How greys came out. */
export interface GreysCheck {
  readonly count: number;
  /** Greatest distance in a*b* from the promise. */
  readonly maxDeltaC: number;
  /** Greatest difference of L*, without its sign. */
  readonly maxDeltaL: number;
  /**
   * How far the read greys stand off neutral, relative to the paper: greatest C*. Greys of the driver's
   * black-and-white mode are told in the same way.
   */
  readonly maxTurn: number;
  /** Darker promised is darker read, all the way. */
  readonly monotone: boolean;
}

export const VERDICTS = ['passes', 'just visible', 'visible'] as const;
export type Verdict = (typeof VERDICTS)[number];

/** How readings of a strip printed through a profile hold against it. */
export interface ProfileCheck extends ErrorSummary {
  readonly patches: number;
  /** Absent where fewer than three greys were printed. */
  readonly greys?: GreysCheck;
  readonly worst: readonly (PromisedPatch & { readonly deltaE00: number })[];
  readonly verdict: Verdict;
}

/** What a good custom profile of an inkjet reaches on unseen colours (practice), and what a proof is held to (ISO 12647-7, memory). */
export const GOOD = { mean: 1.5, p95: 3, greysDeltaC: 1.5 } as const;
export const PROOF = { mean: 2.5, p95: 5, greysDeltaC: 3 } as const;

/** Promised chroma, relative to the paper, up to which a colour counts as grey (our own choice). */
const GREY_CHROMA = 4;
const FEWEST_GREYS = 3;
/** Fewer patches than these stand for no more than themselves (practice). */
const FEWEST_PATCHES = 20;
const WORST = 5;
/** Two readings of L* differ by so much by themselves. */
const L_NOISE = 0.3;

/** @param white what the profile promises of the bare sheet @throws RangeError without a patch */
export function checkProfile(patches: readonly PromisedPatch[], white: Lab): ProfileCheck {
  if (patches.length === 0) throw new RangeError('Nothing was read.');
  const off = patches.map((p) => ({ ...p, deltaE00: deltaE2000(p.promised, p.read) }));
  const toRelative = relativeToWhite(white);
  const grey = patches
    .filter((p) => chroma(toRelative(p.promised)) <= GREY_CHROMA)
    .sort((p, q) => p.promised[0] - q.promised[0]);
  const greys: GreysCheck | undefined =
    grey.length < FEWEST_GREYS
      ? undefined
      : {
          count: grey.length,
          maxDeltaC: Math.max(...grey.map(({ promised: p, read: r }) => Math.hypot(p[1] - r[1], p[2] - r[2]))),
          maxTurn: greatestTurn(
            grey.map((p) => p.read),
            white,
          ),
          maxDeltaL: Math.max(...grey.map(({ promised: p, read: r }) => Math.abs(p[0] - r[0]))),
          monotone: grey.every((p, i) => i === 0 || p.read[0] >= grey[i - 1]!.read[0] - L_NOISE),
        };
  const summary = summarise(off.map((p) => p.deltaE00));
  const within = (limit: typeof GOOD | typeof PROOF) =>
    summary.mean <= limit.mean && summary.p95 <= limit.p95 && (greys?.maxDeltaC ?? 0) <= limit.greysDeltaC;
  return {
    ...summary,
    patches: patches.length,
    greys,
    worst: [...off].sort((p, q) => q.deltaE00 - p.deltaE00).slice(0, WORST),
    verdict: (greys?.monotone ?? true) && within(GOOD) ? 'passes' : within(PROOF) ? 'just visible' : 'visible',
  };
}

/** Greatest C* of greys relative to the paper's white. @param labs absolute, at least one */
export function greatestTurn(labs: readonly Lab[], white: Lab): number {
  const toRelative = relativeToWhite(white);
  return Math.max(...labs.map((lab) => chroma(toRelative(lab))));
}

/** What is known besides the readings when a verdict is said. */
export interface CheckContext {
  /** Mean ΔE00 a profile of one's own would reach, as far as a model of the condition knows it. */
  readonly own?: number;
  /** The profile is one's own: then none is offered instead. */
  readonly made?: boolean;
}

/** The verdict as a sentence. */
export function checkInWords(
  { verdict, mean, p95, greys, patches }: ProfileCheck,
  { own, made }: CheckContext = {},
): string {
  const found = `${mean.toFixed(1)} ΔE00 in the mean, 95 % within ${p95.toFixed(1)}`;
  const tones = greys && !greys.monotone ? ' Greys fall back: a step promised darker came out lighter.' : '';
  const tint =
    greys && greys.maxDeltaC > GOOD.greysDeltaC ? ` Greys turn by up to ${greys.maxDeltaC.toFixed(1)} ΔC*.` : '';
  const instead = own === undefined ? 'about 1 (practice)' : `${own.toFixed(1)}, as the model of this condition tells`;
  const few =
    patches < FEWEST_PATCHES
      ? ` ${patches === 1 ? 'One patch is' : `${patches} patches are`} too few to stand for all colours.`
      : '';
  if (verdict === 'passes') {
    const unknown = (greys ? '' : ' Of its greys nothing is known: fewer than three were read.') + few;
    const instead = made || unknown ? '' : ' A profile of your own would hardly be told from it.';
    return `It passes${greys ? '' : ' in its colours'}: ${found}.${unknown}${instead}`;
  }
  // Nobody is sent to make a profile that would land no nearer.
  if (own !== undefined && own >= mean)
    return `It lands ${found}; a profile written from these readings would land no nearer (${own.toFixed(1)}, as the model of this condition tells).${tint}${tones}${few}`;
  const one = made ? 'A profile written anew' : 'A profile of your own';
  return `${one} would be ${verdict}: this one lands ${found}; the other would reach ${instead}.${tint}${tones}${few}`;
}
