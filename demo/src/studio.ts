import { PIGMENT_INKS, DYE_INKS, REFILL_PIGMENT_INKS } from '@rakuen/core/simulation/inks';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { BENCH_CONDITIONS, readChart } from '@rakuen/core/simulation/instrument';
import type { PressModel } from '@rakuen/core/simulation/printer';
import { writeCxf } from '@rakuen/core/formats/cxf-write';
import type { Base, BrightenerClaim, CoatingClass, Surface } from '@rakuen/core/paper';
import { SHEETS } from './sheets.ts';

/** A paper of the invented studio: what its invented mill claims, and the physics behind it. */
export interface DemoPaper {
  readonly key: string;
  readonly maker: string;
  readonly name: string;
  readonly coating: CoatingClass;
  readonly base: Base;
  readonly surface: Surface;
  readonly brightenerClaim: BrightenerClaim;
  readonly weightGsm: number;
  readonly thicknessUm: number;
  readonly sizes: readonly { label: string; widthMm: number; heightMm: number; sheets: number; packPrice: number }[];
  readonly notes: string;
}

const a3plus = (sheets: number, packPrice: number) => ({
  label: 'A3+',
  widthMm: 329,
  heightMm: 483,
  sheets,
  packPrice,
});
const a4 = (sheets: number, packPrice: number) => ({ label: 'A4', widthMm: 210, heightMm: 297, sheets, packPrice });

export const PAPERS: readonly DemoPaper[] = [
  {
    key: 'slate',
    maker: 'Ostermoor',
    name: 'Slate Baryta',
    coating: 'baryta',
    base: 'alpha cellulose',
    surface: 'smooth',
    brightenerClaim: 'none',
    weightGsm: 315,
    thicknessUm: 405,
    sizes: [
      a4(25, 46),
      a3plus(25, 108),
      { label: '17 in roll', widthMm: 432, heightMm: 12_000, sheets: 1, packPrice: 148 },
    ],
    notes: 'Scuffs easily while damp; gloves.',
  },
  {
    key: 'harbour',
    maker: 'Pell & Drift',
    name: 'Harbour Lustre',
    coating: 'lustre',
    base: 'resin-coated',
    surface: 'fine tooth',
    brightenerClaim: 'moderate',
    weightGsm: 260,
    thicknessUm: 268,
    sizes: [a4(50, 31), a3plus(50, 74)],
    notes: 'Dry in minutes.',
  },
  {
    key: 'chalk',
    maker: 'Vellacre',
    name: 'Chalk Rag',
    coating: 'cotton',
    base: 'cotton',
    surface: 'smooth',
    brightenerClaim: 'none',
    weightGsm: 310,
    thicknessUm: 492,
    sizes: [a4(25, 52), a3plus(25, 128)],
    notes: 'Brush loose fibres off before printing.',
  },
  {
    key: 'lantern',
    maker: 'Vellacre',
    name: 'Lantern Matt',
    coating: 'matt',
    base: 'alpha cellulose',
    surface: 'ultra smooth',
    brightenerClaim: 'high',
    weightGsm: 230,
    thicknessUm: 300,
    sizes: [a4(50, 27), a3plus(50, 66)],
    notes: '',
  },
  {
    key: 'tinroof',
    maker: 'Pell & Drift',
    name: 'Tinroof Metallic',
    coating: 'metallic',
    base: 'resin-coated',
    surface: 'smooth',
    brightenerClaim: 'none',
    weightGsm: 280,
    thicknessUm: 290,
    sizes: [a3plus(20, 92)],
    notes: 'Loud; asks for local contrast.',
  },
  {
    key: 'reedmere',
    maker: 'Reedmere',
    name: 'Unsized Mulberry',
    coating: 'uncoated',
    base: 'mulberry',
    surface: 'rough',
    brightenerClaim: 'none',
    weightGsm: 70,
    thicknessUm: 170,
    sizes: [{ label: '64 × 97 cm sheet', widthMm: 640, heightMm: 970, sheets: 10, packPrice: 86 }],
    notes: 'Tape to a carrier sheet; no profile comes with it.',
  },
  {
    key: 'harbourGloss',
    maker: 'Pell & Drift',
    name: 'Harbour Gloss',
    coating: 'gloss',
    base: 'resin-coated',
    surface: 'ultra smooth',
    brightenerClaim: 'low',
    weightGsm: 240,
    thicknessUm: 250,
    sizes: [a4(50, 28), a3plus(50, 69)],
    notes: '',
  },
  {
    key: 'kelp',
    maker: 'Ostermoor',
    name: 'Kelp Baryta',
    coating: 'baryta',
    base: 'alpha cellulose',
    surface: 'fine tooth',
    brightenerClaim: 'moderate',
    weightGsm: 310,
    thicknessUm: 350,
    sizes: [a4(25, 39), a3plus(25, 94)],
    notes: 'Whiter than Slate by day, and bluer.',
  },
  {
    key: 'furrow',
    maker: 'Vellacre',
    name: 'Furrow Rag',
    coating: 'cotton',
    base: 'cotton',
    surface: 'textured',
    brightenerClaim: 'none',
    weightGsm: 320,
    thicknessUm: 580,
    sizes: [a4(25, 58), a3plus(25, 141)],
    notes: 'Sheds at its torn edge.',
  },
  {
    key: 'tarpaulin',
    maker: 'Reedmere',
    name: 'Tarpaulin Canvas',
    coating: 'canvas',
    base: 'cotton and cellulose',
    surface: 'rough',
    brightenerClaim: 'not stated',
    weightGsm: 380,
    thicknessUm: 450,
    sizes: [{ label: '24 in roll', widthMm: 610, heightMm: 6000, sheets: 1, packPrice: 96 }],
    notes: 'Varnish before it is stretched.',
  },
];

