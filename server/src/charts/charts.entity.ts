import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { ChartDesign, ChartSpec } from '@rakuen/core/chart/chart-design';

/** A chart as it was laid out; the layout is kept, so that a printed sheet stays readable whatever later versions lay out. */
@Entity('charts')
export class ChartRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('simple-json') spec!: ChartSpec;
  @Column('simple-json') design!: ChartDesign;
}
