import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PaperSize } from '@rakuen/contract/papers';
import type { Base, BrightenerClaim, CoatingClass, Surface } from '@rakuen/core/paper';

@Entity('papers')
export class PaperRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') maker!: string;
  @Column('text') name!: string;
  /** What is null here is not claimed. */
  @Column('text', { nullable: true }) coating!: CoatingClass | null;
  @Column('text', { nullable: true }) base!: Base | null;
  @Column('text', { nullable: true }) surface!: Surface | null;
  @Column('text') brightenerClaim!: BrightenerClaim;
  @Column('real', { nullable: true }) weightGsm!: number | null;
  @Column('real', { nullable: true }) thicknessUm!: number | null;
  @Column('simple-json') sizes!: PaperSize[];
  @Column('text') currency!: string;
  @Column('text') notes!: string;
  /** Counts its changes; kept by the database. */
  @Column({ type: 'integer', default: 1, insert: false, update: false })
  revision!: number;
}
