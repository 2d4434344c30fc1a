import type { ToldByFile } from '@rakuen/core/formats/told-by-file';
import type { HowPrinted } from './conditions.ts';
import { FreeText, Id, Int, Maybe, OneOf, Part, Parts, Plain, Text, When, Words, Yes } from './fields.ts';
import { PaperInput } from './papers.ts';
import { BLACK_INKS, INBOX_KINDS, MEASUREMENT_CONDITIONS, type BlackInk, type InboxKind } from './vocabulary.ts';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';

/** Form fields beside a file that comes in. */
export class InboxFields {
  /** Its folders and name, where it came in a folder; else the file's own name. */
  @Maybe() @Text(400) path?: string;
}

/** Where a file of readings belongs, as proposed. */
export class InboxProposal {
  /** A print condition that is there. */
  @Maybe() @Id() conditionId?: string;
  /** A paper that is there, printed in a way that is not. */
  @Maybe() @Id() paperId?: string;
  /** In words: the paper and how it is printed. */
  @FreeText(400) name!: string;
  /** What speaks for it. */
  @FreeText(600) why!: string;
}

/** A file in the inbox. */
export class InboxFile {
  @Id() id!: string;
  @When() at!: string;
  @Text(400) name!: string;
  @Int() bytes!: number;
  @OneOf(INBOX_KINDS) kind!: InboxKind;
  /** In words: what it was recognised as. */
  @FreeText(200) what!: string;
  /** Patches, and the measurement conditions it holds. */
  @Maybe() @Int() patchCount?: number;
  @Words() conditions!: MeasurementCondition[];
  /** What it says of its paper and of how that was printed. */
  @Maybe() @Plain() told?: ToldByFile;
  @Maybe() @Part(() => InboxProposal) belongs?: InboxProposal;
  /** What a hand has to say before it is imported. */
  @Words() unclear!: string[];
  /** It is imported with all that are certain. */
  @Yes() certain!: boolean;
  /** Why it was refused, and what to do. */
  @Maybe() @Text(2000) fault?: string;
  @Maybe() @Text(2000) remedy?: string;
  @Maybe() @When() importedAt?: string;
  @Maybe() @FreeText(600) importedAs?: string;
  @Maybe() @Id() conditionId?: string;
}

export class InboxView {
  @Parts(() => InboxFile) files!: InboxFile[];
}

/** How a paper is printed, without the paper. */
export class InboxPrinted {
  @Text(80) printer!: HowPrinted['printer'];
  @Text(80) inkSet!: HowPrinted['inkSet'];
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: HowPrinted['mediaSetting'];
  @FreeText(40) resolution!: HowPrinted['resolution'];
}

/** Where a file goes. It is named, so that no other is taken for it. */
export class InboxImport {
  @Text(400) name!: string;
  /** A print condition that is there; */
  @Maybe() @Id() conditionId?: string;
  /** or a paper, there or new, and how it is printed. */
  @Maybe() @Id() paperId?: string;
  @Maybe() @Part(() => PaperInput) paper?: PaperInput;
  @Maybe() @Part(() => InboxPrinted) printed?: InboxPrinted;
  /** Which box, where it is another than the first. */
  @Maybe() @FreeText(80) batch?: string;
  /** Keeps readings that resemble another print more: as a set of their own, which gives no figures unless it is chosen. */
  @Maybe() @OneOf(['apart']) keep?: 'apart';
  /** Stated where the file does not say. */
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
}
