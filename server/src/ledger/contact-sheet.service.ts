import { dayOf } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import type { LedgerEntry, LedgerQuery } from '@rakuen/contract/ledger';
import { a4, begin, columns, type Page } from '../drawing/page.ts';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM } from '../drawing/pdf.ts';
import { FileStore } from '../files/file-store.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { LedgerService } from './ledger.service.ts';

const MARGIN_MM = 14;
const COLUMNS = 3;
const CELL_MM = { height: 82, picture: 48, gap: 5 } as const;
/** Prints on one contact sheet. */
const MOST = 180;

/** Prints of the ledger as a contact sheet, A4. */
@Injectable()
export class ContactSheetService {
  constructor(
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    private readonly ledger: LedgerService,
    private readonly files: FileStore,
  ) {}

  async pdf(query: LedgerQuery): Promise<Uint8Array> {
    const { entries, total } = await this.ledger.page({ ...query, kind: 'print' });
    const shown = entries.slice(0, MOST);
    const ids = [...new Set(shown.flatMap((e) => e.pictureId ?? []))];
    const hashes = new Map((await this.pictures.findBy({ id: In(ids) })).map((p) => [p.id, p.previewHash]));
    const previews = new Map<string, Buffer>();
    for (const [id, hash] of hashes) previews.set(id, await this.files.read(hash));
    const document = newPdf();
    const head =
      total === 0 ? 'No prints' : shown.length < total ? `${shown.length} of ${total} prints` : `${total} prints`;
    const page = begin(document, a4(MARGIN_MM), (p) => {
      p.set(head, p.left, p.y, { size: 9, face: 'sans' });
      p.y += 8;
    });
    const { at, width } = columns(page, COLUMNS, CELL_MM.gap);
    shown.forEach((e, i) => {
      if (i % COLUMNS === 0) {
        if (i > 0) page.y += CELL_MM.height;
        page.keep(CELL_MM.height);
      }
      cell(document, page, e, e.pictureId ? previews.get(e.pictureId) : undefined, { x: at(i % COLUMNS), width });
    });
    return finishedPdf(document);
  }
}

function cell(
  document: PDFKit.PDFDocument,
  page: Page,
  e: LedgerEntry,
  preview: Buffer | undefined,
  { x, width }: { x: number; width: number },
): void {
  const mm = POINTS_PER_MM;
  const fit: [number, number] = [width * mm, CELL_MM.picture * mm];
  if (preview) document.image(preview, x * mm, page.y * mm, { fit, valign: 'bottom' });
  let line = page.y + CELL_MM.picture + 2;
  const told: [string, number, 'serif' | 'sans'][] = [
    [e.picture, 9, 'serif'],
    [e.paper, 8, 'serif'],
    [
      `${dayOf(e.at)}   ${Math.round(Number(e.details.widthMm))} × ${Math.round(Number(e.details.heightMm))} mm`,
      7,
      'sans',
    ],
    [`${e.outcome}${e.reason ? `: ${e.reason}` : ''}`, 7, 'sans'],
  ];
  for (const [text, size, face] of told)
    for (const part of brokenLines(document, text, size, face, width * mm).slice(0, 2)) {
      page.set(part, x, line, { size, face, mostMm: width });
      line += (size * 1.25) / mm;
    }
}
