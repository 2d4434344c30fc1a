import type { MigrationInterface, QueryRunner } from 'typeorm';
import { columnsChange } from '../record-again.ts';

/** What a maker claims of a paper, with what an earlier version has to read where nothing is claimed. */
const CLAIMS = [
  ['coating', 'TEXT', `'uncoated'`],
  ['base', 'TEXT', `'other'`],
  ['surface', 'TEXT', `'smooth'`],
  ['weightGsm', 'REAL', '0'],
  ['thicknessUm', 'REAL', '0'],
] as const;

/** Columns change while nothing records the table; its revisions stay as they are. */
async function remade(
  runner: QueryRunner,
  columns: readonly (readonly [name: string, type: string, from: string])[],
  one: string,
) {
  await columnsChange(runner, 'papers', async () => {
    await runner.query('DROP INDEX papers_one');
    for (const [name, type, from] of columns) {
      await runner.query(`ALTER TABLE papers ADD COLUMN ${name}_ ${type}`);
      await runner.query(`UPDATE papers SET ${name}_ = ${from}`);
      await runner.query(`ALTER TABLE papers DROP COLUMN ${name}`);
      await runner.query(`ALTER TABLE papers RENAME COLUMN ${name}_ TO ${name}`);
    }
    await runner.query(`CREATE UNIQUE INDEX papers_one ON papers(maker COLLATE NOCASE, name COLLATE NOCASE, ${one})`);
  });
}

/** A paper is known by its maker and name; the rest may be left open and is then not claimed. */
export class OpenClaims1777000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // Of two papers of one name without a weight there is one too: nothing is like nothing here.
    await remade(
      runner,
      CLAIMS.map(([name, type]) => [name, type, name]),
      'COALESCE(weightGsm, 0)',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await remade(
      runner,
      CLAIMS.map(([name, type, otherwise]) => [
        name,
        `${type} NOT NULL DEFAULT ${otherwise}`,
        `COALESCE(${name}, ${otherwise})`,
      ]),
      'weightGsm',
    );
  }
}
