import { Int, Text, When } from './fields.ts';

/** A backup that is kept beside the studio. */
export class BackupView {
  /** Its file name: what it is of, and when it was made. */
  @Text() name!: string;
  @When() at!: string;
  @Int() bytes!: number;
}
