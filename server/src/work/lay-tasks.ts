import { nodeLab } from '@rakuen/core/characterisation/lab-axes';
import { packLab, unpackLab, type PackedSheet } from '@rakuen/core/characterisation/packed';
import { sentLattice, throughPrinted, type SentLattice } from '@rakuen/core/characterisation/printed';
import { expandPrint, type PrintModel } from '@rakuen/core/characterisation/print-model';
import { relativePrint } from '@rakuen/core/characterisation/relative-print';
import { compensated, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { nodePlaces } from '@rakuen/core/characterisation/lattice';
import type { FittedPrint } from '@rakuen/core/characterisation/fitted-print';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab } from '@rakuen/core/colour/types';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import type { Glass } from '@rakuen/core/light/glass';
import { GLASSES } from '@rakuen/core/light/glass';
import type { ViewingLight } from '@rakuen/core/light/table-lights';
import { layBare, laySeen, laySolid } from '@rakuen/core/match/lay';
import { onSheet, type MatchFigures } from '@rakuen/core/match/on-sheet';
import { paletteOf, type Palette } from '@rakuen/core/match/palette';
import { readySheet, type ReadySheet } from '@rakuen/core/match/ready-sheet';
import type { PrintedSheet } from '@rakuen/core/match/sheet';
import type { CoatingClass } from '@rakuen/core/paper';
import type { Mark } from '@rakuen/core/picture/marks';
import { openProfile, type OpenProfile } from '../colour-management/lcms.ts';

export const packSheet = ({ lattice, white, blackL, estimatedWhite }: PrintedSheet): PackedSheet => ({
  nodes: lattice.nodes,
  white,
  blackL,
  estimatedWhite,
  lab: base64Of(packLab(lattice)),
});
export const unpackSheet = ({ nodes, white, blackL, lab }: PackedSheet): PrintedSheet => ({
  lattice: unpackLab(nodes, int16Of(lab)),
  white,
  blackL,
});

const base64Of = (v: Int16Array | Uint16Array | Uint8Array): string =>
  Buffer.from(v.buffer, v.byteOffset, v.byteLength).toString('base64');
function int16Of(text: string): Int16Array {
  const bytes = Uint8Array.from(Buffer.from(text, 'base64'));
  return new Int16Array(bytes.buffer);
}

/** Models opened lately: opening one takes a good part of a second, and a new light asks for it again. */
const OPEN_AT_ONCE = 8;
const open = new Map<string, PrintModel>();
function opened(key: string, fitted: FittedPrint): PrintModel {
  const known = open.get(key);
  open.delete(key);
  const model = known ?? expandPrint(fitted);
  open.set(key, model);
  if (open.size > OPEN_AT_ONCE) open.delete(open.keys().next().value!);
  return model;
}

/** What is sent for every colour of a file, packed: 16-bit device values. */
export interface PackedSent {
  readonly grid: number;
  readonly device: string;
}

export function sendFor(task: { key: string; fitted: FittedPrint; rendering: RenderingKey }): PackedSent {
  const { grid, device } = sentLattice(relativePrint(opened(task.key, task.fitted).labs), task.rendering);
  return { grid, device: base64Of(Uint16Array.from(device, (v) => Math.round(v * 65_535))) };
}

/** Device values 0–1 by node, L* the slowest axis and b* the fastest. */
export function unpackSent({ grid, device }: PackedSent): { grid: number; device: Float32Array } {
  const codes = new Uint16Array(int16Of(device).buffer);
  return { grid, device: Float32Array.from(codes, (v) => v / 65_535) };
}

const sentOf = (packed: PackedSent, rendering: RenderingKey): SentLattice => ({
  rendering,
  ...unpackSent(packed),
  deltaE00: new Float32Array(0),
  loss: new Uint8Array(0),
});

/** A sheet as an instrument reads it, and as it is seen in a light behind a glass. */
export interface PackedLaid {
  readonly bare: PackedSheet;
  readonly seen: PackedSheet;
}

export function layModel(task: {
  key: string;
  fitted: FittedPrint;
  sent: PackedSent;
  rendering: RenderingKey;
  coating?: CoatingClass;
  light: ViewingLight;
  glassKey: string;
}): PackedLaid {
  const model = opened(task.key, task.fitted);
  const sent = sentOf(task.sent, task.rendering);
  const glass: Glass = GLASSES.find((g) => g.key === task.glassKey)!;
  return {
    bare: packSheet(layBare(sent, model)),
    seen: packSheet(laySeen(sent, model, { light: task.light, glass, coating: task.coating })),
  };
}