/** A print condition of the studio, and the press that stands in for it. */
export interface DemoCondition {
  readonly paper: string;
  readonly printer: string;
  readonly inkSet: string;
  readonly blackInk: 'photo black' | 'matt black' | 'dye black';
  readonly mediaSetting: string;
  readonly resolution: string;
  readonly printMode: 'colour through a profile' | 'driver black-and-white';
  readonly profile: string;
  readonly blackOvercoat?: true;
  readonly press: PressModel;
}

const P10 = {
  printer: 'Corvane P10',
  inkSet: 'Deepset pigment, ten inks',
  resolution: '1440 dpi',
  printMode: 'colour through a profile' as const,
};
const D6 = {
  printer: 'Corvane D6',
  inkSet: 'Clearwell dye, six inks',
  resolution: '1200 dpi',
  printMode: 'colour through a profile' as const,
};
/** Another maker’s ink in the same printer. */
const REFILLED = { ...P10, inkSet: 'Tidewater refill, ten inks' };
const gloss = (sheet: PressModel['sheet'], inkLoad = 1): PressModel => ({
  sheet,
  inks: PIGMENT_INKS,
  blackInk: 'photo',
  inkLoad,
});
const matt = (sheet: PressModel['sheet']): PressModel => ({ sheet, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 });

