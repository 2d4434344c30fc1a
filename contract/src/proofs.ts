import type { EstimatedWhite, PackedSheet } from '@rakuen/core/characterisation/packed';
import { RENDERING_KEYS, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import { Id, Maybe, NumberText, Num, OneOf, Plain, QueryInt, Text, Yes } from './fields.ts';

/** A part of a picture in shares of its width and height; the whole where nothing is said. */
export class LabQuery {
  @Maybe() @NumberText(0, 1) x?: number;
  @Maybe() @NumberText(0, 1) y?: number;
  @Maybe() @NumberText(0.001, 1) width?: number;
  @Maybe() @NumberText(0.001, 1) height?: number;
}

/** A part of a picture as an image. */
export class CropQuery extends LabQuery {
  /** Longer side of the image. */
  @Maybe() @QueryInt(40, 1280) px?: number;
}

/** Where a print is looked at, and how it was rendered. */
export class LaidQuery {
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
  @Maybe() @OneOf(RENDERING_KEYS) rendering?: RenderingKey;
}

export class OnSheetQuery extends CropQuery {
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
  @Maybe() @OneOf(RENDERING_KEYS) rendering?: RenderingKey;
  /** A saved recipe of this picture, with its rendering. */
  @Maybe() @Id() recipe?: string;
  /** Of that recipe: a changed one has another address, so that no image of the old one is shown for it. */
  @Maybe() @QueryInt() revision?: number;
}

/** The print copy: device values of the condition's own profile, as large as the commission says, by its recipe. */
export class CopyQuery {
  @Id() conditionId!: string;
  @Maybe() @QueryInt(36, 2880) ppi?: number;
  /** A kept recipe of this picture; without one nothing is done to it. */
  @Maybe() @Id() recipe?: string;
  /** A working space in place of the condition’s profile: for a lab that asks for one. */
  @Maybe() @OneOf(Object.keys(WORKING_SPACES)) space?: WorkingSpace;
  @Maybe() @OneOf(['tif', 'jpeg']) as?: 'tif' | 'jpeg';
  /** What the file is called: a pattern with words in braces. */
  @Maybe() @Text(200) name?: string;
}

export class LaidView {
  @Plain() bare!: PackedSheet;
  @Plain() seen!: PackedSheet;
  /** Mean ΔE00 by which the model may be off. */
  @Maybe() @Num(0) modelError?: number;
  /** Seen as if it had no brightener: what that does in this light is neither read nor can it be estimated. */
  @Maybe() @Yes() brightenerUnknown?: boolean;
  /** Its brightener is estimated: between what b* of its white lies in this light. */
  @Maybe() @Plain() estimatedWhite?: EstimatedWhite;
}
