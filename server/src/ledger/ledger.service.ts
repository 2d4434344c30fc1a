import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { csvOf } from '@rakuen/core/formats/csv-table';
import type { LedgerAnswer, LedgerEntry, LedgerQuery, LedgerView } from '@rakuen/contract/ledger';
import { recipeLine } from '@rakuen/core/proof/recipe';
import { readCode, recordCode } from '@rakuen/core/print/record-code';
import type { PassedChecks, PrintRecipe, PrintSettings } from '@rakuen/contract/prints';

/** Entries of a page; what is older is fetched when it is asked for. */
const PAGE = 200;

/** What is told of an entry besides what all have, by its kind. */
const DETAILS: Record<LedgerEntry['kind'], string> = {
  decision: `SELECT id, json_object('decidedBy', decidedBy, 'place', place, 'costDeltaE', costDeltaE, 'outsideShare', outsideShare,
    'score', score, 'lostShare', lostShare) AS details FROM decisions`,
  print: `SELECT id, json_object('widthMm', widthMm, 'heightMm', heightMm, 'copies', copies, 'settings', json(settings),
    'carriedOver', json(carriedOver), 'misprints', (SELECT COALESCE(SUM(sheets), 0) FROM misprints m WHERE m.printId = prints.id),
    'minutes', minutes, 'judgedIn', judgedIn, 'decidedBy', decidedBy, 'decidedWhy', decidedWhy, 'notes', notes, 'recordedAt', recordedAt,
    'recipe', json(recipe), 'profileHash', profileHash, 'pictureHash', pictureHash, 'printFile', fileName, 'printFileHash', fileHash, 'passed', json(passed),
    'box', (SELECT label || CASE WHEN batch = '' THEN '' ELSE ', ' || batch END FROM boxes b WHERE b.id = prints.boxId)) AS details FROM prints`,
  misprint: `SELECT id, json_object('printId', printId, 'sheets', sheets, 'minutes', minutes, 'lost', lost, 'currency', currency, 'feed', feed) AS details FROM misprints`,
  trial: `SELECT id, json_object('by', "by", 'light', light, 'printer', printer) AS details FROM trials`,
  number: `SELECT n.id, json_object('edition', e.name, 'series', n.series, 'number', n.number, 'of', e.size, 'to', n.fateTo, 'on', n.fateOn,
    'batch', n.batch) AS details FROM numbers n JOIN editions e ON e.id = n.editionId`,
  note: `SELECT id, json_object('by', "by", 'finding', json(finding)) AS details FROM notes`,
};

interface Row extends Omit<LedgerEntry, 'details' | 'pictureId' | 'conditionId' | 'paperId'> {
  readonly pictureId: string | null;
  readonly conditionId: string | null;
  readonly paperId: string | null;
}
type Details = Record<
  string,
  string | number | boolean | null | undefined | PrintSettings | string[] | PrintRecipe | PassedChecks
>;

@Injectable()
export class LedgerService {
  constructor(private readonly database: DataSource) {}

  /** A page of entries, newest first, how many there are in all, and what they come to. */
  async page(query: LedgerQuery): Promise<LedgerView> {
    return { entries: await this.rows(query, query.from ?? 0, PAGE), ...(await this.counted(query)) };
  }

  /** All of them. */
  async all(query: LedgerQuery): Promise<LedgerView> {
    return { entries: await this.rows(query, 0, Number.MAX_SAFE_INTEGER), ...(await this.counted(query)) };
  }

  /** The ledger as CSV (RFC 4180), one line an entry, every detail a column. */
  async csv(query: LedgerQuery): Promise<string> {
    const entries = await this.rows(query, 0, Number.MAX_SAFE_INTEGER);
    const base = ['kind', 'at', 'picture', 'paper', 'condition', 'outcome', 'reason'] as const;
    const details = [...new Set(entries.flatMap((e) => Object.keys(e.details)))];
    return csvOf([
      [...base, ...details],
      ...entries.map((e) => [...base.map((k) => e[k]), ...details.map((k) => e.details[k] ?? '')]),
    ]);
  }

  private async counted(query: LedgerQuery): Promise<{ total: number; answer: LedgerAnswer }> {
    const { where, values } = asked(query);
    const ask = <T>(sql: string) => this.database.query<T[]>(sql, values);
    const kinds = await ask<{ kind: LedgerEntry['kind']; count: number }>(
      `SELECT kind, COUNT(*) AS count FROM entries WHERE ${where} GROUP BY kind`,
    );
    const of = (kind: LedgerEntry['kind']) => kinds.find((k) => k.kind === kind)?.count ?? 0;
    // What a print or a misprint tells besides is looked up where there is one.
    const [made] = of('print')
      ? await ask<Pick<LedgerAnswer, 'pictures' | 'papers' | 'copies'>>(
          `SELECT COUNT(DISTINCT e.pictureId) AS pictures, COUNT(DISTINCT e.paperId) AS papers, SUM(p.copies) AS copies
           FROM (SELECT id, pictureId, paperId FROM entries WHERE kind = 'print' AND ${where}) e JOIN prints p ON p.id = e.id`,
        )
      : [{ pictures: 0, papers: 0, copies: 0 }];
    const [{ spoilt }] = of('misprint')
      ? await ask<{ spoilt: number }>(
          `SELECT SUM(m.sheets) AS spoilt FROM (SELECT id FROM entries WHERE kind = 'misprint' AND ${where}) e JOIN misprints m ON m.id = e.id`,
        )
      : [{ spoilt: 0 }];
    return {
      total: kinds.reduce((sum, k) => sum + k.count, 0),
      answer: { decisions: of('decision'), prints: of('print'), ...made, spoilt },
    };
  }

