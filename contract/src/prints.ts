import { FreeText, Id, Int, Maybe, Num, OneOf, Part, Plain, Text, When, Words, Yes } from './fields.ts';
import { BLACK_INKS, INTENTS, PRINT_MODES, VERDICTS, type BlackInk, type PrintMode } from './vocabulary.ts';

/** Every setting a print was made with. */
export class PrintSettings {
  @Text(80) printer!: string;
  @Text(80) inkSet!: string;
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: string;
  @Text(40) resolution!: string;
  @OneOf(PRINT_MODES) printMode!: PrintMode;
  @FreeText(160) profile!: string;
  @OneOf(INTENTS) intent!: (typeof INTENTS)[number];
  @Yes() blackPointCompensation!: boolean;
  @Yes() blackOvercoat!: boolean;
  @FreeText(120) sharpening!: string;
  @FreeText(60) feed!: string;
}

export class PrintInput {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  /** Day it was printed, ISO 8601. */
  @When() printedOn!: string;
  /** Size of the image on the sheet. */
  @Num(5, 20_000) widthMm!: number;
  @Num(5, 20_000) heightMm!: number;
  @Int(1, 10_000) copies!: number;
  @Part(() => PrintSettings) settings!: PrintSettings;
  /** Settings that were taken over unchanged and not looked at one by one. */
  @Words(20) carriedOver!: string[];
  @OneOf(VERDICTS) verdict!: (typeof VERDICTS)[number];
  @FreeText(2000) verdictReason!: string;
  /** Sheets spoilt on the way. */
  @Int(0, 10_000) misprints!: number;
  @FreeText(1000) misprintCause!: string;
  @Maybe() @FreeText() notes?: string;
}

export class PrintView extends PrintInput {
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Id() id!: string;
  @When() recordedAt!: string;
}

export class ProposalQuery {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
}

/** Settings proposed for a new print, each with where it was carried over from. */
export class PrintProposal {
  @Part(() => PrintSettings) settings!: PrintSettings;
  /** Setting key → "the print condition", "the print of 2026-03-04". */
  @Plain() carriedFrom!: Record<string, string>;
  @Maybe() @Num() widthMm?: number;
  @Maybe() @Num() heightMm?: number;
}
