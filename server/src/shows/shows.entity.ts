import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PaperStanding } from '@rakuen/contract/vocabulary';

/** Pictures that hang together. */
@Entity('shows')
export class ShowRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') place!: string;
  @Column('text', { nullable: true }) light!: string | null;
  @Column('text', { nullable: true }) glass!: string | null;
  @Column('real', { nullable: true }) lux!: number | null;
  @Column('real') maxLoss!: number;
  @Column('boolean') sameSurface!: boolean;
  @Column('boolean') sameWhite!: boolean;
  @Column('boolean') allPapers!: boolean;
  /** Counts the changes of its pictures and papers, so that they raise its revision too. */
  @Column('integer') parts!: number;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

@Entity('show_pictures')
export class ShowPictureRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') showId!: string;
  @Column('text') pictureId!: string;
  @Column('integer') position!: number;
}

@Entity('show_papers')
export class ShowPaperRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') showId!: string;
  @Column('text') paperId!: string;
  @Column('text') standing!: PaperStanding;
}
