import { three } from '@rakuen/core/colour/three';
import sharp from 'sharp';
import { pageMarks, type ChartDesign } from '@rakuen/core/chart/chart-design';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { offInWords, recognise, type Recognised } from '@rakuen/core/proof/mistakes';
import { stripMarks } from '@rakuen/core/proof/strips';
import { findMarks } from '@rakuen/core/scan/corner-marks';
import { fitScanner, LEAST_PATCHES, type CardPatch } from '@rakuen/core/scan/scanner';
import { ScanError, sheetInScan, type OnScan } from '@rakuen/core/scan/sheet-in-scan';
import { labsOf } from '../colour-management/lcms.ts';
import { FEWEST_TO_RECOGNISE, hypothesesOf, through, type OtherBox, type OtherSetting } from './model-tasks.ts';
import { readSource, type ReadingSource } from './tasks.ts';
import { openPicture, type PictureFile } from './open-picture.ts';
import { stripSuppositions, type StripSample } from './scan-suppositions.ts';
import { cropBox, stripRaster, type LaidCrop, type StripSheet } from './strip-task.ts';

const MM_PER_INCH = 25.4;
/** Half a millimetre: what a scan and a print are held against each other by. */
const PPI = 50.8;
/** A scan is looked at no larger than this; a flatbed of A4 at 200 ppi. */
const MOST_PX = 2400;
/** Tiles of the map, mm. */
const TILE_MM = 2.5;
/** Device values of places about a place lie within this where it is even: an edge that is half a cell off is no colour. */
const EVEN = 0.05 * 65_535;
const MOST_SAMPLES = 600;

/** A scan of a small sheet of strips with a card beside it. */
export interface ScanTask {
  readonly scan: PictureFile;
  readonly strips: Omit<StripSheet, 'ppi'>;
  readonly card: { readonly design: ChartDesign; readonly source: ReadingSource };
  readonly others: readonly OtherSetting[];
  readonly boxes: readonly OtherBox[];
}

/** A print as it was scanned, against its proof. */
export interface HeldScan {
  /** ΔE00 by which the scanner is known, in the mean and of nineteen in twenty, and from how many patches. */
  readonly scanner: { readonly errorDeltaE: number; readonly p95DeltaE: number; readonly patches: number };
  readonly samples: number;
  readonly meanDeltaE: number;
  readonly p95DeltaE: number;
  readonly recognised: Recognised;
  readonly off: readonly string[];
  /** ΔE00 by tile of the sheet, a digit each, 9 and above as 9; a point where nothing was printed. */
  readonly map: { readonly columns: number; readonly rows: number; readonly deltaE: string };
}

