import type { MigrationInterface, QueryRunner } from 'typeorm';
import { BEFORE_MOVES, ledgerProjection, withoutProjection } from '../ledger-entries.ts';
import { columnsChange, record, revise, unrecord } from '../record-again.ts';

const TABLES = ['clients', 'places', 'orders', 'order_lines', 'moves'];

const CREATE = [
  `CREATE TABLE clients (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL CHECK (trim(name) <> ''),
     contact TEXT NOT NULL DEFAULT '', wishes TEXT NOT NULL DEFAULT '', notes TEXT NOT NULL DEFAULT '',
     revision INTEGER NOT NULL DEFAULT 1)`,
  'CREATE UNIQUE INDEX clients_one ON clients(name COLLATE NOCASE)',
  `CREATE TABLE places (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, name TEXT NOT NULL CHECK (trim(name) <> ''),
     address TEXT NOT NULL DEFAULT '', clientId TEXT REFERENCES clients(id), light TEXT, glass TEXT,
     lux REAL CHECK (lux IS NULL OR lux > 0), notes TEXT NOT NULL DEFAULT '', revision INTEGER NOT NULL DEFAULT 1)`,
  `CREATE UNIQUE INDEX places_one ON places(COALESCE(clientId, ''), name COLLATE NOCASE)`,
  `CREATE TABLE orders (id TEXT PRIMARY KEY, createdAt TEXT NOT NULL, clientId TEXT NOT NULL REFERENCES clients(id),
     placeId TEXT REFERENCES places(id), name TEXT NOT NULL CHECK (trim(name) <> ''), dueOn TEXT,
     price REAL CHECK (price IS NULL OR price >= 0), currency TEXT, notes TEXT NOT NULL DEFAULT '',
     state TEXT NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'delivered', 'cancelled')), deliveredOn TEXT,
     parts INTEGER NOT NULL DEFAULT 0, revision INTEGER NOT NULL DEFAULT 1,
     CHECK ((price IS NULL) = (currency IS NULL)), CHECK ((state = 'delivered') = (deliveredOn IS NOT NULL)))`,
  'CREATE INDEX orders_client ON orders(clientId)',
  'CREATE INDEX orders_place ON orders(placeId)',
  `CREATE TABLE order_lines (id TEXT PRIMARY KEY, orderId TEXT NOT NULL REFERENCES orders(id) ON DELETE CASCADE,
     position INTEGER NOT NULL CHECK (position >= 1), pictureId TEXT NOT NULL REFERENCES pictures(id) ON DELETE CASCADE,
     conditionId TEXT REFERENCES conditions(id) ON DELETE SET NULL, widthMm REAL NOT NULL CHECK (widthMm > 0),
     heightMm REAL NOT NULL CHECK (heightMm > 0), copies INTEGER NOT NULL CHECK (copies >= 1))`,
  'CREATE INDEX order_lines_of ON order_lines(orderId, position)',
  'CREATE INDEX order_lines_picture ON order_lines(pictureId)',
  'CREATE INDEX order_lines_condition ON order_lines(conditionId)',
  `CREATE TABLE moves (id TEXT PRIMARY KEY, recordedAt TEXT NOT NULL, printId TEXT REFERENCES prints(id) ON DELETE CASCADE,
     numberId TEXT REFERENCES numbers(id), fromId TEXT REFERENCES moves(id) ON DELETE CASCADE,
     "to" TEXT NOT NULL CHECK ("to" IN ('studio', 'sold', 'lent', 'consigned', 'given', 'destroyed')),
     copies INTEGER NOT NULL CHECK (copies >= 1), clientId TEXT REFERENCES clients(id), placeId TEXT REFERENCES places(id),
     orderId TEXT REFERENCES orders(id) ON DELETE SET NULL, withWhom TEXT NOT NULL DEFAULT '', "on" TEXT NOT NULL,
     until TEXT CHECK (until IS NULL OR "to" IN ('lent', 'consigned')),
     price REAL CHECK (price IS NULL OR price >= 0), currency TEXT, note TEXT NOT NULL DEFAULT '',
     CHECK ((printId IS NULL) <> (numberId IS NULL)), CHECK (numberId IS NULL OR copies = 1),
     CHECK ((price IS NULL) = (currency IS NULL)))`,
  'CREATE INDEX moves_print ON moves(printId)',
  'CREATE INDEX moves_client ON moves(clientId)',
  'CREATE INDEX moves_place ON moves(placeId)',
  'CREATE INDEX moves_order ON moves(orderId)',
  'CREATE INDEX moves_from ON moves(fromId)',
  // A numbered print is one sheet: from where it stands it goes to one place.
  `CREATE UNIQUE INDEX moves_number ON moves(numberId, COALESCE(fromId, '')) WHERE numberId IS NOT NULL`,
];