export const CONDITIONS: readonly DemoCondition[] = [
  {
    paper: 'slate',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Heavy gloss fibre',
    profile: 'slate-p10-heavy-gloss.icc',
    press: gloss(SHEETS.baryta),
  },
  {
    paper: 'slate',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Plain photo',
    profile: 'slate-p10-plain-photo.icc',
    press: gloss(SHEETS.baryta, 0.72),
  },
  {
    paper: 'harbour',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Semi-gloss photo',
    profile: 'harbour-p10.icc',
    press: gloss(SHEETS.lustre),
  },
  {
    paper: 'harbour',
    ...D6,
    blackInk: 'dye black',
    mediaSetting: 'Photo paper, best',
    profile: 'harbour-d6.icc',
    press: { sheet: SHEETS.lustre, inks: DYE_INKS, blackInk: 'photo', inkLoad: 1 },
  },
  {
    paper: 'chalk',
    ...P10,
    blackInk: 'matt black',
    mediaSetting: 'Fine art matt',
    profile: 'chalk-rag-p10.icc',
    press: matt(SHEETS.mattSmooth),
  },
  {
    paper: 'lantern',
    ...P10,
    blackInk: 'matt black',
    mediaSetting: 'Enhanced matt',
    profile: 'lantern-p10.icc',
    press: matt(SHEETS.mattBright),
  },
  {
    paper: 'tinroof',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Heavy gloss fibre',
    profile: 'tinroof-p10.icc',
    press: gloss(SHEETS.metallic),
  },
  {
    paper: 'reedmere',
    ...P10,
    blackInk: 'matt black',
    mediaSetting: 'Thin uncoated',
    profile: 'chalk-rag-p10.icc',
    press: matt(SHEETS.mulberry),
  },
  {
    paper: 'slate',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Heavy gloss fibre',
    printMode: 'driver black-and-white',
    profile: '',
    blackOvercoat: true,
    press: { ...gloss(SHEETS.baryta), mode: 'black-and-white', overcoat: true },
  },
  {
    paper: 'harbourGloss',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Glossy photo',
    profile: 'harbour-gloss-p10.icc',
    press: gloss(SHEETS.gloss),
  },
  {
    paper: 'kelp',
    ...P10,
    blackInk: 'photo black',
    mediaSetting: 'Heavy gloss fibre',
    profile: 'kelp-p10.icc',
    press: gloss(SHEETS.barytaBright),
  },
  {
    paper: 'furrow',
    ...P10,
    blackInk: 'matt black',
    mediaSetting: 'Fine art matt',
    profile: 'furrow-rag-p10.icc',
    press: matt(SHEETS.ragTextured),
  },
  {
    paper: 'tarpaulin',
    ...P10,
    blackInk: 'matt black',
    mediaSetting: 'Canvas matt',
    profile: 'tarpaulin-p10.icc',
    press: matt(SHEETS.canvas),
  },
  {
    // The maker's profile of another ink is used, as is done.
    paper: 'harbour',
    ...REFILLED,
    blackInk: 'photo black',
    mediaSetting: 'Semi-gloss photo',
    profile: 'harbour-p10.icc',
    press: { ...gloss(SHEETS.lustre), inks: REFILL_PIGMENT_INKS },
  },
];

/** A later box of the studio's baryta: the same name on it, another sheet inside. */
export const LATER_BOX = {
  condition: 0,
  batch: 'new label, autumn 2026',
  press: gloss(SHEETS.barytaReformulated),
  createdAt: '2026-11-03T10:20:00Z',
  printedAt: '2026-11-02T09:45:00Z',
} as const;
/** When the charts of the first boxes were printed and read. */
export const FIRST_BOXES = { printedAt: '2026-09-13T16:30:00Z', createdAt: '2026-09-14T17:00:00Z' } as const;

/** Readings of a press as the CxF3 file its instrument would write: M0, M1 and M2 in one pass. */
export function demoReadings(
  condition: DemoCondition,
  press: PressModel,
  createdAt: string,
  seed: number,
): { fileName: string; text: string } {
  const chart = surfaceChart();
  const words = [
    condition.paper,
    condition.printer,
    condition.mediaSetting,
    ...(condition.blackOvercoat ? ['black and white, overcoat'] : []),
    createdAt.slice(0, 10),
  ];
  const [m0, m1, m2] = BENCH_CONDITIONS.map((light, i) => ({
    ...readChart(press, chart, light, seed * 10 + i),
    instrument: 'Simulated bench spectrophotometer',
    createdAt,
    description: `${PAPERS.find((p) => p.key === condition.paper)!.name}: surface chart, ${chart.length} patches`,
  }));
  return {
    fileName: `${words
      .join(' ')
      .toLowerCase()
      .replace(/[^\w-]+/g, '-')}.cxf`,
    text: writeCxf(m1, m0, m2),
  };
}
