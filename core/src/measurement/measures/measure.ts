import type { Lab } from '../../colour/types.ts';
import type { GamutMesh } from '../../gamut/mesh.ts';
import type { Claims } from '../../paper.ts';
import type { Figure } from '../figure.ts';
import type { RampStep } from '../neutral-ramp.ts';
import type { Observation } from '../observations.ts';
import type { ReadingFacts } from '../reading-facts.ts';

/** How a difference in a measure becomes a thing that can be seen. */
export type Scale =
  /** ΔE00 between two colours, or a difference in ΔE units. */
  | 'deltaE'
  /** A difference in density. */
  | 'density'
  /** A ratio of luminances, seen as its logarithm, a density. */
  | 'ratio'
  /** A difference in percent of the one it is compared with. */
  | 'percent'
  /** Not a thing for the eye, or not by itself: no verdict is given. */
  | 'unjudged';

/** One measure, declared. Adding a measure is adding a file like those beside this one and naming it in the registry. */
export interface MeasureFacts {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  /** One sentence, as a hover tells it. */
  readonly definition: string;
  readonly source: string;
  /** Most digits after the point that are ever shown; repeatability may show fewer. */
  readonly digits: number;
  readonly scale: Scale;
  /** Which way is better, where all schools agree. */
  readonly better?: 'higher' | 'lower';
  /** Words for more and less: "blacker", "less black". */
  readonly words: readonly [more: string, less: string];
  /** Key of the measure this one follows from: where that one is told, this one need not be. */
  readonly echoes?: string;
  /** A difference in percent is told in the measure's own unit: "glossier by 18 GU". */
  readonly toldInUnit?: true;
  /** No thing for the eye, and still said of a pair: the hand feels it, or the lamp shows it. */
  readonly spoken?: true;
  /** It asks for measurement conditions of its own, whichever the set was read in. */
  readonly ownCondition?: true;
  /** UV makes no difference to it: M0, M1 and M2 give the same. */
  readonly uvBlind?: true;
  /** Counted or graded: a difference is a whole one or none. */
  readonly whole?: true;
  /** A media setting is ranked by it. */
  readonly trial?: true;
  /** Judged by eye; measured where absent. */
  readonly judged?: true;
  /** What a maker claims of it. */
  readonly claim?: Claim;
  /** A sheet’s like is looked for by it. */
  readonly likeness?: Trait;
}

/** What a maker says of a paper in a measure's terms. */
export interface Claim {
  readonly name: string;
  /** In words, with its unit; undefined where nothing is claimed. */
  readonly says: (paper: Claims) => string | undefined;
  /** Where it and what was found do not go together, in a sentence. */
  readonly quarrel?: (paper: Claims, found: Figure) => string | undefined;
}

/** How far two sheets lie apart in a measure, for a search that counts such steps. */
export interface Trait {
  readonly name: string;
  readonly unit: string;
  readonly digits: number;
  /** Difference that counts as one step (our own choice). */
  readonly one: number;
  /** What it counts for where no hand says otherwise (our own choice). */
  readonly weight: number;
  /** In the unit; one less the other where absent. */
  readonly apart?: (of: Figure, than: Figure) => number | undefined;
  /** It has no direction: "apart", and not "more" or "less". */
  readonly unsigned?: true;
  /** What is claimed of both stands in where it was not measured of both. */
  readonly claimed?: (paper: Pick<Claims, 'weightGsm' | 'thicknessUm'>) => number | undefined;
}

/** What a light leaves of a print, for an eye that has got used to it. */
export interface LitFacts {
  readonly white: Lab;
  readonly black: Lab;
  /** Luminous reflectance under the light, perfect diffuser = 100. */
  readonly whiteY: number;
  readonly blackY: number;
  /** Empty where no greys were read. */
  readonly ramp: readonly RampStep[];
  /** ΔE00 from which the printmaker tells two greys apart, edge to edge. */
  readonly toldFrom: number;
  /** Without triangles where the colours enclose no gamut. */
  readonly mesh: GamutMesh;
}
export interface LitScalar {
  readonly value: number;
  readonly note?: string;
}
export interface LitColour {
  readonly lab: Lab;
}

export const NO_RAMP = 'A neutral ramp of at least five greys with device values is missing.';

/** What a reading may be asked to hold, and what is said where it does not. */
export const NEEDS = {
  white: {
    held: (f: ReadingFacts) => f.holds.white,
    why: 'Patches of the bare paper are missing from the readings.',
  },
  black: {
    held: (f: ReadingFacts) => f.holds.black,
    why: 'A patch of full black is missing from the readings.',
  },
  ramp: { held: (f: ReadingFacts) => f.ramp !== undefined, why: NO_RAMP },
} as const;
export type Need = keyof typeof NEEDS;

/** A measure of the patches that were read. */
export interface PatchMeasure extends MeasureFacts {
  /** What a reading must hold to support it; what is harder to tell the measure says itself. */
  readonly needs: readonly Need[];
  readonly compute: (facts: ReadingFacts) => Figure;
  /** The same of a print as a light shows it; absent where the measure keeps a light of its own. */
  readonly underLight?: (lit: LitFacts) => LitScalar | LitColour | undefined;
}

/** A measure of what was observed otherwise: with a scale, a gloss meter, by eye. */
export interface BenchMeasure extends MeasureFacts {
  readonly observe: (observations: readonly Observation[]) => Figure;
}

export type Measure = PatchMeasure | BenchMeasure;
