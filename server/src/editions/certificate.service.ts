import { dayOf } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { paperLabel } from '@rakuen/core/paper';
import { numberText, ordinalWords, SERIES } from '@rakuen/core/print/edition';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { begin, type PageForm } from '../drawing/page.ts';
import { finishedPdf, newPdf } from '../drawing/pdf.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { EditionsService, sizesOf } from './editions.service.ts';

const A5: PageForm = { widthMm: 148, heightMm: 210, marginMm: 20 };
const SIGNED_AT_MM = A5.heightMm - 34;

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
    const ordinal = await this.editions.ordinalOf(edition.id);
    const size = edition.size === null ? 'open edition' : `edition of ${edition.size}`;
    const proofs = edition.artist > 0 ? ` and ${edition.artist} artist’s proof${edition.artist > 1 ? 's' : ''}` : '';
    return certificate(picture?.title ?? '', [
      [SERIES[number.series].name, numberText(number.series, number.number, sizesOf(edition), ordinal)],
      ['edition', `${edition.name}, ${[ordinalWords(ordinal), size].filter(Boolean).join(', ')}${proofs}`],
      ['printed on', print ? dayOf(print.printedOn) : 'not recorded'],
      ['number given', dayOf(number.givenAt)],
      ['image', `${Math.round(edition.widthMm)} × ${Math.round(edition.heightMm)} mm`],
      ['paper', `${paperLabel(paper)}${number.batch ? `, ${number.batch}` : ''}`],
      ['inks', inkSet],
    ]);
  }
}

function certificate(title: string, rows: readonly (readonly [string, string])[]): Promise<Uint8Array> {
  const document = newPdf();
  const page = begin(document, A5);
  page.y = 26;
  page.set('Certificate', page.left, page.y, { size: 9, face: 'sans' });
  page.y += 9;
  page.say(title, { size: 20, face: 'serif', stepMm: 9 });
  page.y += 6;
  for (const [name, value] of rows) page.pair(name, value, { fromMm: 32, stepMm: 5.4, afterMm: 1.6 });
  page.keep(A5.heightMm - A5.marginMm - SIGNED_AT_MM);
  page.rule(SIGNED_AT_MM, 0.5);
  page.set('date and signature of the artist', page.left, SIGNED_AT_MM + 2, { size: 8, face: 'sans' });
  return finishedPdf(document);
}
