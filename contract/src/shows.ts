import { FreeText, Id, Ids, Int, Maybe, Num, OneOf, Parts, Rows, Text, Weights, When, Words, Yes } from './fields.ts';
import { MAX_SHOW_PICTURES, PAPER_STANDINGS, type PaperStanding } from './vocabulary.ts';

export class ShowPaper {
  @Id() paperId!: string;
  @OneOf(PAPER_STANDINGS) standing!: PaperStanding;
}

/** Pictures that hang together, and the papers they may be printed on. */
export class ShowInput {
  @Text(120) name!: string;
  /** Where it hangs, in words. */
  @FreeText(200) place!: string;
  /** Light, glass and level there; absent where each picture keeps its own. */
  @Maybe() @Text(60) light?: string;
  @Maybe() @Text(20) glass?: string;
  @Maybe() @Num(1, 20_000) lux?: number;
  /** Mean loss that is accepted, in points of 10, against every picture on its best paper. */
  @Num(0, 10) maxLoss!: number;
  /** One look for all. */
  @Yes() sameSurface!: boolean;
  @Yes() sameWhite!: boolean;
  /** Every measured paper is considered, besides those named. */
  @Yes() allPapers!: boolean;
  /** In their order on the wall. */
  @Ids(MAX_SHOW_PICTURES) pictureIds!: string[];
  @Parts(() => ShowPaper, 1000) papers!: ShowPaper[];
}

export class ShowView extends ShowInput {
  @Id() id!: string;
  @When() createdAt!: string;
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
}

/** A show in a list. */
export class ShowHead {
  @Id() id!: string;
  @When() createdAt!: string;
  @Text(120) name!: string;
  @FreeText(200) place!: string;
  @Int() pictures!: number;
  /** In their order. */
  @Words() pictureIds!: string[];
  /** Names of the papers that are chosen. */
  @Words() chosenPapers!: string[];
}

export class ShowPlanRequest {
  /** Scores from all colours of every picture; from a hundred each where absent. */
  @Maybe() @Yes() exact?: boolean;
  /** Weights of criteria by key; what is not named keeps its default. */
  @Maybe() @Weights() weights?: Record<string, number>;
  /** A name by which it can be asked how far it is, and be cancelled. */
  @Maybe() @Id() work?: string;
}

/** A paper of a plan: a column of its scores. */
export interface PlannedPaper {
  readonly paperId: string;
  readonly name: string;
  readonly standing: PaperStanding;
  /** Its print conditions that were scored. */
  readonly conditionIds: readonly string[];
}

/** A picture of a plan: a row of its scores. */
export interface PlannedPicture {
  readonly pictureId: string;
  /** By paper, 0–10; null where it is refused. */
  readonly scores: readonly (number | null)[];
  /** By paper, which of its print conditions the score is of; null where it is refused. */
  readonly conditions: readonly (string | null)[];
}

export interface PlannedChoice {
  readonly paperIds: readonly string[];
  readonly meanScore: number;
  readonly meanLoss: number;
  /** The picture that loses most. */
  readonly hardest: { readonly pictureId: string; readonly score: number; readonly loss: number };
  /** No choice of as many papers has a higher mean. */
  readonly atMost: number;
}

/** What a paper more, or less, does to the recommended choice. */
export interface PlannedChange {
  readonly paperId: string;
  readonly byMean: number;
  readonly pictures: number;
  readonly most: { readonly pictureId: string; readonly by: number };
}

export class ShowPlanView {
  /** Scores from all colours of every picture; approximate otherwise. */
  @Yes() exactScores!: boolean;
  /** Every choice of papers was tried; otherwise `atMost` bounds what was not. */
  @Yes() exactSearch!: boolean;
  @Rows() papers!: PlannedPaper[];
  @Rows() pictures!: PlannedPicture[];
  /** The best of each number of papers. */
  @Rows() choices!: PlannedChoice[];
  /** Which of the choices is recommended: the fewest papers within the accepted loss; absent where none is. */
  @Maybe() @Int() fewest?: number;
  /** For the recommended choice, or the last one. */
  @Rows() drops!: PlannedChange[];
  @Rows() additions!: PlannedChange[];
  /** Pairs of chosen papers that do not look alike, though one look is wished for. */
  @Rows() unlike!: (readonly [string, string])[];
  /** Mean score of as many papers without the wish for one look; absent without the wish. */
  @Maybe() @Num(0, 10) meanWithoutWish?: number;
  /** Papers that are not compared, and why. */
  @Rows() leftOut!: { readonly paperId: string; readonly name: string; readonly why: string }[];
}
