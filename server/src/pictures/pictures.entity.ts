import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Commission } from '@rakuen/core/match/commission';
import type { Mark } from '@rakuen/core/picture/marks';
import type { Hint } from '@rakuen/core/picture/hints';
import type { PictureFigures } from '@rakuen/core/picture/tally';

@Entity('pictures')
export class PictureRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') addedAt!: string;
  @Column('text') title!: string;
  @Column('text') fileName!: string;
  @Column('text') contentHash!: string;
  @Column('text') previewHash!: string;
  @Column('text') format!: string;
  @Column('integer') widthPx!: number;
  @Column('integer') heightPx!: number;
  @Column('integer') bitsPerChannel!: number;
  @Column('text') profile!: string;
  @Column('boolean') profileAssumed!: boolean;
  @Column('simple-json') notes!: string[];
  @Column('simple-json') figures!: PictureFigures;
  @Column('integer') colourCells!: number;
  @Column('text', { default: '' }) caption!: string;
  @Column('simple-json', { nullable: true }) commission!: Commission | null;
  @Column('simple-json', { nullable: true }) marks!: Mark[] | null;
  @Column('simple-json', { nullable: true }) hints!: Hint[] | null;
  /** Float32: L*, a*, b*, share. */
  @Column('blob', { select: false }) cells!: Buffer;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}
