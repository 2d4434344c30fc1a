import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { PICTURE_VERSION } from '@rakuen/core/picture/tally';
import { USUAL_COMMISSION } from '@rakuen/core/match/commission';
import type { PictureChange, PictureFields, PictureJob, PictureView } from '@rakuen/contract/pictures';
import type { ApiError } from '@rakuen/contract/settings';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { refuseStale } from '../app/revision.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { DecisionRow } from '../store/entities/matches.ts';
import { PictureRow } from '../store/entities/pictures.ts';
import { PrintRow } from '../store/entities/prints.ts';
import { Writer } from '../store/writer.ts';
import { Workshop } from '../work/workshop.ts';
import { columns } from '../store/rows.ts';

interface RunningJob {
  view: PictureJob;
  readonly stop: AbortController;
}

/** Jobs that ended are remembered for a while, so that the page that asked can learn how. */
const REMEMBERED_JOBS = 200;

@Injectable()
export class PicturesService {
  private readonly jobs = new Map<string, RunningJob>();

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
  async begin(file: IncomingFile, fields: PictureFields): Promise<PictureJob> {
    const id = randomUUID();
    const job: RunningJob = {
      view: { id, fileName: file.originalname, state: 'waiting', progress: 0 },
      stop: new AbortController(),
    };
    this.jobs.set(id, job);
    for (const [old, { view }] of this.jobs) {
      if (this.jobs.size <= REMEMBERED_JOBS) break;
      if (view.state !== 'waiting' && view.state !== 'reading') this.jobs.delete(old);
    }
    void this.read(job, file, fields);
    return job.view;
  }

  job(id: string): PictureJob {
    const job = this.jobs.get(id);
    if (!job) throw notFound('reading of a picture');
    return job.view;
  }

  cancel(id: string): PictureJob {
    this.job(id);
    this.jobs.get(id)!.stop.abort();
    return this.job(id);
  }

  /** Reads a picture to its end; for the demo studio, which waits. */
  async add(file: IncomingFile, fields: PictureFields): Promise<PictureView> {
    const job = await this.begin(file, fields);
    while (['waiting', 'reading'].includes(this.job(job.id).state)) await new Promise((done) => setTimeout(done, 30));
    const ended = this.job(job.id);
    if (!ended.pictureId) throw new RakuenError(422, ended.error?.message ?? 'cancelled', { file: file.originalname });
    return this.view(ended.pictureId);
  }

  /** Changes what a hand says of a picture; what is not named stays. */
  /** @param from revision the change was made from; whatever it is now where absent */
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
      const { figures, cells, notes } = read;
      await this.writer.run('picture read again', () =>
        this.pictures.update(
          row.id,
          columns<PictureRow>({
            figures,
            notes,
            colourCells: cells.length / 4,
            cells: Buffer.from(cells.buffer, cells.byteOffset, cells.byteLength),
          }),
        ),
      );
    }
  }

  private async read(job: RunningJob, file: IncomingFile, fields: PictureFields): Promise<void> {
    const update = (change: Partial<PictureJob>) => (job.view = { ...job.view, ...change });
    try {
      const { limits } = await this.settings.get();
      const result = await this.files.scratch((scratch) =>
        this.workshop.readPicture(
          { path: file.path, assumeSrgb: fields.assumeSrgb === 'yes', maxPixels: limits.picturePixels, scratch },
          file.originalname,
          job.stop.signal,
          (progress) => job.view.state !== 'done' && update({ state: 'reading', progress: Math.min(0.99, progress) }),
        ),
      );
      const { cells, preview, title, caption, ...rest } = result;
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
        cells: Buffer.from(cells.buffer, cells.byteOffset, cells.byteLength),
      });
      await this.writer.run('picture read', () => this.pictures.insert(row));
      update({ state: 'done', progress: 1, pictureId: row.id });
    } catch (error) {
      await this.files.discard(file.path);
      if (job.stop.signal.aborted) update({ state: 'cancelled' });
      else {
        if (!(error instanceof RakuenError)) console.error(error);
        update({
          state: 'failed',
          error:
            error instanceof RakuenError
              ? (error.getResponse() as ApiError)
              : {
                  message: 'The picture could not be read.',
                  remedy: 'It may be too large for the memory of this machine. Try a smaller copy.',
                },
        });
      }
    }
  }
}

/** "IMG_salt-crust.tif" → "IMG salt crust". */
function titleFrom(fileName: string): string {
  const title = basename(fileName)
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return title.slice(0, 160) || 'Untitled picture';
}

function pictureView(row: PictureRow): PictureView {
  const { cells: _cells, previewHash: _preview, commission, marks, hints, ...rest } = row;
  const { structure } = row.figures;
  return {
    ...rest,
    commission: commission ?? { ...USUAL_COMMISSION, vetoes: [] },
    commissioned: commission !== null,
    marks: marks ?? [...(structure?.marks ?? [])],
    marksByHand: marks !== null,
    hints: hints ?? (structure?.hints ?? []).map((h) => h.hint),
    hintsByHand: hints !== null,
  } as PictureView;
}
