import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Spectrum } from '@rakuen/core/colour/types';

/** A lamp whose spectrum was imported. */
@Entity('lights')
export class LightRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('simple-json') spectrum!: Spectrum;
}
