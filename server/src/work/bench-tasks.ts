import type { ChartDesign } from '@rakuen/core/chart/chart-design';
import { fromRgb16, type Rgb16 } from '@rakuen/core/chart/device16';
import { testPage, type PageSettings, type TEST_PAGE_SHEETS } from '@rakuen/core/chart/test-page';
import { xyzToLab } from '@rakuen/core/colour/lab';
import { illuminantWhite, spectrumToXyz } from '@rakuen/core/colour/spectrum';
import type { Lab } from '@rakuen/core/colour/types';
import { BENCH_CONDITIONS, benchPrints, readStrip, type Fault } from '@rakuen/core/simulation/instrument';
import type { PressModel } from '@rakuen/core/simulation/printer';
import { scanTexture } from '@rakuen/core/simulation/scanner';
import { BENCH_GRID, type SheetModel } from '@rakuen/core/simulation/sheet';
import { writeCxf } from '@rakuen/core/formats/cxf-write';
import type { Reading } from '@rakuen/core/measurement/reading';
import { driftOut } from '@rakuen/core/session/drift-out';
import { sessionReadings, type PassedPatch } from '@rakuen/core/session/session-reading';
import type { DriftWhite } from '@rakuen/core/session/white-drift';
import { textureOf, type Texture } from '@rakuen/core/measurement/texture';
import { chartPdf, chartTiff, testPagePdf, testPagePng, testPageTiff } from '../drawing/sheet-files.ts';
import { lightnessOfScan, scanPng } from './scan.ts';

const white = illuminantWhite();
const labOf = (values: readonly number[]): Lab =>
  xyzToLab(spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values }), white);

/** Presses are dear to set up and asked for strip by strip: the last few stay. */
const MOST_PRESSES = 6;
const presses = new Map<string, ReturnType<typeof benchPrints>>();
function printsOf(model: PressModel): ReturnType<typeof benchPrints> {
  const key = JSON.stringify(model);
  const known = presses.get(key) ?? benchPrints(model);
  presses.delete(key);
  presses.set(key, known);
  if (presses.size > MOST_PRESSES) presses.delete(presses.keys().next().value!);
  return known;
}

/** What every patch should read, M1, in a printer as the model has it. */
export function expectedLabs({ model, patches }: { model: PressModel; patches: Rgb16[] }): Lab[] {
  const print = printsOf(model).M1;
  return patches.map((rgb16) => labOf(print(fromRgb16(rgb16))));
}

/** One pass of the simulated spectrophotometer over a strip: spectra as Float32 (M0, M1, M2, patch by patch) and CIELAB in M1. */
export function readStripTask(task: {
  model: PressModel;
  strips: Rgb16[][];
  strip: number;
  seed: number;
  sinceCalibration: number;
  fault?: Fault;
}): { spectra: Float32Array; labs: Lab[] } {
  const { model, strips, ...pass } = task;
  const read = readStrip(printsOf(model), {
    ...pass,
    strips: strips.map((s) => s.map(fromRgb16)),
    flake: model.sheet.flake,
  });
  return { spectra: Float32Array.from(BENCH_CONDITIONS.flatMap((c) => read[c].flat())), labs: read.M1.map(labOf) };
}

export async function drawChart({
  design,
  as,
  page,
}: {
  design: ChartDesign;
  as: 'tiff' | 'pdf';
  page: number;
}): Promise<Uint8Array> {
  return as === 'pdf' ? chartPdf(design) : chartTiff(design, page);
}

export async function drawTestPage({
  sheet,
  dpi,
  settings,
  as,
}: {
  sheet: (typeof TEST_PAGE_SHEETS)[number];
  dpi: number;
  settings: PageSettings;
  as: 'tiff' | 'pdf' | 'png';
}): Promise<Uint8Array> {
  const page = testPage(sheet, dpi, settings);
  return as === 'tiff' ? testPageTiff(page, dpi) : as === 'pdf' ? testPagePdf(page, dpi) : testPagePng(page, dpi);
}

/** Texture of a scan that was brought. @throws PictureError, TextureError */
export async function readScan({
  path,
  ppi,
  maxPixels,
}: {
  path: string;
  ppi: number;
  maxPixels: number;
}): Promise<{ texture: Texture; png: Uint8Array }> {
  const scan = await lightnessOfScan(path, ppi, maxPixels);
  return { texture: textureOf(scan), png: await scanPng(scan) };
}

/** A scan as the simulated raking-light scanner makes it. */
export async function simulateScan({
  sheet,
  seed,
}: {
  sheet: SheetModel;
  seed: number;
}): Promise<{ texture: Texture; png: Uint8Array; ppi: number }> {
  const scan = scanTexture(sheet, 400, 34, seed);
  return { texture: textureOf(scan), png: await scanPng(scan), ppi: scan.ppi };
}

/** A finished session: strips, the passes over them with their spectra, and what was left out. */
export interface SessionTask {
  readonly strips: readonly (readonly { id: string; rgb16: Rgb16 }[])[];
  /** Spectra as `readStrip` gave them. */
  readonly passes: readonly { strip: number; pass: number; sinceCalibration: number; spectra: Uint8Array }[];
  /** Patches counted through the chart. */
  readonly excluded: readonly { patch: number; pass: number }[];
  /** Whites by which the drift is taken out; none leaves it in. */
  readonly whites: readonly DriftWhite[];
  readonly head: Pick<Reading, 'instrument' | 'createdAt' | 'description' | 'backing'>;
}

/** The readings of a session as one CxF3 file: M0, M1 and M2 of every pass. */
export function writeSession({ strips, passes, excluded, whites, head }: SessionTask): string {
  const out = new Set(excluded.map((e) => `${e.pass}/${e.patch}`));
  const factor = driftOut(whites);
  let count = 0;
  const first = strips.map((s) => (count += s.length) - s.length);
  const patches = passes.flatMap(({ strip, pass, sinceCalibration, spectra }) => {
    const values = new Float32Array(spectra.buffer, spectra.byteOffset, spectra.byteLength / 4);
    const by = factor(sinceCalibration);
    return strips[strip].flatMap(({ id, rgb16 }, i): PassedPatch[] => {
      if (out.has(`${pass}/${first[strip] + i}`)) return [];
      const bands = (condition: number) => {
        const at = (condition * strips[strip].length + i) * BENCH_GRID.count;
        return Array.from(values.subarray(at, at + BENCH_GRID.count), (v) => v * by);
      };
      return [{ id, rgb16, pass, reflectance: Object.fromEntries(BENCH_CONDITIONS.map((c, n) => [c, bands(n)])) }];
    });
  });
  const [main, ...companions] = sessionReadings(patches, ['M1', 'M0', 'M2'], BENCH_GRID, head);
  return writeCxf(main, ...companions);
}
