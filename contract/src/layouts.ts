import type { Borders, BorderStyle } from '@rakuen/core/layout/borders';
import { BORDER_STYLES, EDGES, type Edge } from '@rakuen/core/layout/borders';
import type { Cut } from '@rakuen/core/layout/cuts';
import { GRAINS, type Grain } from '@rakuen/core/layout/lie';
import type { NestedSheet, Piece } from '@rakuen/core/layout/nest';
import { Currency, Id, Int, Maybe, Num, OneOf, Part, Parts, Rows, Several, Text, Words, Yes } from './fields.ts';

export class StockInput {
  @OneOf(['sheet', 'roll']) kind!: 'sheet' | 'roll';
  @Num(10, 5000) widthMm!: number;
  @Num(10, 200_000) heightMm!: number;
  /** What the printer can’t print on, mm. */
  @Num(0, 200) top!: number;
  @Num(0, 200) right!: number;
  @Num(0, 200) bottom!: number;
  @Num(0, 200) left!: number;
  @Maybe() @Num(0, 1e6) price?: number;
  @Maybe() @Currency() currency?: string;
  /** What paper it is, and the printer it goes through: without an edge that stays bare both are asked whether they can. */
  @Maybe() @Id() paperId?: string;
  @Maybe() @Text(80) printer?: string;
  /** Which way its fibres run; absent where nobody knows. */
  @Maybe() @OneOf(Object.keys(GRAINS)) grain?: Grain;
  /** Torn edges, that stay as they are. */
  @Maybe() @Several(EDGES) deckle?: Edge[];
}

/** Something to be printed: a picture, a strip, a card. */
export class PieceInput {
  @Text(120) name!: string;
  @Maybe() @Id() pictureId?: string;
  @Num(5, 20_000) widthMm!: number;
  @Num(5, 20_000) heightMm!: number;
  @Int(1, 100) copies!: number;
  @Yes() mayTurn!: boolean;
  @OneOf(Object.keys(BORDER_STYLES)) border!: BorderStyle;
  @Num(0, 500) borderMm!: number;
  /** Which way its fibres shall run; absent where it does not matter. */
  @Maybe() @OneOf(Object.keys(GRAINS)) grain?: Grain;
  /** Written under the picture, in the border. */
  @Maybe() @Text(200) caption?: string;
}

export class LayoutInput {
  @Part(() => StockInput) stock!: StockInput;
  @Parts(() => PieceInput, 40) pieces!: PieceInput[];
  @Num(0, 100) gapMm!: number;
}

export interface LaidPiece extends Piece {
  readonly pictureId?: string;
  readonly borders: Borders;
  readonly caption?: string;
}

export class LayoutView {
  @Rows() sheets!: (NestedSheet<LaidPiece> & { readonly cuts: readonly Cut[] })[];
  @Rows() lacking!: LaidPiece[];
  /** Share of the paper that nothing lies on, 0–1. */
  @Num(0, 1) waste!: number;
  /** What to mind: grain, torn edges, whose word a print without a border rests on. */
  @Words() notes!: string[];
  @Maybe() @Num(0) wasted?: number;
  @Maybe() @Text(3) currency?: string;
}
