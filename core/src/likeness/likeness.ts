import { isEstimated, type Figure } from '../measurement/figure.ts';
import type { Trait } from '../measurement/measures/measure.ts';
import { MEASURES } from '../measurement/measures/registry.ts';
import { white } from '../measurement/measures/white.ts';
import { isMatt, type CoatingClass } from '../paper.ts';

/** What a search for a like goes by. */
export interface LikeCandidate {
  readonly id: string;
  readonly figures: Readonly<Record<string, Figure>>;
  /** Absent where the maker claims none. */
  readonly coating?: CoatingClass;
  readonly weightGsm?: number;
  readonly thicknessUm?: number;
  /** Name of the profile it is printed through; empty for none. */
  readonly profile: string;
  readonly printer: string;
  readonly inkSet: string;
  readonly printMode: string;
}

/** What a search may go by: the measures that say how far two sheets lie apart. */
export const TRAITS: readonly { readonly key: string; readonly trait: Trait }[] = MEASURES.flatMap(
  ({ key, likeness }) => (likeness ? [{ key, trait: likeness }] : []),
);
const TRAIT = new Map(TRAITS.map(({ key, trait }) => [key, trait]));
/** What each counts for, by the key of its measure. */
export type Weights = Readonly<Record<string, number>>;
export const EVEN_WEIGHTS: Weights = Object.fromEntries(TRAITS.map(({ key, trait }) => [key, trait.weight]));

/** One trait of a candidate against the sheet that is missed. */
export interface TraitChange {
  /** Key of its measure. */
  readonly key: string;
  readonly trait: Trait;
  /** Candidate less the sheet, in the trait's unit; for the white ΔE00. Absent where either was not measured. */
  readonly change?: number;
  /** What it adds to the distance, in steps an eye or a hand would notice. */
  readonly steps: number;
  /** One of the two was not measured but estimated. */
  readonly estimated?: boolean;
}

export interface Likeness {
  readonly id: string;
  /** Weighted mean of the changes, in steps; less is more alike. Infinite where nothing can be compared. */
  readonly distance: number;
  readonly changes: readonly TraitChange[];
  /** Printed in another printer, or with other inks: part of what changes may be theirs. */
  readonly otherPress?: string;
}

/**
 * A trait nobody measured of a candidate counts as so many steps, and no less than the widest that was measured of any
 * other: no sheet is more alike for what is not known of it (our own choice).
 */
const UNKNOWN_STEPS = 2;

const less = (p: Figure, q: Figure) => (p.shape === 'scalar' && q.shape === 'scalar' ? p.value - q.value : undefined);

/** Measured against measured, or claimed against claimed. */
function changeOf(key: string, of: LikeCandidate, than: LikeCandidate): number | undefined {
  const { apart = less, claimed } = TRAIT.get(key)!;
  const [p, q] = [of.figures[key], than.figures[key]];
  const measured = p && q && apart(p, q);
  if (measured !== undefined) return measured;
  const [c, d] = [claimed?.(of), claimed?.(than)];
  return c === undefined || d === undefined ? undefined : c - d;
}

/**
 * Candidates by how like they are to a sheet, the nearest first: what to take when it is out of stock or was
 * reformulated, and what will change.
 */
export function findLikes(
  than: LikeCandidate,
  candidates: readonly LikeCandidate[],
  weights: Weights = EVEN_WEIGHTS,
): Likeness[] {
  const weightOf = ({ key }: TraitChange) => weights[key] ?? 0;
  const asked = candidates.filter((c) => c.id !== than.id && c.printMode === than.printMode);
  const stepsOf = (trait: Trait, change: number) => Math.abs(change) / trait.one;
  const widest = new Map(
    TRAITS.map(({ key, trait }) => [
      key,
      Math.max(
        UNKNOWN_STEPS,
        ...asked.flatMap((c) => {
          const change = changeOf(key, c, than);
          return change === undefined ? [] : [stepsOf(trait, change)];
        }),
      ),
    ]),
  );
  return asked
    .map((c): Likeness => {
      const changes = TRAITS.map((t): TraitChange => {
        const change = changeOf(t.key, c, than);
        return {
          ...t,
          change,
          steps: change === undefined ? widest.get(t.key)! : stepsOf(t.trait, change),
          ...([c, than].some(({ figures }) => isEstimated(figures[t.key])) && { estimated: true }),
        };
      });
      // What was not measured of the sheet that is missed can’t be asked of any other.
      const counting = changes.filter((t) => weightOf(t) > 0 && changeOf(t.key, than, than) !== undefined);
      const total = counting.reduce((sum, t) => sum + weightOf(t), 0);
      const known = counting.some((t) => t.change !== undefined);
      return {
        id: c.id,
        changes,
        distance: known ? counting.reduce((sum, t) => sum + weightOf(t) * t.steps, 0) / total : Infinity,
        otherPress: otherPress(c, than),
      };
    })
    .sort((p, q) => p.distance - q.distance);
}

function otherPress(of: LikeCandidate, than: LikeCandidate): string | undefined {
  const other = [of.printer !== than.printer && of.printer, of.inkSet !== than.inkSet && of.inkSet].filter(Boolean);
  return other.length > 0 ? other.join(', ') : undefined;
}

/**
 * For an uncoated sheet nobody makes a profile for: coated matt conditions that have one, the nearest white first
 * (practice). The profile is a start: black and gamut will be less on the uncoated sheet.
 */
export function profileDonors(sheet: LikeCandidate, candidates: readonly LikeCandidate[]): Likeness[] {
  const donors = candidates.filter(
    ({ profile, coating }) => profile !== '' && coating && isMatt(coating) && coating !== 'uncoated',
  );
  // A donor is printed through its profile, and the sheet is not yet: the white is what they are compared by.
  const asDonors = donors.map((d) => ({ ...d, printMode: sheet.printMode }));
  return findLikes(sheet, asDonors, { [white.key]: white.likeness!.weight });
}
