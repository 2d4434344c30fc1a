import type { Lesson } from '@rakuen/core/ledger/learned';
import type { Rate } from '@rakuen/core/cost/spoilage';
import { EditionView } from './editions.ts';
import {
  BASES,
  BRIGHTENER_CLAIMS,
  COATING_CLASSES,
  SURFACES,
  type Base,
  type BrightenerClaim,
  type CoatingClass,
  type Surface,
} from '@rakuen/core/paper';
import { BLACK_INKS, PRINT_MODES, type BlackInk, type PrintMode } from './vocabulary.ts';
import {
  Currency,
  Day,
  FreeText,
  Id,
  Int,
  Maybe,
  Num,
  OneOf,
  Part,
  Parts,
  Plain,
  QueryInt,
  Rows,
  Text,
  When,
  Words,
  Yes,
} from './fields.ts';
import { BoxView } from './stock.ts';

export const ENTRY_KINDS = ['decision', 'print', 'misprint', 'trial', 'number', 'move', 'note'] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

export class LedgerQuery {
  /** Words that must all occur: paper, picture, reason, setting, verdict, cause, client. */
  @Maybe() @Text(200) q?: string;
  @Maybe() @OneOf(ENTRY_KINDS) kind?: EntryKind;
  @Maybe() @Id() pictureId?: string;
  @Maybe() @Id() paperId?: string;
  /** From this day, to this day, both counted. */
  @Maybe() @Day() since?: string;
  @Maybe() @Day() until?: string;
  /** The page begins after so many. */
  @Maybe() @QueryInt() from?: number;
}

/** What a paper is known by in a ledger. */
export class LedgerPaper {
  @Text(80) maker!: string;
  @Text(120) name!: string;
  @Maybe() @OneOf(Object.keys(COATING_CLASSES)) coating?: CoatingClass;
  @Maybe() @OneOf(BASES) base?: Base;
  @Maybe() @OneOf(SURFACES) surface?: Surface;
  @OneOf(BRIGHTENER_CLAIMS) brightenerClaim!: BrightenerClaim;
  @Maybe() @Num(10, 2000) weightGsm?: number;
  @Maybe() @Num(20, 5000) thicknessUm?: number;
  @Currency() currency!: string;
}

/** How a sheet was printed. */
export class LedgerCondition {
  @Text(80) printer!: string;
  @Text(80) inkSet!: string;
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: string;
  @FreeText(40) resolution!: string;
  @OneOf(PRINT_MODES) printMode!: PrintMode;
  @FreeText(160) profile!: string;
  @Yes() blackOvercoat!: boolean;
}

/** What an entry is known by. */
export class EntryMark {
  @Id() id!: string;
  @When() at!: string;
}

/** A paper and how it was printed, as a ledger that is read into another studio brings it. */
export class LedgerSheet {
  @Part(() => LedgerPaper) paper!: LedgerPaper;
  /** Absent for an entry of a paper and of no print condition. */
  @Maybe() @Part(() => LedgerCondition) condition?: LedgerCondition;
}

/** A line of the ledger: something decided, printed, spoilt, stamped, numbered or noted. */
export class LedgerEntry {
  @Id() id!: string;
  @OneOf(ENTRY_KINDS) kind!: EntryKind;
  @When() at!: string;
  /** Absent for what is of no picture: a media-setting trial. */
  @Maybe() @Id() pictureId?: string;
  @Text() picture!: string;
  /** Absent for a note that is of none. */
  @Maybe() @Id() conditionId?: string;
  @Maybe() @Id() paperId?: string;
  @Text() paper!: string;
  @Text() condition!: string;
  /** Stamp, verdict, cause, setting, or what became of it. */
  @Text() outcome!: string;
  @Text() reason!: string;
  /** In a file alone: its paper and print condition in full. */
  @Maybe() @Part(() => LedgerSheet) sheet?: LedgerSheet;
  /** Everything else, flat: column name → value. */
  @Plain() details!: Record<string, string | number | boolean>;
}

/** What was asked, in figures; pictures and papers are those that were printed. */
export interface LedgerAnswer {
  readonly decisions: number;
  readonly prints: number;
  readonly copies: number;
  readonly pictures: number;
  readonly papers: number;
  readonly spoilt: number;
}

/** A calendar year of the ledger. */
export interface LedgerYear {
  readonly year: string;
  readonly entries: number;
}

export class LedgerView {
  /** The newest first; a page of them, or all where the ledger is taken away. */
  @Parts(() => LedgerEntry, 1e6) entries!: LedgerEntry[];
  @Int() total!: number;
  @Plain() answer!: LedgerAnswer;
  /** Of the first page: how many there are of each calendar year, the newest first. */
  @Maybe() @Rows() years?: LedgerYear[];
}

/** What became of a ledger that was read back. */
export class LedgerReadView {
  @Int() entered!: number;
  /** Entries that were here already. */
  @Int() known!: number;
  @Int() leftOut!: number;
  /** Papers and print conditions that were added by their names. */
  @Int() papers!: number;
  @Int() conditions!: number;
  /** The first of what was left out, and why; `entry` counts from 1. */
  @Rows() left!: { readonly entry: number; readonly why: string }[];
}

export interface SheetTried {
  readonly conditionId: string;
  readonly paper: string;
  readonly condition: string;
  /** The newest stamp, and why. */
  readonly stamp?: string;
  readonly reason?: string;
  readonly decidedAt?: string;
  readonly prints: number;
  readonly verdicts: readonly { readonly verdict: string; readonly reason: string; readonly on: string }[];
}

/** A picture’s life: the sheets that were tried, why each was left, its editions. */
export class PictureLife {
  @Id() pictureId!: string;
  @Text() title!: string;
  @Rows() sheets!: SheetTried[];
  @Parts(() => EditionView, 1000) editions!: EditionView[];
  @Words() learned!: string[];
  @Int() prints!: number;
  @Int() spoilt!: number;
}

export interface PictureOnPaper {
  readonly pictureId: string;
  readonly title: string;
  readonly prints: number;
  readonly verdicts: readonly string[];
  readonly stamp?: string;
}

/** A paper’s life: pictures on it, verdicts, spoilage, the boxes it came in. */
export class PaperLife {
  @Id() paperId!: string;
  @Text() name!: string;
  @Rows() pictures!: PictureOnPaper[];
  /** Verdict → prints. */
  @Plain() verdicts!: Record<string, number>;
  @Plain() stamps!: Record<string, number>;
  @Plain() spoilage!: Rate;
  @Rows() causes!: { cause: string; sheets: number }[];
  @Parts(() => BoxView, 1000) boxes!: BoxView[];
  /** Formulations that were read, from old to new. */
  @Rows() batches!: { batch: string; readOn: string }[];
  @Rows() trials!: { printer: string; mediaSetting: string; stampedAt: string; reason: string }[];
  @Rows() lessons!: Lesson[];
  @Maybe() @When() lastPrintedOn?: string;
}
