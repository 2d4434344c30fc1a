import type { MigrationInterface, QueryRunner } from 'typeorm';
import { RECORDED, recordTriggers, type ColumnFacts } from '../record.ts';

/** Twins that earlier versions let in are parted before there can be none. */
const PART_TWINS = [
  `UPDATE papers SET name = name || ' (' || (SELECT COUNT(*) FROM papers p WHERE p.maker = papers.maker COLLATE NOCASE
     AND p.name = papers.name COLLATE NOCASE AND p.weightGsm = papers.weightGsm AND p.rowid <= papers.rowid) || ')'
   WHERE EXISTS (SELECT 1 FROM papers p WHERE p.maker = papers.maker COLLATE NOCASE AND p.name = papers.name COLLATE NOCASE
     AND p.weightGsm = papers.weightGsm AND p.rowid < papers.rowid)`,
  // The same reading of the same file is the same: the oldest stays, and a choice of a later one becomes a choice of it.
  `UPDATE conditions SET figuresFrom = (SELECT o.id FROM readings r JOIN readings o
     ON o.conditionId = r.conditionId AND o.contentHash = r.contentHash AND o.part = r.part
     WHERE r.id = conditions.figuresFrom ORDER BY o.rowid LIMIT 1) WHERE figuresFrom IS NOT NULL`,
  `DELETE FROM readings WHERE EXISTS (SELECT 1 FROM readings o WHERE o.conditionId = readings.conditionId
     AND o.contentHash = readings.contentHash AND o.part = readings.part AND o.rowid < readings.rowid)`,
  `UPDATE session_strips SET state = 'withdrawn' WHERE state <> 'withdrawn' AND EXISTS (SELECT 1 FROM session_strips o
     WHERE o.sessionId = session_strips.sessionId AND o.strip = session_strips.strip AND o.pass = session_strips.pass
     AND o.state <> 'withdrawn' AND o.rowid < session_strips.rowid)`,
];

const UP = [
  `CREATE TABLE events (
    seq INTEGER PRIMARY KEY AUTOINCREMENT, change TEXT NOT NULL, what TEXT NOT NULL, at TEXT NOT NULL, deed TEXT NOT NULL,
    subject TEXT NOT NULL, id TEXT NOT NULL, before TEXT, after TEXT)`,
  `CREATE INDEX events_change ON events(change)`,
  `CREATE INDEX events_id ON events(id, seq)`,
  `CREATE INDEX events_deed ON events(deed, seq)`,
  // What is on record stays as it is.
  `CREATE TRIGGER events_stay BEFORE UPDATE ON events BEGIN SELECT RAISE(ABORT, 'events are appended to, never changed'); END`,
  `CREATE TRIGGER events_remain BEFORE DELETE ON events BEGIN SELECT RAISE(ABORT, 'events are appended to, never removed'); END`,
  // One row: what is being done, for the triggers.
  `CREATE TABLE deed (one INTEGER PRIMARY KEY CHECK (one = 1), id TEXT NOT NULL, what TEXT NOT NULL)`,
  `INSERT INTO deed (one, id, what) VALUES (1, 'before', 'before there was a record')`,
  `CREATE TABLE undoings (change TEXT PRIMARY KEY, byChange TEXT NOT NULL, at TEXT NOT NULL)`,
  `CREATE TABLE answers (key TEXT PRIMARY KEY, at TEXT NOT NULL, what TEXT NOT NULL, answer TEXT NOT NULL)`,
  `CREATE UNIQUE INDEX papers_one ON papers(maker COLLATE NOCASE, name COLLATE NOCASE, weightGsm)`,
  `CREATE UNIQUE INDEX readings_one ON readings(conditionId, contentHash, part)`,
  `CREATE UNIQUE INDEX strips_standing_one ON session_strips(sessionId, strip, pass) WHERE state <> 'withdrawn'`,
  `ALTER TABLE eye_sessions ADD COLUMN question TEXT NOT NULL DEFAULT ''`,
];
/** Things that two windows may change at once. */
const REVISED = ['papers', 'conditions', 'prints'];
/** Columns of print conditions that were computed from the rest, as long as they stood there. */
const DERIVED = new Set(['facts', 'mesh']);
const columnsOf = async (runner: QueryRunner, table: string): Promise<ColumnFacts[]> =>
  ((await runner.query(`PRAGMA table_info(${table})`)) as ColumnFacts[]).filter(
    (c) => table !== 'conditions' || !DERIVED.has(c.name),
  );

/** The record of events, what can be there only once, revisions, and answers that a repeat gets again. */
export class Record1766000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [...PART_TWINS, ...UP]) await runner.query(sql);
    for (const table of REVISED)
      await runner.query(`ALTER TABLE ${table} ADD COLUMN revision INTEGER NOT NULL DEFAULT 1`);
    for (const table of Object.keys(RECORDED)) {
      const columns = await columnsOf(runner, table);
      // What came into being later records itself then.
      if (columns.length === 0) continue;
      for (const sql of recordTriggers(table, columns)) await runner.query(sql);
    }
    for (const table of REVISED) {
      const names = (await columnsOf(runner, table)).map((c) => c.name).filter((name) => name !== 'revision');
      await runner.query(
        `CREATE TRIGGER ${table}_revised AFTER UPDATE ON ${table}
         WHEN NEW.revision = OLD.revision AND (${names.map((n) => `OLD."${n}" IS NOT NEW."${n}"`).join(' OR ')})
         BEGIN UPDATE ${table} SET revision = OLD.revision + 1 WHERE id = NEW.id; END`,
      );
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of REVISED) await runner.query(`DROP TRIGGER ${table}_revised`);
    for (const table of Object.keys(RECORDED))
      for (const name of ['new', 'change', 'end'])
        await runner.query(`DROP TRIGGER IF EXISTS ${table}_recorded_${name}`);
    for (const table of REVISED) await runner.query(`ALTER TABLE ${table} DROP COLUMN revision`);
    await runner.query('ALTER TABLE eye_sessions DROP COLUMN question');
    for (const index of ['strips_standing_one', 'readings_one', 'papers_one'])
      await runner.query(`DROP INDEX ${index}`);
    for (const table of ['answers', 'undoings', 'deed', 'events']) await runner.query(`DROP TABLE ${table}`);
  }
}
