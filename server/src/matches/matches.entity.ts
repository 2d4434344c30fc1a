import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { MatchInputs, MatchResult } from '@rakuen/contract/matches';
import type { Stamp } from '@rakuen/contract/vocabulary';
import type { KeptCosts } from '@rakuen/core/match/kept-costs';
import type { Recipe } from '@rakuen/core/proof/recipe';

/** A match that was kept: what was asked, and what was answered then. */
@Entity('matches')
export class MatchRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') at!: string;
  @Column('text') pictureId!: string;
  @Column('text') name!: string;
  @Column('simple-json') inputs!: MatchInputs;
  @Column('simple-json') result!: MatchResult;
}

/** A printmaker's own school. */
@Entity('schools')
export class SchoolRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') createdAt!: string;
  @Column('text') name!: string;
  @Column('text') holds!: string;
  @Column('simple-json') weights!: Record<string, number>;
}

@Entity('decisions')
export class DecisionRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') stamp!: Stamp;
  @Column('text') reason!: string;
  @Column('text') decidedBy!: string;
  @Column('text') decidedAt!: string;
  @Column('integer', { nullable: true }) place!: number | null;
  /** Of decisions made before a match had a score. */
  @Column('real', { nullable: true }) costDeltaE!: number | null;
  @Column('real', { nullable: true }) outsideShare!: number | null;
  @Column('real', { nullable: true }) score!: number | null;
  @Column('real', { nullable: true }) lostShare!: number | null;
  /** Absent of decisions made before it was kept, and where nothing could be matched. */
  @Column('simple-json', { nullable: true }) costs!: KeptCosts | null;
}

/** What is done to a picture for its print on a sheet. */
@Entity('recipes')
export class RecipeRow {
  @PrimaryColumn('text') id!: string;
  @Column('text') changedAt!: string;
  @Column('text') pictureId!: string;
  @Column('text') conditionId!: string;
  @Column('text') name!: string;
  @Column('simple-json') values!: Recipe;
  @Column({ type: 'integer', default: 1, insert: false, update: false }) revision!: number;
}
