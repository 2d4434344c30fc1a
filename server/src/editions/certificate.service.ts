import { dayOf } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { paperLabel } from '@rakuen/core/paper';
import { numberText, ordinalWords, SERIES } from '@rakuen/core/print/edition';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { begin, type PageForm } from '../drawing/page.ts';
import { finishedPdf, newPdf, POINTS_PER_MM } from '../drawing/pdf.ts';
import { FileStore } from '../files/file-store.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { BoxRow } from '../stock/stock.entity.ts';
import { EditionsService, sizesOf } from './editions.service.ts';

const A5: PageForm = { widthMm: 148, heightMm: 210, marginMm: 20 };
const IMAGE_MM = { width: 70, height: 48 };
const SIGNED_AT_MM = A5.heightMm - 34;

/** The certificate that goes with a numbered print, A5. */
@Injectable()
export class CertificateService {
  constructor(
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(BoxRow) private readonly boxes: Repository<BoxRow>,
    private readonly editions: EditionsService,
    private readonly files: FileStore,
    private readonly conditions: ConditionsService,
  ) {}

  /** One page a number. */
  async pdf(numberIds: readonly string[]): Promise<Uint8Array> {
    const document = newPdf();
    for (const id of numberIds) await this.page(document, id);
    return finishedPdf(document);
  }

  private async page(document: PDFKit.PDFDocument, numberId: string): Promise<void> {
    const number = await this.editions.numberRow(numberId);
    const edition = await this.editions.get(number.editionId);
    const picture = await this.pictures.findOneBy({ id: edition.pictureId });
    const print = number.printId ? await this.prints.findOneBy({ id: number.printId }) : null;
    const { paper, inkSet } = await this.conditions.view(edition.conditionId);
    const ordinal = await this.editions.ordinalOf(edition.id);
    const size = edition.size === null ? 'open edition' : `edition of ${edition.size}`;
    const proofs = edition.artist > 0 ? ` and ${edition.artist} artist’s proof${edition.artist > 1 ? 's' : ''}` : '';
    const box = print?.boxId ? await this.boxes.findOneBy({ id: print.boxId }) : null;
    const preview = picture && (await this.files.read(picture.previewHash));
    certificate(document, picture?.title ?? '', preview, [
      [SERIES[number.series].name, numberText(number.series, number.number, sizesOf(edition), ordinal)],
      ['edition', `${edition.name}, ${[ordinalWords(ordinal), size].filter(Boolean).join(', ')}${proofs}`],
      ['printed on', print ? dayOf(print.printedOn) : 'not recorded'],
      ['number given', dayOf(number.givenAt)],
      ['image', `${Math.round(edition.widthMm)} × ${Math.round(edition.heightMm)} mm`],
      ['paper', paperLabel(paper)],
      ['box', [box?.label, number.batch].filter(Boolean).join(', ') || 'not recorded'],
      ['inks', inkSet],
    ]);
  }
}

function certificate(
  document: PDFKit.PDFDocument,
  title: string,
  preview: Buffer | null | undefined,
  rows: readonly (readonly [string, string])[],
): void {
  const page = begin(document, A5);
  page.y = 20;
  page.set('Certificate', page.left, page.y, { size: 9, face: 'sans' });
  page.y += 7;
  if (preview) {
    const fit: [number, number] = [IMAGE_MM.width * POINTS_PER_MM, IMAGE_MM.height * POINTS_PER_MM];
    document.image(preview, page.left * POINTS_PER_MM, page.y * POINTS_PER_MM, { fit });
    page.y += IMAGE_MM.height + 8;
  }
  page.say(title, { size: 18, face: 'serif', stepMm: 8 });
  page.y += 4;
  for (const [name, value] of rows) page.pair(name, value, { fromMm: 32, stepMm: 5.2, afterMm: 1.4 });
  page.keep(A5.heightMm - A5.marginMm - SIGNED_AT_MM);
  page.rule(SIGNED_AT_MM, 0.5);
  page.set('date and signature of the artist', page.left, SIGNED_AT_MM + 2, { size: 8, face: 'sans' });
}
