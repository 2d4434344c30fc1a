import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PrintRecipe } from '@rakuen/contract/prints';

/** A print file that was written: the printmaker keeps the file, its hash is here. */
@Entity('print_files')
export class PrintFileRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') fileName!: string;
  /** SHA-256 of the file. */
  @Column('text') hash!: string;
  /** Of the profile it is in; empty for a working space. */
  @Column('text') profileHash!: string;
  @Column('simple-json', { nullable: true }) recipe!: PrintRecipe | null;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('real') ppi!: number;
}
