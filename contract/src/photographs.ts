import { FreeText, Id, Int, Maybe, OneOf, Text, When } from './fields.ts';
import { PHOTOGRAPH_KINDS, type PhotographKind } from './vocabulary.ts';

/** What is said of a photograph as it is brought. */
export class PhotographFields {
  @OneOf(PHOTOGRAPH_KINDS) kind!: PhotographKind;
  /** The light the print hung or lay in. */
  @Maybe() @FreeText(80) light?: string;
  @Maybe() @FreeText(1000) note?: string;
}

/** A photograph or a scan of a print. */
export class PhotographView {
  @Id() id!: string;
  @Id() printId!: string;
  @When() at!: string;
  @Text() fileName!: string;
  @OneOf(PHOTOGRAPH_KINDS) kind!: PhotographKind;
  @FreeText(80) light!: string;
  @FreeText(1000) note!: string;
  @Int(1) widthPx!: number;
  @Int(1) heightPx!: number;
}
