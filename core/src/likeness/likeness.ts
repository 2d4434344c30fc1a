import { deltaE2000 } from '../colour/difference.ts';
import type { Figure } from '../measurement/figure.ts';
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

/** Traits that count, each with the difference that counts as one (our own choice of units). */
export const TRAITS = {
  white: { name: 'White', unit: 'ΔE00', one: 1 },
  black: { name: 'Black', unit: 'D', one: 0.1 },
  gamut: { name: 'Gamut', unit: '%', one: 5 },
  brightener: { name: 'Brightener', unit: 'Δb*', one: 1.5 },
  gloss: { name: 'Gloss at 60°', unit: 'GU', one: 8 },
  texture: { name: 'Texture', unit: 'L*', one: 0.5 },
  weight: { name: 'Weight', unit: 'g/m²', one: 40 },
} as const;
export type Trait = keyof typeof TRAITS;
export const TRAIT_KEYS = Object.keys(TRAITS) as Trait[];
export type Weights = Readonly<Record<Trait, number>>;
export const EVEN_WEIGHTS: Weights = { white: 1, black: 1, gamut: 1, brightener: 1, gloss: 1, texture: 1, weight: 0.5 };

/** One trait of a candidate against the sheet that is missed. */
export interface TraitChange {
  readonly trait: Trait;
  /** Candidate less the sheet, in the trait's unit; for the white ΔE00. Absent where either was not measured. */
  readonly change?: number;
}

export interface Likeness {
  readonly id: string;
  /** Weighted mean of the changes in their own units; less is more alike. Infinite where nothing can be compared. */
  readonly distance: number;
  readonly changes: readonly TraitChange[];
  /** Printed in another printer, or with other inks: part of what changes may be theirs. */
  readonly otherPress?: string;
}

/** A trait nobody measured of a candidate counts as so many steps: not knowing is no likeness (our own choice). */
const UNKNOWN_STEPS = 2;

const value = (figures: LikeCandidate['figures'], key: string) => {
  const f = figures[key];
  return f?.shape === 'scalar' ? f.value : undefined;
};
const less = (p: number | undefined, q: number | undefined) => (p === undefined || q === undefined ? undefined : p - q);

function changeOf(trait: Trait, of: LikeCandidate, than: LikeCandidate): number | undefined {
  switch (trait) {
    case 'white': {
      const [p, q] = [of.figures.white, than.figures.white];
      return p?.shape === 'colour' && q?.shape === 'colour' ? deltaE2000(p.lab, q.lab) : undefined;
    }
    case 'black':
      return less(value(of.figures, 'dmax'), value(than.figures, 'dmax'));
    case 'gamut': {
      const [p, q] = [value(of.figures, 'gamutVolume'), value(than.figures, 'gamutVolume')];
      return p === undefined || q === undefined ? undefined : (100 * (p - q)) / q;
    }
    case 'brightener':
      return less(value(of.figures, 'brightenerShift'), value(than.figures, 'brightenerShift'));
    case 'gloss':
      return less(value(of.figures, 'gloss60'), value(than.figures, 'gloss60'));
    case 'texture':
      return less(value(of.figures, 'textureAmplitude'), value(than.figures, 'textureAmplitude'));
    case 'weight':
      // Weighed against weighed, or claimed against claimed.
      return less(value(of.figures, 'weight'), value(than.figures, 'weight')) ?? less(of.weightGsm, than.weightGsm);
  }
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
  return candidates
    .filter((c) => c.id !== than.id && c.printMode === than.printMode)
    .map((c): Likeness => {
      const changes = TRAIT_KEYS.map((trait): TraitChange => ({ trait, change: changeOf(trait, c, than) }));
      // What was not measured of the sheet that is missed can’t be asked of any other.
      const counting = changes.filter((t) => weights[t.trait] > 0 && changeOf(t.trait, than, than) !== undefined);
      const total = counting.reduce((sum, t) => sum + weights[t.trait], 0);
      const steps = ({ trait, change }: TraitChange) =>
        change === undefined ? UNKNOWN_STEPS : Math.abs(change) / TRAITS[trait].one;
      const known = counting.some((t) => t.change !== undefined);
      return {
        id: c.id,
        changes,
        distance: known ? counting.reduce((sum, t) => sum + weights[t.trait] * steps(t), 0) / total : Infinity,
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
  return findLikes(sheet, asDonors, {
    ...EVEN_WEIGHTS,
    black: 0,
    gamut: 0,
    brightener: 0,
    gloss: 0,
    texture: 0,
    weight: 0,
  });
}
