import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { DriftAccepted } from '@rakuen/contract/editions';
import type { Series } from '@rakuen/core/print/edition';

@Entity('editions')
export class EditionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') name!: string;
  @Column('integer', { nullable: true }) size!: number | null;
  @Column('integer') artist!: number;
  @Column('integer') printer!: number;
  @Column('integer') good!: number;
  @Column('real') widthMm!: number;
  @Column('real') heightMm!: number;
  @Column('text') batch!: string;
  @Column('simple-json') accepted!: DriftAccepted[];
  @Column('text') notes!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}

/** A number that was given: never to another print, whatever becomes of this one. */
@Entity('numbers')
export class NumberRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') editionId!: string;
  @Column('text') series!: Series;
  @Column('integer') number!: number;
  @Column('text', { nullable: true }) printId!: string | null;
  @Column('text') givenAt!: string;
  @Column('text') batch!: string;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}
