import { CodeBins, type BinnedCodes } from './bins.ts';
import { BlockTally, blocksOf } from './blocks.ts';
import type { OccupiedCells } from './cells.ts';
import type { LabOfCodes, PixelKind } from './pixels.ts';
import { AS_IT_LIES, structureOf, type Orientation } from './structure.ts';
import { PictureTally, type PictureFigures } from './tally.ts';

/** Reads a picture from its first pixel to its last; what is kept does not grow with it. */
export class PictureReader {
  private readonly bins: CodeBins;
  private readonly blocks: BlockTally;

  constructor(
    kind: PixelKind,
    private readonly labOf: LabOfCodes,
  ) {
    this.bins = new CodeBins(kind);
    this.blocks = new BlockTally(kind);
  }

  /** Adds the next pixels, in the order of the file. @param samples channels one after another */
  add(samples: Uint8Array | Uint16Array): void {
    this.bins.add(samples);
    this.blocks.add(samples);
  }

  /** @param orientation how the picture is turned to be looked at */
  finish(orientation: Orientation = AS_IT_LIES): PictureRead {
    const { figures, cells } = coloursRead([this.bins.counted()], this.labOf);
    const structure = structureOf(blocksOf(this.blocks.tallied, this.labOf), figures, orientation);
    return { figures: { ...figures, structure }, cells };
  }
}

export interface PictureRead {
  readonly figures: PictureFigures;
  readonly cells: OccupiedCells;
}

/** What a picture holds, wherever in it: from its pixels as they were counted, each once. */
export function coloursRead(counted: readonly BinnedCodes[], labOf: LabOfCodes): PictureRead {
  const total = counted.reduce((sum, { pixels }) => sum + pixels.reduce((s, v) => s + v, 0), 0);
  const tally = new PictureTally(total);
  for (const { codes, pixels } of counted) tally.add(labOf(codes), pixels);
  return tally.finish();
}
