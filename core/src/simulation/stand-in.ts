import type { BrightenerClaim, CoatingClass, Surface } from '../paper.ts';
import { COATING_CLASSES } from '../paper.ts';
import { seededNormal } from '../random.ts';
import { DYE_INKS, PIGMENT_INKS, REFILL_PIGMENT_INKS, type InkSetModel } from './inks.ts';
import type { PressModel } from './printer.ts';
import type { SheetModel } from './sheet.ts';

/** What is known of a sheet in a printer before anything is measured. */
export interface StandInFacts {
  readonly coating: CoatingClass;
  readonly surface: Surface;
  readonly brightenerClaim: BrightenerClaim;
  readonly weightGsm: number;
  readonly thicknessUm: number;
  readonly blackInk: 'photo black' | 'matt black' | 'dye black' | 'none';
  readonly inkSet?: string;
  readonly mediaSetting: string;
  readonly printMode: string;
  readonly blackOvercoat: boolean;
  /** Whose sheet it is, and from which box: no two are quite alike. Absent: the typical sheet of its kind. */
  readonly sheetName?: string;
  readonly batch?: string;
}

type Optics = Omit<SheetModel, 'brightener' | 'relief' | 'weightGsm' | 'thicknessUm'>;

/** A sheet typical of its coating class (our own models, held to the practice figures in the tests). */
export const CLASS_SHEETS: Record<CoatingClass, Optics> = {
  gloss: {
    reflectance: 0.94,
    warmth: 0.02,
    surfaceReflection: 0.0014,
    yuleNielsen: 1.6,
    inkHold: 1,
    inkLimit: 12,
    flake: 0,
    roughnessNm: 42,
    opacity: 97,
  },
  lustre: {
    reflectance: 0.935,
    warmth: 0.02,
    surfaceReflection: 0.0026,
    yuleNielsen: 1.7,
    inkHold: 0.95,
    inkLimit: 12,
    flake: 0,
    roughnessNm: 88,
    opacity: 96.5,
  },
  baryta: {
    reflectance: 0.945,
    warmth: 0.022,
    surfaceReflection: 0.0016,
    yuleNielsen: 1.6,
    inkHold: 1,
    inkLimit: 12,
    flake: 0,
    roughnessNm: 68,
    opacity: 98,
  },
  metallic: {
    reflectance: 0.935,
    warmth: 0.05,
    surfaceReflection: 0.0032,
    yuleNielsen: 1.7,
    inkHold: 0.8,
    inkLimit: 5,
    flake: 0.9,
    roughnessNm: 52,
    opacity: 98.5,
  },
  matt: {
    reflectance: 0.94,
    warmth: 0.024,
    surfaceReflection: 0.0128,
    yuleNielsen: 1.9,
    inkHold: 0.76,
    inkLimit: 5,
    flake: 0,
    roughnessNm: 620,
    opacity: 95,
  },
  cotton: {
    reflectance: 0.935,
    warmth: 0.035,
    surfaceReflection: 0.0135,
    yuleNielsen: 1.9,
    inkHold: 0.74,
    inkLimit: 5,
    flake: 0,
    roughnessNm: 700,
    opacity: 97,
  },
  canvas: {
    reflectance: 0.92,
    warmth: 0.03,
    surfaceReflection: 0.01,
    yuleNielsen: 1.9,
    inkHold: 0.76,
    inkLimit: 5,
    flake: 0,
    roughnessNm: 420,
    opacity: 98,
  },
  uncoated: {
    reflectance: 0.86,
    warmth: 0.13,
    surfaceReflection: 0.02,
    yuleNielsen: 2.3,
    inkHold: 0.5,
    inkLimit: 3,
    flake: 0,
    roughnessNm: 1200,
    opacity: 82,
  },
};

/** Strength of a brightener by how it is claimed. */
const BRIGHTENERS: Record<BrightenerClaim, number> = {
  none: 0,
  faint: 0.12,
  low: 0.25,
  moderate: 0.42,
  high: 0.6,
  'not stated': 0.15,
};

