import type { TypePlan } from '@rakuen/core/layout/pack-plan';
import { Id, Int, Maybe, Num, Part, Parts, Plain, Rows, Text, When, Words, Yes } from './fields.ts';

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

/** What goes on the sheets of every type. */
class PackSheets {
  @Num(50, 2000) widthMm!: number;
  @Num(50, 2000) heightMm!: number;
  /** What the printers can’t print on along every edge, mm; none where absent. */
  @Maybe() @Num(0, 100) marginMm?: number;
  @Maybe() @Id() chartId?: string;
  @Yes() testPage!: boolean;
  @Parts(() => PackCropInput, 40) crops!: PackCropInput[];
}

/** A pack of samples: types and copies, and what goes on them. */
export class PackInput extends PackSheets {
  @Text(80) name!: string;
  @Parts(() => PackTypeInput, 30) types!: PackTypeInput[];
}

/** Asks how the sheets of each type would lie, before a pack is planned. */
export class PackLookInput extends PackSheets {
  @Int(1, 100) sheets!: number;
}

/** How they would lie. */
export class PackLook {
  @Plain() each!: Omit<TypePlan, 'id'>;
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
