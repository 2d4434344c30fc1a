import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { csvOf } from '@rakuen/core/formats/csv-table';
import type {
  LedgerAnswer,
  LedgerCondition,
  LedgerEntry,
  LedgerPaper,
  LedgerQuery,
  LedgerSheet,
  LedgerView,
  LedgerYear,
} from '@rakuen/contract/ledger';
import { EARLIER } from '../editions/ordinals.ts';
import { present } from '../store/rows.ts';
import { recipeLine } from '@rakuen/core/proof/recipe';
import { numberText, type Series } from '@rakuen/core/print/edition';
import { readCode, recordCode } from '@rakuen/core/print/record-code';
import type { PassedChecks, PrintRecipe, PrintSettings } from '@rakuen/contract/prints';

/** Entries of a page; what is older is fetched when it is asked for. */
const PAGE = 200;

/** The move a number `n` stands at. */
const LAST = 'm.numberId = n.id AND NOT EXISTS (SELECT 1 FROM moves x WHERE x.fromId = m.id)';

/** What is told of an entry besides what all have, by its kind. */
const DETAILS: Record<LedgerEntry['kind'], string> = {
  decision: `SELECT id, json_object('decidedBy', decidedBy, 'place', place, 'costDeltaE', costDeltaE, 'outsideShare', outsideShare,
    'score', score, 'lostShare', lostShare) AS details FROM decisions`,
  print: `SELECT id, json_object('widthMm', widthMm, 'heightMm', heightMm, 'copies', copies, 'settings', json(settings),
    'carriedOver', json(carriedOver), 'misprints', (SELECT COALESCE(SUM(sheets), 0) FROM misprints m WHERE m.printId = prints.id),
    'minutes', minutes, 'judgedIn', judgedIn, 'decidedBy', decidedBy, 'decidedWhy', decidedWhy, 'notes', notes, 'recordedAt', recordedAt,
    'recipe', json(recipe), 'profileHash', profileHash, 'pictureHash', pictureHash, 'printFile', fileName, 'printFileHash', fileHash, 'passed', json(passed),
    'client', (SELECT c.name FROM order_lines l JOIN orders o ON o.id = l.orderId JOIN clients c ON c.id = o.clientId WHERE l.id = prints.orderLineId),
    'order', (SELECT o.name FROM order_lines l JOIN orders o ON o.id = l.orderId WHERE l.id = prints.orderLineId),
    'box', (SELECT label || CASE WHEN batch = '' THEN '' ELSE ', ' || batch END FROM boxes b WHERE b.id = prints.boxId)) AS details FROM prints`,
  misprint: `SELECT id, json_object('printId', printId, 'sheets', sheets, 'minutes', minutes, 'lost', lost, 'currency', currency, 'feed', feed) AS details FROM misprints`,
  trial: `SELECT id, json_object('by', "by", 'light', light, 'printer', printer) AS details FROM trials`,
  number: `SELECT n.id, json_object('edition', e.name, 'series', n.series, 'number', n.number, 'of', e.size,
    'ofProofs', CASE n.series WHEN 'artist' THEN e.artist WHEN 'printer' THEN e.printer WHEN 'good' THEN e.good END, 'earlier', ${EARLIER},
    'batch', n.batch, 'to', (SELECT group_concat(c.name, ', ') FROM moves m JOIN clients c ON c.id = m.clientId WHERE ${LAST}),
    'with', (SELECT m.withWhom FROM moves m WHERE ${LAST}), 'on', (SELECT m."on" FROM moves m WHERE ${LAST}),
    'until', (SELECT m.until FROM moves m WHERE ${LAST}),
    'price', (SELECT m.price FROM moves m WHERE ${LAST}), 'currency', (SELECT m.currency FROM moves m WHERE ${LAST}),
    'acceptedBy', (SELECT group_concat(json_extract(a.value, '$.by'), ', ') FROM json_each(e.accepted) a
      WHERE json_extract(a.value, '$.batch') = n.batch)) AS details FROM numbers n JOIN editions e ON e.id = n.editionId`,
  move: `SELECT m.id, json_object('copies', m.copies, 'to', c.name, 'with', m.withWhom, 'place', l.name, 'until', m.until,
    'price', m.price, 'currency', m.currency, 'order', o.name, 'edition', e.name, 'series', n.series, 'number', n.number, 'of', e.size,
    'ofProofs', CASE n.series WHEN 'artist' THEN e.artist WHEN 'printer' THEN e.printer WHEN 'good' THEN e.good END, 'earlier', ${EARLIER}) AS details
    FROM moves m LEFT JOIN clients c ON c.id = m.clientId LEFT JOIN places l ON l.id = m.placeId LEFT JOIN orders o ON o.id = m.orderId
    LEFT JOIN numbers n ON n.id = m.numberId LEFT JOIN editions e ON e.id = n.editionId`,
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
    const from = query.from ?? 0;
    return {
      entries: await this.rows(query, from, PAGE),
      ...(await this.counted(query)),
      ...(from === 0 && { years: await this.years(query) }),
    };
  }

  /** All of them, each with its paper and print condition in full: another studio knows neither by their ids. */
  async all(query: LedgerQuery): Promise<LedgerView> {
    const entries = await this.rows(query, 0, Number.MAX_SAFE_INTEGER);
    const sheets = await this.sheets();
    return {
      entries: entries.map((e) => {
        const sheet = sheets.get(e.conditionId ?? e.paperId ?? '');
        return sheet ? { ...e, sheet } : e;
      }),
      ...(await this.counted(query)),
    };
  }

  /** Papers and print conditions by their ids. */
  private async sheets(): Promise<Map<string, LedgerSheet>> {
    const paper = `json_object('maker', s.maker, 'name', s.name, 'coating', s.coating, 'base', s.base, 'surface', s.surface,
      'brightenerClaim', s.brightenerClaim, 'weightGsm', s.weightGsm, 'thicknessUm', s.thicknessUm, 'currency', s.currency)`;
    const rows = await this.database.query<{ id: string; paper: string; condition: string | null }[]>(
      `SELECT s.id AS id, ${paper} AS paper, NULL AS condition FROM papers s
       UNION ALL SELECT c.id, ${paper}, json_object('printer', c.printer, 'inkSet', c.inkSet, 'blackInk', c.blackInk,
         'mediaSetting', c.mediaSetting, 'resolution', c.resolution, 'printMode', c.printMode, 'profile', c.profile,
         'blackOvercoat', json(iif(c.blackOvercoat, 'true', 'false'))) FROM conditions c JOIN papers s ON s.id = c.paperId`,
    );
    return new Map(
      rows.map((r) => [
        r.id,
        {
          paper: present(JSON.parse(r.paper) as object) as LedgerPaper,
          ...(r.condition !== null && { condition: JSON.parse(r.condition) as LedgerCondition }),
        },
      ]),
    );
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

  private years(query: LedgerQuery): Promise<LedgerYear[]> {
    const { where, values } = asked(query);
    return this.database.query<LedgerYear[]>(
      `SELECT substr(day, 1, 4) AS year, COUNT(*) AS entries FROM entries WHERE ${where} GROUP BY 1 ORDER BY 1 DESC`,
      values,
    );
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
    // Where prints are asked for, what was spoiled on their way is of the same question.
    const misprints = query.kind === 'print' ? asked({ ...query, kind: 'misprint' }) : { where, values };
    const [{ spoilt }] = await this.database.query<{ spoilt: number }[]>(
      `SELECT COALESCE(SUM(m.sheets), 0) AS spoilt FROM (SELECT id FROM entries WHERE kind = 'misprint' AND ${misprints.where}) e JOIN misprints m ON m.id = e.id`,
      misprints.values,
    );
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
       FROM (SELECT id, kind, at, day, enteredAt, pictureId, conditionId, paperId, outcome, reason FROM entries WHERE ${where} ORDER BY day DESC, enteredAt DESC, id LIMIT ? OFFSET ?) e
       LEFT JOIN pictures i ON i.id = e.pictureId LEFT JOIN conditions c ON c.id = e.conditionId
       LEFT JOIN papers s ON s.id = e.paperId
       ORDER BY e.day DESC, e.enteredAt DESC, e.id`,
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

/** A number as it is written under the print. */
function writtenNumber({ series, number, of, ofProofs, earlier }: Details): { written: string } {
  const most = typeof of === 'number' ? of : null;
  const proofs = Number(ofProofs ?? 0);
  const sizes = { edition: most, artist: proofs, printer: proofs, good: proofs };
  return { written: numberText(series as Series, Number(number), sizes, Number(earlier ?? 0) + 1) };
}

const entryView = (row: Row, { ofProofs, earlier, ...details }: Details): LedgerEntry => ({
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
  details: {
    ...flat(details),
    ...(row.kind === 'print' && { code: recordCode(row.id) }),
    ...(details.series && writtenNumber({ ...details, ofProofs, earlier })),
  },
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
    ...(since ? [['day >= ?', since] as [string, string]] : []),
    ...(until ? [['day <= ?', until] as [string, string]] : []),
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
