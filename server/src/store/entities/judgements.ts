import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PackItem } from '@rakuen/core/layout/pack-plan';
import type { PackSpec } from '@rakuen/contract/packs';
import type { TrialView } from '@rakuen/contract/trials';
import type { EyeCriterion } from '@rakuen/contract/vocabulary';

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
