import type { MigrationInterface, QueryRunner } from 'typeorm';
import { STARTING_CAUSES } from '@rakuen/core/print/causes';
import { BEFORE_MOVES, ledgerProjection, withoutNotes, withoutProjection } from '../ledger-entries.ts';
import { record, revise, unrecord } from '../record-again.ts';

const UUID = `lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-a' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))`;
const quoted = (text: string) => `'${text.replaceAll("'", "''")}'`;

const STOCK = [
  `CREATE TABLE boxes (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, paperId TEXT NOT NULL REFERENCES papers(id) ON DELETE CASCADE,
     kind TEXT NOT NULL CHECK (kind IN ('sheet', 'roll')), label TEXT NOT NULL, widthMm REAL NOT NULL CHECK (widthMm > 0),
     heightMm REAL NOT NULL CHECK (heightMm > 0), sheets INTEGER NOT NULL CHECK (sheets > 0), batch TEXT NOT NULL, boughtOn TEXT NOT NULL,
     price REAL CHECK (price >= 0), currency TEXT NOT NULL, note TEXT NOT NULL DEFAULT '', revision INTEGER NOT NULL DEFAULT 1)`,
  'CREATE INDEX boxes_paper ON boxes(paperId)',
];

const PRINTS = [
  `ALTER TABLE prints ADD COLUMN state TEXT NOT NULL DEFAULT 'printed' CHECK (state IN ('waiting', 'printed'))`,
  `ALTER TABLE prints ADD COLUMN boxId TEXT REFERENCES boxes(id) ON DELETE SET NULL`,
  `ALTER TABLE prints ADD COLUMN fromPrintId TEXT`,
  `ALTER TABLE prints ADD COLUMN carriedFrom TEXT NOT NULL DEFAULT '{}'`,
  `ALTER TABLE prints ADD COLUMN minutes REAL`,
  ...['judgedIn', 'decidedBy', 'decidedWhy'].map((c) => `ALTER TABLE prints ADD COLUMN ${c} TEXT NOT NULL DEFAULT ''`),
  'CREATE INDEX prints_state ON prints(state, printedOn)',
];

/** A sheet comes from a box of its own paper. */
const ITS_OWN_BOX = (
  event: string,
  table: string,
) => `CREATE TRIGGER ${table}_box_${event.split(' ')[0].toLowerCase()} BEFORE ${event} ON ${table}
  WHEN (SELECT paperId FROM boxes WHERE id = NEW.boxId) <> (SELECT paperId FROM conditions WHERE id = NEW.conditionId)
  BEGIN SELECT RAISE(ABORT, 'the box holds another paper'); END`;
const BOXED = [
  ITS_OWN_BOX('INSERT', 'prints'),
  ITS_OWN_BOX('UPDATE OF boxId, conditionId', 'prints'),
  `CREATE TRIGGER boxes_stay BEFORE UPDATE OF paperId ON boxes WHEN OLD.paperId <> NEW.paperId
     AND (EXISTS (SELECT 1 FROM prints WHERE boxId = OLD.id) OR EXISTS (SELECT 1 FROM misprints WHERE boxId = OLD.id))
     BEGIN SELECT RAISE(ABORT, 'prints were made from this box'); END`,
];

const MISPRINTS = [
  `CREATE TABLE causes (id TEXT PRIMARY KEY, name TEXT NOT NULL, look TEXT NOT NULL DEFAULT '')`,
  'CREATE UNIQUE INDEX causes_one ON causes(name COLLATE NOCASE)',
  ...STARTING_CAUSES.map(
    ({ name, look }) => `INSERT INTO causes (id, name, look) VALUES (${UUID}, ${quoted(name)}, ${quoted(look)})`,
  ),
  `CREATE TABLE misprints (id TEXT PRIMARY KEY, at TEXT NOT NULL, printId TEXT REFERENCES prints(id) ON DELETE SET NULL,
     pictureId TEXT NOT NULL REFERENCES pictures(id), conditionId TEXT NOT NULL REFERENCES conditions(id),
     causeId TEXT NOT NULL REFERENCES causes(id), sheets INTEGER NOT NULL CHECK (sheets > 0), minutes REAL NOT NULL DEFAULT 0,
     lost REAL CHECK (lost >= 0), currency TEXT, boxId TEXT REFERENCES boxes(id) ON DELETE SET NULL, feed TEXT NOT NULL DEFAULT '',
     note TEXT NOT NULL DEFAULT '', CHECK ((lost IS NULL) = (currency IS NULL)))`,
  'CREATE INDEX misprints_print ON misprints(printId)',
  // What earlier versions wrote into the print itself is booked as it would be today.
  `INSERT INTO causes (id, name) SELECT ${UUID}, cause FROM (SELECT DISTINCT trim(misprintCause) AS cause FROM prints WHERE misprints > 0 AND trim(misprintCause) <> '')
     WHERE true ON CONFLICT DO NOTHING`,
  `INSERT INTO causes (id, name) SELECT ${UUID}, 'not said' WHERE EXISTS (SELECT 1 FROM prints WHERE misprints > 0 AND trim(misprintCause) = '')`,
  `INSERT INTO misprints (id, at, printId, pictureId, conditionId, causeId, sheets, feed)
     SELECT ${UUID}, printedOn, id, pictureId, conditionId,
       (SELECT c.id FROM causes c WHERE c.name = COALESCE(NULLIF(trim(misprintCause), ''), 'not said') COLLATE NOCASE), misprints,
       COALESCE(json_extract(settings, '$.feed'), '') FROM prints WHERE misprints > 0`,
  'ALTER TABLE prints DROP COLUMN misprints',
  'ALTER TABLE prints DROP COLUMN misprintCause',
];

