import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Lab } from '@rakuen/core/colour/types';
import type { Finding } from '@rakuen/core/session/strip-check';
import type { Rehearsal } from '@rakuen/contract/vocabulary';

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
