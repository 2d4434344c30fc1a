/** A table on record. */
export interface Recorded {
  readonly noun: string;
  /** Columns the database itself keeps up with others that are recorded; they are taken along. */
  readonly followed?: readonly string[];
  /** Column it is called by, where it has none of the usual. */
  readonly called?: string;
}

/** Tables whose every change is recorded, with the columns that are not. */
export const RECORDED: Readonly<Record<string, Recorded>> = {
  papers: { noun: 'paper' },
  conditions: { noun: 'print condition', followed: ['profileId'] },
  readings: { noun: 'readings' },
  observations: { noun: 'observation' },
  charts: { noun: 'chart' },
  sessions: { noun: 'reading session' },
  session_strips: { noun: 'strip' },
  lights: { noun: 'lamp' },
  profiles: { noun: 'profile' },
  profile_checks: { noun: 'check of a profile' },
  eye_sessions: { noun: 'comparison by eye' },
  eye_choices: { noun: 'choice by eye' },
  trials: { noun: 'media-setting trial' },
  packs: { noun: 'sample pack' },
  pictures: { noun: 'picture' },
  decisions: { noun: 'decision' },
  matches: { noun: 'match' },
  schools: { noun: 'school' },
  prints: { noun: 'print' },
  photographs: { noun: 'photograph of a print' },
  print_proofs: { noun: 'proof of a print', called: 'light' },
  boxes: { noun: 'box of paper' },
  causes: { noun: 'cause of misprints' },
  misprints: { noun: 'misprint' },
  editions: { noun: 'edition' },
  numbers: { noun: 'number of an edition' },
  clients: { noun: 'client' },
  places: { noun: 'place' },
  orders: { noun: 'order' },
  order_lines: { noun: 'line of an order', called: 'position' },
  moves: { noun: 'move of a print', called: 'to' },
  recipes: { noun: 'recipe' },
  print_files: { noun: 'print file', called: 'fileName' },
  notes: { noun: 'note', called: 'text' },
  runs: { noun: 'run at the printer' },
  run_items: { noun: 'print of a run' },
  inbox: { noun: 'file in the inbox' },
  shows: { noun: 'show' },
  show_pictures: { noun: 'picture of a show' },
  show_papers: { noun: 'paper of a show', called: 'standing' },
  rules: { noun: 'what holds for the studio', called: 'id' },
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
 * Triggers that write a table's changes to `events`, in the transaction of the change itself, whoever makes it. A
 * removed row is kept whole, so that it can come back; of a changed one what was and what is; of a new one that it
 * came: the row itself says the rest.
 * @param columns all of the table's columns
 */
export function recordTriggers(table: string, columns: readonly ColumnFacts[]): string[] {
  const { followed = [] } = RECORDED[table];
  const kept = columns.filter((c) => !followed.includes(c.name));
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
