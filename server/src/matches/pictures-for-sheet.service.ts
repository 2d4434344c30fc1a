import { Injectable } from '@nestjs/common';
import { InjectDataSource, InjectRepository } from '@nestjs/typeorm';
import { DataSource, In, Repository } from 'typeorm';
import { USUAL_COMMISSION, type Commission } from '@rakuen/core/match/commission';
import type { ReadySheet } from '@rakuen/core/match/ready-sheet';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { SuitLine, SuitsEnd, SuitsRequest, UnsuitLine } from '@rakuen/contract/matches';
import { RakuenError } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import type { PictureJson } from '../pictures/asked.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { Writer } from '../store/writer.ts';
import { unpackReady } from '../work/lay-tasks.ts';
import { sharedSheet, type AskedPicture } from '../work/suit-task.ts';
import { AT_ONCE, Workshop } from '../work/workshop.ts';
import { SheetsAtHand } from './sheets-at-hand.service.ts';

/** Pictures of a page: the server answers others between two of them. */
const PAGE = 150;
/** So many of the best are computed again from all their colours: what a screen shows at first. */
const EXACT = 40;
/** And so many of them at once, for their colours are many. */
const EXACT_PAGE = 5;

/** Rows as they are kept: their JSON is parsed in the threads. */
type Kept = PictureJson & { readonly id: string };
const KEPT = 'SELECT id, figures, commission, marks, hints FROM pictures';

/** The sheet as it is seen in one place, or why that is not known. */
type Seen = { readonly at: number } | { readonly why: string };

/** Which pictures suit a sheet: the match, asked the other way round. */
@Injectable()
export class PicturesForSheet {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    private readonly read: PicturesService,
    private readonly conditions: ConditionsService,
    private readonly sheets: SheetsAtHand,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {}

  /** Lines as they are computed, some at a time, in no order. @throws RakuenError (404) for no such condition, (409) where nothing was measured of it */
  async *pages({
    conditionId,
    pictureIds,
    weights,
  }: SuitsRequest): AsyncGenerator<readonly (SuitLine | UnsuitLine | SuitsEnd)[]> {
    const condition = await this.conditions.view(conditionId);
    if (!condition.facts?.readingId)
      throw new RakuenError(409, 'Nothing was measured of this print condition yet.', {
        remedy: 'Import the readings of its chart first.',
      });
    const sheets: { qualities: SheetQualities; ready: ReadySheet }[] = [];
    const seen = new Map<string, Promise<Seen>>();
    const seenFor = ({ commission }: Kept): Promise<Seen> => {
      const { light, glass } = commission === null ? USUAL_COMMISSION : (JSON.parse(commission) as Commission);
      const key = `${light} ${glass}`;
      const known = seen.get(key) ?? this.seen(condition, { light, glass }, sheets);
      seen.set(key, known);
      return known;
    };
    const best: { id: string; score: number }[] = [];
    const judge = async (rows: readonly Kept[], colours: Map<string, Partial<AskedPicture>>) => {
      const out: (SuitLine | UnsuitLine)[] = [];
      const asked: AskedPicture[] = [];
      for (const row of rows) {
        const there = await seenFor(row);
        if ('why' in there) out.push({ pictureId: row.id, refused: there.why });
        else asked.push({ ...row, sheet: there.at, ...colours.get(row.id) });
      }
      const lines =
        asked.length > 0 ? await this.workshop.run('suitPictures', { pictures: asked, sheets, weights }) : [];
      return [...out, ...lines];
    };

    let pictures = 0;
    const pending: Promise<(SuitLine | UnsuitLine)[]>[] = [];
    for await (const page of this.rows(pictureIds)) {
      pictures += page.length;
      pending.push(this.gists(page.map((v) => v.id)).then((gists) => judge(page, gists)));
      // A page in each thread, and one that waits.
      if (pending.length <= AT_ONCE) continue;
      yield keepBest(await pending.shift()!, best);
    }
    for (const page of pending) yield keepBest(await page, best);

    best.sort((p, q) => q.score - p.score);
    const first = best.slice(0, EXACT).map((b) => b.id);
    for (let i = 0; i < first.length; i += EXACT_PAGE * AT_ONCE) {
      const parts = Array.from({ length: AT_ONCE }, (_, k) =>
        first.slice(i + k * EXACT_PAGE, i + (k + 1) * EXACT_PAGE),
      ).filter((ids) => ids.length > 0);
      const done = await Promise.all(
        parts.map(async (ids) => judge(await this.rowsOf(ids), await this.allColours(ids))),
      );
      yield done.flat();
    }
    yield [{ pictures }];
  }

