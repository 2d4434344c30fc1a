import type { PackedSheet } from '@rakuen/core/characterisation/packed';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { compensated } from '@rakuen/core/characterisation/renderings';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { LAB_UNITS, type LabImage } from './lab-image.ts';
import { latticeOf } from './picture-api.ts';

/** Places looked at along an edge of a tile. */
const ALONG = 5;
/** Below this a step of tone is one of the shadows, L*. */
const SHADOW_L = 30;

export interface SheetMaps {
  readonly columns: number;
  readonly rows: number;
  /** Mean ΔE00 from the aim, by tile. */
  readonly outOfReach: Float32Array;
  /** How much of the steps of its shadows a tile loses, 0–1. */
  readonly closed: Float32Array;
}

/** What a sheet does to a picture, tile by tile: from its lattice, as everywhere. */
export function sheetMaps(
  { widthPx, heightPx, lab }: LabImage,
  sheet: PackedSheet,
  { columns, rows }: { columns: number; rows: number },
): SheetMaps {
  const lattice = unpackLab(sheet.nodes, latticeOf(sheet));
  const aim = compensated(0, sheet.blackL);
  const greys = Float32Array.from({ length: 101 * 3 }, (_, i) => (i % 3 === 0 ? i / 3 : 0));
  throughPrinted(lattice, greys, greys);
  const stepsKept = (L: number) => {
    const low = Math.max(0, Math.min(98, Math.round(L) - 1));
    return Math.min(1, Math.max(0, (greys[(low + 2) * 3] - greys[low * 3]) / 2));
  };
  const outOfReach = new Float32Array(columns * rows);
  const closed = new Float32Array(columns * rows);
  const file = new Float32Array(ALONG * ALONG * 3);
  const printed = new Float32Array(file.length);
  for (let tile = 0; tile < columns * rows; tile++) {
    const [x0, y0] = [tile % columns, Math.floor(tile / columns)];
    for (let k = 0; k < ALONG * ALONG; k++) {
      const x = Math.min(widthPx - 1, Math.floor(((x0 + ((k % ALONG) + 0.5) / ALONG) / columns) * widthPx));
      const y = Math.min(heightPx - 1, Math.floor(((y0 + (Math.floor(k / ALONG) + 0.5) / ALONG) / rows) * heightPx));
      const at = (y * widthPx + x) * 3;
      for (let c = 0; c < 3; c++) file[k * 3 + c] = lab[at + c] / LAB_UNITS;
    }
    throughPrinted(lattice, file, printed);
    for (let p = 0; p < file.length; p += 3) {
      const wanted = aim([file[p], file[p + 1], file[p + 2]]);
      outOfReach[tile] += deltaE2000(wanted, [printed[p], printed[p + 1], printed[p + 2]]) / (ALONG * ALONG);
      if (file[p] < SHADOW_L) closed[tile] += (1 - stepsKept(file[p])) / (ALONG * ALONG);
    }
  }
  return { columns, rows, outOfReach, closed };
}
