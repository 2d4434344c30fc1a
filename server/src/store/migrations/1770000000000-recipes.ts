import type { MigrationInterface, QueryRunner } from 'typeorm';
import { recordTriggers, type ColumnFacts } from '../record.ts';

/** Recipes of print copies: kept beside the picture, one a sheet and name. */
export class Recipes1770000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE recipes (id TEXT PRIMARY KEY, changedAt TEXT NOT NULL,
      pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE,
      name TEXT NOT NULL, "values" TEXT NOT NULL, revision INTEGER NOT NULL DEFAULT 1)`);
    await runner.query('CREATE UNIQUE INDEX recipes_one ON recipes(pictureId, conditionId, name COLLATE NOCASE)');
    const columns = (await runner.query('PRAGMA table_info(recipes)')) as ColumnFacts[];
    for (const sql of recordTriggers('recipes', columns)) await runner.query(sql);
    await runner.query(`CREATE TRIGGER recipes_revised AFTER UPDATE ON recipes WHEN NEW.revision = OLD.revision
      AND (OLD."values" IS NOT NEW."values" OR OLD.name IS NOT NEW.name)
      BEGIN UPDATE recipes SET revision = OLD.revision + 1 WHERE id = NEW.id; END`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE recipes');
  }
}
