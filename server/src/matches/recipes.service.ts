import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import type { RecipeInput, RecipeView } from '@rakuen/contract/recipes';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { notFound } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { RecipeRow } from './matches.entity.ts';
import { present } from '../store/rows.ts';

/** Recipes of print copies: one a sheet and name, never burned into the picture. */
@Injectable()
export class RecipesService {
  constructor(
    @InjectRepository(RecipeRow) private readonly rows: Repository<RecipeRow>,
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
  ) {}

  async list(pictureId: string): Promise<RecipeView[]> {
    return (await this.rows.find({ where: { pictureId }, order: { name: 'ASC' } })).map(viewOf);
  }

  /** Writes a recipe under its name; what stood there before is on record. @param from revision it was changed from */
  async write(input: RecipeInput, from?: number): Promise<RecipeView> {
    await this.pictures.get(input.pictureId);
    await this.conditions.get(input.conditionId);
    const name = input.name.trim();
    const known = await this.rows.findOneBy({ pictureId: input.pictureId, conditionId: input.conditionId, name });
    const changedAt = new Date().toISOString();
    // A part that is said to be nothing is as it is.
    const values = { ...PLAIN, ...present(input.values) };
    if (known) {
      refuseStale('This recipe', known, from, viewOf(known));
      await this.rows.update(known.id, { values, changedAt });
      return this.of(known.id, input.pictureId);
    }
    const row = this.rows.create({ ...input, values, name, id: randomUUID(), changedAt });
    await this.rows.insert(row);
    return this.of(row.id, input.pictureId);
  }

  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('recipe');
  }

  async of(id: string, pictureId: string): Promise<RecipeView> {
    const row = await this.rows.findOneBy({ id, pictureId });
    if (!row) throw notFound('recipe of this picture');
    return viewOf(row);
  }
}

/** What a recipe of before some part existed does not name is as it is. */
const viewOf = (row: RecipeRow): RecipeView => ({
  id: row.id,
  revision: row.revision,
  changedAt: row.changedAt,
  pictureId: row.pictureId,
  conditionId: row.conditionId,
  name: row.name,
  values: { ...PLAIN, ...row.values },
});