/** @throws PictureError, ScanError, FormatError, ProfileError */
export async function holdScan(task: ScanTask): Promise<HeldScan> {
  const scan = await codesOf(task.scan);
  const marks = findMarks(scan.light, scan.widthPx, scan.heightPx);
  const page = task.card.design.pages[0];
  const onCard = sheetInScan(
    'the card',
    marks.filter((m) => !m.heart),
    pageMarks(page),
  );
  const onSheet = sheetInScan(
    'the strips',
    marks.filter((m) => m.heart),
    stripMarks(task.strips.sheet),
  );
  const card = await cardPatches(task.card, scan, onCard);
  if (card.length < LEAST_PATCHES)
    throw new ScanError(
      `Of the card ${card.length} patches were read and scanned; ${LEAST_PATCHES} are the least.`,
      'Choose the card’s own readings.',
    );
  const scanner = fitScanner(card);
  const laid: LaidCrop[] = [];
  const raster = await stripRaster({ ...task.strips, ppi: PPI }, (crop) => laid.push(crop));
  const cells = printedCells(task.strips, raster);
  const device = cells.map(({ at }): Rgb => three((c) => raster.data[at + c] / 65_535));
  const promised = await through(task.strips.icc, true, (profile) => labsOf(profile, device));
  const half = (0.35 * MM_PER_INCH) / PPI;
  const seen = cells.map(({ xMm, yMm }): Lab => scanner.labOf(meanAbout(scan, onSheet, xMm, yMm, half)));
  const all = seen.map((lab, i) => deltaE2000(lab, promised[i]));
  const even = cells.flatMap(({ even: is }, i) => (is ? [i] : []));
  const every = Math.max(1, Math.floor(even.length / MOST_SAMPLES));
  const samples = even.filter((_, i) => i % every === 0);
  if (samples.length < FEWEST_TO_RECOGNISE)
    throw new ScanError(
      'The strips hold no even places a scan could be held against.',
      'Print strips of places with some sky, wall or skin in them.',
    );
  const read = samples.map((i) => seen[i]);
  const wanted = samples.map((i) => promised[i]);
  const off = samples.map((i) => all[i]).sort((p, q) => p - q);
  const { errorDeltaE } = scanner;
  const supposed = await stripSuppositions(
    { profile: task.strips.icc, rendering: task.strips.rendering, errorDeltaE },
    samples.map((i) => sampleAt(laid, cells[i].at / 3, raster.widthPx)),
    wanted,
    read,
  );
  // What was sent without a profile is known from the picture, better than from the device values.
  const hypotheses = (
    await hypothesesOf(
      { profile: task.strips.icc, others: task.others, boxes: task.boxes },
      samples.map((i) => device[i]),
      wanted,
      task.strips.rendering,
    )
  ).filter((h) => h.mistake !== 'no profile');
  return {
    scanner: { errorDeltaE: scanner.errorDeltaE, p95DeltaE: scanner.p95DeltaE, patches: card.length },
    samples: samples.length,
    meanDeltaE: off.reduce((sum, v) => sum + v, 0) / off.length,
    p95DeltaE: off[Math.floor(0.95 * off.length)],
    recognised: recognise(read, [...hypotheses, ...supposed], errorDeltaE),
    off: offInWords(read, wanted, scanner.p95DeltaE),
    map: mapOf(task.strips.sheet, cells, all),
  };
}

/** What the picture has at a pixel of the raster, in the crop that covers it. */
function sampleAt(laid: readonly LaidCrop[], pixel: number, rasterWidthPx: number): StripSample {
  const [x, y] = [pixel % rasterWidthPx, Math.floor(pixel / rasterWidthPx)];
  const on = laid.find((c) => x >= c.leftPx && x < c.leftPx + c.widthPx && y >= c.topPx && y < c.topPx + c.heightPx)!;
  const at = 3 * ((y - on.topPx) * on.widthPx + x - on.leftPx);
  return { lab: [on.labs[at], on.labs[at + 1], on.labs[at + 2]], recipe: on.crop.recipe };
}

interface Scan {
  readonly widthPx: number;
  readonly heightPx: number;
  /** Codes of red, green and blue, 0–65535. */
  readonly codes: Uint16Array;
  readonly light: Float32Array;
}

/** Bare codes of a scan: its profile, if it has one, knows nothing of this scanner. */
async function codesOf(file: PictureFile): Promise<Scan> {
  const { pipeline, channels, close } = await openPicture({ ...file, assumeSrgb: true });
  try {
    if (channels !== 3) throw new ScanError('The scan is grey.', 'Scan in colour, with every correction off.');
    const { data, info } = await pipeline
      .autoOrient()
      .resize(MOST_PX, MOST_PX, { fit: 'inside', withoutEnlargement: true, kernel: sharp.kernel.cubic })
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const codes = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const light = new Float32Array(info.width * info.height);
    for (let i = 0; i < light.length; i++) light[i] = codes[i * 3] + codes[i * 3 + 1] + codes[i * 3 + 2];
    return { widthPx: info.width, heightPx: info.height, codes, light };
  } finally {
    close();
  }
}

