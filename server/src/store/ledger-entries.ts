/** A kind of entry in the ledger: from which table it comes, and what it tells. */
interface EntrySource {
  readonly kind: string;
  readonly table: string;
  /** Rows of the table that are entries. */
  readonly where: string;
  /** SQL of what stands in the entry; `t` is the row, `i` its picture, `s` its paper, `c` its print condition. */
  readonly at: string;
  readonly enteredAt: string;
  readonly pictureId: string;
  readonly conditionId: string;
  readonly outcome: string;
  readonly reason: string;
  /** Its paper, where it may be of none of its print conditions. */
  readonly paperId?: string;
  /** What else a search finds it by. */
  readonly more: string;
}

/** Where a number stands: its last move. */
const STANDS = `(SELECT COLUMN FROM moves m WHERE m.numberId = t.id AND NOT EXISTS (SELECT 1 FROM moves n WHERE n.fromId = m.id))`;
/** Who had or has what was moved, and where: clients and places by name, and the words that were entered. */
const WHO_OF = (which: string): string =>
  `COALESCE((SELECT group_concat(COALESCE(c.name, '') || ' ' || COALESCE(l.name, '') || ' ' || m.withWhom, ' ')
    FROM moves m LEFT JOIN clients c ON c.id = m.clientId LEFT JOIN places l ON l.id = m.placeId WHERE ${which}), '')`;
const ORDERED_BY = `COALESCE((SELECT c.name || ' ' || o.name FROM order_lines l JOIN orders o ON o.id = l.orderId
  JOIN clients c ON c.id = o.clientId WHERE l.id = t.orderLineId), '')`;

export const ENTRY_SOURCES: readonly EntrySource[] = [
  {
    kind: 'decision',
    table: 'decisions',
    where: '1',
    at: 't.decidedAt',
    enteredAt: 't.decidedAt',
    pictureId: 't.pictureId',
    conditionId: 't.conditionId',
    outcome: 't.stamp',
    reason: 't.reason',
    more: 't.decidedBy',
  },
  {
    kind: 'print',
    table: 'prints',
    where: `t.state = 'printed'`,
    at: 't.printedOn',
    enteredAt: 't.recordedAt',
    pictureId: 't.pictureId',
    conditionId: 't.conditionId',
    outcome: 't.verdict',
    reason: 't.verdictReason',
    more: `COALESCE((SELECT b.label || ' ' || b.batch FROM boxes b WHERE b.id = t.boxId), '') || ' ' || t.notes || ' ' || t.judgedIn || ' ' || t.decidedBy || ' ' || t.decidedWhy || ' ' || (SELECT group_concat(value, ' ') FROM json_each(t.settings)) || ' ' || ${ORDERED_BY} || ' ' || ${WHO_OF('m.printId = t.id')}`,
  },
  {
    kind: 'misprint',
    table: 'misprints',
    where: '1',
    at: 't.at',
    enteredAt: 't.at',
    pictureId: 't.pictureId',
    conditionId: 't.conditionId',
    outcome: '(SELECT name FROM causes WHERE causes.id = t.causeId)',
    reason: 't.note',
    more: `'spoilt ' || t.feed`,
  },
  {
    kind: 'trial',
    table: 'trials',
    where: '1',
    at: 't.stampedAt',
    enteredAt: 't.stampedAt',
    pictureId: 'NULL',
    conditionId: 't.conditionId',
    outcome: 't.mediaSetting',
    reason: 't.reason',
    more: `t."by" || ' ' || t.light`,
  },
  {
    kind: 'number',
    table: 'numbers',
    where: '1',
    at: 't.givenAt',
    enteredAt: 't.givenAt',
    pictureId: '(SELECT pictureId FROM editions e WHERE e.id = t.editionId)',
    conditionId: '(SELECT conditionId FROM editions e WHERE e.id = t.editionId)',
    outcome: `COALESCE(${STANDS.replace('COLUMN', 'm."to"')}, 'studio')`,
    reason: `COALESCE(${STANDS.replace('COLUMN', 'm.note')}, '')`,
    more: `(SELECT e.name FROM editions e WHERE e.id = t.editionId) || ' edition ' || ${WHO_OF('m.numberId = t.id')} || ' ' || t.batch || ' ' ||
      COALESCE((SELECT group_concat(json_extract(a.value, '$.by'), ' ') FROM editions e, json_each(e.accepted) a
        WHERE e.id = t.editionId AND json_extract(a.value, '$.batch') = t.batch), '')`,
  },
  {
    kind: 'move',
    table: 'moves',
    where: '1',
    at: 't."on"',
    enteredAt: 't.recordedAt',
    pictureId: `COALESCE((SELECT p.pictureId FROM prints p WHERE p.id = t.printId),
      (SELECT e.pictureId FROM numbers n JOIN editions e ON e.id = n.editionId WHERE n.id = t.numberId))`,
    conditionId: `COALESCE((SELECT p.conditionId FROM prints p WHERE p.id = t.printId),
      (SELECT e.conditionId FROM numbers n JOIN editions e ON e.id = n.editionId WHERE n.id = t.numberId))`,
    outcome: 't."to"',
    reason: 't.note',
    more: WHO_OF('m.id = t.id'),
  },
  {
    kind: 'note',
    table: 'notes',
    where: '1',
    at: 't.at',
    enteredAt: 't.at',
    pictureId: 't.pictureId',
    conditionId: 't.conditionId',
    paperId: 't.paperId',
    outcome: `''`,
    reason: 't.text',
    more: 't."by"',
  },
];

