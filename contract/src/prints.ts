import {
  Lines,
  FreeText,
  Id,
  Int,
  Maybe,
  Num,
  OneOf,
  Part,
  Parts,
  Plain,
  Rows,
  Several,
  Text,
  When,
  Words,
  Yes,
} from './fields.ts';
import { WhereaboutsView } from './clients.ts';
import { PhotographView } from './photographs.ts';
import { RecipeValues } from './recipes.ts';
import type { Difference } from '@rakuen/core/print/differences';
import type { Since } from '@rakuen/core/print/since';
import {
  BLACK_INKS,
  DECIDERS,
  INTENTS,
  PRINT_MODES,
  PRINT_STATES,
  SETTING_KEYS,
  VERDICTS,
  type BlackInk,
  type PrintMode,
  type PrintState,
  type SettingKey,
} from './vocabulary.ts';

/** Every setting a print was made with. */
export class PrintSettings {
  @Text(80) printer!: string;
  @Text(80) inkSet!: string;
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: string;
  @FreeText(40) resolution!: string;
  @OneOf(PRINT_MODES) printMode!: PrintMode;
  @FreeText(160) profile!: string;
  @OneOf(INTENTS) intent!: (typeof INTENTS)[number];
  @Yes() blackPointCompensation!: boolean;
  @Yes() blackOvercoat!: boolean;
  @FreeText(120) sharpening!: string;
  @FreeText(60) feed!: string;
  /** Exposure added for paper, stops. */
  @Maybe() @Num(-3, 3) liftStops?: number;
  /** Head passes: one way, both ways. */
  @Maybe() @FreeText(60) direction?: string;
  @Maybe() @FreeText(60) headHeight?: string;
  @Maybe() @FreeText(60) suction?: string;
  /** Minutes it lies before it is judged or touched. */
  @Maybe() @Num(0, 100_000) dryingMinutes?: number;
}

/** A recipe as a print was made by it: it stays though the recipe is changed or removed. */
export class PrintRecipe {
  @Id() id!: string;
  /** Empty for the one that was not saved under a name. */
  @FreeText(80) name!: string;
  /** How often it had been changed, from 1. */
  @Int(1) version!: number;
  @When() changedAt!: string;
  @Part(() => RecipeValues) values!: RecipeValues;
}

/** Checks a print was marked as printed without, and the reason given for it. */
export interface PassedChecks {
  readonly checks: readonly string[];
  readonly reason: string;
}

/** Sheets spoilt on the way, as they are told with a print; each is booked by itself. */
export class PrintAside {
  /** Sheets spoilt on the way. */
  @Maybe() @Int(0, 10_000) misprints?: number;
  @Maybe() @FreeText(1000) misprintCause?: string;
}

export class PrintInput extends PrintAside {
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
  @Maybe() @FreeText() notes?: string;
  /** The box or roll its sheet came from. */
  @Maybe() @Id() boxId?: string;
  /** The light it was judged in, and who decided, and why. */
  @Maybe() @FreeText(80) judgedIn?: string;
  @Maybe() @OneOf(DECIDERS) decidedBy?: (typeof DECIDERS)[number];
  @Maybe() @FreeText(2000) decidedWhy?: string;
}

/** Begins a print: from a picture and a sheet, or as an earlier one. */
export class PrintBegin {
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Id() conditionId?: string;
  /** The print to be repeated. */
  @Maybe() @Id() printId?: string;
  /** The line of an order it is made for. */
  @Maybe() @Id() orderLineId?: string;
}

/** Changes what waits, a setting at a time; what is changed or looked at is no longer carried over. */
export class PrintSettle {
  @Maybe() @Plain() settings?: Partial<PrintSettings>;
  /** Settings that were looked at and stay. */
  @Maybe() @Several(SETTING_KEYS) looked?: SettingKey[];
  @Maybe() @Num(5, 20_000) widthMm?: number;
  @Maybe() @Num(5, 20_000) heightMm?: number;
  @Maybe() @Int(1, 10_000) copies?: number;
  @Maybe() @Id() boxId?: string;
  @Maybe() @FreeText() notes?: string;
  /** A recipe of this picture on this sheet, to be made by. */
  @Maybe() @Id() recipeId?: string;
}

