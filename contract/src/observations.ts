import { OBSERVATION_KINDS, TAKES, type ObservationKind } from '@rakuen/core/measurement/observations';
import { FEED_PATHS, type FeedKey } from '@rakuen/core/print/feed';
import { FreeText, Id, Int, Maybe, Num, Numbers, OneOf, Parts, Plain, Text, When, Yes } from './fields.ts';

const KINDS = Object.keys(OBSERVATION_KINDS);

export class GlossValue {
  @OneOf([20, 60, 85]) angleDeg!: 20 | 60 | 85;
  @Numbers(0, 2000) white!: number[];
  @Numbers(0, 2000, 0) black!: number[];
}
export class WeightValue {
  @Numbers(0.01, 100_000) grams!: number[];
  @Num(10, 5000) widthMm!: number;
  @Num(10, 100_000) heightMm!: number;
}
export class ThicknessValue {
  @Numbers(1, 1e6) stackUm!: number[];
  @Int(1, 1000) sheets!: number;
}
export class OpacityValue {
  @Numbers(0.1, 120) overBlack!: number[];
  @Numbers(0.1, 120) overStack!: number[];
}
export class RubValue {
  @Num(0, 100_000) minutesAfterPrinting!: number;
  @Int(0, 4) grade!: number;
}
/** A grade by eye, 0 to 4. */
export class GradeValue {
  @Int(0, 4) grade!: number;
}

/** One way into the printer, as the hands found it. */
export class FeedingValue {
  @OneOf(Object.keys(FEED_PATHS)) feed!: FeedKey;
  @OneOf(Object.keys(TAKES)) takes!: keyof typeof TAKES;
  @Maybe() @Int(1, 500) stack?: number;
  @FreeText(40) headHeight!: string;
  @FreeText(40) suction!: string;
  @Int(0, 4) corners!: number;
  @Maybe() @Int(0, 4) coreCurl?: number;
  @Yes() borderless!: boolean;
  @Yes() customSizes!: boolean;
  @Maybe() @Yes() reloads?: boolean;
}

/** What a scan gave. */
export class TextureValue {
  @Num(0.05, 10) wavelengthMm!: number;
  @Num(0, 10) wavelengthSd!: number;
  @Num(0, 100) amplitudeL!: number;
  @Num(0, 100) amplitudeSd!: number;
  @Num(50, 10_000) ppi!: number;
}

/** What a value must look like, by kind. A texture comes from a scan and is never typed in. */
export const VALUE_CLASSES = {
  gloss: GlossValue,
  weight: WeightValue,
  thickness: ThicknessValue,
  opacity: OpacityValue,
  rub: RubValue,
  bronzing: GradeValue,
  rings: GradeValue,
  hairlines: GradeValue,
  curl: GradeValue,
  scuffs: GradeValue,
  feeding: FeedingValue,
} as const satisfies Partial<Record<ObservationKind, new () => object>>;

/** Kinds for which the bench has a stand-in. */
export const BENCH_KINDS = ['gloss', 'weight', 'thickness', 'opacity'] as const satisfies readonly ObservationKind[];
export type BenchKind = (typeof BENCH_KINDS)[number];

/** Something found out at the bench. */
export class ObservationInput {
  @OneOf(Object.keys(VALUE_CLASSES)) kind!: keyof typeof VALUE_CLASSES;
  /** By kind: see the classes above. */
  @Plain() value!: object;
  @When() takenAt!: string;
  /** Who looked or measured. */
  @Text(80) by!: string;
  @FreeText(120) instrument!: string;
  /** The light it was judged under. */
  @Maybe() @FreeText(80) light?: string;
  @Maybe() @FreeText(1000) note?: string;
}

/** What was found at one sitting: gloss at three angles comes together. All of it is kept, or none. */
export class ObservationsInput {
  @Parts(() => ObservationInput, 20) observations!: ObservationInput[];
  /** Set by the person who was asked about a value that is hard to believe, and says that it is right. */
  @Maybe() @Yes() sure?: boolean;
}

export class BenchRequest {
  @OneOf(BENCH_KINDS) kind!: BenchKind;
}

export class SimulatedScanInput {
  @Text(80) by!: string;
}

export class ScanFields {
  @FreeText(8) ppi!: string;
  @Text(80) by!: string;
  @FreeText(120) instrument!: string;
}

/** A scan as it was kept, or with its contrast raised to fill the picture: the tooth of a smooth sheet is too faint for a screen. */
export class ScanQuery {
  @Maybe() @OneOf(['raised']) as?: 'raised';
}

export class ObservationView {
  @Id() id!: string;
  @Id() conditionId!: string;
  @OneOf(KINDS) kind!: ObservationKind;
  /** By kind: see the classes above. */
  @Plain() value!: object;
  @When() takenAt!: string;
  @Text(80) by!: string;
  @FreeText(120) instrument!: string;
  @FreeText(80) light!: string;
  @FreeText(1000) note!: string;
  /** A scan is kept with it. */
  @Maybe() @Text(64) scanHash?: string;
}

/** What a stand-in of the bench gives; nothing is kept. */
export class BenchValue {
  @Text(120) instrument!: string;
  /** Values of the kind; several for gloss, an angle each. */
  @Plain() values!: object[];
}
