import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, In, Repository } from 'typeorm';
import { GLASSES } from '@rakuen/core/light/glass';
import type { ShowHead, ShowInput, ShowView } from '@rakuen/contract/shows';
import { notFound, RakuenError } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { LaidService } from '../profiles/laid.service.ts';
import { present } from '../store/rows.ts';
import { ShowPaperRow, ShowPictureRow, ShowRow } from './shows.entity.ts';

/** Shows: their names, places, pictures in order, and what is held of each paper. */
@Injectable()
export class ShowsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(ShowRow) private readonly rows: Repository<ShowRow>,
    @InjectRepository(ShowPictureRow) private readonly pictures: Repository<ShowPictureRow>,
    @InjectRepository(ShowPaperRow) private readonly papers: Repository<ShowPaperRow>,
    private readonly laid: LaidService,
  ) {}

  /** The newest first. */
  async list(): Promise<ShowHead[]> {
    const rows = await this.rows.find({ order: { createdAt: 'DESC', id: 'ASC' } });
    const pictures = await this.pictures.find({ order: { position: 'ASC', id: 'ASC' } });
    const chosen = await this.database.query<{ showId: string; name: string }[]>(
      `SELECT s.showId, p.name FROM show_papers s JOIN papers p ON p.id = s.paperId
       WHERE s.standing = 'chosen' ORDER BY p.name COLLATE NOCASE, p.id`,
    );
    const byShow = new Map<string, string[]>();
    for (const p of pictures) byShow.set(p.showId, [...(byShow.get(p.showId) ?? []), p.pictureId]);
    return rows.map(({ id, createdAt, name, place }) => {
      const own = byShow.get(id) ?? [];
      return {
        id,
        createdAt,
        name,
        place,
        pictures: own.length,
        pictureIds: own,
        chosenPapers: chosen.filter((c) => c.showId === id).map((c) => c.name),
      };
    });
  }

  async view(id: string): Promise<ShowView> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('show');
    const pictures = await this.pictures.find({ where: { showId: id }, order: { position: 'ASC', id: 'ASC' } });
    const papers = await this.papers.find({ where: { showId: id }, order: { id: 'ASC' } });
    const { parts: _, ...own } = present(row);
    return {
      ...own,
      pictureIds: pictures.map((p) => p.pictureId),
      papers: papers.map(({ paperId, standing }) => ({ paperId, standing })),
    };
  }

  async add(input: ShowInput): Promise<ShowView> {
    await this.check(input);
    const id = randomUUID();
    const createdAt = new Date().toISOString();
    await this.rows.insert({ id, createdAt, parts: 0, ...ownOf(input) });
    await this.writeParts(id, input);
    return this.view(id);
  }

  async change(id: string, input: ShowInput, from?: number): Promise<ShowView> {
    const known = await this.view(id);
    refuseStale('This show', known, from, known);
    await this.check(input, id);
    const row = await this.rows.findOneByOrFail({ id });
    const changed = await this.writeParts(id, input);
    await this.rows.update(id, { ...ownOf(input), parts: row.parts + (changed ? 1 : 0) });
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('show');
  }

  /** @throws RakuenError where it names what is not there, or something twice */
  private async check(input: ShowInput, id?: string): Promise<void> {
    const like = await this.database.query<unknown[]>('SELECT 1 FROM shows WHERE name = ? COLLATE NOCASE AND id <> ?', [
      input.name.trim(),
      id ?? '',
    ]);
    if (like.length > 0)
      throw new RakuenError(409, `There is a show with the name ${input.name.trim()} already.`, {
        field: 'name',
        remedy: 'Choose another name.',
      });
    if (input.light) await this.laid.lightOf(input.light);
    if (input.glass && !GLASSES.some((g) => g.key === input.glass)) throw notFound('glass');
    await this.each('pictures', 'picture', 'pictureIds', input.pictureIds);
    await this.each(
      'papers',
      'paper',
      'papers',
      input.papers.map((p) => p.paperId),
    );
  }

  private async each(table: 'pictures' | 'papers', noun: string, field: string, ids: readonly string[]): Promise<void> {
    if (new Set(ids).size < ids.length)
      throw new RakuenError(422, `A ${noun} is in the show twice.`, { field, remedy: `Name every ${noun} once.` });
    const there = await this.database.query<{ id: string }[]>(
      `SELECT id FROM ${table} WHERE id IN (SELECT value FROM json_each(?))`,
      [JSON.stringify(ids)],
    );
    if (there.length < ids.length)
      throw new RakuenError(404, `A ${noun} of the show is not here any more.`, {
        field,
        remedy: 'Reload the page and remove it from the show, or restore it from the bin.',
      });
  }

  /** Only what differs is written: the record of events shows what a hand changed. @returns whether anything was */
  private async writeParts(showId: string, { pictureIds, papers }: ShowInput): Promise<boolean> {
    let changed = 0;
    const hung = new Map((await this.pictures.findBy({ showId })).map((r) => [r.pictureId, r]));
    const off = [...hung.values()].filter((r) => !pictureIds.includes(r.pictureId)).map((r) => r.id);
    if (off.length > 0) changed += (await this.pictures.delete({ id: In(off) })).affected ?? 0;
    for (const [at, pictureId] of pictureIds.entries()) {
      const known = hung.get(pictureId);
      const position = at + 1;
      if (known?.position === position) continue;
      changed++;
      if (known) await this.pictures.update(known.id, { position });
      else await this.pictures.insert({ id: randomUUID(), showId, pictureId, position });
    }
    const held = new Map((await this.papers.findBy({ showId })).map((r) => [r.paperId, r]));
    const out = [...held.values()].filter((r) => !papers.some((p) => p.paperId === r.paperId)).map((r) => r.id);
    if (out.length > 0) changed += (await this.papers.delete({ id: In(out) })).affected ?? 0;
    for (const { paperId, standing } of papers) {
      const known = held.get(paperId);
      if (known?.standing === standing) continue;
      changed++;
      if (known) await this.papers.update(known.id, { standing });
      else await this.papers.insert({ id: randomUUID(), showId, paperId, standing });
    }
    return changed > 0;
  }
}

/** Columns of the show itself. What is absent is nothing. */
const ownOf = (input: ShowInput) => ({
  name: input.name.trim(),
  place: input.place.trim(),
  light: input.light ?? null,
  glass: input.glass ?? null,
  lux: input.lux ?? null,
  maxLoss: input.maxLoss,
  sameSurface: input.sameSurface,
  sameWhite: input.sameWhite,
  allPapers: input.allPapers,
});
