import { seededRandom, shuffled } from '../random.ts';
import { askedPatches, type DistinctPatch } from './asked-patches.ts';
import type { Rgb } from '../colour/types.ts';
import { MARK_MM, markBoxes } from '../scan/corner-marks.ts';
import type { SheetMarks } from '../scan/sheet-in-scan.ts';
import { BLACK_16, toRgb16, WHITE_16, type Rgb16 } from './device16.ts';
import { PATCH_LIMITS, patchLimits, type ChartPurpose, type PatchRole } from './purposes.ts';
import { SHEET_SIZES, type SheetSize } from './sheet-sizes.ts';

/** Charts whose patches are found by computation and not by a purpose of the table. */
export const OWN_PURPOSES = {
  check: 'check of a profile',
  next: 'patches that help most',
  card: 'card for a scanner',
} as const;
export type OwnPurpose = keyof typeof OWN_PURPOSES;

/** What a chart is asked to be. The same specification gives the same chart. */
export interface ChartSpec {
  readonly purpose: ChartPurpose | OwnPurpose;
  /** Distinct patches wanted; the purpose may need more. */
  readonly patches: number;
  readonly sheet: SheetSize;
  /** Side of a patch, mm. */
  readonly patchMm: number;
  readonly dpi: number;
  /** Shuffles the patches; printed on the sheet. */
  readonly seed: number;
}

/** A specification a purpose of the table fills. */
export interface WishedSpec extends ChartSpec {
  readonly purpose: ChartPurpose;
}
export const isWished = (spec: ChartSpec): spec is WishedSpec => !(spec.purpose in OWN_PURPOSES);

export interface PlacedPatch {
  /** Strip and place: "s2p07". */
  readonly id: string;
  readonly rgb16: Rgb16;
  readonly role: PatchRole;
  readonly xMm: number;
  readonly yMm: number;
}

/** One column of patches, read in one pass from top to bottom. */
export interface ChartStrip {
  readonly label: string;
  readonly page: number;
  readonly patches: readonly PlacedPatch[];
}

export interface Box {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly rgb16: Rgb16;
}

export interface ChartText {
  readonly xMm: number;
  /** Base line. */
  readonly yMm: number;
  readonly sizeMm: number;
  readonly text: string;
  readonly anchor: 'start' | 'middle';
}

export interface ChartPage {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Spacers and marks; patches lie in their strips. */
  readonly boxes: readonly Box[];
  readonly texts: readonly ChartText[];
}

/** A chart laid out: strips over one or more pages. */
export interface ChartDesign {
  readonly spec: ChartSpec;
  readonly pages: readonly ChartPage[];
  readonly strips: readonly ChartStrip[];
  readonly patchCount: number;
  readonly distinctCount: number;
  /** Places along an edge of the device cube on its surface. */
  readonly surfaceLevels: number;
  /** What the reader should know: more patches than asked, more pages than one. */
  readonly notes: readonly string[];
}

/** A chart that can't be laid out; says which wish to change. */
export class ChartError extends Error {
  override readonly name = 'ChartError';
  constructor(
    message: string,
    readonly field: keyof ChartSpec,
    readonly remedy: string,
  ) {
    super(message);
  }
}

/** mm. */
const MARGIN = 12;
const HEAD = 16;
const SPACER = 0.8;
const BETWEEN_STRIPS = 2.5;
/** So many patches between two ticks beside a strip. */
const COUNTED = 5;
/** It keeps clear of the next strip. */
const TICK = 1.2;
const MARK = MARK_MM;
/** From its edges to a mark. */
const NEAR = 4;
/** Narrower sheets take their words in two lines. */
const NARROW = 180;
const MOST_PAGES = 12;
/** Whites in every strip, and blacks: the instrument's drift is seen on them. */
const WHITES_A_STRIP = 1;
const BLACKS_A_STRIP = 1;

export const CHART_LIMITS = {
  patches: [24, PATCH_LIMITS[1]],
  patchMm: [5, 30],
  dpi: [150, 720],
  seed: [1, 999_999],
} as const;

const WISHES = {
  patches: 'Patches',
  patchMm: 'Patch, mm',
  dpi: 'Resolution, dpi',
  seed: 'Seed',
} as const satisfies Record<keyof typeof CHART_LIMITS, string>;

/**
 * Lays a chart out in strips with contrasting spacers, a white and a black in every strip, the rest shuffled by the seed, a solid mark at
 * the corner that is read first and open marks at the others.
 * @throws ChartError when a wish can't be met
 */
