import type { GlowBetween } from '@rakuen/core/light/lit-sheet';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { LAMP_UV, type LampUv } from '@rakuen/core/light/own-lamp';
import { Id, Int, Maybe, Num, OneOf, Part, Plain, Rows, Text, When } from './fields.ts';

/** A print's spectra, packed: what a worker needs to look at it under any light. */
export class SheetSpectraView {
  @Num() startNm!: number;
  @Num() stepNm!: number;
  @Int() bands!: number;
  /** Float32, little-endian, base64; patches after one another. */
  @Text(1e8) reflected!: string;
  @Maybe() @Text(1e8) luminous?: string;
  /** Set where that is estimated. */
  @Maybe() @Plain() estimated?: GlowBetween;
  @Int() white!: number;
  @Int() black!: number;
  @Rows() greys!: { step: number; patch: number }[];
  /** Patch by corner of the gamut; the corners' order is the mesh's. */
  @Rows() corners!: number[];
}

/** What a print condition's reading holds for the comparison: its solid, and its spectra where there are any. */
export class SheetView {
  @Id() conditionId!: string;
  @Id() readingId!: string;
  /** Absent where the colours enclose no gamut. */
  @Maybe() @Plain() mesh?: GamutMesh;
  @Maybe() @Part(() => SheetSpectraView) spectra?: SheetSpectraView;
}

export class LightFields {
  @Text(80) name!: string;
}

/** A lamp whose spectrum was imported. */
export class LightView extends LightFields {
  @Id() id!: string;
  @When() createdAt!: string;
  @Num() startNm!: number;
  @Num() stepNm!: number;
  /** Relative power. */
  @Rows() values!: number[];
  /** What is known of its UV, where the spectrum begins too late to show it. */
  @OneOf(Object.keys(LAMP_UV)) uv!: LampUv;
  /** Mean step of its file, nm. */
  @Maybe() @Num(0) fileStepNm?: number;
}

/** What is known of a lamp's UV. */
export class LightUvInput {
  @OneOf(Object.keys(LAMP_UV)) uv!: LampUv;
}
