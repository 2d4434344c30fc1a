import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { PackItem } from '@rakuen/core/layout/pack-plan';
import type { PackSpec } from '@rakuen/contract/packs';

/** A pack of samples: what was asked, what goes on its sheets, and which of them were printed. */
@Entity('packs')
export class PackRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('simple-json') spec!: PackSpec;
  @Column('simple-json') items!: PackItem[];
  @Column('simple-json') printed!: string[];
}
