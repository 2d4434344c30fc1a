import type { Reason } from '@rakuen/core/match/leanings/leaning';
import type { MatchFigures } from '@rakuen/core/match/match-figures';
import { Id, Ids, Int, Maybe, Num, OneOf, Part, Parts, Plain, Rows, Text, When, Lines } from './fields.ts';
import { STAMPS, type Stamp } from './vocabulary.ts';

export class MatchRequest {
  @Id() pictureId!: string;
  /** All measured print conditions where absent. */
  @Maybe() @Ids(200) conditionIds?: string[];
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
  /** Place and cost in the ranking when it was decided; absent where the match could not be computed. */
  @Maybe() @Int(1) place?: number;
  @Maybe() @Num() costDeltaE?: number;
  @Maybe() @Num(0, 1) outsideShare?: number;
}

export class MatchPlace {
  @Id() conditionId!: string;
  @Int(1) place!: number;
  /** ΔE00 over the whole picture, leanings included; lower is better. */
  @Num() cost!: number;
  @Rows() reasons!: Reason[];
  @Plain() figures!: MatchFigures;
  /** The newest decision on this picture and condition. */
  @Maybe() @Part(() => DecisionView) decision?: DecisionView;
}

export class LeftOut {
  @Id() conditionId!: string;
  @Text() why!: string;
}

export class MatchView {
  @Id() pictureId!: string;
  @Parts(() => MatchPlace) places!: MatchPlace[];
  /** Conditions left out, and why. */
  @Parts(() => LeftOut) leftOut!: LeftOut[];
}
