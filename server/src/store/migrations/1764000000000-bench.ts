import type { MigrationInterface, QueryRunner } from 'typeorm';

const UP = [
  `ALTER TABLE readings ADD COLUMN source TEXT NOT NULL DEFAULT 'measured'`,
  `ALTER TABLE readings ADD COLUMN batch TEXT NOT NULL DEFAULT ''`,
  `ALTER TABLE readings ADD COLUMN printedAt TEXT`,
  `ALTER TABLE readings ADD COLUMN mapping TEXT`,
  `ALTER TABLE conditions ADD COLUMN figuresFrom TEXT`,
  `CREATE TABLE observations (
    id TEXT PRIMARY KEY, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE, kind TEXT NOT NULL, value TEXT NOT NULL,
    takenAt TEXT NOT NULL, "by" TEXT NOT NULL, instrument TEXT NOT NULL, light TEXT NOT NULL, note TEXT NOT NULL, scanHash TEXT)`,
  `CREATE INDEX observations_condition ON observations(conditionId, takenAt)`,
  `CREATE TABLE charts (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL, spec TEXT NOT NULL, design TEXT NOT NULL)`,
  `CREATE TABLE sessions (
    id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE,
    chartId TEXT NOT NULL REFERENCES charts(id), instrument TEXT NOT NULL, passes INTEGER NOT NULL, printedAt TEXT NOT NULL,
    batch TEXT NOT NULL, rehearsal TEXT NOT NULL, seed INTEGER NOT NULL, state TEXT NOT NULL, sinceCalibration INTEGER NOT NULL,
    excluded TEXT NOT NULL)`,
  `CREATE TABLE session_strips (
    id TEXT PRIMARY KEY, sessionId TEXT NOT NULL REFERENCES sessions(id) ON DELETE CASCADE, strip INTEGER NOT NULL, pass INTEGER NOT NULL,
    attempt INTEGER NOT NULL, turn INTEGER NOT NULL, takenAt TEXT NOT NULL, sinceCalibration INTEGER NOT NULL, state TEXT NOT NULL,
    findings TEXT NOT NULL, labs TEXT NOT NULL, spectra BLOB NOT NULL)`,
  `CREATE INDEX session_strips_session ON session_strips(sessionId, turn)`,
  `CREATE TABLE column_mappings (signature TEXT PRIMARY KEY, mapping TEXT NOT NULL, savedAt TEXT NOT NULL)`,
];

/** The measuring bench: observations, charts, reading sessions, mapped spreadsheets, batches and drying times. */
export class Bench1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of UP) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['column_mappings', 'session_strips', 'sessions', 'charts', 'observations'])
      await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE conditions DROP COLUMN figuresFrom');
    for (const column of ['mapping', 'printedAt', 'batch', 'source'])
      await runner.query(`ALTER TABLE readings DROP COLUMN ${column}`);
  }
}
