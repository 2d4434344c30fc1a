import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import type { BinEntry, EventsQuery, EventView } from '@rakuen/contract/events';
import { notFound, RakuenError } from '../app/errors.ts';
import { FactsService } from '../conditions/facts.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { RECORDED, type ColumnFacts } from '../store/record.ts';
import { Writer } from '../store/writer.ts';

interface EventRow {
  readonly seq: number;
  readonly change: string;
  readonly what: string;
  readonly at: string;
  readonly deed: 'made' | 'changed' | 'removed';
  readonly subject: string;
  readonly id: string;
  readonly before: string | null;
  readonly after: string | null;
}

type Row = Record<string, string | number | null>;

/** Columns by which a thing is called, the first that it has. */
const NAMES = ['title', 'name', 'fileName', 'mediaSetting', 'stamp', 'criterion', 'kind', 'printedOn'] as const;
const MOST_EVENTS = 200;
/** What a hand changes in a form; the rest changes as it is worked with. */
const BY_HAND = new Set([
  'papers',
  'conditions',
  'prints',
  'pictures',
  'recipes',
  'boxes',
  'editions',
  'schools',
  'shows',
  'rules',
]);

/** What happened, the bin, and how what was removed or changed comes back. */
@Injectable()
export class EventsService {
  constructor(
    private readonly database: DataSource,
    private readonly facts: FactsService,
    private readonly settings: SettingsService,
    private readonly writer: Writer,
  ) {}

  /** What happened to a thing and to what belongs to it, or to all, the newest first. */
  async list({ about, before }: EventsQuery): Promise<EventView[]> {
    const rows = await this.database.query<EventRow[]>(
      `SELECT * FROM events WHERE (? OR id = ? OR before LIKE ?) AND seq < ? ORDER BY seq DESC LIMIT ?`,
      [about ? 0 : 1, about ?? '', `%"${about ?? ''}"%`, before ?? Number.MAX_SAFE_INTEGER, MOST_EVENTS],
    );
    return Promise.all(
      rows.map(async (row) => this.view(row, row.deed === 'made' ? await this.nameNow(row) : undefined)),
    );
  }

  /** What was removed and has not come back, a deed each, the newest first. */
  async bin(): Promise<BinEntry[]> {
    const rows = await this.database.query<EventRow[]>(
      `SELECT * FROM events e WHERE deed = 'removed'
       AND NOT EXISTS (SELECT 1 FROM undoings u WHERE u.change = e.change)
       AND NOT EXISTS (SELECT 1 FROM undoings u WHERE u.byChange = e.change) ORDER BY seq DESC`,
    );
    const deeds = new Map<string, EventRow[]>();
    for (const row of rows) deeds.set(row.change, [...(deeds.get(row.change) ?? []), row]);
    return [...deeds.values()].map((list): BinEntry => {
      const main = headOf(list);
      return { change: main.change, at: main.at, ...calledOf(main), parts: partsOf(list.filter((r) => r !== main)) };
    });
  }

  /**
   * Brings back what an operation removed, and what it changed as it was. A change alone is refused where the same was
   * changed again since; with a removal the later change stands, for what was removed must always come back.
   */
  async undo(change: string): Promise<void> {
    const rows = await this.database.query<EventRow[]>('SELECT * FROM events WHERE change = ? ORDER BY seq', [change]);
    const undoable = rows.filter((r) => r.deed !== 'made');
    if (undoable.length === 0) throw notFound('removal or change that could be undone');
    const [done] = await this.database.query<unknown[]>('SELECT 1 FROM undoings WHERE change = ?', [change]);
    if (done) throw new RakuenError(409, 'This was undone already.', { remedy: 'Look at the list again.' });
    await this.database.transaction(async (manager) => {
      // What hangs on a thing is removed before or after it as the database likes: it is all there again before it counts.
      await manager.query('PRAGMA defer_foreign_keys = ON');
      const restores = undoable.some((r) => r.deed === 'removed');
      for (const row of [...undoable].reverse()) await this.putBack(manager, row, restores);
      await manager.query('INSERT INTO undoings (change, byChange, at) VALUES (?, ?, ?)', [
        change,
        this.writer.deed?.id ?? change,
        new Date().toISOString(),
      ]);
    });
    // Figures are told from the rows that are there now.
    await this.facts.renew();
    if (undoable.some((r) => r.subject === 'rules' && r.id === 'settings')) await this.settings.follow();
  }

