import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange, record, unrecord } from '../record-again.ts';

const OF_PRINTS = {
  recipe: 'TEXT CHECK (recipe IS NULL OR json_valid(recipe))',
  profileHash: `TEXT NOT NULL DEFAULT '' CHECK (profileHash = '' OR length(profileHash) = 64)`,
  pictureHash: `TEXT NOT NULL DEFAULT '' CHECK (pictureHash = '' OR length(pictureHash) = 64)`,
  fileHash: `TEXT NOT NULL DEFAULT '' CHECK (fileHash = '' OR length(fileHash) = 64)`,
  fileName: `TEXT NOT NULL DEFAULT ''`,
  passed: 'TEXT CHECK (passed IS NULL OR json_valid(passed))',
};
const OF_BOXES = {
  counted: 'REAL CHECK (counted IS NULL OR counted >= 0)',
  countedAt: 'TEXT CHECK ((countedAt IS NULL) = (counted IS NULL))',
};

/** What a print was made with: recipe, profile, picture and print file by their hashes, checks that were passed; boxes that were counted. */
export class MadeWith1788000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'prints', async () => {
      for (const [name, type] of Object.entries(OF_PRINTS))
        await runner.query(`ALTER TABLE prints ADD COLUMN ${name} ${type}`);
    });
    await columnsChange(runner, 'boxes', async () => {
      for (const [name, type] of Object.entries(OF_BOXES))
        await runner.query(`ALTER TABLE boxes ADD COLUMN ${name} ${type}`);
    });
    await runner.query(`CREATE TABLE print_files (id TEXT PRIMARY KEY, at TEXT NOT NULL,
      pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
      conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE,
      fileName TEXT NOT NULL, hash TEXT NOT NULL CHECK (length(hash) = 64),
      profileHash TEXT NOT NULL DEFAULT '', recipe TEXT CHECK (recipe IS NULL OR json_valid(recipe)),
      widthMm REAL NOT NULL, heightMm REAL NOT NULL, ppi REAL NOT NULL)`);
    await runner.query('CREATE INDEX print_files_of ON print_files(pictureId, conditionId, at)');
    await runner.query('CREATE INDEX print_files_on ON print_files(conditionId)');
    await record(runner, 'print_files');
  }

  async down(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'print_files');
    await runner.query('DROP TABLE print_files');
    const drop = (table: string, columns: object) =>
      columnsChange(runner, table, async () => {
        for (const name of Object.keys(columns).reverse())
          await runner.query(`ALTER TABLE ${table} DROP COLUMN ${name}`);
      });
    await drop('boxes', OF_BOXES);
    await drop('prints', OF_PRINTS);
  }
}
