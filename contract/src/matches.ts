import { GLASSES } from '@rakuen/core/light/glass';
import type { Agreement, LearnedEye } from '@rakuen/core/match/eye';
import type { Commission } from '@rakuen/core/match/commission';
import type { Reason } from '@rakuen/core/match/leanings/leaning';
import type { MatchFigures } from '@rakuen/core/match/on-sheet';
import type { Uncounted } from '@rakuen/core/match/judge';
import type { PartedBy, Turn } from '@rakuen/core/match/rank';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import { NoteView } from './notes.ts';
import {
  FreeText,
  Id,
  Ids,
  Int,
  Maybe,
  Num,
  OneOf,
  Part,
  Parts,
  Plain,
  Rows,
  Text,
  When,
  Lines,
  Weights,
  Yes,
} from './fields.ts';
import { STAMPS, type Stamp } from './vocabulary.ts';

export class MatchRequest {
  @Id() pictureId!: string;
  /** All measured print conditions where absent. */
  @Maybe() @Ids(200) conditionIds?: string[];
  /** Saved recipes of the picture: each is a place of its own, on its paper, by its rendering. */
  @Maybe() @Ids(40) recipeIds?: string[];
  /** Weights of leanings by key; what is not named keeps the weight it begins with. */
  @Maybe() @Weights() weights?: Record<string, number>;
  /** As if it hung behind another glass than its commission says. */
  @Maybe() @OneOf(GLASSES.map((g) => g.key)) glass?: string;
  /** A name by which it can be asked how far it is, and be left. */
  @Maybe() @Id() work?: string;
}

export class DecisionQuery {
  @Maybe() @Id() pictureId?: string;
}

/** A decision: the seal, and why. */
export class DecisionInput {
  @Id() pictureId!: string;
  @Id() conditionId!: string;
  @OneOf(STAMPS) stamp!: Stamp;
  @Lines() reason!: string;
  /** Who decided: the printmaker, the client. */
  @Maybe() @Text(80) decidedBy?: string;
}

export class DecisionView extends DecisionInput {
  @Id() id!: string;
  @When() decidedAt!: string;
  /** Place and score in the ranking when it was decided; absent where the match could not be computed. */
  @Maybe() @Int(1) place?: number;
  @Maybe() @Num(0, 10) score?: number;
  /** Share of the picture out of the sheet's reach then. */
  @Maybe() @Num(0, 1) lostShare?: number;
  /** Of decisions made before a match had a score: its cost, and the share outside the solid. */
  @Maybe() @Num() costDeltaE?: number;
  @Maybe() @Num(0, 1) outsideShare?: number;
}

/** A saved recipe that stands as a place of its own. */
export class MatchVersion {
  /** Of the recipe; its candidate and its place go by it. */
  @Id() id!: string;
  @Id() conditionId!: string;
  @FreeText(80) name!: string;
  /** Of the recipe as it was ranked. */
  @Int() revision!: number;
}

export class MatchPlace {
  @Id() conditionId!: string;
  /** The recipe it is printed by; absent for the picture as it is. */
  @Maybe() @Id() recipeId?: string;
  @Int(1) place!: number;
  /** 10: nothing is taken from the picture; 0: would not. With one standard deviation. */
  @Num(0, 10) score!: number;
  @Num(0) scoreSd!: number;
  /** What all reasons take together, weighted; lower is better. */
  @Num() cost!: number;
  /** What it does to the picture, in at most twelve words. */
  @Text() verdict!: string;
  @Rows() reasons!: Reason[];
  /** It and the next can't be told apart for sure. */
  @Yes() closeToNext!: boolean;
  /** Criteria that part it from the next, each with the figure of both. */
  @Rows() parts!: PartedBy[];
  @Plain() figures!: MatchFigures;
  /** The newest decision on this picture and condition. */
  @Maybe() @Part(() => DecisionView) decision?: DecisionView;
  /**
   * What the eye found on strips of this picture on it, the newest word of each part: judged, said beside the ranking
   * and not counted in it.
   */
  @Parts(() => NoteView) judged!: NoteView[];
}

/** Which pictures suit a sheet. */
export class SuitsRequest {
  @Id() conditionId!: string;
  /** All pictures where absent. */
  @Maybe() @Ids(500) pictureIds?: string[];
  @Maybe() @Weights() weights?: Record<string, number>;
}

/** One line of the answer: a picture on the sheet, where it will hang. */
export interface SuitLine {
  readonly pictureId: string;
  /** From all its colours; otherwise from its gist, and a line with all follows for those that come first. */
  readonly exact: boolean;
  readonly score: number;
  readonly scoreSd: number;
  readonly verdict: string;
  /** What would make it suit, to be tried on a strip. */
  readonly wouldHelp: readonly string[];
}
/** A picture that can't be judged on it, or is refused, and why. */
export interface UnsuitLine {
  readonly pictureId: string;
  readonly refused: string;
}
/** Ends the answer: without it the answer is incomplete. */
export interface SuitsEnd {
  readonly pictures: number;
}

export class LeftOut {
  @Id() conditionId!: string;
  @Text() why!: string;
}

export class MatchView {
  @Id() pictureId!: string;
  @Parts(() => MatchPlace) places!: MatchPlace[];
  /** Conditions left out, and why: nothing known, or a veto. */
  @Parts(() => LeftOut) leftOut!: LeftOut[];
  /** What is said of all alike. */
  @Rows() shared!: Reason[];
  @Rows() turns!: Turn[];
  @Rows() uncounted!: Uncounted[];
  /** Saved recipes among what was ranked. */
  @Parts(() => MatchVersion) versions!: MatchVersion[];
  /** What was ranked: with it the order can be told again under other weights. */
  @Rows() candidates!: { sheet: SheetQualities; figures: MatchFigures }[];
}

/** What a kept match was asked: the picture as it was known, where it was to live, the weights, the versions. */
export interface MatchInputs {
  readonly commission: Commission;
  readonly hints: readonly string[];
  readonly weights: Readonly<Record<string, number>>;
  readonly conditionIds?: readonly string[];
  readonly matchVersion: number;
  readonly pictureVersion?: number;
}
/** And what was answered. */
export interface MatchResult {
  readonly places: readonly {
    readonly conditionId: string;
    /** As it was called then. */
    readonly name: string;
    readonly place: number;
    readonly score: number;
    readonly scoreSd: number;
    readonly outsideShare: number;
    readonly meanDeltaE: number;
    readonly reasons: readonly { readonly leaning: string; readonly sentence: string; readonly cost: number }[];
  }[];
}

export class KeepMatch extends MatchRequest {
  @Text(120) name!: string;
}

export class KeptMatch {
  @Id() id!: string;
  @When() at!: string;
  @Id() pictureId!: string;
  @Text(120) name!: string;
  @Plain() inputs!: MatchInputs;
  @Plain() result!: MatchResult;
}

export class SchoolInput {
  @Text(60) name!: string;
  @Maybe() @FreeText(300) holds?: string;
  @Weights() weights!: Record<string, number>;
}

export class SchoolView extends SchoolInput {
  @Id() id!: string;
  @When() createdAt!: string;
}

/** How often each school, and a fit of one's own, would have chosen as it was decided. */
export class LearnedEyeView implements LearnedEye {
  @Int() decisions!: number;
  @Num(0) chance!: number;
  @Rows() schools!: Agreement[];
  @Maybe() @Plain() own?: LearnedEye['own'];
  /** Decisions that can't be learned from: nothing was kept with them, and their sheet is not matched any more, or not yet again. */
  @Int() leftOut!: number;
}
