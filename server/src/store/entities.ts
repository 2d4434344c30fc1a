import type { PhotographKind } from '@rakuen/contract/vocabulary';
import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ChartDesign, ChartSpec } from '@rakuen/core/chart/chart-design';
import type { Lab, Spectrum } from '@rakuen/core/colour/types';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import type { Commission } from '@rakuen/core/match/commission';
import type { Mark } from '@rakuen/core/picture/marks';
import type { Hint } from '@rakuen/core/picture/hints';
import type { StripFinding } from '@rakuen/contract/notes';
import type { MatchInputs, MatchResult } from '@rakuen/contract/matches';
import type { ModelError } from '@rakuen/core/characterisation/model-error';
import type { ProfileCheck } from '@rakuen/core/characterisation/profile-check';
import type { ObservationKind } from '@rakuen/core/measurement/observations';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import type { Finding } from '@rakuen/core/session/strip-check';
import type { ConditionFacts } from '@rakuen/contract/conditions';
import type { ProfileSettingsInput, ProfileSource } from '@rakuen/contract/profiles';
import type { PaperSize } from '@rakuen/contract/papers';
import type { PrintSettings } from '@rakuen/contract/prints';
import type { PackItem } from '@rakuen/core/layout/pack-plan';
import type { PackSpec } from '@rakuen/contract/packs';
import type { TrialView } from '@rakuen/contract/trials';
import type { DriftAccepted } from '@rakuen/contract/editions';
import type {
  BlackInk,
  EyeCriterion,
  PrintMode,
  PrintState,
  ReadingSourceName,
  Rehearsal,
  Stamp,
} from '@rakuen/contract/vocabulary';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';
import type { Base, BrightenerClaim, CoatingClass, Surface } from '@rakuen/core/paper';
import type { Fate, Series } from '@rakuen/core/print/edition';
import type { Recognised } from '@rakuen/core/proof/mistakes';
import type { Recipe } from '@rakuen/core/proof/recipe';
import type { Presence, RunPlan } from '@rakuen/core/print/run-order';

@Entity('papers')
export class PaperRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') maker!: string;
  @Column('text') name!: string;
  @Column('text') coating!: CoatingClass;
  @Column('text') base!: Base;
  @Column('text') surface!: Surface;
  @Column('text') brightenerClaim!: BrightenerClaim;
  @Column('real') weightGsm!: number;
  @Column('real') thicknessUm!: number;
  @Column('simple-json') sizes!: PaperSize[];
  @Column('text') currency!: string;
  @Column('text') notes!: string;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
}

@Entity('conditions')
export class ConditionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') paperId!: string;
  @Column('text') printer!: string;
  @Column('text') inkSet!: string;
  @Column('text') blackInk!: BlackInk;
  @Column('text') mediaSetting!: string;
  @Column('text') resolution!: string;
  @Column('text') printMode!: PrintMode;
  @Column('text') profile!: string;
  /** The profile of that name; kept by the database unless one is chosen. */
  @Column({ type: 'text', nullable: true, insert: false }) profileId!: string | null;
  @Column('boolean') blackOvercoat!: boolean;
  @Column('text') notes!: string;
  /** Recomputed whenever its readings change, in the same transaction. */
  @Column('simple-json', { nullable: true }) facts!: ConditionFacts | null;
  @Column('simple-json', { nullable: true, select: false }) mesh!: GamutMesh | null;
  /** The reading chosen by hand to give the figures; the newest where null. */
  @Column('text', { nullable: true }) figuresFrom!: string | null;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
}

@Entity('readings')
export class ReadingRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') conditionId!: string;
  @Column('text') fileName!: string;
  @Column('text') contentHash!: string;
  /** Which of the readings in the file, from 0. */
  @Column('integer') part!: number;
  @Column('integer') patchCount!: number;
  @Column('text') colourFrom!: string;
  @Column('text', { nullable: true }) deviceSpace!: string | null;
  @Column('text', { nullable: true }) measurementCondition!: MeasurementCondition | null;
  @Column('text', { nullable: true }) instrument!: string | null;
  @Column('text', { nullable: true }) backing!: string | null;
  @Column('text', { nullable: true }) measuredAt!: string | null;
  @Column('text') importedAt!: string;
  @Column('text') source!: ReadingSourceName;
  @Column('text') batch!: string;
  @Column('text', { nullable: true }) printedAt!: string | null;
  /** How the columns of a spreadsheet were mapped. */
  @Column('simple-json', { nullable: true }) mapping!: ColumnMapping | null;
}