/**
 * The day of an entry where the printmaker stands: a calendar day is itself, an instant of the day the clock on the
 * wall showed. An instant with an offset of its own is of the day it names.
 */
const DAY = `CASE WHEN length(e.at) = 10 OR e.at NOT LIKE '%Z' THEN substr(e.at, 1, 10) ELSE date(e.at, 'localtime') END`;

/** Puts entries of a kind into the projection; `which` picks the rows. */
const entered = (s: EntrySource, which: string) => `
  INSERT INTO entries (kind, id, at, day, enteredAt, pictureId, conditionId, paperId, outcome, reason, words)
  SELECT e.kind, e.id, e.at, ${DAY}, e.enteredAt, e.pictureId, e.conditionId, COALESCE(c.paperId, e.paperId), COALESCE(e.outcome, ''), COALESCE(e.reason, ''),
    COALESCE(i.title, '') || ' ' || COALESCE(i.caption, '') || ' ' || COALESCE(json_extract(i.commission, '$.wishes'), '') || ' ' ||
    COALESCE(json_extract(i.commission, '$.signedOffBy'), '') || ' ' || COALESCE(s.maker, '') || ' ' || COALESCE(s.name, '') || ' ' ||
    COALESCE(c.printer, '') || ' ' || COALESCE(c.mediaSetting, '') || ' ' || COALESCE(c.printMode, '') || ' ' || COALESCE(c.inkSet, '') || ' ' ||
    e.kind || ' ' || e.at || ' ' || COALESCE(e.outcome, '') || ' ' || COALESCE(e.reason, '') || ' ' || COALESCE(e.more, '')
  FROM (SELECT '${s.kind}' AS kind, t.id AS id, ${s.at} AS at, ${s.enteredAt} AS enteredAt, ${s.pictureId} AS pictureId,
      ${s.conditionId} AS conditionId, ${s.paperId ?? 'NULL'} AS paperId, ${s.outcome} AS outcome, ${s.reason} AS reason, ${s.more} AS more
    FROM ${s.table} t WHERE ${s.where}) e
  LEFT JOIN pictures i ON i.id = e.pictureId LEFT JOIN conditions c ON c.id = e.conditionId
  LEFT JOIN papers s ON s.id = COALESCE(c.paperId, e.paperId)
  WHERE ${which};`;