const MOVED = `(SELECT COALESCE(SUM(m.copies), 0) FROM moves m WHERE m.printId = NEW.printId AND m.fromId IS NULL)`;
const TRIGGERS = {
  // From where copies stand no more of them go than stand there.
  moves_enough: `BEFORE INSERT ON moves WHEN NEW.fromId IS NOT NULL AND
     NEW.copies + (SELECT COALESCE(SUM(m.copies), 0) FROM moves m WHERE m.fromId = NEW.fromId) > (SELECT copies FROM moves WHERE id = NEW.fromId)
     BEGIN SELECT RAISE(ABORT, 'fewer copies stand there'); END`,
  moves_from_own: `BEFORE INSERT ON moves WHEN NEW.fromId IS NOT NULL AND NOT EXISTS (
     SELECT 1 FROM moves m WHERE m.id = NEW.fromId AND m.printId IS NEW.printId AND m.numberId IS NEW.numberId AND m."to" <> 'destroyed')
     BEGIN SELECT RAISE(ABORT, 'copies go on from where they stand'); END`,
  moves_of_printed: `BEFORE INSERT ON moves WHEN NEW.printId IS NOT NULL AND NEW.fromId IS NULL AND
     NEW.copies + ${MOVED} + (SELECT COUNT(*) FROM numbers n WHERE n.printId = NEW.printId) >
       (SELECT CASE state WHEN 'printed' THEN copies ELSE 0 END FROM prints WHERE id = NEW.printId)
     BEGIN SELECT RAISE(ABORT, 'fewer copies are in the studio'); END`,
  // A copy that left without a number gets none, and a print has no fewer copies than left.
  numbers_not_moved: `BEFORE INSERT ON numbers WHEN NEW.printId IS NOT NULL AND 1 + ${MOVED} +
     (SELECT COUNT(*) FROM numbers n WHERE n.printId = NEW.printId) > (SELECT copies FROM prints WHERE id = NEW.printId)
     BEGIN SELECT RAISE(ABORT, 'every other copy left the studio'); END`,
  prints_moved: `BEFORE UPDATE OF copies, state ON prints WHEN (NEW.copies < OLD.copies OR NEW.state <> 'printed') AND
     (SELECT COALESCE(SUM(m.copies), 0) FROM moves m WHERE m.printId = OLD.id AND m.fromId IS NULL) +
     (SELECT COUNT(*) FROM numbers n WHERE n.printId = OLD.id) > CASE NEW.state WHEN 'printed' THEN NEW.copies ELSE 0 END
     BEGIN SELECT RAISE(ABORT, 'more copies left the studio'); END`,
};

/** Columns of numbers that said where a print is, before it had a history. */
const FATE = {
  fate: `TEXT NOT NULL DEFAULT 'here' CHECK (fate IN ('here', 'sold', 'gifted', 'destroyed', 'returned'))`,
  fateOn: 'TEXT',
  fateTo: `TEXT NOT NULL DEFAULT ''`,
  price: 'REAL',
  currency: 'TEXT',
  note: `TEXT NOT NULL DEFAULT ''`,
};

/** What was recorded of a number becomes its first move. A note without a place to go with stays with the number. */
const FIRST_MOVES = `INSERT INTO moves (id, recordedAt, numberId, "to", copies, withWhom, "on", price, currency, note)
  SELECT lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-8' ||
    substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6))), COALESCE(fateOn, givenAt), id,
    CASE fate WHEN 'gifted' THEN 'given' WHEN 'returned' THEN 'studio' WHEN 'here' THEN 'studio' ELSE fate END, 1, fateTo,
    substr(COALESCE(fateOn, givenAt), 1, 10), iif(currency IS NULL, NULL, price), iif(price IS NULL, NULL, currency), note
  FROM numbers WHERE fate <> 'here' OR note <> '' OR fateTo <> '' OR price IS NOT NULL`;

const FATES_AGAIN = `UPDATE numbers SET (fate, fateOn, fateTo, price, currency, note) = (
    SELECT CASE m."to" WHEN 'given' THEN 'gifted' WHEN 'studio' THEN 'returned' WHEN 'lent' THEN 'here' WHEN 'consigned' THEN 'here' ELSE m."to" END,
      m."on", m.withWhom, m.price, m.currency, m.note
    FROM moves m WHERE m.numberId = numbers.id AND NOT EXISTS (SELECT 1 FROM moves n WHERE n.fromId = m.id))
  WHERE EXISTS (SELECT 1 FROM moves m WHERE m.numberId = numbers.id)`;

/** Clients, places and orders; where every copy of a print went, one move after the other. */
export class Clients1791000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const sql of [...withoutProjection(), ...CREATE, FIRST_MOVES]) await runner.query(sql);
    await columnsChange(runner, 'numbers', async () => {
      for (const name of Object.keys(FATE).reverse()) await runner.query(`ALTER TABLE numbers DROP COLUMN ${name}`);
    });
    await columnsChange(runner, 'prints', () =>
      runner.query('ALTER TABLE prints ADD COLUMN orderLineId TEXT REFERENCES order_lines(id) ON DELETE SET NULL'),
    );
    await runner.query('CREATE INDEX prints_order_line ON prints(orderLineId) WHERE orderLineId IS NOT NULL');
    for (const [name, body] of Object.entries(TRIGGERS)) await runner.query(`CREATE TRIGGER ${name} ${body}`);
    for (const table of TABLES) await record(runner, table);
    for (const table of ['clients', 'places', 'orders']) await revise(runner, table);
    for (const sql of ledgerProjection()) await runner.query(sql);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const sql of withoutProjection()) await runner.query(sql);
    for (const name of Object.keys(TRIGGERS)) await runner.query(`DROP TRIGGER ${name}`);
    await columnsChange(runner, 'numbers', async () => {
      for (const [name, type] of Object.entries(FATE))
        await runner.query(`ALTER TABLE numbers ADD COLUMN ${name} ${type}`);
      await runner.query(FATES_AGAIN);
    });
    await runner.query('DROP INDEX prints_order_line');
    await columnsChange(runner, 'prints', () => runner.query('ALTER TABLE prints DROP COLUMN orderLineId'));
    for (const table of [...TABLES].reverse()) {
      await unrecord(runner, table);
      await runner.query(`DROP TRIGGER IF EXISTS ${table}_revised`);
      await runner.query(`DROP TABLE ${table}`);
    }
    for (const sql of ledgerProjection(BEFORE_MOVES)) await runner.query(sql);
  }
}
