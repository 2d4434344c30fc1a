import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, Repository } from 'typeorm';
import { dayOf, today } from '@rakuen/core/day';
import { numberText, type Series } from '@rakuen/core/print/edition';
import { COMES_BACK, daysOverdue, moveRefused, standings, type Move } from '@rakuen/core/print/whereabouts';
import type { MoveInput, MovesQuery, MoveView, WhereaboutsView } from '@rakuen/contract/clients';
import { notFound, RakuenError } from '../app/errors.ts';
import { EARLIER } from '../editions/ordinals.ts';
import { MoveRow } from './clients.entity.ts';

/** Where every copy of a print went, one move after the other. That no copy is in two places is held by the database itself. */
@Injectable()
export class MovesService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(MoveRow) private readonly moves: Repository<MoveRow>,
  ) {}

  /** Copies that are out of the studio now, or those that are with a client or at a place; the longest overdue first. */
  async out({ clientId, placeId }: MovesQuery = {}): Promise<MoveView[]> {
    const rows = await this.rows(
      `standing > 0 AND m."to" NOT IN ('studio', 'destroyed') ${clientId ? 'AND m.clientId = ?' : ''} ${placeId ? 'AND m.placeId = ?' : ''}`,
      [clientId, placeId].filter((id) => id !== undefined),
    );
    return rows.map(moveView).sort((a, b) => b.daysOverdue - a.daysOverdue);
  }

  /** Of a print and of its numbers. */
  async ofPrint(printId: string): Promise<WhereaboutsView> {
    const rows = await this.rows('m.printId = ? OR m.numberId IN (SELECT id FROM numbers WHERE printId = ?)', [
      printId,
      printId,
    ]);
    return { neverMoved: Math.max(0, await this.neverMoved(printId)), moves: rows.map(moveView) };
  }

  /** Of numbers, by number. */
  async ofNumbers(ids: readonly string[]): Promise<Map<string, MoveView[]>> {
    const rows = await this.rows('m.numberId IN (SELECT value FROM json_each(?))', [JSON.stringify(ids)]);
    const found = new Map<string, MoveView[]>();
    for (const row of rows) found.set(row.numberId!, [...(found.get(row.numberId!) ?? []), moveView(row)]);
    return found;
  }

  /** Copies of a print that bear no number and never left the studio. */
  async neverMoved(printId: string): Promise<number> {
    const own = await this.moves.findBy({ printId });
    return standings(own.map(asMove), await this.unnumbered(printId)).neverMoved;
  }

  async add(input: MoveInput, orderId: string | null = null): Promise<MoveView> {
    checked(input);
    const owner = await this.owner(input);
    const own = (await this.moves.findBy(owner)).map(asMove);
    const from = input.fromId ? own.find((m) => m.id === input.fromId) : undefined;
    if (input.fromId && !from) throw notFound('place where these copies stand');
    const copies = input.copies ?? 1;
    const there = owner.numberId ? 1 : await this.unnumbered(owner.printId!);
    const refused = moveRefused(standings(own, there), from, { to: input.to, copies });
    if (refused) throw refusedMove(refused);
    await this.each('clients', 'client', input.clientId);
    await this.each('places', 'place', input.placeId);
    const row: MoveRow = {
      id: randomUUID(),
      recordedAt: new Date().toISOString(),
      printId: owner.printId ?? null,
      numberId: owner.numberId ?? null,
      fromId: input.fromId ?? null,
      to: input.to,
      copies,
      clientId: input.clientId ?? null,
      placeId: input.placeId ?? null,
      orderId,
      withWhom: input.withWhom?.trim() ?? '',
      on: input.on ? dayOf(input.on) : today(),
      until: input.until ?? null,
      price: input.price ?? null,
      currency: input.currency ?? null,
      note: input.note?.trim() ?? '',
    };
    await this.moves.insert(row);
    return this.view(row.id);
  }

  async view(id: string): Promise<MoveView> {
    const [row] = await this.rows('m.id = ?', [id]);
    if (!row) throw notFound('move');
    return moveView(row);
  }

  /** Removes a move that was entered by mistake. The copies stand where they stood before. */
  async remove(id: string): Promise<void> {
    if (await this.moves.existsBy({ fromId: id }))
      throw new RakuenError(409, 'These copies went on from there.', { remedy: 'Remove the later move first.' });
    if ((await this.moves.delete(id)).affected !== 1) throw notFound('move');
  }

  /** Records every copy of a print that is in the studio as sold to the client of an order. */
  async deliver(
    printId: string,
    order: { id: string; clientId: string; placeId: string | null },
    on: string,
  ): Promise<void> {
    const to = { to: 'sold' as const, on, clientId: order.clientId, placeId: order.placeId ?? undefined };
    const { neverMoved, moves } = await this.ofPrint(printId);
    if (neverMoved > 0) await this.add({ ...to, printId, copies: neverMoved }, order.id);
    const back = moves.filter((m) => m.to === 'studio' && m.standing > 0);
    for (const m of back)
      await this.add({ ...to, printId: m.printId, numberId: m.numberId, fromId: m.id, copies: m.standing }, order.id);
    const still = await this.database.query<{ id: string }[]>(
      'SELECT id FROM numbers n WHERE printId = ? AND NOT EXISTS (SELECT 1 FROM moves m WHERE m.numberId = n.id)',
      [printId],
    );
    for (const { id } of still) await this.add({ ...to, numberId: id }, order.id);
  }

  private async owner({ printId, numberId }: MoveInput): Promise<{ printId?: string; numberId?: string }> {
    const [there] = printId
      ? await this.database.query<{ state: string }[]>('SELECT state FROM prints WHERE id = ?', [printId])
      : await this.database.query<{ state: string }[]>(`SELECT 'printed' AS state FROM numbers WHERE id = ?`, [
          numberId,
        ]);
    if (!there) throw notFound(printId ? 'print' : 'number');
    if (there.state !== 'printed')
      throw new RakuenError(409, 'This print waits for the printer.', {
        field: 'printId',
        remedy: 'Mark it as printed first.',
      });
    return printId ? { printId } : { numberId };
  }

  /** Copies of a print without those that bear a number. */
  private async unnumbered(printId: string): Promise<number> {
    const [{ copies }] = await this.database.query<{ copies: number }[]>(
      `SELECT CASE state WHEN 'printed' THEN copies ELSE 0 END - (SELECT COUNT(*) FROM numbers WHERE printId = p.id) AS copies FROM prints p WHERE id = ?`,
      [printId],
    );
    return copies;
  }

  private async each(table: 'clients' | 'places', noun: string, id: string | undefined): Promise<void> {
    if (id && (await this.database.query<unknown[]>(`SELECT 1 FROM ${table} WHERE id = ?`, [id])).length === 0)
      throw notFound(noun);
  }

  private rows(where: string, values: readonly string[]): Promise<Row[]> {
    return this.database.query<Row[]>(`SELECT * FROM (${MOVES}) m WHERE ${where} ORDER BY m.recordedAt, m.seq`, [
      ...values,
    ]);
  }
}

