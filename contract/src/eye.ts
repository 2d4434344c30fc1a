import { FreeText, Id, Ids, Int, Maybe, Num, OneOf, Parts, Rows, Text, When, Yes } from './fields.ts';
import { EYE_CRITERIA, TABLE_SIZE, type EyeCriterion } from './vocabulary.ts';

/** A blind comparison: prints behind codes, two at a time. */
export class EyeInput {
  @Ids(TABLE_SIZE) conditionIds!: string[];
  @OneOf(EYE_CRITERIA) criterion!: EyeCriterion;
  /** The question, where it is one of the printmaker’s own. */
  @Maybe() @FreeText(120) question?: string;
  /** How often each pair is seen. */
  @Int(1, 6) times!: number;
  @Text(80) observer!: string;
  @Text(80) light!: string;
}

export class EyeChoice {
  /** Which of the pairs, from 0: the one that is next. */
  @Int(0, 10_000) turn!: number;
  @OneOf(['left', 'right', 'neither']) said!: 'left' | 'right' | 'neither';
}

/** A sheet's place by eye, told once all pairs were seen. */
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
  /** What lies behind the codes, once every pair was seen; before that it is told to whoever lays the prints out, apart. */
  @Rows() labels!: { conditionId: string; code: string }[];
  @Int() pairCount!: number;
  @Rows() choices!: { left: string; right: string; said: string }[];
  /** Codes of the pair that is next; absent when all were seen. */
  @Maybe() @FreeText() left?: string;
  @Maybe() @FreeText() right?: string;
  @Parts(() => EyePlace) places!: EyePlace[];
  @Maybe() @Yes() toldApart?: boolean;
  @Maybe() @Num() chiSquared?: number;
}

/** What lies behind the codes, for whoever writes them on the backs: in the order of a list that tells nothing. */
export class EyeLabels {
  @Rows() labels!: { conditionId: string; code: string; name: string }[];
}
