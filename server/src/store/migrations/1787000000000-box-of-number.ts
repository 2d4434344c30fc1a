import type { MigrationInterface, QueryRunner } from 'typeorm';

const TRIGGERS = {
  numbers_box: `BEFORE INSERT ON numbers WHEN EXISTS (
     SELECT 1 FROM prints p JOIN boxes b ON b.id = p.boxId WHERE p.id = NEW.printId
     AND trim(b.batch) <> '' AND trim(b.batch) <> NEW.batch)
     BEGIN SELECT RAISE(ABORT, 'a number is of the box of its print'); END`,
  numbers_accepted: `BEFORE INSERT ON numbers WHEN EXISTS (
     SELECT 1 FROM editions e WHERE e.id = NEW.editionId AND e.batch <> NEW.batch
     AND NOT EXISTS (SELECT 1 FROM json_each(e.accepted) a WHERE json_extract(a.value, '$.batch') = NEW.batch))
     BEGIN SELECT RAISE(ABORT, 'another box joins an edition only once it was accepted'); END`,
  // A print that bears a number came from the box the number says.
  prints_numbered_box: `BEFORE UPDATE OF boxId ON prints WHEN NEW.boxId IS NOT OLD.boxId AND EXISTS (
     SELECT 1 FROM numbers n WHERE n.printId = OLD.id AND n.batch <> ''
     AND n.batch <> COALESCE((SELECT trim(b.batch) FROM boxes b WHERE b.id = NEW.boxId), n.batch))
     BEGIN SELECT RAISE(ABORT, 'a numbered print stays on its box'); END`,
};

/** The box of a number is that of its print, and another than the edition’s joins only once it was accepted. */
export class BoxOfNumber1787000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const [name, body] of Object.entries(TRIGGERS)) await runner.query(`CREATE TRIGGER ${name} ${body}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const name of Object.keys(TRIGGERS)) await runner.query(`DROP TRIGGER ${name}`);
  }
}
