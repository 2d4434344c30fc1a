import type { Figure } from '@rakuen/core/measurement/figure';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import {
  SET_VERDICTS,
  type ComparedPatch,
  type PassSpread,
  type SetVerdict,
} from '@rakuen/core/measurement/set-comparison';
import { DEVICE_SCALES, type ColumnRole, type DeviceScale } from '@rakuen/core/formats/column-mapping';
import { FreeText, Id, Int, Maybe, Num, OneOf, Part, Parts, Plain, Rows, Text, When, Words, Yes } from './fields.ts';
import {
  MEASUREMENT_CONDITIONS,
  EXPORT_FORMATS,
  READING_SOURCES,
  type ExportFormat,
  type ReadingSourceName,
} from './vocabulary.ts';

/** Form fields beside the file of a reading. */
export class ReadingFields {
  /** Stated by the printmaker where the file does not say. */
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @FreeText(200) instrument?: string;
  /** Which box or formulation of the paper: empty for the first. */
  @Maybe() @FreeText(80) batch?: string;
  /** When the chart was printed, for the drying time. */
  @Maybe() @When() printedAt?: string;
  /** Keeps readings that resemble another print more: as a set of their own, which gives no figures unless it is chosen. */
  @Maybe() @OneOf(['apart']) keep?: 'apart';
  /** The print condition they are meant for: a preview compares them with what it holds. */
  @Maybe() @Id() conditionId?: string;
  /** What the columns of a spreadsheet hold, as JSON: { roles, startNm?, stepNm? }. */
  @Maybe() @FreeText(100_000) mapping?: string;
}

/** The columns of a table whose names don't say what they hold, to be mapped. */
export class SpreadsheetPreview {
  @Words() columns!: string[];
  /** The first rows, as they stand in the file. */
  @Rows() sample!: string[][];
  @Rows() roles!: ColumnRole[];
  @Maybe() @Num() startNm?: number;
  @Maybe() @Num() stepNm?: number;
  /** What device values run to; told from them where absent. */
  @Maybe() @OneOf(DEVICE_SCALES) deviceScale?: DeviceScale;
  /** The mapping was remembered from a file with the same columns. */
  @Yes() remembered!: boolean;
  /** Why the mapping gives no reading yet. */
  @Maybe() @Text(1000) fault?: string;
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

/** A print condition that incoming readings were compared with. */
export class ResemblanceView {
  @Id() conditionId!: string;
  /** Its paper and media setting. */
  @FreeText(400) name!: string;
  /** Mean over the common patches. */
  @Num(0) deltaE00!: number;
  @Int() common!: number;
}

/** Where incoming readings belong, by what is kept. */
export class PlacingView {
  /** The nearest print conditions, the one they are meant for left out. */
  @Parts(() => ResemblanceView) resembles!: ResemblanceView[];
  /** What the print condition they are meant for holds. */
  @Maybe() @Part(() => ResemblanceView) own?: ResemblanceView;
  /** Why they do not belong there; absent where nothing speaks against it. */
  @Maybe() @Text(1000) against?: string;
  /** They may be of another box of that paper: stated, it lets them in. */
  @Maybe() @Yes() otherBox?: boolean;
}

/** Patches that are left out of a reading, all of them. */
export class LeftOutPatches {
  @Words(5000) patches!: string[];
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
  /** What the file says it holds. */
  @Maybe() @FreeText(4000) description?: string;
  /** What stands in its head. */
  @Maybe() @Plain() keywords?: Record<string, string>;
  @OneOf(READING_SOURCES) source!: ReadingSourceName;
  @Plain() figures!: Record<string, Figure>;
  /** Which print conditions it resembles. */
  @Maybe() @Part(() => PlacingView) placing?: PlacingView;
  /** Where it does not go together with what the maker claims of the paper it is meant for. */
  @Maybe() @Words() claims?: string[];
  /** Present for CSV and TSV: the columns and what they are taken for. */
  @Maybe() @Part(() => SpreadsheetPreview) spreadsheet?: SpreadsheetPreview;
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
  @OneOf(READING_SOURCES) source!: ReadingSourceName;
  /** Box or formulation of the paper; empty for the first. */
  @FreeText(80) batch!: string;
  @Maybe() @When() printedAt?: string;
  /** Why it was kept apart from the others: it gives no figures unless it is chosen. */
  @Maybe() @Text(400) apart?: string;
  /** Patches that somebody left out, by their names on the chart. */
  @Words() leftOut!: string[];
  /** The condition's figures come from this reading. */
  @Yes() primary!: boolean;
}

/** One reading of a print condition in its history, with figures of its own. */
export class HistoryEntry {
  @Id() readingId!: string;
  @Text() fileName!: string;
  @FreeText(80) batch!: string;
  @OneOf(READING_SOURCES) source!: ReadingSourceName;
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  @Maybe() @Text() instrument?: string;
  /** When it was measured where the file says so, else when it was kept. */
  @Text() at!: string;
  /** Hours between printing and reading; absent where either is not known. */
  @Maybe() @Num() driedHours?: number;
  /** Rows of the file: each pass of each patch. */
  @Int() patchCount!: number;
  /** Patches that differ: several passes of one are one. */
  @Int() patches!: number;
  @Plain() figures!: Record<string, Figure>;
}

export class HistoryView {
  @Id() conditionId!: string;
  /** From old to new. */
  @Parts(() => HistoryEntry) entries!: HistoryEntry[];
}

/** Passes of patches about their mean. */
export class PassSpreadView implements PassSpread {
  @Num(0) meanDeltaE00!: number;
  @Int() patches!: number;
}

/** Two sets of readings held against each other, patch by patch. */
export class SetComparisonView {
  /** Patches that both hold. */
  @Int() common!: number;
  /** ΔE00 over the common patches. */
  @Num(0) mean!: number;
  @Num(0) p95!: number;
  @Num(0) max!: number;
  /** Mean ΔE00 that the noise of both sets alone gives; absent where one of them repeats no patch. */
  @Maybe() @Num(0) noise?: number;
  @Maybe() @Part(() => PassSpreadView) laterPasses?: PassSpreadView;
  @Maybe() @Part(() => PassSpreadView) firstPasses?: PassSpreadView;
  /** How likely noise alone gives so systematic a difference, 0–1. */
  @Num(0, 1) chance!: number;
  @OneOf(SET_VERDICTS) verdict!: SetVerdict;
  /** Patches that differ by themselves, beyond the noise of the others. */
  @Int() singles!: number;
  /** The patches furthest apart. */
  @Rows() worst!: ComparedPatch[];
}

/** Which reading the figures come from; the newest where absent. */
export class FiguresFrom {
  @Maybe() @Id() readingId?: string;
}
