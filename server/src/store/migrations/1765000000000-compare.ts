import type { MigrationInterface, QueryRunner } from 'typeorm';

const UP = [
  `CREATE TABLE lights (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL, spectrum TEXT NOT NULL)`,
  `CREATE TABLE profiles (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL, contentHash TEXT NOT NULL UNIQUE, space TEXT NOT NULL, volume REAL NOT NULL, mesh TEXT NOT NULL)`,
  `CREATE TABLE eye_sessions (
    id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, conditionIds TEXT NOT NULL, criterion TEXT NOT NULL, times INTEGER NOT NULL, observer TEXT NOT NULL,
    light TEXT NOT NULL, seed INTEGER NOT NULL)`,
  `CREATE TABLE eye_choices (
    id TEXT PRIMARY KEY, sessionId TEXT NOT NULL REFERENCES eye_sessions(id) ON DELETE CASCADE, turn INTEGER NOT NULL, said TEXT NOT NULL, at TEXT NOT NULL,
    UNIQUE (sessionId, turn))`,
  `CREATE TABLE trials (
    id TEXT PRIMARY KEY, stampedAt TEXT NOT NULL, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE, paperId TEXT NOT NULL, printer TEXT NOT NULL,
    mediaSetting TEXT NOT NULL, reason TEXT NOT NULL, "by" TEXT NOT NULL, light TEXT NOT NULL, ranking TEXT NOT NULL)`,
  `CREATE TABLE packs (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, spec TEXT NOT NULL, items TEXT NOT NULL, printed TEXT NOT NULL)`,
  `CREATE INDEX trials_paper ON trials(paperId, printer, stampedAt)`,
];

/** The comparison: lamps, profiles beside the papers, blind comparisons, media settings stamped, sample packs. */
export class Compare1765000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of UP) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['packs', 'trials', 'eye_choices', 'eye_sessions', 'profiles', 'lights'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
