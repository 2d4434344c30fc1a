import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { rateOf } from '@rakuen/core/cost/spoilage';
import type { PaperLife, PictureLife, PictureOnPaper, SheetTried } from '@rakuen/contract/ledger';
import { notFound } from '../app/errors.ts';
import { EditionsService } from '../editions/editions.service.ts';
import { StockService } from '../stock/stock.service.ts';
import { LearnedService } from './learned.service.ts';

interface PrintMade {
  readonly pictureId: string;
  readonly conditionId: string;
  readonly verdict: string;
  readonly verdictReason: string;
  readonly printedOn: string;
  readonly copies: number;
}
interface Decided {
  readonly pictureId: string;
  readonly conditionId: string;
  readonly stamp: string;
  readonly reason: string;
  readonly decidedAt: string;
}

/** The pages of the book: a paper’s life, a picture’s life. */
@Injectable()
export class LivesService {
  constructor(
    private readonly database: DataSource,
    private readonly editions: EditionsService,
    private readonly stock: StockService,
    private readonly learned: LearnedService,
  ) {}

  async ofPicture(id: string): Promise<PictureLife> {
    const [picture] = await this.database.query<{ title: string }[]>('SELECT title FROM pictures WHERE id = ?', [id]);
    if (!picture) throw notFound('picture');
    const decided = await this.decided('pictureId = ?', id);
    const made = await this.made('p.pictureId = ?', id);
    const conditions = await this.database.query<{ id: string; paper: string; condition: string; paperId: string }[]>(
      `SELECT c.id, c.paperId, s.name AS paper, c.printer || ', ' || c.mediaSetting AS condition FROM conditions c JOIN papers s ON s.id = c.paperId
       WHERE c.id IN (SELECT conditionId FROM decisions WHERE pictureId = ? UNION SELECT conditionId FROM prints WHERE pictureId = ? AND state = 'printed')
       ORDER BY s.name COLLATE NOCASE, c.createdAt, c.id`,
      [id, id],
    );
    const sheets = conditions.map((c): SheetTried => {
      const newest = decided.find((d) => d.conditionId === c.id);
      const prints = made.filter((p) => p.conditionId === c.id);
      return {
        conditionId: c.id,
        paper: c.paper,
        condition: c.condition,
        ...(newest && { stamp: newest.stamp, reason: newest.reason, decidedAt: newest.decidedAt }),
        prints: prints.reduce((sum, p) => sum + p.copies, 0),
        verdicts: prints.map((p) => ({ verdict: p.verdict, reason: p.verdictReason, on: p.printedOn })),
      };
    });
    const learned = await Promise.all(
      [...new Set(conditions.map((c) => c.paperId))].map((p) => this.learned.about(id, p)),
    );
    return {
      pictureId: id,
      title: picture.title,
      sheets: sheets.sort((a, b) => ORDER.indexOf(a.stamp ?? '') - ORDER.indexOf(b.stamp ?? '')),
      editions: (await this.editions.list()).filter((e) => e.pictureId === id),
      learned: learned.flat(),
      prints: sheets.reduce((sum, s) => sum + s.prints, 0),
      spoilt: await this.spoilt('pictureId = ?', id),
    };
  }

  async ofPaper(id: string): Promise<PaperLife> {
    const [paper] = await this.database.query<{ name: string }[]>(
      `SELECT maker || ' ' || name AS name FROM papers WHERE id = ?`,
      [id],
    );
    if (!paper) throw notFound('paper');
    const mine = 'conditionId IN (SELECT id FROM conditions WHERE paperId = ?)';
    const made = await this.made(`p.${mine}`, id);
    const decided = await this.decided(mine, id);
    const spoilt = await this.spoilt(mine, id);
    const sheets = made.reduce((sum, p) => sum + p.copies, 0);
    return {
      paperId: id,
      name: paper.name,
      pictures: await this.picturesOf(made, decided),
      verdicts: tally(made.map((p) => p.verdict)),
      stamps: tally(newestOf(decided).map((d) => d.stamp)),
      spoilage: rateOf(spoilt, sheets + spoilt),
      causes: await this.database.query<{ cause: string; sheets: number }[]>(
        `SELECT c.name AS cause, SUM(m.sheets) AS sheets FROM misprints m JOIN causes c ON c.id = m.causeId WHERE m.${mine}
         GROUP BY c.id ORDER BY sheets DESC, c.name`,
        [id],
      ),
      boxes: (await this.stock.list()).filter((b) => b.paperId === id),
      batches: await this.database.query<{ batch: string; readOn: string }[]>(
        `SELECT batch, MIN(COALESCE(measuredAt, importedAt)) AS readOn FROM readings WHERE ${mine} AND source = 'measured' GROUP BY batch ORDER BY readOn`,
        [id],
      ),
      trials: await this.database.query<PaperLife['trials']>(
        'SELECT printer, mediaSetting, stampedAt, reason FROM trials WHERE paperId = ? ORDER BY stampedAt DESC',
        [id],
      ),
      lessons: await this.learned.lessons(id),
      ...(made.length > 0 && { lastPrintedOn: made[0].printedOn }),
    };
  }

  /** What was printed last comes first, then what was decided last. */
  private async picturesOf(made: readonly PrintMade[], decided: readonly Decided[]): Promise<PictureOnPaper[]> {
    const ids = [...new Set([...made, ...decided].map((x) => x.pictureId))];
    const titles = await this.database.query<{ id: string; title: string }[]>(
      'SELECT id, title FROM pictures WHERE id IN (SELECT value FROM json_each(?))',
      [JSON.stringify(ids)],
    );
    const titleOf = new Map(titles.map((t) => [t.id, t.title]));
    return ids.map((id) => {
      const prints = made.filter((p) => p.pictureId === id);
      const stamp = decided.find((d) => d.pictureId === id)?.stamp;
      return {
        pictureId: id,
        title: titleOf.get(id) ?? '',
        prints: prints.reduce((sum, p) => sum + p.copies, 0),
        verdicts: prints.map((p) => p.verdict),
        ...(stamp && { stamp }),
      };
    });
  }

  /** Newest first. */
  private made(where: string, id: string): Promise<PrintMade[]> {
    return this.database.query<PrintMade[]>(
      `SELECT pictureId, conditionId, verdict, verdictReason, printedOn, copies FROM prints p
       WHERE p.state = 'printed' AND ${where} ORDER BY printedOn DESC, recordedAt DESC LIMIT 2000`,
      [id],
    );
  }

  /** Newest first. */
  private decided(where: string, id: string): Promise<Decided[]> {
    return this.database.query<Decided[]>(
      `SELECT pictureId, conditionId, stamp, reason, decidedAt FROM decisions WHERE ${where} ORDER BY decidedAt DESC LIMIT 2000`,
      [id],
    );
  }

  private async spoilt(where: string, id: string): Promise<number> {
    const [{ sheets }] = await this.database.query<{ sheets: number }[]>(
      `SELECT COALESCE(SUM(sheets), 0) AS sheets FROM misprints WHERE ${where}`,
      [id],
    );
    return sheets;
  }
}

const ORDER = ['chosen', 'held', '', 'refused'];

/** Of each picture and sheet the newest stamp counts. */
const newestOf = (decided: readonly Decided[]): Decided[] => [
  ...new Map([...decided].reverse().map((d) => [`${d.pictureId} ${d.conditionId}`, d])).values(),
];

function tally(words: readonly string[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const w of words) counts[w] = (counts[w] ?? 0) + 1;
  return counts;
}
