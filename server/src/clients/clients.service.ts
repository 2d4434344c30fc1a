import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, Repository } from 'typeorm';
import { GLASSES } from '@rakuen/core/light/glass';
import type { ClientInput, ClientView, PlaceInput, PlaceView } from '@rakuen/contract/clients';
import { notFound, RakuenError } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { present } from '../store/rows.ts';
import { ClientRow, PlaceRow } from './clients.entity.ts';

/** Copies that stand with a client or at a place now. */
const COPIES = (column: 'clientId' | 'placeId') =>
  `(SELECT COALESCE(SUM(m.copies - (SELECT COALESCE(SUM(x.copies), 0) FROM moves x WHERE x.fromId = m.id)), 0)
    FROM moves m WHERE m.${column} = t.id AND m."to" NOT IN ('studio', 'destroyed'))`;

/** Who orders and buys prints, and the places where they hang. */
@Injectable()
export class ClientsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(ClientRow) private readonly clients: Repository<ClientRow>,
    @InjectRepository(PlaceRow) private readonly places: Repository<PlaceRow>,
    private readonly laid: LaidService,
  ) {}

  /** By name. */
  list(): Promise<ClientView[]> {
    return this.clientRows('1', []);
  }

  async view(id: string): Promise<ClientView> {
    const [row] = await this.clientRows('t.id = ?', [id]);
    if (!row) throw notFound('client');
    return row;
  }

  async add(input: ClientInput): Promise<ClientView> {
    const id = randomUUID();
    await this.clientIsOne(input, '');
    await this.clients.insert({ id, createdAt: new Date().toISOString(), ...trimmed(input) });
    return this.view(id);
  }

  async change(id: string, input: ClientInput, from?: number): Promise<ClientView> {
    const known = await this.view(id);
    refuseStale('This client', known, from, known);
    await this.clientIsOne(input, id);
    await this.clients.update(id, trimmed(input));
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    await this.refuseNamed('client', 'clientId', id, ['orders', 'moves', 'places']);
    if ((await this.clients.delete(id)).affected !== 1) throw notFound('client');
  }

  listPlaces(): Promise<PlaceView[]> {
    return this.placeRows('1', []);
  }

  async place(id: string): Promise<PlaceView> {
    const [row] = await this.placeRows('t.id = ?', [id]);
    if (!row) throw notFound('place');
    return row;
  }

  async addPlace(input: PlaceInput): Promise<PlaceView> {
    const id = randomUUID();
    await this.placeIsRight(input, '');
    await this.places.insert({ id, createdAt: new Date().toISOString(), ...ofPlace(input) });
    return this.place(id);
  }

  async changePlace(id: string, input: PlaceInput, from?: number): Promise<PlaceView> {
    const known = await this.place(id);
    refuseStale('This place', known, from, known);
    await this.placeIsRight(input, id);
    await this.places.update(id, ofPlace(input));
    return this.place(id);
  }

  async removePlace(id: string): Promise<void> {
    await this.refuseNamed('place', 'placeId', id, ['orders', 'moves']);
    if ((await this.places.delete(id)).affected !== 1) throw notFound('place');
  }

  private async clientRows(where: string, values: readonly string[]): Promise<ClientView[]> {
    return this.database.query<ClientView[]>(
      `SELECT t.*, (SELECT COUNT(*) FROM orders o WHERE o.clientId = t.id AND o.state = 'open') AS openOrders,
         ${COPIES('clientId')} AS copies FROM clients t WHERE ${where} ORDER BY t.name COLLATE NOCASE`,
      [...values],
    );
  }

  private async placeRows(where: string, values: readonly string[]): Promise<PlaceView[]> {
    const rows = await this.database.query<(PlaceRow & { copies: number })[]>(
      `SELECT t.*, ${COPIES('placeId')} AS copies FROM places t WHERE ${where} ORDER BY t.name COLLATE NOCASE`,
      [...values],
    );
    return rows.map(present);
  }

  private async clientIsOne({ name }: ClientInput, except: string): Promise<void> {
    const like = await this.database.query<unknown[]>(
      'SELECT 1 FROM clients WHERE name = ? COLLATE NOCASE AND id <> ?',
      [name.trim(), except],
    );
    if (like.length > 0)
      throw new RakuenError(409, `There is a client with the name ${name.trim()} already.`, {
        field: 'name',
        remedy: 'Choose the one that is there, or add what tells the two apart.',
      });
  }

  private async placeIsRight({ name, clientId, light, glass }: PlaceInput, except: string): Promise<void> {
    if (light) await this.laid.lightOf(light);
    if (glass && !GLASSES.some((g) => g.key === glass)) throw notFound('glass');
    if (clientId) await this.view(clientId);
    const like = await this.database.query<unknown[]>(
      `SELECT 1 FROM places WHERE name = ? COLLATE NOCASE AND COALESCE(clientId, '') = ? AND id <> ?`,
      [name.trim(), clientId ?? '', except],
    );
    if (like.length > 0)
      throw new RakuenError(409, `There is a place with the name ${name.trim()} already.`, {
        field: 'name',
        remedy: 'Choose another name.',
      });
  }

  /** What is named by others stays: an order without its client says nothing. */
  private async refuseNamed(
    noun: string,
    column: 'clientId' | 'placeId',
    id: string,
    tables: readonly ('orders' | 'moves' | 'places')[],
  ): Promise<void> {
    const counts: string[] = [];
    for (const table of tables) {
      const [{ n }] = await this.database.query<{ n: number }[]>(
        `SELECT COUNT(*) AS n FROM ${table} WHERE ${column} = ?`,
        [id],
      );
      if (n > 0) counts.push(`${n} ${n === 1 ? ONE[table] : MANY[table]}`);
    }
    if (counts.length > 0)
      throw new RakuenError(409, `This ${noun} is named by ${counts.join(', ')}.`, {
        remedy: `Keep the ${noun}, or change what names it first.`,
      });
  }
}

const ONE = { orders: 'order', moves: 'entry about where a print is', places: 'place' };
const MANY = { orders: 'orders', moves: 'entries about where prints are', places: 'places' };

const trimmed = ({ name, contact, wishes, notes }: ClientInput) => ({
  name: name.trim(),
  contact: contact.trim(),
  wishes: wishes.trim(),
  notes: notes.trim(),
});

const ofPlace = (input: PlaceInput) => ({
  name: input.name.trim(),
  address: input.address.trim(),
  clientId: input.clientId ?? null,
  light: input.light ?? null,
  glass: input.glass ?? null,
  lux: input.lux ?? null,
  notes: input.notes.trim(),
});