/** Mean code about a place of a sheet, 0–1. */
function meanAbout({ widthPx, heightPx, codes }: Scan, on: OnScan, xMm: number, yMm: number, halfMm: number): Rgb {
  const [p, q] = [on(xMm - halfMm, yMm - halfMm), on(xMm + halfMm, yMm + halfMm)];
  const within = (v: number, most: number) => Math.min(most, Math.max(0, Math.round(v)));
  const [left, right] = [within(Math.min(p.x, q.x), widthPx - 1), within(Math.max(p.x, q.x), widthPx - 1)];
  const [top, bottom] = [within(Math.min(p.y, q.y), heightPx - 1), within(Math.max(p.y, q.y), heightPx - 1)];
  const sums = [0, 0, 0];
  let n = 0;
  for (let y = top; y <= bottom; y++)
    for (let x = left; x <= right; x++, n++) for (let c = 0; c < 3; c++) sums[c] += codes[(y * widthPx + x) * 3 + c];
  return three((c) => sums[c] / n / 65_535);
}

/** The patches of the card as they were scanned and as they were read, by their places. */
async function cardPatches({ design, source }: ScanTask['card'], scan: Scan, on: OnScan): Promise<CardPatch[]> {
  const { reading } = await readSource(source);
  const readings = new Map<string, Lab[]>();
  for (const patch of reading.patches) readings.set(patch.id, [...(readings.get(patch.id) ?? []), patch.lab]);
  const side = design.spec.patchMm;
  return design.strips
    .filter((s) => s.page === 0)
    .flatMap((s) => s.patches)
    .flatMap(({ id, xMm, yMm }): CardPatch[] => {
      const labs = readings.get(id);
      if (!labs) return [];
      const mean = three((c) => labs.reduce((sum, lab) => sum + lab[c], 0) / labs.length);
      return [{ rgb: meanAbout(scan, on, xMm + side / 2, yMm + side / 2, side / 4), lab: mean }];
    });
}

interface Cell {
  readonly xMm: number;
  readonly yMm: number;
  /** Where its values begin in the raster. */
  readonly at: number;
  readonly even: boolean;
}

/** Cells of a sheet that a crop covers wholly. */
function printedCells(
  { placed, sheet }: ScanTask['strips'],
  { widthPx, heightPx, data }: Awaited<ReturnType<typeof stripRaster>>,
): Cell[] {
  const mm = MM_PER_INCH / PPI;
  const cells: Cell[] = [];
  for (const strip of placed)
    for (const crop of strip.crops) {
      const { xMm, yMm, widthMm, heightMm } = cropBox(sheet, strip, crop);
      const [left, top] = [Math.ceil(xMm / mm) + 1, Math.ceil(yMm / mm) + 1];
      const right = Math.min(widthPx - 3, Math.floor((xMm + widthMm) / mm) - 2);
      const bottom = Math.min(heightPx - 3, Math.floor((yMm + heightMm) / mm) - 2);
      for (let y = top; y <= bottom; y++)
        for (let x = left; x <= right; x++) {
          const at = (y * widthPx + x) * 3;
          const unlike = (step: number) =>
            [0, 1, 2].some((c) => Math.abs(data[at + step * 3 + c] - data[at + c]) > EVEN);
          const even = ![-2, 2, -2 * widthPx, 2 * widthPx].some(unlike);
          cells.push({ xMm: (x + 0.5) * mm, yMm: (y + 0.5) * mm, at, even });
        }
    }
  return cells;
}

function mapOf(
  { widthMm, heightMm }: StripSheet['sheet'],
  cells: readonly Cell[],
  off: readonly number[],
): HeldScan['map'] {
  const [columns, rows] = [Math.ceil(widthMm / TILE_MM), Math.ceil(heightMm / TILE_MM)];
  const sums = new Float64Array(columns * rows);
  const counts = new Uint32Array(columns * rows);
  cells.forEach(({ xMm, yMm }, i) => {
    const tile = Math.floor(yMm / TILE_MM) * columns + Math.floor(xMm / TILE_MM);
    sums[tile] += off[i];
    counts[tile]++;
  });
  const deltaE = Array.from(sums, (s, i) => (counts[i] ? String(Math.min(9, Math.round(s / counts[i]))) : '.')).join(
    '',
  );
  return { columns, rows, deltaE };
}
