import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { TrialView } from '@rakuen/contract/trials';

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
