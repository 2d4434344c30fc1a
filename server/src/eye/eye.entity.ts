import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { EyeCriterion } from '@rakuen/contract/vocabulary';
import type { BlindPair } from '@rakuen/core/eye/blind-order';
import type { Clarity } from '@rakuen/core/eye/decision';

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
  /** The pairs in the order in which they are shown. */
  @Column('simple-json', { default: '[]' }) pairs!: BlindPair[];
  @Column('text', { default: 'clear' }) clarity!: Clarity;
}

@Entity('eye_choices')
export class EyeChoiceRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') sessionId!: string;
  @Column('integer') turn!: number;
  @Column('text') said!: 'left' | 'right' | 'neither';
  @Column('text') at!: string;
}
