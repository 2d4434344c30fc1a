import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import sharp from 'sharp';
import { Repository } from 'typeorm';
import type { PhotographFields, PhotographView } from '@rakuen/contract/photographs';
import { notFound, RakuenError } from '../app/errors.ts';
import { FileStore, type IncomingFile } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { PhotographRow, PrintRow } from './prints.entity.ts';

/** What a camera or a flatbed writes, and a browser or the program shows. */
const FORMATS: Readonly<Record<string, string>> = { jpeg: 'image/jpeg', png: 'image/png', tiff: 'image/tiff' };
const PREVIEW_PX = 900;

/** Photographs and scans of prints, as files that came; none is changed. */
@Injectable()
export class PhotographsService {
  constructor(
    @InjectRepository(PhotographRow) private readonly rows: Repository<PhotographRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
  ) {}

  of(printId: string): Promise<PhotographView[]> {
    return this.rows.find({ where: { printId }, order: { at: 'ASC' } }).then((rows) => rows.map(view));
  }

  async add(printId: string, file: IncomingFile, fields: PhotographFields): Promise<PhotographView> {
    if (!(await this.prints.existsBy({ id: printId }))) throw notFound('print');
    const { widthPx, heightPx } = await this.look(file);
    const contentHash = await this.files.keepFile(file.path);
    const row: PhotographRow = {
      id: randomUUID(),
      printId,
      at: new Date().toISOString(),
      contentHash,
      fileName: file.originalname.slice(0, 200),
      kind: fields.kind,
      light: fields.light?.trim() ?? '',
      note: fields.note?.trim() ?? '',
      widthPx,
      heightPx,
    };
    await this.rows.insert(row).catch((error: { code?: string }) => {
      throw error.code === 'SQLITE_CONSTRAINT_UNIQUE'
        ? new RakuenError(409, 'This photograph is kept with the print already.', {
            file: row.fileName,
            remedy: 'Choose another file.',
          })
        : error;
    });
    return view(row);
  }

  async remove(id: string): Promise<void> {
    if ((await this.rows.delete(id)).affected !== 1) throw notFound('photograph');
  }

  /** The file as it came. */
  async file(id: string): Promise<{ bytes: Buffer; type: string; name: string }> {
    const row = await this.get(id);
    const bytes = await this.files.read(row.contentHash);
    const { format } = await sharp(bytes).metadata();
    return { bytes, type: FORMATS[format] ?? 'application/octet-stream', name: row.fileName };
  }

  /** Small enough for a screen, upright, in sRGB. */
  async preview(id: string): Promise<Buffer> {
    const row = await this.get(id);
    return sharp(this.files.pathOf(row.contentHash), { limitInputPixels: await this.most() })
      .rotate()
      .resize(PREVIEW_PX, PREVIEW_PX, { fit: 'inside', withoutEnlargement: true })
      .toColourspace('srgb')
      .jpeg({ quality: 88 })
      .toBuffer();
  }

  private async get(id: string): Promise<PhotographRow> {
    const row = await this.rows.findOneBy({ id });
    if (!row) throw notFound('photograph');
    return row;
  }

  private async most(): Promise<number> {
    return (await this.settings.get()).limits.picturePixels;
  }

  /** Reads the whole of it once, small: what is damaged is refused before it is kept. */
  private async look({ path, originalname }: IncomingFile): Promise<{ widthPx: number; heightPx: number }> {
    const refused = (message: string, remedy: string) => new RakuenError(422, message, { file: originalname, remedy });
    try {
      const picture = sharp(path, { limitInputPixels: await this.most(), failOn: 'error' });
      const { format, width, height, orientation = 1 } = await picture.metadata();
      if (!(format in FORMATS))
        throw refused('This is no photograph: JPEG, PNG and TIFF are taken.', 'Save it as one of them.');
      await picture.resize(64, 64, { fit: 'inside' }).raw().toBuffer();
      const onItsSide = orientation >= 5;
      return { widthPx: onItsSide ? height : width, heightPx: onItsSide ? width : height };
    } catch (error) {
      if (error instanceof RakuenError) throw error;
      const large = /pixel limit/.test((error as Error).message);
      throw large
        ? refused(
            'The photograph has more pixels than are let in.',
            'Make it smaller, or raise the limit in the settings.',
          )
        : refused('The photograph is damaged, or none.', 'Copy it again, or save it anew as JPEG, PNG or TIFF.');
    }
  }
}

const view = (row: PhotographRow): PhotographView => ({
  id: row.id,
  printId: row.printId,
  at: row.at,
  fileName: row.fileName,
  kind: row.kind,
  light: row.light,
  note: row.note,
  widthPx: row.widthPx,
  heightPx: row.heightPx,
});
