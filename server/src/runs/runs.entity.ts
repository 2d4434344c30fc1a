import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Presence, RunPlan } from '@rakuen/core/print/run-order';

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
