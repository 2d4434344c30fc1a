import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ReadingPreview } from '@rakuen/contract/readings';
import type { Fingerprint } from '@rakuen/core/measurement/fingerprint';
import type { InboxKind } from '@rakuen/contract/vocabulary';

/** What was recognised in a file of readings when it came in. */
export type FoundReadings = Pick<ReadingPreview, 'parts' | 'patchCount' | 'description' | 'keywords' | 'source'> & {
  /** Why it can't be read before its columns are mapped. */
  readonly fault?: string;
  /** What its readings are recognised by. */
  readonly prints: readonly Fingerprint[];
};

/** A file that came in: it waits, was imported, or was refused. */
@Entity('inbox')
export class InboxRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  /** With its folders, where it came in one. */
  @Column('text') name!: string;
  @Column('integer') bytes!: number;
  /** Absent where it was refused: then nothing of it is kept. */
  @Column('text', { nullable: true }) contentHash!: string | null;
  @Column('text') kind!: InboxKind;
  @Column('simple-json', { default: '{}' }) found!: Partial<FoundReadings>;
  @Column('text', { nullable: true }) fault!: string | null;
  @Column('text', { nullable: true }) remedy!: string | null;
  @Column('text', { nullable: true }) importedAt!: string | null;
  /** In words, as what. */
  @Column('text', { nullable: true }) importedAs!: string | null;
  @Column('text', { nullable: true }) conditionId!: string | null;
}