const MOVES = `SELECT m.*, m.rowid AS seq, c.name AS client, l.name AS place, COALESCE(i.title, '') AS title,
    n.series, n.number, e.size, e.artist, e.printer, e.good, CASE WHEN e.id IS NULL THEN 0 ELSE ${EARLIER} END AS earlier,
    m.copies - (SELECT COALESCE(SUM(x.copies), 0) FROM moves x WHERE x.fromId = m.id) AS standing
  FROM moves m LEFT JOIN clients c ON c.id = m.clientId LEFT JOIN places l ON l.id = m.placeId
  LEFT JOIN numbers n ON n.id = m.numberId LEFT JOIN editions e ON e.id = n.editionId
  LEFT JOIN prints p ON p.id = m.printId LEFT JOIN pictures i ON i.id = COALESCE(p.pictureId, e.pictureId)`;

interface Row extends MoveRow {
  readonly client: string | null;
  readonly place: string | null;
  readonly title: string;
  readonly series: Series | null;
  readonly number: number;
  readonly size: number | null;
  readonly artist: number;
  readonly printer: number;
  readonly good: number;
  readonly earlier: number;
  readonly standing: number;
}

function moveView(m: Row): MoveView {
  const number = m.series ? numberText(m.series, m.number, { ...m, edition: m.size }, m.earlier + 1) : undefined;
  return {
    id: m.id,
    recordedAt: m.recordedAt,
    printId: m.printId ?? undefined,
    numberId: m.numberId ?? undefined,
    fromId: m.fromId ?? undefined,
    to: m.to,
    copies: m.copies,
    standing: m.standing,
    clientId: m.clientId ?? undefined,
    placeId: m.placeId ?? undefined,
    orderId: m.orderId ?? undefined,
    withWhom: m.withWhom,
    who: [m.client, m.withWhom].filter(Boolean).join(', '),
    where: m.place ?? '',
    what: [m.title, number].filter(Boolean).join(' '),
    number,
    on: m.on,
    until: m.until ?? undefined,
    price: m.price ?? undefined,
    currency: m.currency ?? undefined,
    note: m.note,
    daysOverdue: m.standing > 0 ? daysOverdue({ to: m.to, until: m.until ?? undefined }, today()) : 0,
  };
}

const asMove = (m: MoveRow): Move => ({ id: m.id, fromId: m.fromId, to: m.to, copies: m.copies });

function checked({ printId, numberId, to, copies = 1, until, on, price, currency }: MoveInput): void {
  if ((printId === undefined) === (numberId === undefined))
    throw new RakuenError(400, 'A move is of a print, or of a number.', {
      field: 'printId, numberId',
      remedy: 'Send one of the two.',
    });
  if (numberId && copies !== 1)
    throw new RakuenError(400, 'A numbered print is one copy.', { field: 'copies', remedy: 'Move 1 copy.' });
  if ((price === undefined) !== (currency === undefined))
    throw new RakuenError(400, 'A price needs a currency.', {
      field: currency === undefined ? 'currency' : 'price',
      remedy: 'Enter both, or neither.',
    });
  if (until && !COMES_BACK.includes(to))
    throw new RakuenError(400, 'Only what is lent or on consignment comes back on a day.', {
      field: 'until',
      remedy: 'Leave the day of return empty.',
    });
  if (until && until < (on ? dayOf(on) : today()))
    throw new RakuenError(400, 'The day of return is before the day it left.', {
      field: 'until',
      remedy: 'Enter a later day.',
    });
}

function refusedMove(refused: NonNullable<ReturnType<typeof moveRefused>>): RakuenError {
  switch (refused.why) {
    case 'destroyed':
      return new RakuenError(409, 'This copy was destroyed.', {
        field: 'fromId',
        remedy: 'If that was entered by mistake, remove that entry.',
      });
    case 'same':
      return new RakuenError(409, 'It is in the studio already.', { field: 'to', remedy: 'Choose where it goes.' });
    case 'too few':
      return new RakuenError(
        409,
        refused.there === 0
          ? 'No copy is there any more.'
          : `Only ${refused.there} ${refused.there === 1 ? 'copy is' : 'copies are'} there.`,
        { field: 'copies', remedy: 'It may have been moved in another window. Reload the page and look where it is.' },
      );
  }
}
