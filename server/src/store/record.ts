/** A table on record. */
export interface Recorded {
  readonly noun: string;
  /** Columns that are computed from the rest: neither recorded nor taken along. */
  readonly derived: readonly string[];
  /** Columns the database itself keeps up with others that are recorded; they are taken along. */
  readonly followed?: readonly string[];
  /** Column it is called by, where it has none of the usual. */
  readonly called?: string;
}

/** Tables whose every change is recorded, with the columns that are not. */
export const RECORDED: Readonly<Record<string, Recorded>> = {
  papers: { noun: 'paper', derived: [] },
  conditions: { noun: 'print condition', derived: ['facts', 'mesh'], followed: ['profileId'] },
  readings: { noun: 'readings', derived: [] },
  observations: { noun: 'observation', derived: [] },
  charts: { noun: 'chart', derived: [] },
  sessions: { noun: 'reading session', derived: [] },
  session_strips: { noun: 'strip', derived: [] },
  lights: { noun: 'lamp', derived: [] },
  profiles: { noun: 'profile', derived: [] },
  profile_checks: { noun: 'check of a profile', derived: [] },
  eye_sessions: { noun: 'comparison by eye', derived: [] },
  eye_choices: { noun: 'choice by eye', derived: [] },
  trials: { noun: 'media-setting trial', derived: [] },
  packs: { noun: 'sample pack', derived: [] },
  pictures: { noun: 'picture', derived: [] },
  decisions: { noun: 'decision', derived: [] },
  matches: { noun: 'match', derived: [] },
  schools: { noun: 'school', derived: [] },
  prints: { noun: 'print', derived: [] },
  photographs: { noun: 'photograph of a print', derived: [] },
  boxes: { noun: 'box of paper', derived: [] },
  causes: { noun: 'cause of misprints', derived: [] },
  misprints: { noun: 'misprint', derived: [] },
  editions: { noun: 'edition', derived: [] },
  numbers: { noun: 'number of an edition', derived: [] },
  recipes: { noun: 'recipe', derived: [] },
  notes: { noun: 'note', derived: [], called: 'text' },
  runs: { noun: 'run at the printer', derived: [] },
  run_items: { noun: 'print of a run', derived: [] },
  rules: { noun: 'what holds for the studio', derived: [], called: 'id' },
};

export interface ColumnFacts {
  readonly name: string;
  readonly type: string;
}

const json = (row: 'OLD' | 'NEW', columns: readonly ColumnFacts[]) =>
  `json_object(${columns
    .map(({ name, type }) => `'${name}', ${type === 'BLOB' ? `hex(${row}."${name}")` : `${row}."${name}"`}`)
    .join(', ')})`;

/**
 * Triggers that write a table's changes to `events`, in the transaction of the change itself, whoever makes it. A removed row is kept whole, so
 * that it can come back; of a changed one what was and what is; of a new one that it came: the row itself says the rest.
 * @param columns all of the table's columns
 */
export function recordTriggers(table: string, columns: readonly ColumnFacts[]): string[] {
  const { derived, followed = [] } = RECORDED[table];
  const kept = columns.filter((c) => !derived.includes(c.name) && !followed.includes(c.name));
  // What is changed is compared without what no hand changes.
  const light = kept.filter((c) => c.type !== 'BLOB' && c.name !== 'revision');
  const differs = light.map(({ name }) => `OLD."${name}" IS NOT NEW."${name}"`).join(' OR ');
  const event = (deed: string, id: string, before: string, after: string) =>
    `INSERT INTO events (change, what, at, deed, subject, id, before, after)
     SELECT deed.id, deed.what, strftime('%Y-%m-%dT%H:%M:%fZ', 'now'), '${deed}', '${table}', ${id}, ${before}, ${after} FROM deed`;
  return [
    `CREATE TRIGGER ${table}_recorded_new AFTER INSERT ON ${table} BEGIN ${event('made', 'NEW.id', 'NULL', 'NULL')}; END`,
    `CREATE TRIGGER ${table}_recorded_change AFTER UPDATE ON ${table} WHEN ${differs}
     BEGIN ${event('changed', 'NEW.id', json('OLD', light), json('NEW', light))}; END`,
    `CREATE TRIGGER ${table}_recorded_end AFTER DELETE ON ${table} BEGIN ${event('removed', 'OLD.id', json('OLD', kept), 'NULL')}; END`,
  ];
}
