import type { MigrationInterface, QueryRunner } from 'typeorm';
import { recordTriggers, type ColumnFacts } from '../record.ts';

const UUID = `lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-a' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))`;
const NOW = `strftime('%Y-%m-%dT%H:%M:%fZ', 'now')`;

const PROFILES = `CREATE TABLE profiles (
    id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL,
    source TEXT NOT NULL DEFAULT 'brought' CHECK (source IN ('made', 'brought', 'named')),
    contentHash TEXT, space TEXT, volume REAL, mesh TEXT,
    conditionId TEXT, settings TEXT, error TEXT, supersededBy TEXT,
    CHECK (source = 'named' OR contentHash IS NOT NULL))`;

/** A name written into a print condition is a profile that is known by name at least; the condition points to it. */
const NAME_IT = (when: string) => `BEGIN
    INSERT INTO profiles (id, createdAt, name, source) SELECT ${UUID}, ${NOW}, NEW.profile, 'named'
      WHERE NEW.profile <> '' AND NOT EXISTS (SELECT 1 FROM profiles WHERE name = NEW.profile COLLATE NOCASE);
    UPDATE conditions SET profileId = (SELECT id FROM profiles WHERE NEW.profile <> '' AND name = NEW.profile COLLATE NOCASE
      ORDER BY supersededBy IS NOT NULL, source = 'named', createdAt DESC LIMIT 1) WHERE id = NEW.id AND ${when};
  END`;

const UP = [
  PROFILES.replace('TABLE profiles', 'TABLE profiles_new'),
  `INSERT INTO profiles_new (id, createdAt, name, source, contentHash, space, volume, mesh)
     SELECT id, createdAt, name, 'brought', contentHash, space, volume, mesh FROM profiles`,
  'DROP TABLE profiles',
  'ALTER TABLE profiles_new RENAME TO profiles',
  `CREATE UNIQUE INDEX profiles_file_one ON profiles(contentHash) WHERE contentHash IS NOT NULL`,
  `CREATE UNIQUE INDEX profiles_named_one ON profiles(name COLLATE NOCASE) WHERE source = 'named'`,
  'ALTER TABLE conditions ADD COLUMN profileId TEXT',
  `CREATE TRIGGER conditions_profile_new AFTER INSERT ON conditions WHEN NEW.profileId IS NULL AND NEW.profile <> '' ${NAME_IT('profileId IS NULL')}`,
  `CREATE TRIGGER conditions_profile_change AFTER UPDATE OF profile ON conditions
     WHEN NEW.profile IS NOT OLD.profile AND NEW.profileId IS OLD.profileId ${NAME_IT('1')}`,
  // Free text that stands there today becomes profiles known by name.
  `INSERT INTO profiles (id, createdAt, name, source)
     SELECT ${UUID}, MIN(createdAt), MIN(profile), 'named' FROM conditions
     WHERE profile <> '' AND NOT EXISTS (SELECT 1 FROM profiles p WHERE p.name = conditions.profile COLLATE NOCASE)
     GROUP BY lower(profile)`,
  `UPDATE conditions SET profileId = (SELECT id FROM profiles p WHERE p.name = conditions.profile COLLATE NOCASE LIMIT 1) WHERE profile <> ''`,
  `CREATE TABLE profile_checks (id TEXT PRIMARY KEY, at TEXT NOT NULL,
     profileId TEXT NOT NULL REFERENCES profiles(id) ON DELETE CASCADE,
     conditionId TEXT, fileName TEXT NOT NULL, contentHash TEXT, part INTEGER NOT NULL, result TEXT NOT NULL)`,
  'CREATE INDEX profile_checks_profile ON profile_checks(profileId, at)',
  // Whatever is computed from the rest, and the key of what it was computed from.
  `CREATE TABLE derived (subject TEXT NOT NULL, kind TEXT NOT NULL, inputsKey TEXT NOT NULL, value TEXT NOT NULL, PRIMARY KEY (subject, kind))`,
];

/** Profiles as a noun: made here, brought, or known by name; checks of them; and a place for what is derived. */
export class Profiles1767000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of UP) await runner.query(sql);
    for (const table of ['profiles', 'profile_checks']) {
      const columns = (await runner.query(`PRAGMA table_info(${table})`)) as ColumnFacts[];
      for (const sql of recordTriggers(table, columns)) await runner.query(sql);
    }
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['derived', 'profile_checks']) await runner.query(`DROP TABLE ${table}`);
    for (const name of ['new', 'change']) await runner.query(`DROP TRIGGER conditions_profile_${name}`);
    await runner.query('ALTER TABLE conditions DROP COLUMN profileId');
    await runner.query(
      `CREATE TABLE profiles_old (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL, contentHash TEXT NOT NULL UNIQUE, space TEXT NOT NULL, volume REAL NOT NULL, mesh TEXT NOT NULL)`,
    );
    await runner.query(
      `INSERT INTO profiles_old SELECT id, createdAt, name, contentHash, space, volume, mesh FROM profiles WHERE source = 'brought'`,
    );
    await runner.query('DROP TABLE profiles');
    await runner.query('ALTER TABLE profiles_old RENAME TO profiles');
    const columns = (await runner.query('PRAGMA table_info(profiles)')) as ColumnFacts[];
    for (const sql of recordTriggers('profiles', columns)) await runner.query(sql);
  }
}