export function designChart(spec: WishedSpec): ChartDesign {
  const limits = { ...CHART_LIMITS, patches: patchLimits(spec.purpose) };
  for (const [field, [low, high]] of Object.entries(limits) as [
    keyof typeof CHART_LIMITS,
    readonly [number, number],
  ][]) {
    if (!(spec[field] >= low && spec[field] <= high))
      throw new ChartError(
        `${WISHES[field]}: ${spec[field]} lies outside ${low} to ${high}.`,
        field,
        'Choose a value between them.',
      );
  }
  const { patches, surfaceLevels } = askedPatches(spec.purpose, spec.patches);
  // A strip that is read every week is short: no repeats fill it up.
  return layOut(spec, spec.purpose, patches, { surfaceLevels, full: spec.purpose !== 'control' });
}

/**
 * Lays given patches out in the same way; white and black come with every strip.
 * @throws ChartError when a wish can't be met
 */
export function designOwnChart(
  purpose: OwnPurpose,
  devices: readonly Rgb[],
  { sheet, patchMm, dpi, seed }: Pick<ChartSpec, 'sheet' | 'patchMm' | 'dpi' | 'seed'>,
): ChartDesign {
  const ends = new Set([WHITE_16.join(), BLACK_16.join()]);
  const patches = devices
    .map((rgb): DistinctPatch => ({ rgb16: toRgb16(rgb), role: 'inner' }))
    .filter((p, i, all) => !ends.has(p.rgb16.join()) && all.findIndex((q) => q.rgb16.join() === p.rgb16.join()) === i);
  const spec: ChartSpec = { purpose, patches: patches.length, sheet, patchMm, dpi, seed };
  // Few patches that were asked for are not hidden among repeats of themselves.
  return layOut(spec, OWN_PURPOSES[purpose], patches, { surfaceLevels: 0, full: purpose !== 'next' });
}

function layOut(
  spec: ChartSpec,
  called: string,
  distinct: readonly DistinctPatch[],
  { surfaceLevels, full }: { readonly surfaceLevels: number; readonly full: boolean },
): ChartDesign {
  const size = SHEET_SIZES[spec.sheet];
  const [width, height] = [size.widthMm, size.heightMm];
  const pitch = spec.patchMm + SPACER;
  const longest = Math.floor((height - 2 * MARGIN - HEAD - SPACER) / pitch);
  const perPage = Math.floor((width - 2 * MARGIN + BETWEEN_STRIPS) / (spec.patchMm + BETWEEN_STRIPS));
  if (longest < 6 || perPage < 3)
    throw new ChartError(
      `Patches of ${spec.patchMm} mm leave too few on ${size.name}.`,
      'patchMm',
      'Choose a smaller patch or a larger sheet.',
    );

  const mixed = shuffled(
    distinct.filter((p) => p.role !== 'white' && p.role !== 'black'),
    seededRandom(spec.seed),
  );
  const controls = WHITES_A_STRIP + BLACKS_A_STRIP;
  const fewest = Math.ceil(mixed.length / (longest - controls));
  const stripCount = full ? Math.max(3, fewest) : fewest;
  const free = full ? longest - controls : Math.ceil(mixed.length / stripCount);
  const perStrip = free + controls;
  const pageCount = Math.ceil(stripCount / perPage);
  if (pageCount > MOST_PAGES)
    throw new ChartError(
      `The chart would take ${pageCount} sheets; ${MOST_PAGES} is the most.`,
      'patches',
      'Ask for fewer or smaller patches, or a larger sheet.',
    );

  // What is left over in the last strip repeats patches from the beginning: more repeats tell more of the noise.
  const filled = Array.from(
    { length: stripCount * free },
    (_, i): DistinctPatch => mixed[i] ?? { ...mixed[(i * 7) % mixed.length]!, role: 'repeat' },
  );
  const random = seededRandom(spec.seed + 1);
  const strips: ChartStrip[] = [];
  const boxes: Box[][] = Array.from({ length: pageCount }, () => []);
  const texts: ChartText[][] = Array.from({ length: pageCount }, () => []);
  for (let s = 0; s < stripCount; s++) {
    const page = Math.floor(s / perPage);
    const x = MARGIN + (s % perPage) * (spec.patchMm + BETWEEN_STRIPS);
    const label = String(s + 1);
    const column: DistinctPatch[] = filled.slice(s * free, (s + 1) * free);
    column.splice(Math.floor(random() * (column.length + 1)), 0, { rgb16: WHITE_16, role: 'white' });
    column.splice(Math.floor(random() * (column.length + 1)), 0, { rgb16: BLACK_16, role: 'black' });
    const top = MARGIN + HEAD;
    const patches = column.map(({ rgb16, role }, i): PlacedPatch => ({
      id: `s${label}p${String(i + 1).padStart(2, '0')}`,
      rgb16,
      role,
      xMm: x,
      yMm: top + SPACER + i * pitch,
    }));
    strips.push({ label, page, patches });
    for (let i = 0; i <= patches.length; i++) {
      boxes[page]!.push({
        xMm: x,
        yMm: top + i * pitch,
        widthMm: spec.patchMm,
        heightMm: SPACER,
        rgb16: spacer(patches[i - 1]?.rgb16 ?? WHITE_16, patches[i]?.rgb16 ?? WHITE_16),
      });
      // A place in a strip is counted as on a ruler: under every fifth patch the spacer reaches out of the strip.
      if (i > 0 && i % COUNTED === 0)
        boxes[page]!.push({
          xMm: x + spec.patchMm,
          yMm: top + i * pitch,
          widthMm: TICK,
          heightMm: SPACER,
          rgb16: BLACK_16,
        });
    }
    texts[page]!.push({ xMm: x + spec.patchMm / 2, yMm: top - 1.5, sizeMm: 3, text: label, anchor: 'middle' });
  }
  const pageHeight = 'roll' in size ? MARGIN * 2 + HEAD + SPACER + perStrip * pitch : height;
  const pages = boxes.map((own, page): ChartPage => {
    const place = pageCount > 1 ? `, sheet ${page + 1} of ${pageCount}` : '';
    return {
      widthMm: width,
      heightMm: pageHeight,
      boxes: [...own, ...corners(width, pageHeight)],
      texts: [
        {
          xMm: MARGIN,
          yMm: MARGIN + 3,
          sizeMm: 3.2,
          text: `Rakuen chart, ${called}, seed ${spec.seed}${place}`,
          anchor: 'start',
        },
        ...lines(
          [
            `${strips.reduce((n, t) => n + t.patches.length, 0)} patches of ${spec.patchMm} mm, ${spec.dpi} dpi, ${size.name}. Print without colour management.`,
            'Read from the solid corner, strip by strip, top to bottom.',
          ],
          width,
        ),
        ...texts[page]!,
      ],
    };
  });
  const notes = [
    distinct.length > spec.patches
      ? `The purpose needs ${distinct.length} distinct patches; ${spec.patches} were asked for.`
      : undefined,
    pageCount > 1 ? `It takes ${pageCount} sheets.` : undefined,
  ].filter((n) => n !== undefined);
  return {
    spec,
    pages,
    strips,
    patchCount: stripCount * perStrip,
    distinctCount: distinct.length,
    surfaceLevels,
    notes,
  };
}

