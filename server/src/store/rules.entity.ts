import { Column, Entity, PrimaryColumn } from 'typeorm';

/** What holds for the whole studio: settings, rates; null where nobody has said anything yet. */
@Entity('rules')
export class RuleRow {
  @PrimaryColumn('text') id!: 'settings' | 'rates';
  @Column('simple-json', { nullable: true }) value!: object | null;
  @Column('integer') revision!: number;
}