/** It came out of the printer. */
export class PrintDone {
  @Maybe() @When() printedOn?: string;
  /** Minutes it took at the printer, as timed. */
  @Maybe() @Num(0, 100_000) minutes?: number;
  /** Why it is marked as printed though checks are open; recorded with the print. */
  @Maybe() @Text(200) passReason?: string;
}

export class PrintView extends PrintInput {
  @OneOf(PRINT_STATES) state!: PrintState;
  @Int(0) declare misprints: number;
  @FreeText(1000) declare misprintCause: string;
  @Maybe() @Num(0) minutes?: number;
  /** Of a waiting print: where each setting came from. */
  @Plain() carriedFrom!: Record<string, string>;
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Id() id!: string;
  @When() recordedAt!: string;
  /** Short code of this record, to be typed from a label. */
  @Text(12) code!: string;
  /** Absent where nothing was done to the picture, or where it was not recorded. */
  @Maybe() @Part(() => PrintRecipe) recipe?: PrintRecipe;
  /** SHA-256 of the profile, of the picture's file and of the print file it was made from; absent where not known. */
  @Maybe() @Text(64) profileHash?: string;
  @Maybe() @Text(64) pictureHash?: string;
  @Maybe() @Text(64) fileHash?: string;
  @Maybe() @FreeText(300) fileName?: string;
  /** Checks it was marked as printed without. */
  @Maybe() @Plain() passed?: PassedChecks;
  /** The line of an order it was made for. */
  @Maybe() @Id() orderLineId?: string;
  /** Of a waiting print: settings that differ from what went before and were not checked. */
  @Maybe() @Several(SETTING_KEYS) unchecked?: SettingKey[];
}

/** A stamped media setting, as far as a print asks for it. */
export class StandingView {
  @Text() mediaSetting!: string;
  @Lines() reason!: string;
  @Text(80) by!: string;
  @When() stampedAt!: string;
}

/** A proof that is kept with its print, and the light and glass it was drawn for. */
export class PrintProofView {
  @When() at!: string;
  @Text(60) light!: string;
  @Text(20) glass!: string;
}

/** The order a print was made for, as it is named. */
export class PrintOrder {
  @Id() id!: string;
  @Text(160) name!: string;
  @Text(160) client!: string;
}

/** A waiting print held against what went before. */
export class PrintLook {
  @Part(() => PrintView) print!: PrintView;
  /** What differs from the last sheet through the printer, from the last print of the picture, from the standing setting. */
  @Rows() differs!: Difference[];
  /** The media setting that was stamped for this paper in this printer, and why. */
  @Maybe() @Part(() => StandingView) standing?: StandingView;
  /** What changed since the print that is repeated. */
  @Rows() since!: Since[];
  /** Checks that are still open and can spoil the sheet, in words; it is marked as printed only with a reason then. */
  @Words() open!: string[];
  /** The newest recipe of this picture on this sheet, where it is not the one this print is made by. */
  @Maybe() @Part(() => PrintRecipe) newerRecipe?: PrintRecipe;
  /** Sentences learned from the ledger that matter here. */
  @Words() learned!: string[];
  /** Cautions where the hands are. */
  @Words() cautions!: string[];
  /** How its proof looked when it was printed; absent where the sheet was not read. */
  @Maybe() @Part(() => PrintProofView) proof?: PrintProofView;
  /** The order it was made for. */
  @Maybe() @Part(() => PrintOrder) order?: PrintOrder;
  /** Where its copies are, and were. */
  @Part(() => WhereaboutsView) whereabouts!: WhereaboutsView;
  /** Of the print as it hung or lay, from old to new. */
  @Parts(() => PhotographView) photographs!: PhotographView[];
}

export class PrintsQuery {
  @Maybe() @OneOf(PRINT_STATES) state?: PrintState;
}

/** Words each setting had on each printer, to choose from. */
export class SettingWordsView {
  @Plain() words!: Partial<Record<SettingKey, string[]>>;
}

export class SettingWordsQuery {
  @Text(80) printer!: string;
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