  private async putBack(manager: EntityManager, row: EventRow, restores: boolean): Promise<void> {
    const columns = await manager.query<ColumnFacts[]>(`PRAGMA table_info(${row.subject})`);
    const was = JSON.parse(row.before!) as Row;
    const known = columns.filter((c) => c.name in was);
    const value = (c: ColumnFacts) =>
      c.type === 'BLOB' && typeof was[c.name] === 'string' ? Buffer.from(was[c.name] as string, 'hex') : was[c.name];
    if (row.deed === 'removed') {
      await manager
        .query(
          `INSERT INTO ${row.subject} (${known.map((c) => `"${c.name}"`).join(', ')}) VALUES (${known.map(() => '?').join(', ')})`,
          known.map(value),
        )
        .catch(placeTaken(row));
      if (row.subject === 'prints') await spoiltThen(manager, was);
      return;
    }
    const [now] = await manager.query<Row[]>(`SELECT * FROM ${row.subject} WHERE id = ?`, [row.id]);
    const after = JSON.parse(row.after!) as Row;
    const changed = Object.keys(after).filter((k) => after[k] !== was[k]);
    const moved = changed.filter((k) => now && now[k] === after[k]);
    if (restores && moved.length === 0) return;
    if (!restores && moved.length < changed.length)
      throw new RakuenError(409, `${sentence(calledOf(row).noun)} “${calledOf(row).name}” was changed again since.`, {
        remedy: 'Undo the later change first.',
      });
    await manager
      .query(`UPDATE ${row.subject} SET ${moved.map((k) => `"${k}" = ?`).join(', ')} WHERE id = ?`, [
        ...moved.map((k) => was[k]),
        row.id,
      ])
      .catch(placeTaken(row));
  }

  /** What a thing that was made is called: as it is, or as it was when it was removed. */
  private async nameNow({ subject, id }: EventRow): Promise<string> {
    const [now] = await this.database.query<Row[]>(`SELECT * FROM ${subject} WHERE id = ?`, [id]);
    if (now) return nameOf(now);
    const [gone] = await this.database.query<{ before: string }[]>(
      "SELECT before FROM events WHERE id = ? AND deed = 'removed' ORDER BY seq DESC LIMIT 1",
      [id],
    );
    return gone ? nameOf(JSON.parse(gone.before) as Row) : '';
  }

  private view(row: EventRow, name?: string): EventView {
    const [before, after] = [row.before, row.after].map((t) => (t ? unfolded(JSON.parse(t) as Row) : undefined));
    const fields = before && after ? [...new Set([...Object.keys(before), ...Object.keys(after)])] : [];
    const moved = fields.filter((k) => (before![k] ?? null) !== (after![k] ?? null));
    return {
      seq: row.seq,
      change: row.change,
      at: row.at,
      deed: row.deed,
      id: row.id,
      ...calledOf(row),
      ...(name === undefined ? {} : { name }),
      undoable: row.deed === 'changed' && BY_HAND.has(row.subject),
      changes: moved.map((field) => ({ field, before: told(before![field]), after: told(after![field]) })),
    };
  }
}

