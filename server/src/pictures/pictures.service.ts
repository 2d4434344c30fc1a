import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { isDeepStrictEqual } from 'node:util';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { PICTURE_VERSION } from '@rakuen/core/picture/tally';
import type { CommissionInput, PictureChange, PictureFields, PictureJob, PictureView } from '@rakuen/contract/pictures';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { refuseStale } from '../app/revision.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { DecisionRow } from '../matches/matches.entity.ts';
import { askedOfKnown } from './asked.ts';
import { PictureRow } from './pictures.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { Writer } from '../store/writer.ts';
import { type Job, Jobs } from '../work/jobs.ts';
import { Workshop } from '../work/workshop.ts';
import { columns } from '../store/rows.ts';

@Injectable()
export class PicturesService {
  /** The id of what was read; of which file it is. */
  private readonly jobs = new Jobs<string, string>('reading of a picture', {
    message: 'The picture could not be read.',
    remedy: 'It may be too large for the memory of this machine. Try a smaller copy.',
  });

  constructor(
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(DecisionRow) private readonly decisions: Repository<DecisionRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
    private readonly writer: Writer,
  ) {}

  async list(): Promise<PictureView[]> {
    return (await this.pictures.find({ order: { addedAt: 'ASC' } })).map(pictureView);
  }

  async view(id: string): Promise<PictureView> {
    return pictureView(await this.get(id));
  }

  async get(id: string): Promise<PictureRow> {
    const row = await this.pictures.findOneBy({ id });
    if (!row) throw notFound('picture');
    return row;
  }

  /** Colours and shares of a picture: L*, a*, b*, share. */
  async cells(id: string): Promise<Float32Array> {
    const row = await this.pictures.findOne({ where: { id }, select: { id: true, cells: true } });
    if (!row) throw notFound('picture');
    const bytes = new Uint8Array(row.cells);
    return new Float32Array(bytes.buffer, 0, bytes.length / 4);
  }

  /** Begins to read a picture and returns at once; the job tells how it goes. */
  begin(file: IncomingFile, fields: PictureFields): PictureJob {
    return jobView(
      this.jobs.begin(file.originalname, async (signal, progress) => {
        try {
          return await this.read(file, fields, signal, progress);
        } catch (error) {
          await this.files.discard(file.path);
          throw error;
        }
      }),
    );
  }

  job(id: string): PictureJob {
    return jobView(this.jobs.get(id));
  }

  cancel(id: string): PictureJob {
    return jobView(this.jobs.cancel(id));
  }

  /** Reads a picture to its end; for the demo studio, which waits. */
  async add(file: IncomingFile, fields: PictureFields): Promise<PictureView> {
    const { result, error } = await this.jobs.ended(this.begin(file, fields).id);
    if (!result) throw new RakuenError(422, error?.message ?? 'cancelled', { file: file.originalname });
    return this.view(result);
  }

  /**
   * Changes what a hand says of a picture; what is not named stays.
   * @param from revision the change was made from; whatever it is now where absent
   */
  /**
   * One commission for many pictures; the ground of an original stays each picture’s own. @returns how many it changed
   * @throws RakuenError (404) where one is not here: then none is changed
   */
  async commission(ids: readonly string[], commission: CommissionInput): Promise<number> {
    const asked = [...new Set(ids)];
    const rows = await this.pictures.find({ where: { id: In(asked) }, select: { id: true, commission: true } });
    if (rows.length < asked.length) throw notFound('picture');
    const { originalGround: _, ...rest } = commission;
    let changed = 0;
    for (const { id, commission: was } of rows) {
      const commission = { ...rest, ...(was?.originalGround && { originalGround: was.originalGround }) };
      if (isDeepStrictEqual(JSON.parse(JSON.stringify(commission)), was)) continue;
      await this.pictures.update(id, columns<PictureRow>({ commission }));
      changed++;
    }
    return changed;
  }

  async change(
    id: string,
    { title, commission, marks, hints, asFound = [] }: PictureChange,
    from?: number,
  ): Promise<PictureView> {
    const known = await this.get(id);
    refuseStale('This picture', known, from, pictureView(known));
    const change = {
      ...(title !== undefined && { title: title.trim() }),
      ...(commission && { commission }),
      ...(marks && { marks }),
      ...(hints && { hints }),
      ...Object.fromEntries(asFound.map((key) => [key, null])),
    };
    if (Object.keys(change).length > 0) await this.pictures.update(id, columns<PictureRow>(change));
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    await this.get(id);
    const rests = (await this.decisions.countBy({ pictureId: id })) + (await this.prints.countBy({ pictureId: id }));
    if (rests > 0)
      throw new RakuenError(409, 'Decisions or prints in the ledger rest on this picture.', {
        remedy: 'It stays, so that they can still be read.',
      });
    await this.pictures.delete(id);
  }