/** The projection and its index of words. */
const TABLES = [
  `CREATE TABLE entries (seq INTEGER PRIMARY KEY, kind TEXT NOT NULL, id TEXT NOT NULL, at TEXT NOT NULL, day TEXT NOT NULL, enteredAt TEXT NOT NULL,
     pictureId TEXT, conditionId TEXT, paperId TEXT, outcome TEXT NOT NULL, reason TEXT NOT NULL, words TEXT NOT NULL)`,
  'CREATE UNIQUE INDEX entries_one ON entries(kind, id)',
  'CREATE INDEX entries_at ON entries(day DESC, enteredAt DESC, id)',
  'CREATE INDEX entries_kind ON entries(kind, day)',
  'CREATE INDEX entries_picture ON entries(pictureId, day)',
  'CREATE INDEX entries_condition ON entries(conditionId, day)',
  'CREATE INDEX entries_paper ON entries(paperId, day)',
  `CREATE VIRTUAL TABLE entries_words USING fts5(words, content='entries', content_rowid='seq', tokenize='unicode61 remove_diacritics 2', prefix='2 3')`,
  `CREATE TRIGGER entries_words_new AFTER INSERT ON entries BEGIN
     INSERT INTO entries_words (rowid, words) VALUES (NEW.seq, NEW.words); END`,
  `CREATE TRIGGER entries_words_end AFTER DELETE ON entries BEGIN
     INSERT INTO entries_words (entries_words, rowid, words) VALUES ('delete', OLD.seq, OLD.words); END`,
];

interface Followed {
  readonly table: string;
  readonly changes: string;
  readonly own: (e: string) => string;
  /** They are entered again when it is removed, too. */
  readonly ends?: true;
}

/** Prints, numbers and moves of what moved to a client or a place. */
const MOVED_OF = (column: string): string =>
  `UNION SELECT m.printId FROM moves m WHERE m.${column} = NEW.id
   UNION SELECT m.numberId FROM moves m WHERE m.${column} = NEW.id
   UNION SELECT m.id FROM moves m WHERE m.${column} = NEW.id`;

/** Which entries there are, and what they follow. */
export interface Projection {
  readonly sources: readonly EntrySource[];
  readonly follows: readonly Followed[];
}

/** What entries are found by besides what they hold: where it changes, they are entered again. `own` picks them. */
const FOLLOWS: readonly Followed[] = [
  { table: 'pictures', changes: 'title, caption, commission', own: (e) => `${e}pictureId = NEW.id` },
  {
    table: 'conditions',
    changes: 'printer, mediaSetting, printMode, inkSet, paperId',
    own: (e) => `${e}conditionId = NEW.id`,
  },
  {
    table: 'papers',
    changes: 'maker, name',
    // Most entries know their paper by its print conditions.
    own: (e) => `(${e}conditionId IN (SELECT id FROM conditions WHERE paperId = NEW.id) OR ${e}paperId = NEW.id)`,
  },
  {
    table: 'boxes',
    changes: 'label, batch',
    own: (e) => `(${e}kind = 'print' AND ${e}id IN (SELECT id FROM prints WHERE boxId = NEW.id))`,
  },
  {
    table: 'editions',
    changes: 'name, accepted',
    own: (e) => `(${e}kind = 'number' AND ${e}id IN (SELECT id FROM numbers WHERE editionId = NEW.id))`,
  },
  {
    table: 'clients',
    changes: 'name',
    own: (e) => `(${e}kind IN ('print', 'number', 'move') AND ${e}id IN (
      SELECT p.id FROM orders o JOIN order_lines l ON l.orderId = o.id JOIN prints p ON p.orderLineId = l.id WHERE o.clientId = NEW.id
      ${MOVED_OF('clientId')}))`,
  },
  {
    table: 'places',
    changes: 'name',
    own: (e) => `(${e}kind IN ('print', 'number', 'move') AND ${e}id IN (SELECT NULL ${MOVED_OF('placeId')}))`,
  },
  {
    table: 'orders',
    changes: 'name, clientId',
    own: (e) => `(${e}kind = 'print' AND ${e}id IN (
      SELECT p.id FROM order_lines l JOIN prints p ON p.orderLineId = l.id WHERE l.orderId = NEW.id))`,
  },
  {
    table: 'moves',
    changes: '"to", clientId, placeId, withWhom, note',
    own: (e) => `(${e}kind IN ('print', 'number') AND ${e}id IN (NEW.printId, NEW.numberId))`,
    ends: true,
  },
];

