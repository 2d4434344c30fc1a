import type { PictureFigures } from '@rakuen/core/picture/tally';
import { Id, Int, Maybe, Num, OneOf, Plain, Text, When, Words, Yes } from './fields.ts';
import { JOB_STATES } from './vocabulary.ts';

/** Form fields beside the file of a picture. */
export class PictureFields {
  @Maybe() @Text(160) title?: string;
  /** "yes" sets the embedded profile aside and reads the picture as sRGB; for a file whose profile is broken. */
  @Maybe() @OneOf(['yes', 'no']) assumeSrgb?: 'yes' | 'no';
}

export class PictureTitle {
  @Text(160) title!: string;
}

export class PictureView {
  @Id() id!: string;
  @Text(160) title!: string;
  @Text() fileName!: string;
  @Text(64) contentHash!: string;
  @OneOf(['JPEG', 'PNG', 'TIFF']) format!: string;
  @Int(1) widthPx!: number;
  @Int(1) heightPx!: number;
  @Int(8, 16) bitsPerChannel!: number;
  /** Name of the profile the colours were read through. */
  @Text() profile!: string;
  /** No profile was embedded (or it was set aside), so sRGB was assumed. */
  @Yes() profileAssumed!: boolean;
  /** What the printmaker should know: sampled pixels, a dropped alpha channel. */
  @Words() notes!: string[];
  @Plain() figures!: PictureFigures;
  @Int() colourCells!: number;
  @When() addedAt!: string;
}

/** A picture on its way in. */
export class PictureJob {
  @Id() id!: string;
  @Text() fileName!: string;
  @OneOf(JOB_STATES) state!: (typeof JOB_STATES)[number];
  /** 0–1. */
  @Num(0, 1) progress!: number;
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Plain() error?: { message: string; remedy?: string; field?: string };
}
