import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { taken } from '@rakuen/core/layout/taken';
import { BoxInput, BoxView } from '@rakuen/contract/stock';
import { notFound, RakuenError } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { PapersService } from '../papers/papers.service.ts';
import { BoxRow } from './stock.entity.ts';

const A_YEAR_MS = 365.25 * 24 * 3_600_000;

interface Taken {
  /** Sheets, or mm of a roll. */
  readonly taken: number;
  readonly touchedOn: string;
}
interface From {
  readonly boxId: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly count: number;
  readonly at: string;
  /** Booked after the box was counted last, or the box never was. */
  readonly sinceCount: 0 | 1;
}

/**
 * What was printed from each box and what was spoilt, by size. A misprint whose print is gone has no size: of a roll
 * it is not reckoned.
 */
const FROM_BOXES = `
  SELECT f.boxId, f.widthMm, f.heightMm, SUM(f.count) AS count, MAX(f.at) AS at, b.countedAt IS NULL OR f.bookedAt > b.countedAt AS sinceCount FROM (
    SELECT boxId, widthMm, heightMm, copies AS count, printedOn AS at, recordedAt AS bookedAt FROM prints WHERE state = 'printed' AND boxId IS NOT NULL
    UNION ALL
    SELECT m.boxId, COALESCE(p.widthMm, 0), COALESCE(p.heightMm, 0), m.sheets, m.at, m.at FROM misprints m
      LEFT JOIN prints p ON p.id = m.printId WHERE m.boxId IS NOT NULL
  ) f JOIN boxes b ON b.id = f.boxId GROUP BY f.boxId, f.widthMm, f.heightMm, sinceCount`;

const columns = (input: BoxInput) => ({
  ...input,
  label: input.label.trim(),
  batch: input.batch.trim(),
  price: input.price ?? null,
  note: input.note?.trim() ?? '',
});

/** Boxes and rolls in the drawer, and what is left in them. */
@Injectable()
export class StockService {
  constructor(
    @InjectRepository(BoxRow) private readonly rows: Repository<BoxRow>,
    private readonly papers: PapersService,
  ) {}

  async list(): Promise<BoxView[]> {
    const from = await this.rows.query<From[]>(FROM_BOXES);
    const rows = await this.rows.find({ order: { boughtOn: 'ASC', createdAt: 'ASC' } });
    return rows.map((r) =>
      boxView(
        r,
        takenFrom(
          r,
          from.filter((f) => f.boxId === r.id),
        ),
      ),
    );
  }

  async view(id: string): Promise<BoxView> {
    const box = (await this.list()).find((b) => b.id === id);
    if (!box) throw notFound('box');
    return box;
  }

  async add(input: BoxInput): Promise<BoxView> {
    await this.papers.get(input.paperId);
    const row = this.rows.create({ ...columns(input), id: randomUUID(), createdAt: new Date().toISOString() });
    await this.rows.insert(row);
    return this.view(row.id);
  }

  async change(id: string, input: BoxInput, from?: number): Promise<BoxView> {
    const known = await this.view(id);
    refuseStale('This box', known, from, known);
    await this.papers.get(input.paperId);
    await this.rows.update(id, columns(input));
    return this.view(id);
  }

  /** Keeps what was counted in a box: what is left goes by it from now on. */
  async count(id: string, left: number, from?: number): Promise<BoxView> {
    const known = await this.view(id);
    refuseStale('This box', known, from, known);
    if (known.kind === 'sheet' && !Number.isInteger(left))
      throw new RakuenError(400, 'Sheets are counted in whole numbers.', {
        field: 'left',
        remedy: 'Enter a whole number.',
      });
    await this.rows.update(id, { counted: left, countedAt: new Date().toISOString() });
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('box');
  }
}

/** What each thing taken from a box comes to. A print larger than its sheet was printed on one all the same. */
function takenFrom(box: BoxRow, from: readonly From[]): Taken | undefined {
  if (from.length === 0) return undefined;
  return {
    taken: from
      .filter((f) => f.sinceCount)
      .reduce((sum, f) => sum + f.count * (taken(box, f) ?? (box.kind === 'sheet' ? 1 : 0)), 0),
    touchedOn: from.reduce((latest, f) => (f.at > latest ? f.at : latest), from[0].at),
  };
}

function boxView(row: BoxRow, gone?: Taken): BoxView {
  const { price } = row;
  const whole = row.kind === 'sheet' ? row.sheets : row.heightMm;
  const left = (row.counted ?? whole) - (gone?.taken ?? 0);
  const each = price === null ? undefined : row.kind === 'sheet' ? price / row.sheets : (price / row.heightMm) * 1000;
  const worth = price === null ? undefined : (Math.max(0, left) / whole) * price;
  const touchedOn = gone?.touchedOn;
  const idle = Date.now() - Date.parse(touchedOn ?? row.boughtOn) > A_YEAR_MS;
  return {
    id: row.id,
    revision: row.revision,
    createdAt: row.createdAt,
    paperId: row.paperId,
    kind: row.kind,
    label: row.label,
    widthMm: row.widthMm,
    heightMm: row.heightMm,
    sheets: row.sheets,
    batch: row.batch,
    boughtOn: row.boughtOn,
    price: price ?? undefined,
    currency: row.currency,
    note: row.note,
    counted: row.counted ?? undefined,
    countedAt: row.countedAt ?? undefined,
    left,
    each,
    worth,
    touchedOn,
    idle,
  };
}
