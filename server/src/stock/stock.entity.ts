import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A box of sheets or a roll in the drawer. */
@Entity('boxes')
export class BoxRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') paperId!: string;
  @Column('text') kind!: 'sheet' | 'roll';
  @Column('text') label!: string;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('integer') sheets!: number;
  @Column('text') batch!: string;
  @Column('text') boughtOn!: string;
  @Column('real', { nullable: true }) price!: number | null;
  @Column('text') currency!: string;
  @Column('text') note!: string;
  /** Sheets, or mm of a roll, as they were counted last. */
  @Column('real', { nullable: true }) counted!: number | null;
  @Column('text', { nullable: true }) countedAt!: string | null;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}
