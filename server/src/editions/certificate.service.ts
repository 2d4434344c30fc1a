import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { paperLabel } from '@rakuen/core/paper';
import { numberText, SERIES } from '@rakuen/core/print/edition';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { brokenLines, finishedPdf, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';
import { PictureRow } from '../store/entities/pictures.ts';
import { PrintRow } from '../store/entities/prints.ts';
import { EditionsService, sizesOf } from './editions.service.ts';

const PAGE_MM = { width: 148, height: 210, margin: 20 };

/** The certificate that goes with a numbered print, A5. */
@Injectable()
export class CertificateService {
  constructor(
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    private readonly editions: EditionsService,
    private readonly conditions: ConditionsService,
  ) {}

  async pdf(numberId: string): Promise<Uint8Array> {
    const number = await this.editions.numberRow(numberId);
    const edition = await this.editions.get(number.editionId);
    const picture = await this.pictures.findOneBy({ id: edition.pictureId });
    const print = number.printId ? await this.prints.findOneBy({ id: number.printId }) : null;
    const { paper, inkSet } = await this.conditions.view(edition.conditionId);
    const size = edition.size === null ? 'open edition' : `edition of ${edition.size}`;
    const proofs = edition.artist > 0 ? ` and ${edition.artist} artist’s proof${edition.artist > 1 ? 's' : ''}` : '';
    return page(picture?.title ?? '', [
      [SERIES[number.series].name, numberText(number.series, number.number, sizesOf(edition))],
      ['edition', `${edition.name}, ${size}${proofs}`],
      ['printed on', print ? print.printedOn.slice(0, 10) : 'not said'],
      ['number given', number.givenAt.slice(0, 10)],
      ['image', `${Math.round(edition.widthMm)} × ${Math.round(edition.heightMm)} mm`],
      ['paper', `${paperLabel(paper)}${number.batch ? `, ${number.batch}` : ''}`],
      ['inks', inkSet],
    ]);
  }
}

function page(title: string, rows: readonly (readonly [string, string])[]): Promise<Uint8Array> {
  const document = newPdf();
  const mm = POINTS_PER_MM;
  document.addPage({ size: [PAGE_MM.width * mm, PAGE_MM.height * mm], margin: 0 });
  const x = PAGE_MM.margin * mm;
  const most = (PAGE_MM.width - 2 * PAGE_MM.margin) * mm;
  let y = 26 * mm;
  setLine(document, 'Certificate', { x, y, size: 9, face: 'sans' });
  y += 9 * mm;
  for (const line of brokenLines(document, title, 20, 'serif', most)) {
    setLine(document, line, { x, y, size: 20, face: 'serif', most: most + 1 });
    y += 9 * mm;
  }
  y += 6 * mm;
  for (const [name, value] of rows) {
    setLine(document, name, { x, y, size: 9, face: 'sans' });
    for (const line of brokenLines(document, value, 10, 'serif', most - 32 * mm)) {
      setLine(document, line, { x: x + 32 * mm, y, size: 10, face: 'serif', most: most - 31 * mm });
      y += 5.4 * mm;
    }
    y += 1.6 * mm;
  }
  const sign = (PAGE_MM.height - 34) * mm;
  document
    .moveTo(x, sign)
    .lineTo(x + most, sign)
    .lineWidth(0.5)
    .stroke('#444444');
  setLine(document, 'date and signature of the artist', { x, y: sign + 2 * mm, size: 8, face: 'sans' });
  return finishedPdf(document);
}
