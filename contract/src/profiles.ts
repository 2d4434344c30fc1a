import type { ModelError } from '@rakuen/core/characterisation/model-error';
import type { Recognised } from '@rakuen/core/proof/mistakes';
import type { ProfileCheck } from '@rakuen/core/characterisation/profile-check';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import { Id, Int, Maybe, Num, OneOf, Part, Parts, Plain, Rows, Text, When, Words, Yes } from './fields.ts';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import { JOB_STATES, MEASUREMENT_CONDITIONS } from './vocabulary.ts';

export const PROFILE_SOURCES = ['made', 'brought', 'named'] as const;
export type ProfileSource = (typeof PROFILE_SOURCES)[number];
export const PROFILE_VERSIONS = [2, 4] as const;
export const PROFILE_GRIDS = [17, 33, 45] as const;
export const PROFILE_GREYS = ['paper', 'D50'] as const;
/** Brightener as the instrument saw it: M1 and M0 with it, M2 without. */
export const BUILT_FROM = ['M1', 'M0', 'M2'] as const;

/** How a profile is to be made. */
export class ProfileSettingsInput {
  @Text(160) name!: string;
  @OneOf(PROFILE_VERSIONS) version!: 2 | 4;
  /** Nodes along each axis of the tables from Lab. */
  @OneOf(PROFILE_GRIDS) grid!: 17 | 33 | 45;
  /** Greys as neutral as the paper, or as D50. */
  @OneOf(PROFILE_GREYS) greys!: 'paper' | 'D50';
  /** Key of a light of the table. */
  @Text(40) light!: string;
  /** The measurement condition it is built from; the one that speaks for the condition where absent. */
  @Maybe() @OneOf(BUILT_FROM) builtFrom?: (typeof BUILT_FROM)[number];
  /** Whether its print condition is printed through it as soon as it is written; so where absent. */
  @Maybe() @Yes() use?: boolean;
}

/** A time in which a print condition was printed through a profile. */
export class ProfileUse {
  @Id() conditionId!: string;
  @When() since!: string;
  /** Absent while it still is. */
  @Maybe() @When() until?: string;
}

/** A file of readings that a model does not use. */
export class LeftOutFile {
  @Text(200) fileName!: string;
  @Text(1000) why!: string;
}

/** A patch of a reading, by its name on the chart. */
export class LeftOutPatch {
  @Id() readingId!: string;
  @Text(200) patch!: string;
}

/** A known print, and how well it explains the patches that were read: mean ΔE00 of those left out in turn. */
export class RelativeView {
  @Text(400) name!: string;
  @Num() deltaE00!: number;
}

/** What a condition's model knows, and of itself. */
export class ModelView {
  @Id() conditionId!: string;
  @OneOf(['RGB', 'CMYK']) deviceSpace!: 'RGB' | 'CMYK';
  @Maybe() @OneOf(MEASUREMENT_CONDITIONS) measurementCondition?: MeasurementCondition;
  /** Whether other lights can be told. */
  @Yes() spectral!: boolean;
  /** Whether the brightener is told apart from the ink. */
  @Yes() brightenerApart!: boolean;
  /** Files of the readings it was computed from. */
  @Words() sets!: string[];
  /** Readings that were not joined with the primary one, and why. */
  @Parts(() => LeftOutFile) leftOut!: LeftOutFile[];
  /** Of each questioned patch of `error`, in its order, the reading that holds it; null where several were averaged. */
  @Rows() questionedIn!: (string | null)[];
  /** Patches that somebody left out. */
  @Parts(() => LeftOutPatch) leftOutPatches!: LeftOutPatch[];
  /** The known print that few patches were added to. */
  @Maybe() @Part(() => RelativeView) like?: RelativeView;
  /** The known print that explains the patches second best. */
  @Maybe() @Part(() => RelativeView) runnerUp?: RelativeView;
  @Plain() error!: ModelError;
  /** Measurement conditions that were read, of which a profile can be built. */
  @Words() canBuildFrom!: string[];
}

/** A profile that is known here. */
export class ProfileView {
  @Id() id!: string;
  @When() createdAt!: string;
  @Text(200) name!: string;
  @OneOf(PROFILE_SOURCES) source!: ProfileSource;
  /** Whether there is a file of it. */
  @Yes() kept!: boolean;
  @Maybe() @Text(8) space?: string;
  /** Cubic CIELAB units; absent where it encloses none. */
  @Maybe() @Num() volume?: number;
  /** The print condition whose readings it was made from. */
  @Maybe() @Id() conditionId?: string;
  @Maybe() @Plain() settings?: ProfileSettingsInput;
  @Maybe() @Plain() error?: ModelError;
  @Maybe() @Id() supersededBy?: string;
  /** Print conditions that are printed through it. */
  @Words() usedBy!: string[];
  /** When it was used, and by what, from the first to the last. */
  @Parts(() => ProfileUse) uses!: ProfileUse[];
  @Int() checks!: number;
}

export class SolidView {
  @Id() id!: string;
  @Plain() mesh!: GamutMesh;
}

/** A profile being made. */
export class ProfileJob {
  @Id() id!: string;
  @OneOf(JOB_STATES) state!: (typeof JOB_STATES)[number];
  /** 0–1. */
  @Num(0, 1) progress!: number;
  @Maybe() @Id() profileId?: string;
  @Maybe() @Plain() error?: { message: string; remedy?: string; field?: string };
}

/** Which profile a print condition is printed through; none where absent. */
export class ProfileChoice {
  @Maybe() @Id() profileId?: string;
}

/** Readings of a condition that were printed through a profile. */
export class CheckInput {
  @Id() readingId!: string;
}

export class CheckFields {
  /** The print condition the strip was printed in. */
  @Maybe() @Id() conditionId?: string;
}

/** How a strip printed through a profile held against it. */
export class CheckView {
  @Id() id!: string;
  @When() at!: string;
  @Id() profileId!: string;
  @Maybe() @Id() conditionId?: string;
  @Text(200) fileName!: string;
  @Plain() result!: ProfileCheck & {
    /** What may have happened, the likeliest first; of checks made before it was asked absent. */
    readonly recognised?: Recognised;
    /** How kinds of colours came out, the worst first. */
    readonly off?: readonly string[];
  };
  /** The verdict as a sentence. */
  @Text(600) words!: string;
}

export class CheckList {
  @Parts(() => CheckView) checks!: CheckView[];
}

/** How many patches the next chart is to hold. */
export class NextPatchesInput {
  @Int(5, 60) count!: number;
}