/** What was found out at the bench besides the patches. */
@Entity('observations')
export class ObservationRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') conditionId!: string;
  @Column('text') kind!: ObservationKind;
  @Column('simple-json') value!: object;
  @Column('text') takenAt!: string;
  @Column('text') by!: string;
  @Column('text') instrument!: string;
  @Column('text') light!: string;
  @Column('text') note!: string;
  @Column('text', { nullable: true }) scanHash!: string | null;
}

/** A chart as it was laid out; the layout is kept, so that a printed sheet stays readable whatever later versions lay out. */
@Entity('charts')
export class ChartRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('simple-json') spec!: ChartSpec;
  @Column('simple-json') design!: ChartDesign;
}

/** A chart being read into a print condition. */
@Entity('sessions')
export class SessionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') conditionId!: string;
  @Column('text') chartId!: string;
  @Column('text') instrument!: string;
  @Column('integer') passes!: number;
  @Column('text') printedAt!: string;
  @Column('text') batch!: string;
  @Column('text') rehearsal!: Rehearsal;
  @Column('integer') seed!: number;
  @Column('text') state!: 'open' | 'finished';
  @Column('integer') sinceCalibration!: number;
  /** The sheet that lies under the instrument, from 0; a chart of one sheet is never asked for. */
  @Column('integer', { nullable: true }) sheetLaid!: number | null;
  @Column('simple-json') excluded!: { patch: number; pass: number }[];
}

/** One pass over a strip, committed before it is acknowledged: a session goes on from here after anything. */
@Entity('session_strips')
export class SessionStripRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') sessionId!: string;
  @Column('integer') strip!: number;
  @Column('integer') pass!: number;
  /** How often this strip was read in this pass before, withdrawn readings included. */
  @Column('integer') attempt!: number;
  /** Order in which the strips were read. */
  @Column('integer') turn!: number;
  @Column('text') takenAt!: string;
  @Column('integer') sinceCalibration!: number;
  @Column('text') state!: 'kept' | 'questioned' | 'withdrawn';
  @Column('simple-json') findings!: Finding[];
  @Column('simple-json') labs!: Lab[];
  /** Reflectance factors, Float32: M0, M1, M2, patch by patch, 36 bands each. */
  @Column('blob', { select: false }) spectra!: Buffer;
}

/** A lamp whose spectrum was imported. */
@Entity('lights')
export class LightRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('simple-json') spectrum!: Spectrum;
}

/** A profile: made here, brought from a maker, or known by its name alone. */
@Entity('profiles')
export class ProfileRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') source!: ProfileSource;
  @Column('text', { nullable: true }) contentHash!: string | null;
  @Column('text', { nullable: true }) space!: string | null;
  /** Cubic Lab units; null where it encloses none, or nothing is known of it. */
  @Column('real', { nullable: true }) volume!: number | null;
  @Column('simple-json', { nullable: true, select: false }) mesh!: GamutMesh | null;
  /** The print condition whose readings it was made from. */
  @Column('text', { nullable: true }) conditionId!: string | null;
  @Column('simple-json', { nullable: true }) settings!: ProfileSettingsInput | null;
  /** What the model knew of its own error when it was made. */
  @Column('simple-json', { nullable: true }) error!: ModelError | null;
  @Column('text', { nullable: true }) supersededBy!: string | null;
}

/** A strip printed through a profile and read, held against it. */
@Entity('profile_checks')
export class ProfileCheckRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') profileId!: string;
  @Column('text', { nullable: true }) conditionId!: string | null;
  @Column('text') fileName!: string;
  @Column('text', { nullable: true }) contentHash!: string | null;
  @Column('integer') part!: number;
  /** With it the mean error a profile of one's own was foretold to have then. */
  @Column('simple-json') result!: ProfileCheck & {
    readonly own?: number;
    readonly recognised?: Recognised;
    readonly off?: readonly string[];
  };
}

/** A blind comparison; its choices are written one by one. */
@Entity('eye_sessions')
export class EyeSessionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('simple-json') conditionIds!: string[];
  @Column('text') criterion!: EyeCriterion;
  @Column('text', { default: '' }) question!: string;
  @Column('integer') times!: number;
  @Column('text') observer!: string;
  @Column('text') light!: string;
  @Column('integer') seed!: number;
}

@Entity('eye_choices')
export class EyeChoiceRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') sessionId!: string;
  @Column('integer') turn!: number;
  @Column('text') said!: 'left' | 'right' | 'neither';
  @Column('text') at!: string;
}