/** A sheet of which only the solid of its colours is known. */
export const layFromSolid = (task: { mesh: GamutMesh; white: Lab; black: Lab }): PackedSheet =>
  packSheet(laySolid(task.mesh, task.white, task.black));

const PROFILE_GRID = 33;

/** What a profile prints of every colour of a file, by its own tables; relative: with black compensated. */
export async function profileSheet(bytes: Uint8Array, rendering: RenderingKey = 'relative'): Promise<PrintedSheet> {
  const absolute = await openProfile(bytes, true);
  const relative = await openProfile(bytes);
  const sender = await openProfile(bytes, rendering);
  try {
    const blank = Float32Array.from({ length: absolute.channels }, () => (absolute.space === 'CMYK' ? 0 : 1));
    const [L, a, b] = absolute.toLab(blank);
    const wanted = new Float32Array(PROFILE_GRID ** 3 * 3);
    let n = 0;
    const aim = aimOf(relative, rendering);
    for (const at of nodePlaces(3, PROFILE_GRID)) wanted.set(aim(nodeLab(at)), n++ * 3);
    const values = relative.toLab(sender.fromLab(wanted));
    const blackL = Math.max(0, relative.toLab(sender.fromLab(Float32Array.of(0, 0, 0)))[0]);
    return { lattice: { axes: 3, nodes: PROFILE_GRID, values }, white: [L, a, b], blackL };
  } finally {
    absolute.close();
    relative.close();
    sender.close();
  }
}

/**
 * What is asked of a profile for a colour of a file: relative renderings have black laid on black, the others carry
 * their own. @param relative the profile, relative
 */
export function aimOf(relative: OpenProfile, rendering: RenderingKey): (lab: Lab) => Lab {
  if (rendering !== 'relative') return (lab) => lab;
  return compensated(0, Math.max(0, relative.toLab(relative.fromLab(Float32Array.of(0, 0, 0)))[0]));
}

/** A sheet ready for any picture, as it is kept. */
export type PackedReady = Omit<ReadySheet, 'losses' | 'held' | 'seenAb' | 'chromasAimed'> &
  Readonly<Record<'losses' | 'held' | 'seenAb' | 'chromasAimed', string>>;

export function readyFor({ bare, seen }: PackedLaid): PackedReady {
  const ready = readySheet({ bare: unpackSheet(bare), seen: unpackSheet(seen) });
  const { losses, held, seenAb, chromasAimed } = ready;
  return {
    ...ready,
    losses: base64Of(losses),
    held: base64Of(held),
    seenAb: base64Of(seenAb),
    chromasAimed: base64Of(chromasAimed),
  };
}

export const unpackReady = (packed: PackedReady): ReadySheet => ({
  ...packed,
  losses: int16Of(packed.losses),
  seenAb: int16Of(packed.seenAb),
  chromasAimed: int16Of(packed.chromasAimed),
  held: Buffer.from(packed.held, 'base64'),
});

/** Lays a picture's colours on sheets. @param cells L*, a*, b*, share */
export function matchSheets(task: {
  cells: Float32Array;
  marks: readonly Mark[];
  sheets: readonly PackedReady[];
}): MatchFigures[] {
  const palettes = new Map<number, Palette>();
  return task.sheets.map((packed) => {
    const sheet = unpackReady(packed);
    const palette =
      palettes.get(sheet.nodes) ?? paletteOf({ count: task.cells.length / 4, data: task.cells }, sheet.nodes);
    palettes.set(sheet.nodes, palette);
    return onSheet(palette, task.marks, sheet);
  });
}

/** Colours of a file as they are seen on a sheet: absolute, for an eye adapted to the light. In place. */
export function seenOn(sheet: PrintedSheet, labs: Float32Array, { paperWhite = true } = {}): void {
  throughPrinted(sheet.lattice, labs, labs);
  if (!paperWhite) return;
  const absolute = absoluteOnWhite(sheet.white);
  for (let p = 0; p < labs.length; p += 3) labs.set(absolute([labs[p], labs[p + 1], labs[p + 2]]), p);
}
