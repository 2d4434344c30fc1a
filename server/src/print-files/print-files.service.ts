import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { PLAIN } from '@rakuen/core/proof/recipe';
import type { PrintRecipe } from '@rakuen/contract/prints';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { RecipeRow } from '../matches/matches.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { fromRecipe } from '../prints/carried-over.ts';
import { ProfileRow } from '../profiles/profiles.entity.ts';
import { PrintFileRow } from './print-files.entity.ts';

/** What a print is made with, besides its settings. Hashes are SHA-256; '' where there is none. */
export interface MadeWith {
  readonly recipe: PrintRecipe | null;
  readonly profileHash: string;
  /** Its name where the profile is kept here. */
  readonly profileName: string;
  readonly pictureHash: string;
  readonly fileHash: string;
  readonly fileName: string;
}

/** A recipe as it stands in a record. */
export const recipeRecord = (
  row: Pick<RecipeRow, 'id' | 'name' | 'revision' | 'changedAt' | 'values'>,
): PrintRecipe => ({
  id: row.id,
  name: row.name,
  version: row.revision,
  changedAt: row.changedAt,
  values: { ...PLAIN, ...row.values },
});

/** Print files that were written, and what follows for the prints that wait for them. */
@Injectable()
export class PrintFilesService {
  constructor(
    @InjectRepository(PrintFileRow) private readonly files: Repository<PrintFileRow>,
    @InjectRepository(RecipeRow) private readonly recipes: Repository<RecipeRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(ProfileRow) private readonly profiles: Repository<ProfileRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
  ) {}

  /** The newest recipe of a picture on a sheet, by its name or not. */
  newestRecipe(pictureId: string, conditionId: string): Promise<RecipeRow | null> {
    return this.recipes.findOne({ where: { pictureId, conditionId }, order: { changedAt: 'DESC' } });
  }

  /** What a print of a picture on a sheet would be made with today: the file that was written last, else the newest recipe. */
  async madeWith(pictureId: string, conditionId: string): Promise<MadeWith> {
    const picture = await this.pictures.findOneBy({ id: pictureId });
    const condition = await this.conditions.findOneBy({ id: conditionId });
    const profile = condition?.profileId ? await this.profiles.findOneBy({ id: condition.profileId }) : null;
    const newest = await this.newestRecipe(pictureId, conditionId);
    const file = await this.files.findOne({ where: { pictureId, conditionId }, order: { at: 'DESC' } });
    const through = condition?.printMode === 'colour through a profile';
    const base = {
      recipe: newest && recipeRecord(newest),
      profileHash: (through && profile?.contentHash) || '',
      profileName: (through && profile?.name) || '',
      pictureHash: picture?.contentHash ?? '',
      fileHash: '',
      fileName: '',
    };
    // A file of before the recipe was changed is not what is printed next.
    if (!file || (newest && newest.changedAt > file.at)) return base;
    return {
      ...base,
      recipe: file.recipe,
      // A file in a working space was made for another's printer: ours has no part in it.
      profileHash: file.profileHash,
      fileHash: file.hash,
      fileName: file.fileName,
    };
  }

  /** Keeps that a file was written; prints of it that wait are made from it. */
  async written(file: Omit<PrintFileRow, 'id' | 'at'>): Promise<PrintFileRow> {
    const row = this.files.create({ ...file, id: randomUUID(), at: new Date().toISOString() });
    await this.files.insert(row);
    const { pictureId, conditionId } = row;
    for (const print of await this.prints.findBy({ pictureId, conditionId, state: 'waiting' })) {
      const asked = row.recipe ? fromRecipe(row.recipe.values, print.settings.printMode) : {};
      const changed = (Object.keys(asked) as (keyof typeof asked)[]).filter((k) => print.settings[k] !== asked[k]);
      await this.prints.save(
        this.prints.merge(print, {
          recipe: row.recipe,
          fileHash: row.hash,
          fileName: row.fileName,
          profileHash: row.profileHash,
          settings: { ...print.settings, ...asked },
          carriedOver: [...new Set([...print.carriedOver, ...changed])],
          carriedFrom: {
            ...print.carriedFrom,
            ...Object.fromEntries(changed.map((key) => [key, `the print file ${row.fileName}`])),
          },
        }),
      );
    }
    return row;
  }
}