/** A media setting stamped after a trial. */
@Entity('trials')
export class TrialRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') stampedAt!: string;
  @Column('text') conditionId!: string;
  @Column('text') paperId!: string;
  @Column('text') printer!: string;
  @Column('text') mediaSetting!: string;
  @Column('text') reason!: string;
  @Column('text', { name: 'by' }) by!: string;
  @Column('text') light!: string;
  @Column('simple-json') ranking!: TrialView['ranking'];
}

/** A pack of samples: what was asked, what goes on its sheets, and which of them were printed. */
@Entity('packs')
export class PackRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('simple-json') spec!: PackSpec;
  @Column('simple-json') items!: PackItem[];
  @Column('simple-json') printed!: string[];
}

/** What the columns of a spreadsheet held the last time, by the names of its columns. */
@Entity('column_mappings')
export class ColumnMappingRow {
  @PrimaryColumn('text') signature!: string;
  @Column('simple-json') mapping!: ColumnMapping;
  @Column('text') savedAt!: string;
}

@Entity('pictures')
export class PictureRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') addedAt!: string;
  @Column('text') title!: string;
  @Column('text') fileName!: string;
  @Column('text') contentHash!: string;
  @Column('text') previewHash!: string;
  @Column('text') format!: string;
  @Column('integer') widthPx!: number;
  @Column('integer') heightPx!: number;
  @Column('integer') bitsPerChannel!: number;
  @Column('text') profile!: string;
  @Column('boolean') profileAssumed!: boolean;
  @Column('simple-json') notes!: string[];
  @Column('simple-json') figures!: PictureFigures;
  @Column('integer') colourCells!: number;
  @Column('text', { default: '' }) caption!: string;
  @Column('simple-json', { nullable: true }) commission!: Commission | null;
  @Column('simple-json', { nullable: true }) marks!: Mark[] | null;
  @Column('simple-json', { nullable: true }) hints!: Hint[] | null;
  /** Float32: L*, a*, b*, share. */
  @Column('blob', { select: false }) cells!: Buffer;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** A match that was kept: what was asked, and what was answered then. */
@Entity('matches')
export class MatchRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') pictureId!: string;
  @Column('text') name!: string;
  @Column('simple-json') inputs!: MatchInputs;
  @Column('simple-json') result!: MatchResult;
}

/** A printmaker's own school. */
@Entity('schools')
export class SchoolRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') holds!: string;
  @Column('simple-json') weights!: Record<string, number>;
}

@Entity('decisions')
export class DecisionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') stamp!: Stamp;
  @Column('text') reason!: string;
  @Column('text') decidedBy!: string;
  @Column('text') decidedAt!: string;
  @Column('integer', { nullable: true }) place!: number | null;
  /** Of decisions made before a match had a score. */
  @Column('real', { nullable: true }) costDeltaE!: number | null;
  @Column('real', { nullable: true }) outsideShare!: number | null;
  @Column('real', { nullable: true }) score!: number | null;
  @Column('real', { nullable: true }) lostShare!: number | null;
}

@Entity('prints')
export class PrintRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') recordedAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') printedOn!: string;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('integer') copies!: number;
  @Column('simple-json') settings!: PrintSettings;
  @Column('simple-json') carriedOver!: string[];
  @Column('text') verdict!: string;
  @Column('text') verdictReason!: string;
  @Column('text') notes!: string;
  @Column('text') state!: PrintState;
  @Column('text', { nullable: true }) boxId!: string | null;
  /** The print it repeats. */
  @Column('text', { nullable: true }) fromPrintId!: string | null;
  /** Of a waiting print: where each setting came from. */
  @Column('simple-json') carriedFrom!: Record<string, string>;
  /** At the printer, as timed. */
  @Column('real', { nullable: true }) minutes!: number | null;
  @Column('text') judgedIn!: string;
  @Column('text') decidedBy!: string;
  @Column('text') decidedWhy!: string;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
}

/** A photograph or a scan of a print. */
@Entity('photographs')
export class PhotographRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') printId!: string;
  @Column('text') at!: string;
  @Column('text') contentHash!: string;
  @Column('text') fileName!: string;
  @Column('text') kind!: PhotographKind;
  @Column('text') light!: string;
  @Column('text') note!: string;
  @Column('integer') widthPx!: number;
  @Column('integer') heightPx!: number;
}

