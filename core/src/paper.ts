/** Coating classes of the trade, each with what follows from it. `blackInk` is what the class usually takes (practice). */
export const COATING_CLASSES = {
  gloss: { name: 'Gloss', blackInk: 'photo', sheen: 1 },
  lustre: { name: 'Lustre / semi-gloss', blackInk: 'photo', sheen: 0.6 },
  baryta: { name: 'Baryta', blackInk: 'photo', sheen: 0.7 },
  metallic: { name: 'Metallic', blackInk: 'photo', sheen: 0.9 },
  matt: { name: 'Matt', blackInk: 'matt', sheen: 0 },
  cotton: { name: 'Matt cotton rag', blackInk: 'matt', sheen: 0 },
  canvas: { name: 'Canvas', blackInk: 'matt', sheen: 0.1 },
  uncoated: { name: 'Uncoated / handmade', blackInk: 'matt', sheen: 0 },
} as const;

export type CoatingClass = keyof typeof COATING_CLASSES;

export const BASES = [
  'alpha cellulose',
  'cotton',
  'cotton and cellulose',
  'resin-coated',
  'bamboo',
  'mulberry',
  'other',
] as const;
export type Base = (typeof BASES)[number];

export const SURFACES = ['ultra smooth', 'smooth', 'fine tooth', 'textured', 'rough'] as const;
export type Surface = (typeof SURFACES)[number];

/** Brightener as a maker claims it. */
export const BRIGHTENER_CLAIMS = ['none', 'faint', 'low', 'moderate', 'high', 'not stated'] as const;
export type BrightenerClaim = (typeof BRIGHTENER_CLAIMS)[number];

/** What a maker claims of a paper that can be borne out. */
export interface Claims {
  readonly brightenerClaim: BrightenerClaim;
  readonly surface?: Surface;
  /** ISO 536. */
  readonly weightGsm?: number;
  /** ISO 534. */
  readonly thicknessUm?: number;
}

export function isMatt(coating: CoatingClass): boolean {
  return COATING_CLASSES[coating].blackInk === 'matt';
}

/** A paper as it is written beside a print: maker, name, and the weight its maker claims, where it claims one. */
export const paperLabel = ({
  maker,
  name,
  weightGsm,
}: {
  readonly maker: string;
  readonly name: string;
  readonly weightGsm?: number;
}): string => `${maker} ${name}${weightGsm === undefined ? '' : `, ${weightGsm} g/m²`}`;

/** Bulk, cm³/g: thickness in µm over weight in g/m²; absent where either is. */
export const bulk = (thicknessUm: number | undefined, weightGsm: number | undefined): number | undefined =>
  thicknessUm === undefined || weightGsm === undefined ? undefined : thicknessUm / weightGsm;