/** Relief by the name of the surface. */
export const RELIEFS: Record<Surface, SheetModel['relief']> = {
  'ultra smooth': { wavelengthMm: 0.6, heightUm: 0.4 },
  smooth: { wavelengthMm: 0.9, heightUm: 1.1 },
  'fine tooth': { wavelengthMm: 0.8, heightUm: 2.4 },
  textured: { wavelengthMm: 1.5, heightUm: 9 },
  rough: { wavelengthMm: 2.4, heightUm: 22 },
};

/** How much ink a media setting lays down, by the words printers use for them: 1 is right for the coating (our own model). */
export function inkLoadOf(mediaSetting: string, coating: CoatingClass): number {
  const matt = COATING_CLASSES[coating].blackInk === 'matt';
  if (/plain/i.test(mediaSetting)) return 0.72;
  if (/thin|uncoated/i.test(mediaSetting)) return coating === 'uncoated' ? 1 : 0.8;
  const forGloss = /gloss|photo|lustre|pearl|satin|baryta|metallic/i.test(mediaSetting) && !/matt/i.test(mediaSetting);
  if (matt && forGloss) return 1.5;
  if (!matt && /matt|fine art|rag|canvas/i.test(mediaSetting)) return 0.85;
  if (coating === 'uncoated') return 1.3;
  return 1;
}

/** How far sheets of one kind lie apart, one standard deviation as a share, and how much of it boxes of one sheet have (our own model). */
const APART = {
  reflectance: 0.006,
  warmth: 0.2,
  brightener: 0.12,
  surfaceReflection: 0.1,
  inkHold: 0.025,
  roughnessNm: 0.12,
  weightGsm: 0.015,
  thicknessUm: 0.012,
} as const;
const SHARE_OF_A_BOX = 0.35;

/** A sheet of a kind as one mill makes it, and one box of it: the same name gives the same sheet. */
export function ownSheet(typical: SheetModel, sheetName: string, batch = ''): SheetModel {
  const [ofMill, ofBox] = [seededNormal(hashOf(sheetName)), seededNormal(hashOf(`${sheetName}/${batch}`))];
  const own = { ...typical };
  for (const [key, sd] of Object.entries(APART) as [keyof typeof APART, number][])
    own[key] = typical[key] * (1 + sd * (within(ofMill()) + (batch ? SHARE_OF_A_BOX * within(ofBox()) : 0)));
  return { ...own, reflectance: Math.min(0.97, own.reflectance) };
}

/** What lies further out than two standard deviations is not sold. */
const within = (deviate: number) => Math.max(-2, Math.min(2, deviate));

/** FNV-1a over UTF-16 units, 32 bits. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}

function inksOf({ blackInk, inkSet = '' }: StandInFacts): InkSetModel {
  if (blackInk === 'dye black') return DYE_INKS;
  return /refill|third.party|compatible/i.test(inkSet) ? REFILL_PIGMENT_INKS : PIGMENT_INKS;
}

/**
 * The press that stands in for a print condition. `right` gives what a printer of that kind should give: the typical
 * sheet, the right ink load, the maker's own inks.
 */
export function standIn(facts: StandInFacts, right = false): PressModel {
  const typical: SheetModel = {
    ...CLASS_SHEETS[facts.coating],
    brightener: BRIGHTENERS[facts.brightenerClaim],
    relief: RELIEFS[facts.surface],
    weightGsm: facts.weightGsm,
    thicknessUm: facts.thicknessUm,
  };
  return {
    sheet: right || !facts.sheetName ? typical : ownSheet(typical, facts.sheetName, facts.batch),
    inks: right ? (facts.blackInk === 'dye black' ? DYE_INKS : PIGMENT_INKS) : inksOf(facts),
    blackInk: facts.blackInk === 'photo black' || facts.blackInk === 'dye black' ? 'photo' : 'matt',
    inkLoad: right ? 1 : inkLoadOf(facts.mediaSetting, facts.coating),
    mode: facts.printMode === 'driver black-and-white' ? 'black-and-white' : 'profile',
    overcoat: facts.blackOvercoat,
  };
}