/** How the ledger was told before prints had a whereabouts of their own. */
export const BEFORE_MOVES: Projection = {
  sources: ENTRY_SOURCES.filter((s) => s.kind !== 'move').map((s) =>
    s.kind === 'number'
      ? {
          ...s,
          outcome: 't.fate',
          reason: 't.note',
          more: s.more.replace(WHO_OF('m.numberId = t.id'), 't.fateTo'),
        }
      : { ...s, more: s.more.replace(` || ' ' || ${ORDERED_BY} || ' ' || ${WHO_OF('m.printId = t.id')}`, '') },
  ),
  follows: FOLLOWS.filter((f) => !['clients', 'places', 'orders', 'moves'].includes(f.table)),
};

/** Of a projection, all but what notes are. */
export const withoutNotes = ({ sources, follows }: Projection): Projection => ({
  sources: sources.filter((s) => s.table !== 'notes'),
  follows,
});

/**
 * The ledger as a projection: every decision, print, misprint, trial and number as a row with the words it is found by, kept up by the
 * database itself, whoever writes, notes among them. What it is called by (picture, paper, printer) is followed when
 * it is renamed or comes back from the bin.
 */
export function ledgerProjection(
  { sources, follows }: Projection = { sources: ENTRY_SOURCES, follows: FOLLOWS },
): string[] {
  const keep = sources.flatMap((s) => {
    const away = (row: string) => `DELETE FROM entries WHERE kind = '${s.kind}' AND id = ${row}.id;`;
    return [
      `CREATE TRIGGER ${s.table}_entered_new AFTER INSERT ON ${s.table} BEGIN ${entered(s, 'e.id = NEW.id')} END`,
      `CREATE TRIGGER ${s.table}_entered_change AFTER UPDATE ON ${s.table} BEGIN ${away('OLD')} ${entered(s, 'e.id = NEW.id')} END`,
      `CREATE TRIGGER ${s.table}_entered_end AFTER DELETE ON ${s.table} BEGIN ${away('OLD')} END`,
    ];
  });
  const follow = follows.flatMap(({ table, changes, own, ends }) => {
    const again = `DELETE FROM entries WHERE ${own('')}; ${sources.map((s) => entered(s, own('e.'))).join('')}`;
    return [
      `CREATE TRIGGER ${table}_followed_new AFTER INSERT ON ${table} BEGIN ${again} END`,
      `CREATE TRIGGER ${table}_followed_change AFTER UPDATE OF ${changes} ON ${table} BEGIN ${again} END`,
      ...(ends
        ? [
            `CREATE TRIGGER ${table}_followed_end AFTER DELETE ON ${table} BEGIN ${again.replaceAll('NEW.', 'OLD.')} END`,
          ]
        : []),
    ];
  });
  return [...TABLES, ...keep, ...follow, ...sources.map((s) => entered(s, '1'))];
}

/** Takes the projection away again. */
export function withoutProjection(): string[] {
  return [
    ...ENTRY_SOURCES.flatMap((s) =>
      ['new', 'change', 'end'].map((e) => `DROP TRIGGER IF EXISTS ${s.table}_entered_${e}`),
    ),
    ...FOLLOWS.flatMap(({ table }) =>
      ['new', 'change', 'end'].map((e) => `DROP TRIGGER IF EXISTS ${table}_followed_${e}`),
    ),
    'DROP TABLE entries_words',
    'DROP TABLE entries',
  ];
}
