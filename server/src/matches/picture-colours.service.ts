import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, In, Repository } from 'typeorm';
import type { PictureJson, PictureSides } from '../pictures/asked.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { Writer } from '../store/writer.ts';
import type { ColoursOfPicture } from '../work/suit-task.ts';
import { Workshop } from '../work/workshop.ts';

/** A picture as it is kept: its JSON is parsed in the threads. */
export type KeptPicture = PictureJson & PictureSides & { readonly id: string };
const KEPT = 'SELECT id, widthPx, heightPx, figures, commission, marks, hints FROM pictures';

/** Rows and colours of many pictures, for questions that are asked of all of them at once. */
@Injectable()
export class PictureColours {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    private readonly read: PicturesService,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {}

  /** All pictures in pages, or some of them. */
  async *pages(size: number, ids?: readonly string[]): AsyncGenerator<KeptPicture[]> {
    if (ids) {
      for (let i = 0; i < ids.length; i += size) yield await this.rows(ids.slice(i, i + size));
      return;
    }
    let after = '';
    for (;;) {
      const rows = await this.database.query<KeptPicture[]>(`${KEPT} WHERE id > ? ORDER BY id LIMIT ${size}`, [after]);
      if (rows.length > 0) yield rows;
      if (rows.length < size) return;
      after = rows[rows.length - 1].id;
    }
  }

  rows(ids: readonly string[]): Promise<KeptPicture[]> {
    return this.database.query<KeptPicture[]>(`${KEPT} WHERE id IN (${ids.map(() => '?').join()})`, [...ids]);
  }

  /** Gists as they are kept; of pictures that have none yet they are computed, and kept. */
  async gists(ids: readonly string[]): Promise<Map<string, ColoursOfPicture>> {
    const rows = await this.database.query<{ pictureId: string; gist: Buffer }[]>(
      `SELECT pictureId, gist FROM picture_gists WHERE pictureId IN (${ids.map(() => '?').join()})`,
      [...ids],
    );
    const known = new Map<string, ColoursOfPicture>(rows.map((r) => [r.pictureId, { gist: floats(r.gist) }]));
    const lacking = ids.filter((id) => !known.has(id));
    if (lacking.length === 0) return known;
    const colours = await this.all(lacking);
    const found = [...colours.keys()];
    const gists = await this.workshop.run('gistsOf', { cells: found.map((id) => colours.get(id)!.cells!) });
    await this.writer.run('gists of pictures', async () => {
      for (const [i, id] of found.entries()) await this.read.keepGist(id, gists[i]);
    });
    found.forEach((id, i) => known.set(id, { gist: gists[i] }));
    return known;
  }

  async all(ids: readonly string[]): Promise<Map<string, ColoursOfPicture>> {
    const rows = await this.pictures.find({ where: { id: In([...ids]) }, select: { id: true, cells: true } });
    return new Map(rows.map((r) => [r.id, { cells: floats(r.cells) }]));
  }
}

/** A copy of its own: the bytes of a row need not begin where a number may. */
const floats = (bytes: Buffer): Float32Array => {
  const own = new Uint8Array(bytes);
  return new Float32Array(own.buffer, 0, Math.floor(own.length / 4));
};
