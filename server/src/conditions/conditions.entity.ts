import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ObservationKind } from '@rakuen/core/measurement/observations';
import type { BlackInk, PrintMode } from '@rakuen/contract/vocabulary';

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
  /** The reading chosen by hand to give the figures; the newest where null. */
  @Column('text', { nullable: true }) figuresFrom!: string | null;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
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
  /** Order of entry: of two with one instant the later entry is the newer. */
  @Column('integer', { default: 0 }) entry!: number;
}
