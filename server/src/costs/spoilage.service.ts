import { dayAt, dayOf, noonOf, today } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { byCause, rateOf } from '@rakuen/core/cost/spoilage';
import type { AccountQuery, RateLine, SpoilageView } from '@rakuen/contract/costs';
import { CostsService } from './costs.service.ts';

const A_QUARTER_DAYS = 91;
const A_DAY_MS = 24 * 3_600_000;

interface Sheets {
  readonly paper: string;
  readonly printer: string;
  readonly feed: string;
  readonly made: number;
  readonly spoilt: number;
}

/** Sheets made and spoilt in a time, by paper, printer and feed; a misprint counts where its print was made. */
const SHEETS = `
  SELECT s.maker || ' ' || s.name || CASE WHEN s.weightGsm IS NULL THEN '' ELSE printf(', %g g/m²', s.weightGsm) END AS paper, x.printer, x.feed, SUM(made) AS made, SUM(spoilt) AS spoilt FROM (
    SELECT conditionId, json_extract(settings, '$.printer') AS printer, json_extract(settings, '$.feed') AS feed, copies AS made, 0 AS spoilt
    FROM prints WHERE state = 'printed' AND substr(printedOn, 1, 10) BETWEEN ? AND ?
    UNION ALL
    SELECT m.conditionId, COALESCE(json_extract(p.settings, '$.printer'), c.printer), m.feed, 0, m.sheets
    FROM misprints m JOIN conditions c ON c.id = m.conditionId LEFT JOIN prints p ON p.id = m.printId
    WHERE substr(m.at, 1, 10) BETWEEN ? AND ?
  ) x JOIN conditions c ON c.id = x.conditionId JOIN papers s ON s.id = c.paperId GROUP BY s.id, x.printer, x.feed`;

interface Booked {
  readonly cause: string;
  readonly check: string;
  readonly sheets: number;
  readonly minutes: number;
  readonly lost: number | null;
  readonly currency: string | null;
}

/** What was spoilt in a time, and what it took; the last quarter where nothing is said. */
@Injectable()
export class SpoilageService {
  constructor(
    private readonly database: DataSource,
    private readonly costs: CostsService,
  ) {}

  async account(query: AccountQuery): Promise<SpoilageView> {
    const to = query.to ? dayOf(query.to) : today();
    const from = query.from ? dayOf(query.from) : dayAt(new Date(noonOf(to).getTime() - A_QUARTER_DAYS * A_DAY_MS));
    const sheets = await this.database.query<Sheets[]>(SHEETS, [from, to, from, to]);
    const booked = await this.database.query<Booked[]>(
      `SELECT c.name AS cause, c.look AS "check", m.sheets, m.minutes, m.lost, m.currency FROM misprints m JOIN causes c ON c.id = m.causeId
       WHERE substr(m.at, 1, 10) BETWEEN ? AND ?`,
      [from, to],
    );
    const { currency } = await this.costs.rates();
    // Money of two currencies is never added: what was lost in another is counted in sheets.
    const other = booked.filter((b) => b.currency !== null && b.currency !== currency).length;
    const causes = byCause(
      booked.map(({ lost, currency: own, ...b }) => ({
        ...b,
        lost: lost !== null && own === currency ? lost : undefined,
      })),
    );
    return {
      from,
      to,
      all: rate(sheets),
      papers: lines(sheets, (s) => s.paper),
      printers: lines(sheets, (s) => s.printer),
      feeds: lines(sheets, (s) => s.feed || 'feed not said'),
      causes,
      currency,
      otherCurrency: other,
      sentence: causes.length > 0 ? sentenceOf(causes, currency) : undefined,
    };
  }
}

const rate = (list: readonly Sheets[]) => {
  const [made, spoilt] = list.reduce(([m, s], x) => [m + x.made, s + x.spoilt], [0, 0]);
  return rateOf(spoilt, made + spoilt);
};

function lines(sheets: readonly Sheets[], of: (s: Sheets) => string): RateLine[] {
  const names = [...new Set(sheets.map(of))];
  return names
    .map((name) => ({ of: name, rate: rate(sheets.filter((s) => of(s) === name)) }))
    .sort((a, b) => b.rate.share - a.rate.share || b.rate.of - a.rate.of);
}

function sentenceOf(causes: SpoilageView['causes'], currency: string): string {
  const [first, next] = causes;
  const sheets = `${first.sheets} sheet${first.sheets === 1 ? '' : 's'}`;
  // Where a price is lacking for some, causes are put in order by their sheets, and nothing is said of what costs most.
  const priced = causes.every((c) => c.unpriced === 0);
  const tie = next !== undefined && (priced ? next.lost === first.lost : next.sheets === first.sheets);
  if (tie) return `No cause stands out: ${first.cause} and ${next.cause} took as much.`;
  const took = priced
    ? `cost most: ${sheets} and ${first.lost.toFixed(2)} ${currency}`
    : `took most sheets: ${first.sheets}; not all of them have a price`;
  const caught = first.check
    ? ` The check that catches it: ${first.check}.`
    : ' No look before the sheet would have caught it.';
  return `${first.cause[0].toUpperCase()}${first.cause.slice(1)} ${took}.${caught}`;
}