  async preview(id: string): Promise<Buffer> {
    return this.files.read((await this.get(id)).previewHash);
  }

  /** Reads pictures again whose figures an earlier version gave; one that can't be read any more keeps them. */
  async refresh(): Promise<void> {
    const { limits } = await this.settings.get();
    for (const row of await this.pictures.find({ order: { addedAt: 'ASC' } })) {
      if ((row.figures.version ?? 1) >= PICTURE_VERSION) continue;
      const read = await this.files
        .scratch((scratch) =>
          this.workshop.readPicture(
            {
              path: this.files.pathOf(row.contentHash),
              assumeSrgb: row.profileAssumed,
              maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
              scratch,
            },
            row.fileName,
            new AbortController().signal,
            () => undefined,
          ),
        )
        .catch(() => undefined);
      if (!read) continue;
      const { figures, cells, gist, notes } = read;
      await this.writer.run('picture read again', async () => {
        await this.pictures.update(
          row.id,
          columns<PictureRow>({
            figures,
            notes,
            colourCells: cells.length / 4,
            cells: bytesOf(cells),
          }),
        );
        await this.keepGist(row.id, gist);
      });
    }
  }

  private async read(
    file: IncomingFile,
    fields: PictureFields,
    signal: AbortSignal,
    progress: (share: number) => void,
  ): Promise<string> {
    const { limits } = await this.settings.get();
    const { cells, gist, preview, title, caption, ...rest } = await this.files.scratch((scratch) =>
      this.workshop.readPicture(
        { path: file.path, assumeSrgb: fields.assumeSrgb === 'yes', maxPixels: limits.picturePixels, scratch },
        file.originalname,
        signal,
        progress,
      ),
    );
    const contentHash = await this.files.keepFile(file.path);
    const previewHash = await this.files.keepBytes(preview);
    const row = this.pictures.create({
      ...rest,
      id: randomUUID(),
      addedAt: new Date().toISOString(),
      title: fields.title?.trim() || title || titleFrom(file.originalname),
      caption: caption ?? '',
      fileName: file.originalname.slice(0, 200),
      contentHash,
      previewHash,
      colourCells: cells.length / 4,
      cells: bytesOf(cells),
    });
    await this.writer.run('picture read', async () => {
      await this.pictures.insert(row);
      await this.keepGist(row.id, gist);
    });
    return row.id;
  }

  /** Keeps a picture in few colours, by which it is put in order among thousands. @param gist packed */
  async keepGist(pictureId: string, gist: Float32Array): Promise<void> {
    // A picture that was removed meanwhile has none.
    await this.pictures.query(
      'INSERT OR REPLACE INTO picture_gists (pictureId, gist) SELECT id, ? FROM pictures WHERE id = ?',
      [bytesOf(gist), pictureId],
    );
  }
}

const bytesOf = ({ buffer, byteOffset, byteLength }: Float32Array): Buffer =>
  Buffer.from(buffer, byteOffset, byteLength);

const jobView = ({ about, result, ...job }: Job<string, string>): PictureJob => ({
  ...job,
  fileName: about,
  pictureId: result,
});

/** "IMG_salt-crust.tif" → "IMG salt crust". */
function titleFrom(fileName: string): string {
  const title = basename(fileName)
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return title.slice(0, 160) || 'Untitled picture';
}

function pictureView(row: PictureRow): PictureView {
  const { commission, marks, hints } = askedOfKnown(row);
  return {
    id: row.id,
    revision: row.revision,
    addedAt: row.addedAt,
    title: row.title,
    caption: row.caption,
    fileName: row.fileName,
    contentHash: row.contentHash,
    format: row.format,
    widthPx: row.widthPx,
    heightPx: row.heightPx,
    bitsPerChannel: row.bitsPerChannel,
    profile: row.profile,
    profileAssumed: row.profileAssumed,
    notes: row.notes,
    figures: row.figures,
    colourCells: row.colourCells,
    commission,
    commissioned: row.commission !== null,
    marks: [...marks],
    marksByHand: row.marks !== null,
    hints: [...hints],
    hintsByHand: row.hints !== null,
  };
}
