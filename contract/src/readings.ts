import type { Figure } from '@rakuen/core/measurement/figure';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import { FreeText, Id, Int, Maybe, OneOf, Parts, Plain, Text, When, Words, Yes } from './fields.ts';
import { MEASUREMENT_CONDITIONS, EXPORT_FORMATS, type ExportFormat } from './vocabulary.ts';

/** Form fields beside the file of a reading. */
export class ReadingFields {
  /** Stated by the printmaker where the file does not say. */
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @FreeText(200) instrument?: string;
}

/** As what a reading is taken away; as the file that was brought where absent. */
export class ReadingFileQuery {
  @Maybe() @OneOf(EXPORT_FORMATS) as?: ExportFormat;
}

/** One of several readings in a file. */
export class ReadingPart {
  @Int() patchCount!: number;
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
}

/** What was recognised in a file, before it is kept. The words and figures are those of its first reading. */
export class ReadingPreview {
  /** All readings of the file: one, or one a measurement condition. */
  @Parts(() => ReadingPart) parts!: ReadingPart[];
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
  /** Which of the readings in the file, from 0. */
  @Int() part!: number;
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
