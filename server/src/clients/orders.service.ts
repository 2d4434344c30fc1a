import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, In, Repository } from 'typeorm';
import { dayOf, today } from '@rakuen/core/day';
import type { Delivery, OrderInput, OrderLineInput, OrderLineView, OrderView } from '@rakuen/contract/clients';
import type { PrintOrder } from '@rakuen/contract/prints';
import { notFound, RakuenError } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { present } from '../store/rows.ts';
import { OrderLineRow, OrderRow } from './clients.entity.ts';
import { ClientsService } from './clients.service.ts';
import { MovesService } from './moves.service.ts';

/** Orders: who wants which pictures, by when and at what price, and how far they are. */
@Injectable()
export class OrdersService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(OrderRow) private readonly orders: Repository<OrderRow>,
    @InjectRepository(OrderLineRow) private readonly lines: Repository<OrderLineRow>,
    private readonly clients: ClientsService,
    private readonly moves: MovesService,
  ) {}

  /** Open ones first, by the day they are due; then the newest. */
  async list(): Promise<OrderView[]> {
    const rows = await this.orders
      .createQueryBuilder('o')
      .orderBy(`o.state = 'open'`, 'DESC')
      .addOrderBy(`CASE WHEN o.state = 'open' THEN COALESCE(o.dueOn, '9999') END`, 'ASC')
      .addOrderBy('o.createdAt', 'DESC')
      .addOrderBy('o.id', 'ASC')
      .getMany();
    const lines = await this.linesOf();
    return rows.map((row) => orderView(row, lines.get(row.id) ?? []));
  }

  async view(id: string): Promise<OrderView> {
    return orderView(await this.get(id), (await this.linesOf(id)).get(id) ?? []);
  }

  async add(input: OrderInput): Promise<OrderView> {
    await this.check(input);
    const id = randomUUID();
    await this.database.transaction(async () => {
      await this.orders.insert({
        id,
        createdAt: new Date().toISOString(),
        state: 'open',
        deliveredOn: null,
        parts: 0,
        ...ofOrder(input),
      });
      await this.writeLines(id, input.lines);
    });
    return this.view(id);
  }

  async change(id: string, input: OrderInput, from?: number): Promise<OrderView> {
    const known = await this.view(id);
    refuseStale('This order', known, from, known);
    await this.check(input, known);
    const { parts } = await this.get(id);
    await this.database.transaction(async () => {
      const changed = await this.writeLines(id, input.lines);
      await this.orders.update(id, { ...ofOrder(input), parts: parts + (changed ? 1 : 0) });
    });
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    if ((await this.orders.delete(id)).affected !== 1) throw notFound('order');
  }

  /** The order went out: its copies in the studio are recorded as sold to the client. */
  async deliver(id: string, { on }: Delivery): Promise<OrderView> {
    const order = await this.isOpen(id);
    const { lines } = await this.view(id);
    if (lines.every((l) => l.printed === 0))
      throw new RakuenError(409, 'Nothing was printed for this order yet.', {
        remedy: 'Begin its prints from the order, and mark them as printed.',
      });
    const day = on ? dayOf(on) : today();
    const prints = await this.database.query<{ id: string }[]>(
      `SELECT p.id FROM prints p JOIN order_lines l ON l.id = p.orderLineId WHERE l.orderId = ? AND p.state = 'printed'`,
      [id],
    );
    await this.database.transaction(async () => {
      for (const print of prints) await this.moves.deliver(print.id, order, day);
      await this.orders.update(id, { state: 'delivered', deliveredOn: day });
    });
    return this.view(id);
  }

  async cancel(id: string): Promise<OrderView> {
    await this.isOpen(id);
    await this.orders.update(id, { state: 'cancelled' });
    return this.view(id);
  }

  /** Opens an order again that was delivered or cancelled by mistake. What was recorded as sold with it stays as it is. */
  async reopen(id: string): Promise<OrderView> {
    await this.get(id);
    await this.orders.update(id, { state: 'open', deliveredOn: null });
    return this.view(id);
  }

  /** @throws RakuenError (404, 409) where no print can be made for that line */
  async openLine(id: string): Promise<OrderLineRow> {
    const line = await this.lines.findOneBy({ id });
    if (!line) throw notFound('line of an order');
    await this.isOpen(line.orderId);
    return line;
  }

  /** The order of a print, as it is named. */
  async ofLine(id: string): Promise<PrintOrder | undefined> {
    const [order] = await this.database.query<PrintOrder[]>(
      `SELECT o.id, o.name, c.name AS client FROM order_lines l JOIN orders o ON o.id = l.orderId
       JOIN clients c ON c.id = o.clientId WHERE l.id = ?`,
      [id],
    );
    return order;
  }

  private async get(id: string): Promise<OrderRow> {
    const row = await this.orders.findOneBy({ id });
    if (!row) throw notFound('order');
    return row;
  }

  private async isOpen(id: string): Promise<OrderRow> {
    const row = await this.get(id);
    if (row.state !== 'open')
      throw new RakuenError(409, `This order was ${row.state}.`, { remedy: 'Reopen it, or add another order.' });
    return row;
  }

  private async linesOf(orderId?: string): Promise<Map<string, OrderLineView[]>> {
    const rows = await this.database.query<(OrderLineRow & { printed: number; waiting: number })[]>(
      `SELECT l.*, COALESCE((SELECT SUM(copies) FROM prints p WHERE p.orderLineId = l.id AND p.state = 'printed'), 0) AS printed,
         (SELECT COUNT(*) FROM prints p WHERE p.orderLineId = l.id AND p.state = 'waiting') AS waiting
       FROM order_lines l ${orderId ? 'WHERE l.orderId = ?' : ''} ORDER BY l.orderId, l.position`,
      orderId ? [orderId] : [],
    );
    const found = new Map<string, OrderLineView[]>();
    for (const row of rows) {
      const { orderId: of, position: _, ...line } = present(row);
      found.set(of, [...(found.get(of) ?? []), line]);
    }
    return found;
  }

  /** Only what differs is written. @returns whether anything was */
  private async writeLines(orderId: string, lines: readonly OrderLineInput[]): Promise<boolean> {
    const known = new Map((await this.lines.findBy({ orderId })).map((l) => [l.id, l]));
    const gone = [...known.keys()].filter((id) => !lines.some((l) => l.id === id));
    let changed = gone.length > 0;
    if (changed) await this.lines.delete({ id: In(gone) });
    for (const [at, line] of lines.entries()) {
      const { pictureId, widthMm, heightMm, copies } = line;
      const next = {
        orderId,
        position: at + 1,
        pictureId,
        widthMm,
        heightMm,
        copies,
        conditionId: line.conditionId ?? null,
      };
      const stands = line.id ? known.get(line.id) : undefined;
      if (stands && Object.entries(next).every(([key, v]) => stands[key as keyof OrderLineRow] === v)) continue;
      changed = true;
      if (stands) await this.lines.update(stands.id, next);
      else await this.lines.insert({ id: randomUUID(), ...next });
    }
    return changed;
  }

  private async check(input: OrderInput, known?: OrderView): Promise<void> {
    await this.clients.view(input.clientId);
    if (input.placeId) await this.clients.place(input.placeId);
    if ((input.price === undefined) !== (input.currency === undefined))
      throw new RakuenError(400, 'A price needs a currency.', {
        field: input.currency === undefined ? 'currency' : 'price',
        remedy: 'Enter both, or neither.',
      });
    const stray = input.lines.find((l) => l.id && !known?.lines.some((k) => k.id === l.id));
    if (stray) throw notFound('line of this order');
    await this.each(
      'pictures',
      'picture',
      input.lines.map((l) => l.pictureId),
    );
    await this.each(
      'conditions',
      'print condition',
      input.lines.flatMap((l) => l.conditionId ?? []),
    );
    const moved = input.lines.find((l) => {
      const was = known?.lines.find((k) => k.id === l.id);
      return was && was.pictureId !== l.pictureId && was.printed + was.waiting > 0;
    });
    if (moved)
      throw new RakuenError(409, 'Prints of another picture were made for this line.', {
        field: 'lines',
        remedy: 'Add another line for the other picture.',
      });
  }

  private async each(table: 'pictures' | 'conditions', noun: string, ids: readonly string[]): Promise<void> {
    const wanted = [...new Set(ids)];
    const there = await this.database.query<unknown[]>(
      `SELECT 1 FROM ${table} WHERE id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(wanted)],
    );
    if (there.length < wanted.length) throw notFound(noun);
  }
}

const ofOrder = (input: OrderInput) => ({
  clientId: input.clientId,
  placeId: input.placeId ?? null,
  name: input.name.trim(),
  dueOn: input.dueOn ?? null,
  price: input.price ?? null,
  currency: input.currency ?? null,
  notes: input.notes.trim(),
});

function orderView(row: OrderRow, lines: OrderLineView[]): OrderView {
  const { parts: _, ...own } = present(row);
  return { ...own, lines };
}
