import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { GamutMesh } from '@rakuen/core/gamut/mesh';
import type { ModelError } from '@rakuen/core/characterisation/model-error';
import type { ProfileCheck } from '@rakuen/core/characterisation/profile-check';
import type { ProfileSettingsInput, ProfileSource } from '@rakuen/contract/profiles';
import type { Recognised } from '@rakuen/core/proof/mistakes';

/** A profile: made here, brought from a maker, or known by its name alone. */
@Entity('profiles')
export class ProfileRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') source!: ProfileSource;
  @Column('text', { nullable: true }) contentHash!: string | null;
  @Column('text', { nullable: true }) space!: string | null;
  /** Cubic Lab units; null where it encloses none, or nothing is known of it. */
  @Column('real', { nullable: true }) volume!: number | null;
  @Column('simple-json', { nullable: true, select: false }) mesh!: GamutMesh | null;
  /** The print condition whose readings it was made from. */
  @Column('text', { nullable: true }) conditionId!: string | null;
  @Column('simple-json', { nullable: true }) settings!: ProfileSettingsInput | null;
  /** What the model knew of its own error when it was made. */
  @Column('simple-json', { nullable: true }) error!: ModelError | null;
  @Column('text', { nullable: true }) supersededBy!: string | null;
}

/** A strip printed through a profile and read, held against it. */
@Entity('profile_checks')
export class ProfileCheckRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') profileId!: string;
  @Column('text', { nullable: true }) conditionId!: string | null;
  @Column('text') fileName!: string;
  @Column('text', { nullable: true }) contentHash!: string | null;
  @Column('integer') part!: number;
  /** With it the mean error a profile of one's own was foretold to have then. */
  @Column('simple-json') result!: ProfileCheck & {
    readonly own?: number;
    readonly recognised?: Recognised;
    readonly off?: readonly string[];
  };
}
