import type { Figure } from '@rakuen/core/measurement/figure';
import type { OutlinePoint } from '@rakuen/core/gamut/outline';
import type { ReadingSpectra } from '@rakuen/core/measurement/reading-spectra';
import type { Lab } from '@rakuen/core/colour/types';
import type { RampStep } from '@rakuen/core/measurement/neutral-ramp';
import type { LikeCandidate } from '@rakuen/core/likeness/likeness';
import { CommaIds, FreeText, Id, Int, Maybe, Num, OneOf, Part, Parts, Plain, Rows, Text, When, Yes } from './fields.ts';
import { PaperHead } from './papers.ts';
import { ObservationView } from './observations.ts';
import { PassSpreadView, ReadingView } from './readings.ts';
import {
  BLACK_INKS,
  PRINT_MODES,
  READING_SOURCES,
  type ReadingSourceName,
  type BlackInk,
  type PrintMode,
} from './vocabulary.ts';

/** Measures a list shows. */
export const HEAD_MEASURES = ['white', 'black', 'brightenerShift', 'dmax', 'gamutVolume'] as const;
export type HeadMeasure = (typeof HEAD_MEASURES)[number];
/** So many print conditions are given whole at once. */
export const WHOLE_AT_MOST = 64;

/** How a paper is printed. A paper alone has no gamut and no black: this does. */
export class HowPrinted {
  @Id() paperId!: string;
  @Text(80) printer!: string;
  @Text(80) inkSet!: string;
  @OneOf(BLACK_INKS) blackInk!: BlackInk;
  @Text(120) mediaSetting!: string;
  /** Empty where nobody said. */
  @FreeText(40) resolution!: string;
  @OneOf(PRINT_MODES) printMode!: PrintMode;
  /** Name of the profile; empty where the driver manages colour. */
  @FreeText(160) profile!: string;
  @Yes() blackOvercoat!: boolean;
}

export class ConditionInput extends HowPrinted {
  @Maybe() @FreeText() notes?: string;
}

/** What a list shows of what was measured. */
export class FactsHead {
  /** The reading the figures of colour come from; absent while nothing but the bench was used. */
  @Maybe() @Id() readingId?: string;
  /** The figures of colour are a profile's word and were not measured. */
  @Maybe() @OneOf(READING_SOURCES) source?: ReadingSourceName;
  @Plain() figures!: Partial<Record<HeadMeasure, Figure>>;
  /** Some of its greys at even steps from black to paper, L*a*b*, for a drawing. */
  @Maybe() @Rows() greys?: Lab[];
}

/** A print condition as it stands in a list. */
export class ConditionHead extends HowPrinted {
  /** Counts its changes: sent back as If-Match with the next. */
  @Int() revision!: number;
  @Id() id!: string;
  @When() createdAt!: string;
  @Part(() => PaperHead) paper!: PaperHead;
  @Maybe() @Part(() => FactsHead) facts?: FactsHead;
  /** What parts it from others of its paper that are named alike. */
  @Maybe() @Text(600) apart?: string;
  /** The profile of that name, known here. */
  @Maybe() @Id() profileId?: string;
  /** The reading chosen by hand to give the figures. */
  @Maybe() @Id() figuresFrom?: string;
}

/** Which print conditions are wanted whole. */
export class WholeQuery {
  /** Ids, with commas between. */
  @CommaIds(WHOLE_AT_MOST) ids!: string[];
}

/** What was measured of a print condition: figures by measure key, greys and the outline. */
export class ConditionFacts {
  /** Version of the measures they were computed with. */
  @Int() version!: number;
  /** The reading the figures of colour come from; absent while nothing but the bench was used. */
  @Maybe() @Id() readingId?: string;
  /** The figures of colour are a profile's word and were not measured. */
  @Maybe() @OneOf(READING_SOURCES) source?: ReadingSourceName;
  @Plain() figures!: Record<string, Figure>;
  /** ΔE00 from which two greys were taken to be told apart. */
  @Maybe() @Num(0, 1000) toldFrom?: number;
  /** Reading by measure, where a figure comes from another set than `readingId`, which does not support it. */
  @Maybe() @Plain() borrowed?: Record<string, string>;
  @Maybe() @Rows() ramp?: RampStep[];
  @Maybe() @Plain() spectra?: ReadingSpectra;
  @Rows() outline!: OutlinePoint[];
  @Maybe() @OneOf(['device surface', 'modified hull']) gamutMethod?: string;
  /** Repeated readings behind the repeatability; absent where an assumption stands in. */
  @Maybe() @Int() repeats?: number;
  /** How far the passes of a patch lie from their mean; absent where no patch was read twice. */
  @Maybe() @Part(() => PassSpreadView) passes?: PassSpreadView;
}

/** A print condition whole. */
export class ConditionView extends ConditionHead {
  @Maybe() @FreeText() notes?: string;
  @Maybe() @Part(() => ConditionFacts) override facts?: ConditionFacts = undefined;
  @Parts(() => ReadingView) readings!: ReadingView[];
  /** Of this print condition, and of the bare sheet by any condition of the same paper; from old to new. */
  @Parts(() => ObservationView) observations!: ObservationView[];
}

/** A sheet that may stand in for another: what it is told by, and those of its figures that may be held against the other's. */
export class LikesView {
  @Plain() missed!: LikeCandidate;
  @Rows() candidates!: LikeCandidate[];
}
