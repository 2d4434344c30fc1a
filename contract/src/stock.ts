import { Currency, FreeText, Id, Int, Maybe, Num, OneOf, Text, When, Yes, Day } from './fields.ts';

/** A box of sheets or a roll in the drawer. */
export class BoxInput {
  @Id() paperId!: string;
  @OneOf(['sheet', 'roll']) kind!: 'sheet' | 'roll';
  @Text(60) label!: string;
  @Num(10, 5000) widthMm!: number;
  /** Height of a sheet; length of a whole roll. */
  @Num(10, 200_000) heightMm!: number;
  /** Sheets it held when it was opened; 1 for a roll. */
  @Int(1, 10_000) sheets!: number;
  /** What it says on it. */
  @FreeText(120) batch!: string;
  @Day() boughtOn!: string;
  @Maybe() @Num(0, 1e6) price?: number;
  @Currency() currency!: string;
  @Maybe() @FreeText(1000) note?: string;
}

/** A box was counted: sheets that are in it, or mm that are on the roll. */
export class BoxCount {
  @Num(0, 200_000) left!: number;
}

export class BoxView extends BoxInput {
  @Id() id!: string;
  @Int() revision!: number;
  @When() createdAt!: string;
  /** When it was counted last, and what was in it then; absent where it never was. */
  @Maybe() @Num(0) counted?: number;
  @Maybe() @When() countedAt?: string;
  /** Sheets left, or mm of a roll; below 0 where more was taken than it held. */
  @Num() left!: number;
  /** Of a box: a sheet; of a roll: a metre. Absent without a price. */
  @Maybe() @Num(0) each?: number;
  /** What is left, at that price. */
  @Maybe() @Num() worth?: number;
  /** The day something was last taken from it. */
  @Maybe() @When() touchedOn?: string;
  /** Nothing was taken for a year. */
  @Yes() idle!: boolean;
}