const EDITIONS = [
  `CREATE TABLE editions (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, pictureId TEXT NOT NULL REFERENCES pictures(id),
     conditionId TEXT NOT NULL REFERENCES conditions(id), name TEXT NOT NULL, size INTEGER CHECK (size > 0), artist INTEGER NOT NULL,
     printer INTEGER NOT NULL, good INTEGER NOT NULL, widthMm REAL NOT NULL, heightMm REAL NOT NULL, batch TEXT NOT NULL,
     accepted TEXT NOT NULL DEFAULT '[]', notes TEXT NOT NULL DEFAULT '', revision INTEGER NOT NULL DEFAULT 1)`,
  'CREATE UNIQUE INDEX editions_one ON editions(pictureId, name COLLATE NOCASE)',
  `CREATE TABLE numbers (id TEXT PRIMARY KEY, editionId TEXT NOT NULL REFERENCES editions(id),
     series TEXT NOT NULL CHECK (series IN ('edition', 'artist', 'printer', 'good')), number INTEGER NOT NULL CHECK (number > 0),
     printId TEXT REFERENCES prints(id), givenAt TEXT NOT NULL, batch TEXT NOT NULL,
     fate TEXT NOT NULL DEFAULT 'here' CHECK (fate IN ('here', 'sold', 'gifted', 'destroyed', 'returned')), fateOn TEXT,
     fateTo TEXT NOT NULL DEFAULT '', price REAL, currency TEXT, note TEXT NOT NULL DEFAULT '', revision INTEGER NOT NULL DEFAULT 1,
     UNIQUE (editionId, series, number))`,
  'CREATE INDEX numbers_print ON numbers(printId)',
  // A number that was given stays given; whatever becomes of the print, no other gets it.
  `CREATE TRIGGER numbers_remain BEFORE DELETE ON numbers BEGIN SELECT RAISE(ABORT, 'a number that was given stays given'); END`,
  `CREATE TRIGGER numbers_stay BEFORE UPDATE OF editionId, series, number ON numbers
     WHEN OLD.editionId IS NOT NEW.editionId OR OLD.series IS NOT NEW.series OR OLD.number IS NOT NEW.number
     BEGIN SELECT RAISE(ABORT, 'a number that was given stays given'); END`,
  `CREATE TRIGGER numbers_within BEFORE INSERT ON numbers
     WHEN NEW.number > COALESCE((SELECT CASE NEW.series WHEN 'edition' THEN size WHEN 'artist' THEN artist WHEN 'printer' THEN printer
       ELSE good END FROM editions WHERE id = NEW.editionId), CASE NEW.series WHEN 'edition' THEN 9e18 ELSE 0 END)
     BEGIN SELECT RAISE(ABORT, 'the edition is full'); END`,
  // A number is of a print of the edition's picture on the edition's sheet; what bears one stays what it is.
  `CREATE TRIGGER numbers_suit BEFORE INSERT ON numbers WHEN NEW.printId IS NOT NULL AND EXISTS (
     SELECT 1 FROM prints p JOIN editions e ON e.id = NEW.editionId WHERE p.id = NEW.printId
     AND (p.pictureId <> e.pictureId OR p.conditionId <> e.conditionId OR p.state <> 'printed'))
     BEGIN SELECT RAISE(ABORT, 'this print is none of the edition'); END`,
  `CREATE TRIGGER prints_numbered BEFORE UPDATE OF pictureId, conditionId, widthMm, heightMm, copies, state ON prints
     WHEN EXISTS (SELECT 1 FROM numbers WHERE printId = OLD.id) AND (OLD.pictureId <> NEW.pictureId OR OLD.conditionId <> NEW.conditionId
       OR OLD.widthMm <> NEW.widthMm OR OLD.heightMm <> NEW.heightMm OR NEW.state <> 'printed'
       OR NEW.copies < (SELECT COUNT(*) FROM numbers WHERE printId = OLD.id))
     BEGIN SELECT RAISE(ABORT, 'a numbered print stays what it is'); END`,
  // A print of three copies bears three numbers at most.
  `CREATE TRIGGER numbers_copies BEFORE INSERT ON numbers WHEN NEW.printId IS NOT NULL AND
     (SELECT COUNT(*) FROM numbers WHERE printId = NEW.printId) >= (SELECT copies FROM prints WHERE id = NEW.printId)
     BEGIN SELECT RAISE(ABORT, 'every copy of this print is numbered'); END`,
  `CREATE TRIGGER editions_locked BEFORE UPDATE OF pictureId, conditionId, size, artist, printer, good, widthMm, heightMm, batch ON editions
     WHEN EXISTS (SELECT 1 FROM numbers WHERE editionId = OLD.id) AND (OLD.pictureId IS NOT NEW.pictureId OR OLD.conditionId IS NOT NEW.conditionId
       OR OLD.size IS NOT NEW.size OR OLD.artist IS NOT NEW.artist OR OLD.printer IS NOT NEW.printer OR OLD.good IS NOT NEW.good
       OR OLD.widthMm IS NOT NEW.widthMm OR OLD.heightMm IS NOT NEW.heightMm OR OLD.batch IS NOT NEW.batch)
     BEGIN SELECT RAISE(ABORT, 'an edition stays what it was when its first number was given'); END`,
];

