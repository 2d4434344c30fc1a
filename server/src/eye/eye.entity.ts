import { Column, Entity, PrimaryColumn } from 'typeorm';
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
