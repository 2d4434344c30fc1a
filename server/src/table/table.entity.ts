import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Single documents: the table. */
@Entity('documents')
export class DocumentRow {
  @PrimaryColumn('text') key!: string;
  @Column('simple-json') value!: object;
}