/** A box of sheets or a roll in the drawer. */
@Entity('boxes')
export class BoxRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') paperId!: string;
  @Column('text') kind!: 'sheet' | 'roll';
  @Column('text') label!: string;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('integer') sheets!: number;
  @Column('text') batch!: string;
  @Column('text') boughtOn!: string;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('text') currency!: string;
  @Column('text') note!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** What spoils sheets; the list grows. */
@Entity('causes')
export class CauseRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') name!: string;
  /** The look that would have caught it; empty where none would. */
  @Column('text') look!: string;
}

/** Sheets that were spoilt. */
@Entity('misprints')
export class MisprintRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text', { nullable: true }) printId!: string | null;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') causeId!: string;
  @Column('integer') sheets!: number;
  @Column('real') minutes!: number;
  @Column('real', { nullable: true }) lost!: number | null;
  @Column('text', { nullable: true }) currency!: string | null;
  @Column('text', { nullable: true }) boxId!: string | null;
  @Column('text') feed!: string;
  @Column('text') note!: string;
}

@Entity('editions')
export class EditionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') name!: string;
  @Column('integer', { nullable: true }) size!: number | null;
  @Column('integer') artist!: number;
  @Column('integer') printer!: number;
  @Column('integer') good!: number;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('text') batch!: string;
  @Column('simple-json') accepted!: DriftAccepted[];
  @Column('text') notes!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** A number that was given: never to another print, whatever becomes of this one. */
@Entity('numbers')
export class NumberRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') editionId!: string;
  @Column('text') series!: Series;
  @Column('integer') number!: number;
  @Column('text', { nullable: true }) printId!: string | null;
  @Column('text') givenAt!: string;
  @Column('text') batch!: string;
  @Column('text') fate!: Fate;
  @Column('text', { nullable: true }) fateOn!: string | null;
  @Column('text') fateTo!: string;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('text', { nullable: true }) currency!: string | null;
  @Column('text') note!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** What is done to a picture for its print on a sheet. */
@Entity('recipes')
export class RecipeRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') changedAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') name!: string;
  @Column('simple-json') values!: Recipe;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** A session at the printer, as it was planned. */
@Entity('runs')
export class RunRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') printer!: string;
  @Column('text') state!: 'open' | 'closed';
  @Column('simple-json') present!: Presence[];
  @Column('simple-json') plan!: Omit<RunPlan, 'steps'>;
  @Column('simple-json') looked!: string[];
}

@Entity('run_items')
export class RunItemRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') runId!: string;
  @Column('text') printId!: string;
  @Column('integer') turn!: number;
  @Column('real') startMin!: number;
  @Column('real') endMin!: number;
  @Column('boolean') blackInkChange!: boolean;
  @Column('boolean') feedChange!: boolean;
  @Column('boolean') alone!: boolean;
  @Column('text') state!: 'waiting' | 'printed' | 'left';
  @Column('simple-json') looked!: string[];
}

/** A note in the ledger. */
@Entity('notes')
export class NoteRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') text!: string;
  @Column('text') by!: string;
  @Column('text', { nullable: true }) pictureId!: string | null;
  @Column('text', { nullable: true }) paperId!: string | null;
  @Column('text', { nullable: true }) conditionId!: string | null;
  /** What the eye found on strips of a picture on a print condition. */
  @Column('simple-json', { nullable: true }) finding!: StripFinding | null;
}

/** What holds for the whole studio: settings, rates; null where nobody has said anything yet. */
@Entity('rules')
export class RuleRow {
  @PrimaryColumn('text') id!: 'settings' | 'rates';
  @Column('simple-json', { nullable: true }) value!: object | null;
  @Column('integer') revision!: number;
}

/** Single documents: the table. */
@Entity('documents')
export class DocumentRow {
  @PrimaryColumn('text') key!: string;
  @Column('simple-json') value!: object;
}

export const ENTITIES = [
  PaperRow,
  ConditionRow,
  ReadingRow,
  ObservationRow,
  ChartRow,
  SessionRow,
  SessionStripRow,
  ColumnMappingRow,
  LightRow,
  ProfileRow,
  ProfileCheckRow,
  EyeSessionRow,
  EyeChoiceRow,
  TrialRow,
  PackRow,
  PictureRow,
  MatchRow,
  SchoolRow,
  DecisionRow,
  PrintRow,
  PhotographRow,
  BoxRow,
  CauseRow,
  MisprintRow,
  EditionRow,
  NumberRow,
  RecipeRow,
  RunRow,
  RunItemRow,
  NoteRow,
  RuleRow,
  DocumentRow,
];
