import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { pricePerM2 } from '@rakuen/core/cost/price-per-m2';
import { taken } from '@rakuen/core/layout/taken';
import type { CauseView, MisprintInput, MisprintView } from '@rakuen/contract/runs';
import { notFound } from '../app/errors.ts';
import { BoxRow } from '../stock/stock.entity.ts';
import { PaperRow } from '../papers/papers.entity.ts';
import { ConditionRow } from '../conditions/conditions.entity.ts';
import { CauseRow, MisprintRow, type PrintRow } from './prints.entity.ts';
import type { Spoilt } from './print-view.ts';

/** Sheets that were spoilt, and the list of what spoils them. */
@Injectable()
export class MisprintsService {
  constructor(
    @InjectRepository(MisprintRow) private readonly rows: Repository<MisprintRow>,
    @InjectRepository(CauseRow) private readonly causes: Repository<CauseRow>,
    @InjectRepository(BoxRow) private readonly boxes: Repository<BoxRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
  ) {}

  /** Every cause, the commonest first. */
  async list(): Promise<CauseView[]> {
    return this.causes.query<CauseView[]>(
      `SELECT c.name, c.look, COUNT(m.id) AS times FROM causes c LEFT JOIN misprints m ON m.causeId = c.id
       GROUP BY c.id ORDER BY times DESC, c.name COLLATE NOCASE`,
    );
  }

  /** Books spoilt sheets of a print with their cause; a cause that is new joins the list. */
  async book(print: PrintRow, input: MisprintInput, at = new Date().toISOString()): Promise<MisprintView> {
    const cause = await this.causeOf(input.cause, input.look ?? '');
    const price = await this.sheetPrice(print);
    const row = this.rows.create({
      id: randomUUID(),
      at,
      printId: print.id,
      pictureId: print.pictureId,
      conditionId: print.conditionId,
      causeId: cause.id,
      sheets: input.sheets,
      minutes: input.minutes ?? 0,
      lost: price ? price.amount * input.sheets : null,
      currency: price?.currency ?? null,
      boxId: print.boxId,
      feed: print.settings.feed,
      note: input.note?.trim() ?? '',
    });
    await this.rows.insert(row);
    return misprintView(row, cause);
  }

  /** Takes a booking back; it lies in the bin. */
  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('misprint');
  }

  /** What was spoilt on the way to each print. */
  async of(printIds: readonly string[]): Promise<Map<string, Spoilt>> {
    if (printIds.length === 0) return new Map();
    const rows = await this.rows.query<{ printId: string; sheets: number; causes: string }[]>(
      `SELECT m.printId, SUM(m.sheets) AS sheets, group_concat(DISTINCT c.name) AS causes FROM misprints m JOIN causes c ON c.id = m.causeId
       WHERE m.printId IN (SELECT value FROM json_each(?)) GROUP BY m.printId`,
      [JSON.stringify(printIds)],
    );
    return new Map(rows.map(({ printId, sheets, causes }) => [printId, { sheets, causes }]));
  }

  async ofPrint(printId: string): Promise<MisprintView[]> {
    const rows = await this.rows.find({ where: { printId }, order: { at: 'ASC' } });
    const causes = new Map((await this.causes.find()).map((c) => [c.id, c]));
    return rows.map((r) => misprintView(r, causes.get(r.causeId)!));
  }

  /** A cause by its name; one that is new joins the list. */
  async causeOf(name: string, look: string): Promise<CauseRow> {
    const known = () =>
      this.causes.createQueryBuilder('c').where('c.name = :name COLLATE NOCASE', { name: name.trim() }).getOne();
    const found = await known();
    if (found) return found;
    const row = this.causes.create({ id: randomUUID(), name: name.trim(), look: look.trim() });
    await this.causes.insert(row);
    return row;
  }

  /** What a sheet for this print costs: by its box, else by the maker’s lowest price; undefined where neither is known. */
  private async sheetPrice(print: PrintRow): Promise<{ amount: number; currency: string } | undefined> {
    const box = print.boxId ? await this.boxes.findOneBy({ id: print.boxId }) : null;
    const takes = box && taken(box, print);
    if (box && box.price !== null && takes)
      return {
        amount: (box.price * takes) / (box.kind === 'sheet' ? box.sheets : box.heightMm),
        currency: box.currency,
      };
    const condition = await this.conditions.findOneBy({ id: print.conditionId });
    const paper = condition && (await this.papers.findOneBy({ id: condition.paperId }));
    const each = paper && pricePerM2(paper.sizes);
    return each ? { amount: each * print.widthMm * print.heightMm * 1e-6, currency: paper.currency } : undefined;
  }
}

function misprintView(row: MisprintRow, cause: CauseRow): MisprintView {
  return {
    id: row.id,
    at: row.at,
    printId: row.printId ?? undefined,
    pictureId: row.pictureId,
    conditionId: row.conditionId,
    cause: cause.name,
    look: cause.look,
    sheets: row.sheets,
    minutes: row.minutes,
    note: row.note,
    lost: row.lost ?? undefined,
    currency: row.currency ?? undefined,
  };
}
