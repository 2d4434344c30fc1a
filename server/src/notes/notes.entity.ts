import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { StripFinding } from '@rakuen/contract/notes';

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