/** Words under the head: in one line, or below each other where the sheet is narrow. */
function lines(words: readonly string[], widthMm: number): ChartText[] {
  return (widthMm < NARROW ? words : [words.join(' ')]).map((text, i) => ({
    xMm: MARGIN,
    yMm: MARGIN + 7.2 + i * 3.2,
    sizeMm: 2.6,
    text,
    anchor: 'start',
  }));
}

/** Black or white, whichever stands out more from the weaker of its neighbours. */
function spacer(above: Rgb16, below: Rgb16): Rgb16 {
  const light = (c: Rgb16) => (0.21 * c[0] + 0.72 * c[1] + 0.07 * c[2]) / WHITE_16[0];
  const [p, q] = [light(above), light(below)];
  return Math.min(p, q) > Math.min(1 - p, 1 - q) ? BLACK_16 : WHITE_16;
}

/** A solid square at the corner that is read first, rings of a square at the others. */
function corners(width: number, height: number): Box[] {
  const at = (xMm: number, yMm: number, side: number, rgb16: Rgb16): Box => ({
    xMm,
    yMm,
    widthMm: side,
    heightMm: side,
    rgb16,
  });
  const [right, bottom] = [width - NEAR - MARK, height - NEAR - MARK];
  const open = (x: number, y: number) =>
    markBoxes(x, y, false).map((b) => at(b.xMm, b.yMm, b.side, b.dark ? BLACK_16 : WHITE_16));
  return [at(NEAR, NEAR, MARK, BLACK_16), ...open(right, NEAR), ...open(NEAR, bottom), ...open(right, bottom)];
}

/** Where the open marks of a page stand, mm. */
export function pageMarks({ widthMm, heightMm }: ChartPage): SheetMarks {
  const near = NEAR + MARK / 2;
  return {
    topRight: { x: widthMm - near, y: near },
    bottomLeft: { x: near, y: heightMm - near },
    bottomRight: { x: widthMm - near, y: heightMm - near },
  };
}
