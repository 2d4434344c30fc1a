import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import type { LedgerEntry, LedgerQuery } from '@rakuen/contract/ledger';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';
import { FileStore } from '../files/file-store.ts';
import { PictureRow } from '../store/entities/pictures.ts';
import { LedgerService } from './ledger.service.ts';

const PAGE_MM = { width: 210, height: 297, margin: 14 } as const;
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
    const rows = Math.floor((PAGE_MM.height - 2 * PAGE_MM.margin - 8) / CELL_MM.height);
    const width = (PAGE_MM.width - 2 * PAGE_MM.margin - (COLUMNS - 1) * CELL_MM.gap) / COLUMNS;
    shown.forEach((e, i) => {
      const on = i % (COLUMNS * rows);
      if (on === 0) page(document, shown.length < total ? `${shown.length} of ${total} prints` : `${total} prints`);
      const x = PAGE_MM.margin + (on % COLUMNS) * (width + CELL_MM.gap);
      const y = PAGE_MM.margin + 8 + Math.floor(on / COLUMNS) * CELL_MM.height;
      cell(document, e, e.pictureId ? previews.get(e.pictureId) : undefined, { x, y, width });
    });
    if (shown.length === 0) page(document, 'No prints');
    return finishedPdf(document);
  }
}

function page(document: PDFKit.PDFDocument, head: string): void {
  document.addPage({ size: [PAGE_MM.width * POINTS_PER_MM, PAGE_MM.height * POINTS_PER_MM], margin: 0 });
  const [x, y] = [PAGE_MM.margin * POINTS_PER_MM, PAGE_MM.margin * POINTS_PER_MM];
  setLine(document, head, { x, y, size: 9, face: 'sans' });
}

function cell(
  document: PDFKit.PDFDocument,
  e: LedgerEntry,
  preview: Buffer | undefined,
  { x, y, width }: { x: number; y: number; width: number },
): void {
  const mm = POINTS_PER_MM;
  if (preview) document.image(preview, x * mm, y * mm, { fit: [width * mm, CELL_MM.picture * mm], valign: 'bottom' });
  let line = (y + CELL_MM.picture + 2) * mm;
  const most = width * mm;
  const told: [string, number, 'serif' | 'sans'][] = [
    [e.picture, 9, 'serif'],
    [e.paper, 8, 'serif'],
    [
      `${e.at.slice(0, 10)}   ${Math.round(Number(e.details.widthMm))} × ${Math.round(Number(e.details.heightMm))} mm`,
      7,
      'sans',
    ],
    [`${e.outcome}${e.reason ? `: ${e.reason}` : ''}`, 7, 'sans'],
  ];
  for (const [text, size, face] of told)
    for (const part of brokenLines(document, text, size, face, most).slice(0, 2)) {
      setLine(document, part, { x: x * mm, y: line, size, face, most });
      line += size * 1.25;
    }
}
