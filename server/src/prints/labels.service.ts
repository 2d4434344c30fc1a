import { dayOf } from '@rakuen/core/day';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, IsNull, Repository } from 'typeorm';
import { create } from 'qrcode';
import { paperLabel } from '@rakuen/core/paper';
import {
  captionLine,
  labelPlace,
  LABEL_SHEETS,
  recipeOnLabel,
  settingsLine,
  type LabelSheet,
  type LabelWords,
} from '@rakuen/core/print/label';
import { recordCode } from '@rakuen/core/print/record-code';
import { numberText } from '@rakuen/core/print/edition';
import type { LabelsQuery } from '@rakuen/contract/labels';
import { notFound } from '../app/errors.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { bare } from '../drawing/page.ts';
import { unsetLetters } from '../drawing/line-runs.ts';
import { brokenLines, finishedPdf, lineWidth, newPdf, POINTS_PER_MM, setLine } from '../drawing/pdf.ts';
import { EditionsService, sizesOf } from '../editions/editions.service.ts';
import { EditionRow, NumberRow } from '../editions/editions.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PrintRow } from './prints.entity.ts';

const STRIP_MM = { widthMm: 180, heightMm: 14 } as const;
const EDGE_MM = 4;
const QR_QUIET_MODULES = 2;

/** A label with the address its code opens. */
interface Label extends LabelWords {
  readonly address: string;
}

/** Prints of a picture whose captions are offered. */
const LATEST = 10;

/** Labels for backs and margins, as PDF at true size in our own faces. */
@Injectable()
export class LabelsService {
  constructor(
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(NumberRow) private readonly numbers: Repository<NumberRow>,
    @InjectRepository(EditionRow) private readonly editions: Repository<EditionRow>,
    private readonly conditions: ConditionsService,
    private readonly editionsService: EditionsService,
  ) {}

  /**
   * @param origin where this studio is reached: what the code opens
   * @returns the PDF, and the letters that no shipped face has
   */
  async pdf(
    { prints, kind = 'back', sheet = 'single', from = 1 }: LabelsQuery,
    origin: string,
  ): Promise<{ pdf: Uint8Array; notSet: string[] }> {
    const labels = (await Promise.all(prints.map((id) => this.labelsOf(id, origin)))).flat();
    const notSet = [
      ...new Set(labels.flatMap((l) => [l.title, l.paper].flatMap((text) => unsetLetters(text, 'serif')))),
    ];
    return { pdf: await this.drawn(labels, kind, sheet, from), notSet };
  }

  private drawn(
    labels: readonly Label[],
    kind: NonNullable<LabelsQuery['kind']>,
    sheet: LabelSheet,
    from: number,
  ): Promise<Uint8Array> {
    const document = newPdf();
    if (kind === 'strip') {
      for (const label of labels) {
        bare(document, STRIP_MM.widthMm, STRIP_MM.heightMm);
        strip(document, label);
      }
      return finishedPdf(document);
    }
    const { pageMm, widthMm, heightMm } = LABEL_SHEETS[sheet];
    let page = -1;
    for (const [i, label] of labels.entries()) {
      const place = labelPlace(sheet, i + from - 1);
      for (; page < place.page; page++) bare(document, pageMm[0], pageMm[1]);
      back(document, label, { ...place, widthMm, heightMm });
    }
    return finishedPdf(document);
  }

  /** What may stand under a picture: as its prints bear it, those that wait first, each with its numbers. */
  async captions(pictureId: string): Promise<string[]> {
    const prints = await this.prints.find({
      select: { id: true },
      where: { pictureId },
      order: { state: 'DESC', printedOn: 'DESC' },
      take: LATEST,
    });
    const labels = await Promise.all(prints.map(({ id }) => this.labelsOf(id, '')));
    return [...new Set([...(await this.promised(pictureId)), ...labels.flat()].map(captionLine))];
  }

  /** Numbers of a picture's editions that were given and wait for their sheet. */
  private async promised(pictureId: string): Promise<Pick<LabelWords, 'number' | 'title' | 'date'>[]> {
    const picture = await this.pictures.findOneBy({ id: pictureId });
    const editions = await this.editions.findBy({ pictureId });
    const numbers = await this.numbers.find({
      where: { editionId: In(editions.map((e) => e.id)), printId: IsNull() },
      order: { givenAt: 'DESC' },
      take: LATEST,
    });
    const ordinals = await this.editionsService.ordinals();
    return numbers.map((n) => {
      const edition = editions.find((e) => e.id === n.editionId)!;
      return {
        title: picture?.title ?? '',
        number: numberText(n.series, n.number, sizesOf(edition), ordinals.get(edition.id)),
        date: dayOf(n.givenAt),
      };
    });
  }

