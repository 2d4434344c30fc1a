import { Id, Lines, Maybe, Text, When } from './fields.ts';

/** A note in the ledger: about a picture, a paper, a print condition, or about nothing in particular. */
export class NoteInput {
  @Lines() text!: string;
  @Maybe() @Text(80) by?: string;
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Id() paperId?: string;
  @Maybe() @Id() conditionId?: string;
}

export class NoteView extends NoteInput {
  @Id() id!: string;
  @When() at!: string;
}
