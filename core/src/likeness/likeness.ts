import { deltaE2000 } from '../colour/difference.ts';
import type { Figure } from '../measurement/figure.ts';
import { isMatt, type CoatingClass } from '../paper.ts';

/** What a search for a like goes by. */
export interface LikeCandidate {
  readonly id: string;
  readonly figures: Readonly<Record<string, Figure>>;
  readonly coating: CoatingClass;
  readonly weightGsm: number;
  readonly thicknessUm: number;
  /** Name of the profile it is printed through; empty for none. */
  readonly profile: string;
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
}

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
      return less(value(of.figures, 'weight') ?? of.weightGsm, value(than.figures, 'weight') ?? than.weightGsm);
  }
}

/** Candidates by how like they are to a sheet, the nearest first: what to take when it is out of stock or was reformulated, and what will change. */
export function findLikes(
  than: LikeCandidate,
  candidates: readonly LikeCandidate[],
  weights: Weights = EVEN_WEIGHTS,
): Likeness[] {
  return candidates
    .filter((c) => c.id !== than.id)
    .map((c): Likeness => {
      const changes = TRAIT_KEYS.map((trait): TraitChange => ({ trait, change: changeOf(trait, c, than) }));
      const known = changes.filter((t): t is Required<TraitChange> => t.change !== undefined && weights[t.trait] > 0);
      const total = known.reduce((sum, t) => sum + weights[t.trait], 0);
      return {
        id: c.id,
        changes,
        distance:
          total === 0
            ? Infinity
            : known.reduce((sum, t) => sum + (weights[t.trait] * Math.abs(t.change)) / TRAITS[t.trait].one, 0) / total,
      };
    })
    .sort((p, q) => p.distance - q.distance);
}

/**
 * For an uncoated sheet nobody makes a profile for: coated matt conditions that have one, the nearest white first (practice). The profile is a start: black and gamut will be
 * less on the uncoated sheet.
 */
export function profileDonors(sheet: LikeCandidate, candidates: readonly LikeCandidate[]): Likeness[] {
  const donors = candidates.filter((c) => c.profile !== '' && isMatt(c.coating) && c.coating !== 'uncoated');
  return findLikes(sheet, donors, {
    ...EVEN_WEIGHTS,
    black: 0,
    gamut: 0,
    brightener: 0,
    gloss: 0,
    texture: 0,
    weight: 0,
  });
}