  /** A label for each copy: each with its number, where it bears one. */
  private async labelsOf(id: string, origin: string): Promise<Label[]> {
    const print = await this.prints.findOneBy({ id });
    if (!print) throw notFound('print');
    const picture = await this.pictures.findOneBy({ id: print.pictureId });
    const condition = await this.conditions.view(print.conditionId);
    const numbers = await this.numbers.find({ where: { printId: id }, order: { series: 'ASC', number: 'ASC' } });
    const editions = new Map(
      (await this.editions.findBy({ id: In(numbers.map((n) => n.editionId)) })).map((e) => [e.id, e]),
    );
    const label = {
      title: picture?.title ?? '',
      date: dayOf(print.printedOn),
      paper: paperLabel(condition.paper),
      sizeMm: [print.widthMm, print.heightMm] as const,
      settings: print.settings,
      recipe: print.recipe ?? undefined,
      code: recordCode(id),
      address: `${origin}/p/${recordCode(id)}`,
    };
    if (numbers.length === 0) return [label];
    const ordinals = await this.editionsService.ordinals();
    return numbers.map((n) => ({
      ...label,
      number: numberText(n.series, n.number, sizesOf(editions.get(n.editionId)!), ordinals.get(n.editionId)),
    }));
  }
}

interface Place {
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Sizes a label is tried in until all of it stands on it, the largest first: a label is filled, and nothing is cut. */
const SCALES = [1.7, 1.6, 1.5, 1.4, 1.3, 1.2, 1.1, 1, 0.92, 0.84, 0.76, 0.68, 0.6, 0.52, 0.45] as const;

interface Line {
  readonly text: string;
  readonly size: number;
  readonly face: 'serif' | 'sans';
}

function back(document: PDFKit.PDFDocument, label: Label, place: Place): void {
  const small = place.heightMm < 45;
  const qrMm = small ? 17 : 28;
  const room = (place.widthMm - 3 * EDGE_MM - qrMm) * POINTS_PER_MM;
  const height = (place.heightMm - 2 * EDGE_MM) * POINTS_PER_MM;
  const heightOf = (lines: readonly Line[]) => lines.reduce((sum, l) => sum + l.size * LEADING, 0);
  const tried = SCALES.map((scale) => linesOf(document, label, room, (small ? 0.8 : 1) * scale));
  const lines = tried.find((l) => heightOf(l) <= height) ?? tried[tried.length - 1];
  let y = (place.yMm + EDGE_MM) * POINTS_PER_MM;
  for (const { text, size, face } of lines) {
    setLine(document, text, { x: (place.xMm + EDGE_MM) * POINTS_PER_MM, y, size, face, most: room + 0.5 });
    y += size * LEADING;
  }
  code(document, label.address, place, qrMm);
  const codeSize = small ? 6 : 7.5;
  const width = lineWidth(document, label.code, codeSize, 'sans');
  setLine(document, label.code, {
    x: (place.xMm + place.widthMm - EDGE_MM - qrMm / 2) * POINTS_PER_MM - width / 2,
    y: (place.yMm + EDGE_MM + qrMm) * POINTS_PER_MM + 1,
    size: codeSize,
    face: 'sans',
  });
}

const LEADING = 1.28;

function linesOf(document: PDFKit.PDFDocument, label: Label, room: number, scale: number): Line[] {
  const head = [label.number, label.date, `${label.sizeMm.map((mm) => Math.round(mm)).join(' × ')} mm`];
  const broken = (text: string, size: number, face: Line['face']) =>
    brokenLines(document, text, size, face, room).map((line): Line => ({ text: line, size, face }));
  return [
    ...broken(label.title, 13 * scale, 'serif'),
    ...broken(head.filter(Boolean).join('   '), 8 * scale, 'sans'),
    ...broken(label.paper, 8 * scale, 'sans'),
    ...broken(settingsLine(label.settings), 8 * scale, 'sans'),
    ...(label.recipe ? broken(recipeOnLabel(label.recipe), 8 * scale, 'sans') : []),
  ];
}

/** The address as a QR code (ISO/IEC 18004), at the right edge. */
function code(document: PDFKit.PDFDocument, address: string, place: Place, sizeMm: number): void {
  const { modules } = create(address, { errorCorrectionLevel: 'M' });
  const step = (sizeMm * POINTS_PER_MM) / (modules.size + 2 * QR_QUIET_MODULES);
  const x0 = (place.xMm + place.widthMm - EDGE_MM - sizeMm) * POINTS_PER_MM + QR_QUIET_MODULES * step;
  const y0 = (place.yMm + EDGE_MM) * POINTS_PER_MM + QR_QUIET_MODULES * step;
  for (let row = 0; row < modules.size; row++)
    for (let column = 0; column < modules.size; column++)
      if (modules.get(row, column)) document.rect(x0 + column * step, y0 + row * step, step + 0.02, step + 0.02);
  document.fill('black');
}

/** Settings in one or two lines, to stand in the margin of a test print. */
function strip(document: PDFKit.PDFDocument, label: Label): void {
  const most = (STRIP_MM.widthMm - 6) * POINTS_PER_MM;
  const x = 3 * POINTS_PER_MM;
  setLine(document, [label.title, label.number, label.date, label.paper].filter(Boolean).join('   '), {
    x,
    y: 2 * POINTS_PER_MM,
    size: 8,
    face: 'serif',
    most,
  });
  brokenLines(
    document,
    [settingsLine(label.settings), label.recipe && recipeOnLabel(label.recipe)].filter(Boolean).join(' · '),
    7,
    'sans',
    most,
  )
    .slice(0, 2)
    .forEach((line, i) =>
      setLine(document, line, { x, y: (6 + 3.4 * i) * POINTS_PER_MM, size: 7, face: 'sans', most }),
    );
}
