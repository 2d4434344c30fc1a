import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { Spectrum } from '@rakuen/core/colour/types';
import type { LampUv } from '@rakuen/core/light/own-lamp';

/** A lamp whose spectrum was imported. */
@Entity('lights')
export class LightRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('simple-json') spectrum!: Spectrum;
  /** What is known of its UV, where the spectrum begins too late to show it. */
  @Column('text', { default: 'unknown' }) uv!: LampUv;
  /** Mean step of the file it came from, nm; absent of lamps that were imported before it was kept. */
  @Column('real', { nullable: true }) fileStepNm!: number | null;
}