/** A print that was removed before spoilt sheets were booked by themselves brings back what it told of them. */
async function spoiltThen(manager: EntityManager, was: Row): Promise<void> {
  if (!(Number(was.misprints) > 0)) return;
  const cause = String(was.misprintCause ?? '').trim() || 'not said';
  await manager.query('INSERT OR IGNORE INTO causes (id, name, look) VALUES (?, ?, ?)', [randomUUID(), cause, '']);
  await manager.query(
    `INSERT INTO misprints (id, at, printId, pictureId, conditionId, causeId, sheets, minutes, feed, note)
     SELECT ?, printedOn, id, pictureId, conditionId, (SELECT id FROM causes WHERE name = ? COLLATE NOCASE), ?, 0,
       COALESCE(json_extract(settings, '$.feed'), ''), '' FROM prints WHERE id = ?`,
    [randomUUID(), cause, was.misprints, was.id],
  );
}

/** Why something can't go back to where it was. */
const placeTaken = (row: EventRow) => (error: { code?: string }) => {
  const { noun, name } = calledOf(row);
  throw error.code === 'SQLITE_CONSTRAINT_UNIQUE' || error.code === 'SQLITE_CONSTRAINT_PRIMARYKEY'
    ? new RakuenError(409, `Something has come in the place of ${noun} “${name}”.`, {
        remedy: 'Rename or remove what is there now, and bring this back then.',
      })
    : error;
};

/** A row with what is kept as JSON in it laid open, each value by its own name: `settings.feed`. */
function unfolded(row: Row): Row {
  const flat: Row = {};
  const lay = (path: string, value: unknown): void => {
    if (Array.isArray(value))
      flat[path] = value.map((v) => (typeof v === 'object' ? JSON.stringify(v) : String(v))).join(', ');
    else if (typeof value === 'object' && value !== null)
      for (const [key, v] of Object.entries(value)) lay(path === 'value' ? key : `${path}.${key}`, v);
    else flat[path] = typeof value === 'boolean' ? String(value) : (value as string | number | null);
  };
  for (const [key, value] of Object.entries(row)) lay(key, jsonIn(value));
  return flat;
}

/** What a cell of JSON says; any other cell is what it is. */
function jsonIn(value: string | number | null): unknown {
  if (typeof value !== 'string' || !/^[[{]/.test(value)) return value;
  try {
    return JSON.parse(value);
  } catch {
    return value;
  }
}

/** A value as it is told; what is long is told by its beginning. */
const told = (value: string | number | null | undefined): string => {
  const text = value === null || value === undefined ? '' : String(value);
  return text.length > 200 ? `${text.slice(0, 200)}…` : text;
};
const sentence = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function calledOf({ subject, before, after }: EventRow): { noun: string; name: string } {
  const row = JSON.parse(after ?? before ?? '{}') as Row;
  const { noun = subject, called } = RECORDED[subject] ?? {};
  return { noun, name: called ? told(row[called]) : nameOf(row) };
}

function nameOf(row: Row): string {
  const name = NAMES.map((key) => row[key]).find((v) => v !== undefined && v !== null && v !== '');
  return name === undefined ? '' : told(name);
}

/** The thing a deed was about: what nothing else of it belongs to. */
function headOf(rows: readonly EventRow[]): EventRow {
  const order = Object.keys(RECORDED);
  return [...rows].sort((p, q) => order.indexOf(p.subject) - order.indexOf(q.subject))[0];
}

/** "2 readings, 8 observations". */
function partsOf(rows: readonly EventRow[]): string {
  const counts = new Map<string, number>();
  for (const { subject } of rows) counts.set(subject, (counts.get(subject) ?? 0) + 1);
  return [...counts]
    .map(([subject, n]) => `${n} ${n === 1 ? single(RECORDED[subject].noun) : several(RECORDED[subject].noun)}`)
    .join(', ');
}

const single = (noun: string) => noun.replace(/^(\w+)s$/, '$1');
/** "checks of a profile", "boxes of paper", "print conditions". */
const several = (noun: string) =>
  noun.replace(/^(.*?)(x?)(?=$| of | by )/, (_, head: string, x: string) => `${single(head)}${x && 'xe'}s`);
