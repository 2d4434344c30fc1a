import { CLARITIES, EYE_VERDICTS, type Clarity, type EyeVerdict } from '@rakuen/core/eye/decision';
import { FreeText, Id, Ids, Int, Maybe, Num, OneOf, Parts, Rows, Text, When } from './fields.ts';
import { EYE_CRITERIA, TABLE_SIZE, type EyeCriterion } from './vocabulary.ts';

/** A blind comparison: prints behind codes, two at a time. */
export class EyeInput {
  @Ids(TABLE_SIZE) conditionIds!: string[];
  @OneOf(EYE_CRITERIA) criterion!: EyeCriterion;
  /** The question, where it is one of the printmaker’s own. */
  @Maybe() @FreeText(120) question?: string;
  /** How often each pair is seen. */
  @Int(1, 60) times!: number;
  /** How clear a difference is expected; clear where absent. */
  @Maybe() @OneOf(Object.keys(CLARITIES)) clarity?: Clarity;
  @Text(80) observer!: string;
  @Text(80) light!: string;
}

export class EyeChoice {
  /** Which of the pairs, from 0: the one that is next. */
  @Int(0, 10_000) turn!: number;
  @OneOf(['left', 'right', 'neither']) said!: 'left' | 'right' | 'neither';
}

/** A print's place by eye, shown once all pairs were seen. */
export class EyePlace {
  @Id() conditionId!: string;
  @Text() code!: string;
  @Num() scale!: number;
  /** Standard error; absent where the choices do not bound it. */
  @Maybe() @Num() error?: number;
}

export class EyeView extends EyeInput {
  @Id() id!: string;
  @When() createdAt!: string;
  /** Which print each code stands for, once every pair was seen. Before that it is shown apart, to the person who writes the codes. */
  @Rows() labels!: { conditionId: string; code: string }[];
  @Int() pairCount!: number;
  @Rows() choices!: { left: string; right: string; said: string }[];
  /** Codes of the pair that is next; absent when all were seen. */
  @Maybe() @FreeText() left?: string;
  @Maybe() @FreeText() right?: string;
  @Parts(() => EyePlace) places!: EyePlace[];
  /** What the answers allow to be said, once every pair was seen. */
  @Maybe() @OneOf(EYE_VERDICTS) verdict?: EyeVerdict;
  /** How often guessing gives answers at least as one-sided, 0–1. */
  @Maybe() @Num(0, 1) chance?: number;
  /** How often so many decided looks find a difference of the clarity expected, 0–1. */
  @Maybe() @Num(0, 1) power?: number;
  /** Likelihood ratio against “all alike”. */
  @Maybe() @Num() chiSquared?: number;
}

/** What lies behind the codes, for whoever writes them on the backs: in the order of a list that tells nothing. */
export class EyeLabels {
  @Rows() labels!: { conditionId: string; code: string; name: string }[];
}