  private async rows(query: LedgerQuery, from: number, most: number): Promise<LedgerEntry[]> {
    const { where, values } = asked(query);
    // The page is cut before anything is joined to it.
    const rows = await this.database.query<Row[]>(
      `SELECT e.id, e.kind, e.at, e.pictureId, COALESCE(i.title, '') AS picture, e.conditionId, e.paperId,
         COALESCE(s.maker || ' ' || s.name, '') AS paper,
         COALESCE(c.printer || ', ' || c.mediaSetting || ', ' || c.printMode, '') AS condition, e.outcome, e.reason
       FROM (SELECT id, kind, at, enteredAt, pictureId, conditionId, paperId, outcome, reason FROM entries WHERE ${where} ORDER BY at DESC, enteredAt DESC, id LIMIT ? OFFSET ?) e
       LEFT JOIN pictures i ON i.id = e.pictureId LEFT JOIN conditions c ON c.id = e.conditionId
       LEFT JOIN papers s ON s.id = e.paperId
       ORDER BY e.at DESC, e.enteredAt DESC, e.id`,
      [...values, most, from],
    );
    const details = await this.detailsOf(rows);
    return rows.map((row) => entryView(row, details.get(row.id) ?? {}));
  }

  private async detailsOf(rows: readonly Row[]): Promise<Map<string, Details>> {
    const found = new Map<string, Details>();
    for (const kind of new Set(rows.map((r) => r.kind))) {
      const ids = JSON.stringify(rows.filter((r) => r.kind === kind).map((r) => r.id));
      const told = await this.database.query<{ id: string; details: string }[]>(
        `SELECT * FROM (${DETAILS[kind]}) WHERE id IN (SELECT value FROM json_each(?))`,
        [ids],
      );
      for (const { id, details } of told) found.set(id, JSON.parse(details) as Details);
    }
    return found;
  }
}

const entryView = (row: Row, details: Details): LedgerEntry => ({
  id: row.id,
  kind: row.kind,
  at: row.at,
  picture: row.picture,
  paper: row.paper,
  condition: row.condition,
  outcome: row.outcome,
  reason: row.reason,
  ...(row.pictureId && { pictureId: row.pictureId }),
  ...(row.conditionId && { conditionId: row.conditionId }),
  ...(row.paperId && { paperId: row.paperId }),
  details: { ...flat(details), ...(row.kind === 'print' && { code: recordCode(row.id) }) },
});

/**
 * What is asked, as a condition and its values: every word must begin a word of the entry. The plus keeps SQLite from
 * fetching every entry that has the word: it walks along an index instead and asks whether each is among them.
 */
function asked({ q, kind, pictureId, paperId, since, until }: LedgerQuery): { where: string; values: string[] } {
  const code = readCode(q ?? '');
  const byCode = code && 'idBegins' in code ? code.idBegins : undefined;
  const words = byCode ? [] : ((q ?? '').match(/[\p{L}\p{N}]+/gu) ?? []);
  const parts: [string, string][] = [
    ...(kind ? [['kind = ?', kind] as [string, string]] : []),
    ...(pictureId ? [['pictureId = ?', pictureId] as [string, string]] : []),
    ...(paperId ? [['paperId = ?', paperId] as [string, string]] : []),
    ...(since ? [['substr(at, 1, 10) >= ?', since] as [string, string]] : []),
    ...(until ? [['substr(at, 1, 10) <= ?', until] as [string, string]] : []),
    ...(byCode ? [['id LIKE ?', `${byCode}%`] as [string, string]] : []),
    ...(words.length > 0
      ? [
          [
            '+seq IN (SELECT rowid FROM entries_words WHERE entries_words MATCH ?)',
            words.map((w) => `"${w}"*`).join(' '),
          ] as [string, string],
        ]
      : []),
  ];
  // Signs alone are no word: nothing speaks of them.
  if (q?.trim() && !byCode && words.length === 0) return { where: '0', values: [] };
  return { where: parts.map(([sql]) => sql).join(' AND ') || '1', values: parts.map(([, value]) => value) };
}

/** Details without nesting and without what says nothing. */
function flat({ settings, carriedOver, recipe, passed, ...rest }: Details): LedgerEntry['details'] {
  const all = {
    ...rest,
    ...(settings as PrintSettings | undefined),
    ...(recipe ? recipeDetails(recipe as PrintRecipe) : {}),
    ...(passed ? passedDetails(passed as PassedChecks) : {}),
    ...(carriedOver === undefined ? {} : { carriedOver: (carriedOver as string[]).join(' ') }),
  };
  return Object.fromEntries(Object.entries(all).filter(([, v]) => v !== undefined && v !== null && v !== ''));
}

const recipeDetails = ({ id, name, version, changedAt, values }: PrintRecipe) => ({
  recipe: recipeLine(values),
  recipeName: name,
  recipeVersion: version,
  recipeId: id,
  recipeChangedAt: changedAt,
  // As plain data, so that it can be read back whole.
  recipeValues: JSON.stringify(values),
});

const passedDetails = ({ checks, reason }: PassedChecks) => ({
  notChecked: checks.join(', '),
  notCheckedWhy: reason,
});
