import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import type { ReadingSourceName } from '@rakuen/contract/vocabulary';
import type { MeasurementCondition } from '@rakuen/core/measurement/reading';

@Entity('readings')
export class ReadingRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') conditionId!: string;
  @Column('text') fileName!: string;
  @Column('text') contentHash!: string;
  /** Which of the readings in the file, from 0. */
  @Column('integer') part!: number;
  @Column('integer') patchCount!: number;
  @Column('text') colourFrom!: string;
  @Column('text', { nullable: true }) deviceSpace!: string | null;
  @Column('text', { nullable: true }) measurementCondition!: MeasurementCondition | null;
  @Column('text', { nullable: true }) instrument!: string | null;
  @Column('text', { nullable: true }) backing!: string | null;
  @Column('text', { nullable: true }) measuredAt!: string | null;
  @Column('text') importedAt!: string;
  @Column('text') source!: ReadingSourceName;
  @Column('text') batch!: string;
  @Column('text', { nullable: true }) printedAt!: string | null;
  /** Why it was kept apart from the other readings of the print condition: what it resembles more. */
  @Column('text', { nullable: true }) apart!: string | null;
  /** Patches that somebody left out, by their names on the chart. */
  @Column('simple-json', { default: '[]' }) leftOut!: string[];
  /** How the columns of a spreadsheet were mapped. */
  @Column('simple-json', { nullable: true }) mapping!: ColumnMapping | null;
}

/** What the columns of a spreadsheet held the last time, by the names of its columns. */
@Entity('column_mappings')
export class ColumnMappingRow {
  @PrimaryColumn('text') signature!: string;
  @Column('simple-json') mapping!: ColumnMapping;
  @Column('text') savedAt!: string;
}