const RUNS = [
  `CREATE TABLE runs (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, printer TEXT NOT NULL,
     state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'closed')), present TEXT NOT NULL, plan TEXT NOT NULL,
     looked TEXT NOT NULL DEFAULT '[]')`,
  `CREATE UNIQUE INDEX runs_open_one ON runs(printer) WHERE state = 'open'`,
  `CREATE TABLE run_items (id TEXT PRIMARY KEY, runId TEXT NOT NULL REFERENCES runs(id) ON DELETE CASCADE,
     printId TEXT NOT NULL REFERENCES prints(id) ON DELETE CASCADE, turn INTEGER NOT NULL, startMin REAL NOT NULL, endMin REAL NOT NULL,
     blackInkChange BOOLEAN NOT NULL, feedChange BOOLEAN NOT NULL, alone BOOLEAN NOT NULL,
     state TEXT NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'printed', 'left')), looked TEXT NOT NULL DEFAULT '[]',
     UNIQUE (runId, turn))`,
  `CREATE UNIQUE INDEX run_items_waiting_one ON run_items(printId) WHERE state = 'waiting'`,
];

const NEW_TABLES = ['boxes', 'causes', 'misprints', 'editions', 'numbers', 'runs', 'run_items'];
const REVISED = ['prints', 'boxes', 'editions', 'numbers'];

/**
 * Prints that wait, misprints and their causes, editions and their numbers, boxes in the drawer, runs at the printer,
 * the ledger as a projection.
 */
export class Prints1769000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await unrecord(runner, 'prints');
    await runner.query('DROP TRIGGER IF EXISTS prints_revised');
    for (const sql of [...STOCK, ...PRINTS, ...MISPRINTS, ...BOXED, ...EDITIONS, ...RUNS]) await runner.query(sql);
    for (const table of ['prints', ...NEW_TABLES]) await record(runner, table);
    for (const table of REVISED) await revise(runner, table);
    // Notes came later.
    for (const sql of ledgerProjection(withoutNotes(BEFORE_MOVES))) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const sql of withoutProjection()) await runner.query(sql);
    await unrecord(runner, 'prints');
    await runner.query('DROP TRIGGER prints_revised');
    for (const trigger of ['prints_box_insert', 'prints_box_update', 'prints_numbered'])
      await runner.query(`DROP TRIGGER ${trigger}`);
    await runner.query('ALTER TABLE prints ADD COLUMN misprints INTEGER NOT NULL DEFAULT 0');
    await runner.query(`ALTER TABLE prints ADD COLUMN misprintCause TEXT NOT NULL DEFAULT ''`);
    await runner.query(`UPDATE prints SET misprints = COALESCE((SELECT SUM(sheets) FROM misprints m WHERE m.printId = prints.id), 0),
      misprintCause = COALESCE((SELECT group_concat(c.name, '; ') FROM misprints m JOIN causes c ON c.id = m.causeId WHERE m.printId = prints.id), '')`);
    for (const table of ['run_items', 'runs', 'numbers', 'editions', 'misprints', 'causes']) {
      if (table === 'numbers') await runner.query('DROP TRIGGER numbers_remain');
      await runner.query(`DROP TABLE ${table}`);
    }
    await runner.query(`DELETE FROM prints WHERE state = 'waiting'`);
    await runner.query('DROP INDEX prints_state');
    for (const column of [
      'state',
      'boxId',
      'fromPrintId',
      'carriedFrom',
      'minutes',
      'judgedIn',
      'decidedBy',
      'decidedWhy',
    ])
      await runner.query(`ALTER TABLE prints DROP COLUMN ${column}`);
    await runner.query('DROP TABLE boxes');
    await record(runner, 'prints');
    await revise(runner, 'prints');
  }
}
