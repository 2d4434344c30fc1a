import type { ObservationKind } from '@rakuen/core/measurement/observations';
import { OBSERVATION_KINDS } from '@rakuen/core/measurement/observations';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import { PaperInput } from './papers.ts';
import { Rows, FreeText, Int, Maybe, OneOf, Part, Parts, Plain, Text, When, Yes } from './fields.ts';
import { BLACK_INKS, MEASUREMENT_CONDITIONS, PRINT_MODES, type BlackInk, type PrintMode } from './vocabulary.ts';

/** A file of readings in a bundle, and what was said of it beside. */
export class BundleReadings {
  @Text(300) fileName!: string;
  /** SHA-256 of the file, a key of `files`. */
  @Text(64) contentHash!: string;
  /** Stated by hand where the file does not say. */
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @FreeText(200) instrument?: string;
  @FreeText(80) batch!: string;
  @Maybe() @When() printedAt?: string;
  /** Why it was kept apart from the others. */
  @Maybe() @Text(1000) apart?: string;
  /** Patches that somebody left out, by the place of their reading in the file. */
  @Maybe() @Rows() leftOut?: string[][];
  /** How the columns of a spreadsheet were mapped. */
  @Maybe() @Plain() mapping?: ColumnMapping;
  /** One of its readings was chosen by hand to give the figures. */
  @Maybe() @Yes() chosen?: boolean;
}

export class BundleObservation {
  @OneOf(Object.keys(OBSERVATION_KINDS)) kind!: ObservationKind;
  /** As in the API, by kind. */
  @Plain() value!: object;
  @When() takenAt!: string;
  @Text(80) by!: string;
  @FreeText(120) instrument!: string;
  @FreeText(80) light!: string;
  @FreeText(1000) note!: string;
  /** A scan, PNG; a key of `files`. */
  @Maybe() @Text(64) scanHash?: string;
}

export class BundleCondition {
  @Text(80) printer!: string;
  @Text(80) inkSet!: string;
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: string;
  @FreeText(40) resolution!: string;
  @OneOf(PRINT_MODES) printMode!: PrintMode;
  @FreeText(160) profile!: string;
  @Yes() blackOvercoat!: boolean;
  @FreeText() notes!: string;
  @Parts(() => BundleReadings, 60) readings!: BundleReadings[];
  @Parts(() => BundleObservation, 1000) observations!: BundleObservation[];
  /** Figures as they stood when the bundle was written, for readers other than Rakuen; Rakuen computes its own. */
  @Maybe() @Plain() figures?: Record<string, unknown>;
}

/** Everything known of one paper, in one JSON file; docs/formats.md describes it. */
export class PaperBundle {
  @OneOf(['rakuen-paper']) format!: 'rakuen-paper';
  @Int(1, 1) version!: number;
  @When() writtenAt!: string;
  @Part(() => PaperInput) paper!: PaperInput;
  @Parts(() => BundleCondition, 40) conditions!: BundleCondition[];
  /** Content by SHA-256, base64. */
  @Plain() files!: Record<string, string>;
}
