import {
  BASES,
  BRIGHTENER_CLAIMS,
  COATING_CLASSES,
  SURFACES,
  type Base,
  type BrightenerClaim,
  type CoatingClass,
  type Surface,
} from '@rakuen/core/paper';
import { Currency, FreeText, Id, Int, Maybe, Num, OneOf, Parts, Text, When } from './fields.ts';

/** A size a paper is sold in, with what a pack costs. */
export class PaperSize {
  /** "A3+", "17 in roll". */
  @Text(60) label!: string;
  @Num(10, 5000) widthMm!: number;
  /** Length of a roll or the longer side of a sheet. */
  @Num(10, 100_000) heightMm!: number;
  /** Sheets in the pack; 1 for a roll. */
  @Int(1, 10_000) sheets!: number;
  @Maybe() @Num(0, 1e6) packPrice?: number;
}

/** A paper as its maker sells it. Everything here is claimed, not measured; what is left open is not claimed. */
export class PaperInput {
  @Text(80) maker!: string;
  @Text(120) name!: string;
  @Maybe() @OneOf(Object.keys(COATING_CLASSES)) coating?: CoatingClass;
  @Maybe() @OneOf(BASES) base?: Base;
  @Maybe() @OneOf(SURFACES) surface?: Surface;
  @OneOf(BRIGHTENER_CLAIMS) brightenerClaim!: BrightenerClaim;
  /** ISO 536. */
  @Maybe() @Num(10, 2000) weightGsm?: number;
  /** ISO 534. */
  @Maybe() @Num(20, 5000) thicknessUm?: number;
  @Parts(() => PaperSize, 40) sizes!: PaperSize[];
  /** Three letters, ISO 4217. */
  @Currency() currency!: string;
  @Maybe() @FreeText() notes?: string;
}

export class PaperView extends PaperInput {
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Id() id!: string;
  @When() createdAt!: string;
  /** Lowest price a square metre among its sizes; absent where no price is known. */
  @Maybe() @Num(0) pricePerM2?: number;
  @Int() conditionCount!: number;
}

/** A paper as a print condition shows it. */
export class PaperHead {
  @Id() id!: string;
  @Text(80) maker!: string;
  @Text(120) name!: string;
  @Maybe() @OneOf(Object.keys(COATING_CLASSES)) coating?: CoatingClass;
  @Maybe() @OneOf(SURFACES) surface?: Surface;
  @Maybe() @Num() weightGsm?: number;
  @Maybe() @Num() thicknessUm?: number;
  @OneOf(BRIGHTENER_CLAIMS) brightenerClaim!: BrightenerClaim;
  @Maybe() @Num() pricePerM2?: number;
  @Text(3) currency!: string;
}
