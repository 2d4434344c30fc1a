/** Kinds of pixels a picture may have. */
export interface PixelKind {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly channels: 1 | 3;
  readonly bits: 8 | 16;
}

/** Lab (D50) of codes 0–1, `channels` after one another, through the picture's profile. */
export type LabOfCodes = (codes: Float32Array) => Float32Array;
