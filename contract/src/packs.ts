import type { TypePlan } from '@rakuen/core/layout/pack-plan';
import { Id, Int, Maybe, Num, Part, Parts, Rows, Text, When, Words, Yes } from './fields.ts';

export class PackTypeInput {
  @Id() conditionId!: string;
  @Int(1, 100) sheets!: number;
}

/** A crop of a picture, printed on every type. */
export class PackCropInput {
  @Id() pictureId!: string;
  @Num(10, 2000) widthMm!: number;
  @Num(10, 2000) heightMm!: number;
}

/** A pack of samples: types and copies, and what goes on them. */
export class PackInput {
  @Text(80) name!: string;
  @Num(50, 2000) widthMm!: number;
  @Num(50, 2000) heightMm!: number;
  @Parts(() => PackTypeInput, 30) types!: PackTypeInput[];
  @Maybe() @Id() chartId?: string;
  @Yes() testPage!: boolean;
  @Parts(() => PackCropInput, 40) crops!: PackCropInput[];
}

export class PackDone {
  /** "conditionId/number of the sheet". */
  @Text(60) sheet!: string;
  @Yes() printed!: boolean;
}

export class PackSpec extends PackInput {}

export class PackView {
  @Id() id!: string;
  @When() createdAt!: string;
  @Part(() => PackSpec) spec!: PackSpec;
  /** By type, in the order of the spec. */
  @Rows() plan!: TypePlan[];
  /** Sheets that were printed: "conditionId/number". */
  @Words() printed!: string[];
  /** Types whose chart was not read since the pack was planned. */
  @Words() unread!: string[];
}
