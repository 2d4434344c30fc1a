import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE papers (
    id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, maker TEXT NOT NULL, name TEXT NOT NULL, coating TEXT NOT NULL, base TEXT NOT NULL,
    surface TEXT NOT NULL, brightenerClaim TEXT NOT NULL, weightGsm REAL NOT NULL, thicknessUm REAL NOT NULL, sizes TEXT NOT NULL,
    currency TEXT NOT NULL, notes TEXT NOT NULL)`,
  `CREATE TABLE conditions (
    id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, paperId TEXT NOT NULL REFERENCES papers(id), printer TEXT NOT NULL,
    inkSet TEXT NOT NULL, blackInk TEXT NOT NULL, mediaSetting TEXT NOT NULL, resolution TEXT NOT NULL, printMode TEXT NOT NULL,
    profile TEXT NOT NULL, blackOvercoat BOOLEAN NOT NULL, notes TEXT NOT NULL, facts TEXT, mesh TEXT)`,
  `CREATE TABLE readings (
    id TEXT PRIMARY KEY, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE, fileName TEXT NOT NULL,
    contentHash TEXT NOT NULL, patchCount INTEGER NOT NULL, colourFrom TEXT NOT NULL, deviceSpace TEXT, measurementCondition TEXT,
    instrument TEXT, backing TEXT, measuredAt TEXT, importedAt TEXT NOT NULL)`,
  `CREATE TABLE pictures (
    id TEXT PRIMARY KEY, addedAt TEXT NOT NULL, title TEXT NOT NULL, fileName TEXT NOT NULL, contentHash TEXT NOT NULL,
    previewHash TEXT NOT NULL, format TEXT NOT NULL, widthPx INTEGER NOT NULL, heightPx INTEGER NOT NULL,
    bitsPerChannel INTEGER NOT NULL, profile TEXT NOT NULL, profileAssumed BOOLEAN NOT NULL, notes TEXT NOT NULL,
    figures TEXT NOT NULL, colourCells INTEGER NOT NULL, cells BLOB NOT NULL)`,
  `CREATE TABLE match_figures (
    pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE, conditionId TEXT NOT NULL REFERENCES conditions(id) ON DELETE CASCADE,
    readingsKey TEXT NOT NULL, figures TEXT NOT NULL, PRIMARY KEY (pictureId, conditionId))`,
  // What was decided and printed outlives second thoughts: no cascade here, the server refuses to remove what they rest on.
  `CREATE TABLE decisions (
    id TEXT PRIMARY KEY, pictureId TEXT NOT NULL REFERENCES pictures(id), conditionId TEXT NOT NULL REFERENCES conditions(id),
    stamp TEXT NOT NULL, reason TEXT NOT NULL, decidedBy TEXT NOT NULL, decidedAt TEXT NOT NULL, place INTEGER, costDeltaE REAL,
    outsideShare REAL)`,
  `CREATE TABLE prints (
    id TEXT PRIMARY KEY, recordedAt TEXT NOT NULL, pictureId TEXT NOT NULL REFERENCES pictures(id),
    conditionId TEXT NOT NULL REFERENCES conditions(id), printedOn TEXT NOT NULL, widthMm REAL NOT NULL, heightMm REAL NOT NULL,
    copies INTEGER NOT NULL, settings TEXT NOT NULL, carriedOver TEXT NOT NULL, verdict TEXT NOT NULL, verdictReason TEXT NOT NULL,
    misprints INTEGER NOT NULL, misprintCause TEXT NOT NULL, notes TEXT NOT NULL)`,
  `CREATE TABLE documents (key TEXT PRIMARY KEY, value TEXT NOT NULL)`,
  `CREATE INDEX readings_condition ON readings(conditionId)`,
  `CREATE INDEX decisions_picture ON decisions(pictureId, conditionId, decidedAt)`,
  `CREATE INDEX prints_picture ON prints(pictureId, conditionId, printedOn)`,
];

export class First1760000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of TABLES) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      'documents',
      'prints',
      'decisions',
      'match_figures',
      'pictures',
      'readings',
      'conditions',
      'papers',
    ])
      await runner.query(`DROP TABLE ${table}`);
  }
}
