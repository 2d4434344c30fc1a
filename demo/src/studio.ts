import { PIGMENT_INKS, DYE_INKS } from '@rakuen/core/simulation/inks';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import type { PressModel } from '@rakuen/core/simulation/printer';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
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

const a3plus = (sheets: number, packPrice: number) => ({ label: 'A3+', widthMm: 329, heightMm: 483, sheets, packPrice });
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
    sizes: [a4(25, 46), a3plus(25, 108), { label: '17 in roll', widthMm: 432, heightMm: 12_000, sheets: 1, packPrice: 148 }],
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
  readonly press: PressModel;
}

const P10 = { printer: 'Corvane P10', inkSet: 'Deepset pigment, ten inks', resolution: '1440 dpi', printMode: 'colour through a profile' as const };
const D6 = { printer: 'Corvane D6', inkSet: 'Clearwell dye, six inks', resolution: '1200 dpi', printMode: 'colour through a profile' as const };
const gloss = (sheet: PressModel['sheet'], inkLoad = 1): PressModel => ({ sheet, inks: PIGMENT_INKS, blackInk: 'photo', inkLoad });
const matt = (sheet: PressModel['sheet']): PressModel => ({ sheet, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 });

export const CONDITIONS: readonly DemoCondition[] = [
  { paper: 'slate', ...P10, blackInk: 'photo black', mediaSetting: 'Heavy gloss fibre', profile: 'slate-p10-heavy-gloss.icc', press: gloss(SHEETS.baryta) },
  { paper: 'slate', ...P10, blackInk: 'photo black', mediaSetting: 'Plain photo', profile: 'slate-p10-plain-photo.icc', press: gloss(SHEETS.baryta, 0.72) },
  { paper: 'harbour', ...P10, blackInk: 'photo black', mediaSetting: 'Semi-gloss photo', profile: 'harbour-p10.icc', press: gloss(SHEETS.lustre) },
  { paper: 'harbour', ...D6, blackInk: 'dye black', mediaSetting: 'Photo paper, best', profile: 'harbour-d6.icc', press: { sheet: SHEETS.lustre, inks: DYE_INKS, blackInk: 'photo', inkLoad: 1 } },
  { paper: 'chalk', ...P10, blackInk: 'matt black', mediaSetting: 'Fine art matt', profile: 'chalk-rag-p10.icc', press: matt(SHEETS.mattSmooth) },
  { paper: 'lantern', ...P10, blackInk: 'matt black', mediaSetting: 'Enhanced matt', profile: 'lantern-p10.icc', press: matt(SHEETS.mattBright) },
  { paper: 'tinroof', ...P10, blackInk: 'photo black', mediaSetting: 'Heavy gloss fibre', profile: 'tinroof-p10.icc', press: gloss(SHEETS.metallic) },
  { paper: 'reedmere', ...P10, blackInk: 'matt black', mediaSetting: 'Thin uncoated', profile: 'chalk-rag-p10.icc', press: matt(SHEETS.mulberry) },
];

/** Readings of a condition as the CGATS files its instrument would write, with UV (M1) and without (M2). */
export function demoReadings(condition: DemoCondition, seed: number): { fileName: string; text: string }[] {
  const chart = surfaceChart();
  return (['M1', 'M2'] as const).map((uv, i) => ({
    fileName: `${condition.profile.replace('.icc', '')}-${condition.mediaSetting.toLowerCase().replace(/\W+/g, '-')}-${uv}.txt`,
    text: writeCgats({
      ...readChart(condition.press, chart, uv, seed * 10 + i),
      instrument: 'Simulated bench spectrophotometer',
      createdAt: '2026-09-14',
      description: `Surface chart, ${chart.length} patches`,
    }),
  }));
}
