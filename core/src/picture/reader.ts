import { CodeBins } from './bins.ts';
import { BlockTally, type LabOfCodes } from './blocks.ts';
import type { OccupiedCells } from './cells.ts';
import { AS_IT_LIES, structureOf, type Orientation } from './structure.ts';
import { PictureTally, type PictureFigures } from './tally.ts';

/** Kinds of pixels a picture may have. */
export interface PixelKind {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly channels: 1 | 3;
  readonly bits: 8 | 16;
}

/** Reads a picture from its first pixel to its last; what is kept does not grow with it. */
export class PictureReader {
  private readonly bins: CodeBins;
  private readonly blocks: BlockTally;

  /** @param labOf Lab (D50) of codes 0–1, through the picture's profile */
  constructor(
    { widthPx, heightPx, channels, bits }: PixelKind,
    private readonly labOf: LabOfCodes,
  ) {
    this.bins = new CodeBins(channels, bits, widthPx * heightPx);
    this.blocks = new BlockTally(widthPx, heightPx, channels, bits);
  }

  /** Adds the next pixels, in the order of the file. @param samples channels one after another */
  add(samples: Uint8Array | Uint16Array): void {
    this.bins.add(samples);
    this.blocks.add(samples);
  }

  /** @param orientation how the picture is turned to be looked at */
  finish(orientation: Orientation = AS_IT_LIES): { figures: PictureFigures; cells: OccupiedCells } {
    const { codes, pixels } = this.bins.counted();
    const tally = new PictureTally(pixels.reduce((s, v) => s + v, 0));
    tally.add(this.labOf(codes), pixels);
    const { figures, cells } = tally.finish();
    const structure = structureOf(this.blocks.finish(this.labOf), figures, orientation);
    return { figures: { ...figures, structure }, cells };
  }
}
