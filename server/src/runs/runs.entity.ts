import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { RunPlan } from '@rakuen/core/print/run-order';
import type { Presence } from '@rakuen/core/print/run-timing';

/** A session at the printer, as it was planned. */
@Entity('runs')
export class RunRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') printer!: string;
  @Column('text') state!: 'open' | 'closed';
  @Column('simple-json') present!: Presence[];
  /** `unplaced` is absent in runs of before. */
  @Column('simple-json') plan!: Omit<RunPlan, 'steps' | 'unplaced'> & { unplaced?: readonly string[] };
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
  /** Of runs of before: it was planned for when nobody was there. */
  @Column('boolean') alone!: boolean;
  /** When its feeder is loaded, minutes from the beginning; null in runs of before. */
  @Column('simple-json', { nullable: true }) loads!: number[] | null;
  @Column('text') state!: 'waiting' | 'printed' | 'left';
  @Column('simple-json') looked!: string[];
}
