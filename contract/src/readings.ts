import type { Figure } from '@rakuen/core/measurement/figure';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import { FreeText, Id, Int, Maybe, OneOf, Plain, Text, When, Words, Yes } from './fields.ts';
import { MEASUREMENT_CONDITIONS } from './vocabulary.ts';

/** Form fields beside the file of a reading. */
export class ReadingFields {
  /** Stated by the printmaker where the file does not say. */
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @FreeText(200) instrument?: string;
}

/** What was recognised in a file, before it is kept. */
export class ReadingPreview {
  @Text() fileName!: string;
  @Int() patchCount!: number;
  @Words() columns!: string[];
  @Words() recognised!: string[];
  @Words() missing!: string[];
  @OneOf(['spectrum', 'XYZ', 'Lab']) colourFrom!: string;
  @Maybe() @OneOf(['white', 'black']) backing?: string;
  @Maybe() @OneOf(['RGB', 'CMYK']) deviceSpace?: string;
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @Text() instrument?: string;
  @Maybe() @Text() measuredAt?: string;
  @Plain() figures!: Record<string, Figure>;
}

export class ReadingView {
  @Id() id!: string;
  @Id() conditionId!: string;
  @Text() fileName!: string;
  @Text(64) contentHash!: string;
  @Int() patchCount!: number;
  @OneOf(['spectrum', 'XYZ', 'Lab']) colourFrom!: string;
  @Maybe() @OneOf(['RGB', 'CMYK']) deviceSpace?: string;
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @Text() instrument?: string;
  @Maybe() @OneOf(['white', 'black']) backing?: string;
  /** As written in the file. */
  @Maybe() @Text() measuredAt?: string;
  @When() importedAt!: string;
  /** The condition's figures come from this reading. */
  @Yes() primary!: boolean;
}
