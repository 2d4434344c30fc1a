import type { RecipeKey } from '@rakuen/core/proof/recipe';
import { Id, Lines, Maybe, Num, OneOf, Part, Text, When } from './fields.ts';
import { STRIP_PARTS } from './strips.ts';

/** What the eye found on strips: the best step of a part of the recipe, among which, and seen in which light. */
export class StripFinding {
  @OneOf(STRIP_PARTS) part!: RecipeKey;
  @Num(-2, 2) value!: number;
  /** All the steps that were looked at, as they were written. */
  @Text(80) steps!: string;
  /** Absent where it was not said. */
  @Maybe() @Text(80) light?: string;
}

/** A note in the ledger: about a picture, a paper, a print condition, or about nothing in particular. */
export class NoteInput {
  @Lines() text!: string;
  @Maybe() @Text(80) by?: string;
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Id() paperId?: string;
  @Maybe() @Id() conditionId?: string;
  /** Of a picture on a print condition. */
  @Maybe() @Part(() => StripFinding) finding?: StripFinding;
}

export class NoteView extends NoteInput {
  @Id() id!: string;
  @When() at!: string;
}
