import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { csvOf } from '@rakuen/core/formats/csv-table';
import type { LedgerEntry, LedgerQuery, LedgerView } from '@rakuen/contract/ledger';
import type { PrintSettings } from '@rakuen/contract/prints';

/** Entries of a page; what is older is fetched when it is asked for. */
const PAGE = 200;

/** Decisions and prints as one list, each row with all that is told of it; what a search looks through is `words`. */
const ENTRIES = `
  SELECT d.id, 'decision' AS kind, d.decidedAt AS at, d.pictureId, d.conditionId, d.stamp AS outcome, d.reason,
    json_object('decidedBy', d.decidedBy, 'place', d.place, 'costDeltaE', d.costDeltaE, 'outsideShare', d.outsideShare,
      'score', d.score, 'lostShare', d.lostShare) AS details,
    d.decidedBy AS more, d.decidedAt AS enteredAt
  FROM decisions d
  UNION ALL
  SELECT p.id, 'print', p.printedOn, p.pictureId, p.conditionId, p.verdict, p.verdictReason,
    json_object('widthMm', p.widthMm, 'heightMm', p.heightMm, 'copies', p.copies, 'settings', json(p.settings),
      'carriedOver', json(p.carriedOver), 'misprints', p.misprints, 'misprintCause', p.misprintCause, 'notes', p.notes,
      'recordedAt', p.recordedAt),
    p.settings || ' ' || p.misprintCause || ' ' || p.notes, p.recordedAt
  FROM prints p`;
const told = (entries: string) => `
  SELECT e.*, i.title AS picture, s.maker || ' ' || s.name AS paper,
    c.printer || ', ' || c.mediaSetting || ', ' || c.printMode AS condition,
    lower(i.title || ' ' || s.maker || ' ' || s.name || ' ' || c.printer || ' ' || c.mediaSetting || ' ' || c.printMode || ' ' ||
      e.kind || ' ' || e.at || ' ' || e.outcome || ' ' || e.reason || ' ' || e.more) AS words
  FROM (${entries}) e JOIN pictures i ON i.id = e.pictureId JOIN conditions c ON c.id = e.conditionId JOIN papers s ON s.id = c.paperId`;

interface Row extends Omit<LedgerEntry, 'details'> {
  readonly details: string;
}
type Details = Record<string, string | number | boolean | null | undefined | PrintSettings | string[]>;

@Injectable()
export class LedgerService {
  constructor(private readonly database: DataSource) {}

  /** A page of decisions and prints, newest first, and how many there are in all. */
  async page(query: LedgerQuery): Promise<LedgerView> {
    const { where, values, searched } = asked(query);
    const [{ total }] = await this.database.query<{ total: number }[]>(
      `SELECT COUNT(*) AS total FROM (${searched ? told(ENTRIES) : ENTRIES}) WHERE ${where}`,
      values,
    );
    return { entries: await this.rows(query, query.from ?? 0, PAGE), total };
  }

  /** All of them. */
  async all(query: LedgerQuery): Promise<LedgerView> {
    const entries = await this.rows(query, 0, Number.MAX_SAFE_INTEGER);
    return { entries, total: entries.length };
  }

  /** The ledger as CSV (RFC 4180), one line an entry, every detail a column. */
  async csv(query: LedgerQuery): Promise<string> {
    const { entries } = await this.all(query);
    const base = ['kind', 'at', 'picture', 'paper', 'condition', 'outcome', 'reason'] as const;
    const details = [...new Set(entries.flatMap((e) => Object.keys(e.details)))];
    return csvOf([
      [...base, ...details],
      ...entries.map((e) => [...base.map((k) => e[k]), ...details.map((k) => e.details[k] ?? '')]),
    ]);
  }

  private async rows(query: LedgerQuery, from: number, most: number): Promise<LedgerEntry[]> {
    const { where, values, searched } = asked(query);
    const page = `WHERE ${where} ORDER BY at DESC, enteredAt DESC, id LIMIT ? OFFSET ?`;
    // Where no word is looked for, the page is cut before anything is joined to it.
    const source = searched ? `${told(ENTRIES)}` : told(`SELECT * FROM (${ENTRIES}) ${page}`);
    const rows = await this.database.query<Row[]>(
      `SELECT id, kind, at, pictureId, picture, conditionId, paper, condition, outcome, reason, details FROM (${source})
       ${searched ? page : 'ORDER BY at DESC, enteredAt DESC, id'}`,
      [...values, most, from],
    );
    return rows.map(({ details, ...row }) => ({ ...row, details: flat(JSON.parse(details) as Details) }));
  }
}

/** What is asked, as a condition and its values: every word must occur somewhere. */
function asked({ q, kind }: LedgerQuery): { where: string; values: string[]; searched: boolean } {
  const words = (q ?? '').toLowerCase().split(/\s+/).filter(Boolean);
  const parts = [...(kind ? ['kind = ?'] : []), ...words.map(() => "words LIKE ? ESCAPE '\\'")];
  return {
    searched: words.length > 0,
    where: parts.length > 0 ? parts.join(' AND ') : '1',
    values: [...(kind ? [kind] : []), ...words.map((w) => `%${w.replaceAll(/[\\%_]/g, '\\$&')}%`)],
  };
}

/** Details without nesting and without what says nothing. */
function flat({ settings, carriedOver, ...rest }: Details): LedgerEntry['details'] {
  const all = {
    ...rest,
    ...(settings as PrintSettings | undefined),
    ...(carriedOver === undefined ? {} : { carriedOver: (carriedOver as string[]).join(' ') }),
  };
  return Object.fromEntries(
    Object.entries(all).filter(([, v]) => v !== undefined && v !== null && v !== ''),
  ) as LedgerEntry['details'];
}