  private async seen(
    condition: ConditionView,
    where: { light: string; glass: string },
    sheets: { qualities: SheetQualities; ready: ReadySheet }[],
  ): Promise<Seen> {
    const found = await this.sheets.of(condition, where);
    if ('why' in found) return found;
    return { at: sheets.push({ qualities: found.qualities, ready: sharedSheet(unpackReady(found.ready)) }) - 1 };
  }

  private async *rows(ids?: readonly string[]): AsyncGenerator<Kept[]> {
    if (ids) {
      for (let i = 0; i < ids.length; i += PAGE) yield await this.rowsOf(ids.slice(i, i + PAGE));
      return;
    }
    let after = '';
    for (;;) {
      const rows = await this.database.query<Kept[]>(`${KEPT} WHERE id > ? ORDER BY id LIMIT ${PAGE}`, [after]);
      if (rows.length > 0) yield rows;
      if (rows.length < PAGE) return;
      after = rows[rows.length - 1].id;
    }
  }

  private rowsOf(ids: readonly string[]): Promise<Kept[]> {
    return this.database.query<Kept[]>(`${KEPT} WHERE id IN (${ids.map(() => '?').join()})`, [...ids]);
  }

  /** Gists as they are kept; of pictures that have none yet they are computed, and kept. */
  private async gists(ids: readonly string[]): Promise<Map<string, Partial<AskedPicture>>> {
    const rows = await this.database.query<{ pictureId: string; gist: Buffer }[]>(
      `SELECT pictureId, gist FROM picture_gists WHERE pictureId IN (${ids.map(() => '?').join()})`,
      [...ids],
    );
    const known = new Map<string, Partial<AskedPicture>>(rows.map((r) => [r.pictureId, { gist: floats(r.gist) }]));
    const lacking = ids.filter((id) => !known.has(id));
    if (lacking.length === 0) return known;
    const colours = await this.allColours(lacking);
    const found = [...colours.keys()];
    const gists = await this.workshop.run('gistsOf', { cells: found.map((id) => colours.get(id)!.cells!) });
    await this.writer.run('gists of pictures', async () => {
      for (const [i, id] of found.entries()) await this.read.keepGist(id, gists[i]);
    });
    found.forEach((id, i) => known.set(id, { gist: gists[i] }));
    return known;
  }

  private async allColours(ids: readonly string[]): Promise<Map<string, Partial<AskedPicture>>> {
    const rows = await this.pictures.find({ where: { id: In([...ids]) }, select: { id: true, cells: true } });
    return new Map(rows.map((r) => [r.id, { cells: floats(r.cells) }]));
  }
}

/** A copy of its own: the bytes of a row need not begin where a number may. */
const floats = (bytes: Buffer): Float32Array => {
  const own = new Uint8Array(bytes);
  return new Float32Array(own.buffer, 0, Math.floor(own.length / 4));
};

type Line = SuitLine | UnsuitLine;
function keepBest(page: readonly Line[], best: { id: string; score: number }[]): readonly Line[] {
  for (const line of page) if ('score' in line) best.push({ id: line.pictureId, score: line.score });
  return page;
}
