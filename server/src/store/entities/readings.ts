import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ChartDesign, ChartSpec } from '@rakuen/core/chart/chart-design';
import type { Lab, Spectrum } from '@rakuen/core/colour/types';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import type { Finding } from '@rakuen/core/session/strip-check';
import type { ReadingSourceName, Rehearsal } from '@rakuen/contract/vocabulary';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';

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

/** What the columns of a spreadsheet held the last time, by the names of its columns. */
@Entity('column_mappings')
export class ColumnMappingRow {
  @PrimaryColumn('text') signature!: string;
  @Column('simple-json') mapping!: ColumnMapping;
  @Column('text') savedAt!: string;
}
