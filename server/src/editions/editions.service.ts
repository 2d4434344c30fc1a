import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { DataSource, Repository } from 'typeorm';
import { boxOfNumber, numberText, SERIES, type BoxOfNumber, type EditionSizes } from '@rakuen/core/print/edition';
import type { MoveView } from '@rakuen/contract/clients';
import type {
  DriftAccepted,
  EditionInput,
  EditionView,
  NumberInput,
  NumbersInput,
  NumberView,
} from '@rakuen/contract/editions';
import { notFound, RakuenError } from '../app/errors.ts';
import { refuseStale } from '../app/revision.ts';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { EARLIER, SAME } from './ordinals.ts';
import { MovesService } from '../clients/moves.service.ts';
import { EditionRow, NumberRow } from './editions.entity.ts';
import { PictureRow } from '../pictures/pictures.entity.ts';
import { PrintRow } from '../prints/prints.entity.ts';
import { BoxRow } from '../stock/stock.entity.ts';

/** Editions and their numbers. That none is given twice and none is lost is held by the database itself. */
@Injectable()
export class EditionsService {
  constructor(
    @InjectRepository(EditionRow) private readonly editions: Repository<EditionRow>,
    @InjectRepository(NumberRow) private readonly numbers: Repository<NumberRow>,
    @InjectRepository(PrintRow) private readonly prints: Repository<PrintRow>,
    @InjectRepository(PictureRow) private readonly pictures: Repository<PictureRow>,
    @InjectRepository(BoxRow) private readonly boxes: Repository<BoxRow>,
    private readonly conditions: ConditionsService,
    private readonly moves: MovesService,
    private readonly database: DataSource,
  ) {}

  async list(): Promise<EditionView[]> {
    const numbers = new Map<string, NumberRow[]>();
    for (const n of await this.numbers.find({ order: { series: 'ASC', number: 'ASC' } }))
      numbers.set(n.editionId, [...(numbers.get(n.editionId) ?? []), n]);
    const ordinals = await this.ordinals();
    const moves = await this.moves.ofNumbers([...numbers.values()].flat().map((n) => n.id));
    return (await this.editions.find({ order: { createdAt: 'DESC' } })).map((e) =>
      editionView(e, numbers.get(e.id) ?? [], moves, ordinals.get(e.id)!),
    );
  }

  async view(id: string): Promise<EditionView> {
    const numbers = await this.numbers.find({ where: { editionId: id }, order: { series: 'ASC', number: 'ASC' } });
    const moves = await this.moves.ofNumbers(numbers.map((n) => n.id));
    return editionView(await this.get(id), numbers, moves, await this.ordinalOf(id));
  }

  /** Which edition of its picture on its paper in its size each is, by when they were created. */
  async ordinals(): Promise<Map<string, number>> {
    const rows = await this.editions.query<{ id: string; earlier: number }[]>(ORDINALS);
    return new Map(rows.map(({ id, earlier }) => [id, earlier + 1]));
  }

  async ordinalOf(id: string): Promise<number> {
    return (await this.ordinals()).get(id) ?? 1;
  }

  /** @throws RakuenError (409) where there is an edition of the same and this one is not called a later one */
  private async onlyOnPurpose(input: EditionInput, except = ''): Promise<void> {
    if (input.later) return;
    const [same] = await this.editions.query<{ name: string }[]>(SAME_EDITION, [
      except,
      input.pictureId,
      input.conditionId,
      input.widthMm,
      input.heightMm,
    ]);
    if (same)
      throw new RakuenError(409, `“${same.name}” is an edition of this picture on this paper in this size.`, {
        field: 'later',
        remedy: 'Give another number of it; or state that this is a later edition, and it is called so.',
      });
  }

  async found(input: EditionInput): Promise<EditionView> {
    await this.check(input);
    await this.onlyOnPurpose(input);
    const row = this.editions.create({
      ...columns(input),
      id: randomUUID(),
      createdAt: new Date().toISOString(),
      accepted: [],
    });
    await this.editions.insert(row);
    return this.view(row.id);
  }

  /** @param from revision the change was made from */
  async change(id: string, input: EditionInput, from?: number): Promise<EditionView> {
    const known = await this.view(id);
    refuseStale('This edition', known, from, known);
    await this.check(input);
    const next = columns(input);
    const moves = SAME_BY.some((key) => known[key] !== next[key]);
    if (moves) await this.onlyOnPurpose(input, id);
    const moved = LOCKED.find((key) => (known[key] ?? null) !== (next[key] ?? null));
    if (known.locked && moved)
      throw new RakuenError(409, 'Its first number was given: sheet, size, formulation and how many there are stay.', {
        field: moved,
        remedy: 'Begin another edition, under another name.',
      });
    await this.editions.update(id, next);
    return this.view(id);
  }

  async remove(id: string): Promise<void> {
    if ((await this.view(id)).locked)
      throw new RakuenError(409, 'Numbers of this edition were given; it stays.', {
        remedy: 'Say of each print what became of it: destroyed, returned.',
      });
    await this.editions.delete(id);
  }

  /** Gives the next number of a series. The box of a number is that of its print; another than the edition’s must have been accepted. */
  async number(id: string, input: NumberInput): Promise<NumberView> {
    const edition = await this.get(id);
    const print = input.printId ? await this.suits(edition, input.printId) : undefined;
    const box = boxOfNumber({
      edition: edition.batch,
      accepted: edition.accepted.map((a) => a.batch),
      ofPrint: print?.boxId ? ((await this.boxes.findOneBy({ id: print.boxId }))?.batch.trim() ?? '') : '',
      entered: input.batch?.trim() ?? '',
      first: !(await this.numbers.existsBy({ editionId: id })),
    });
    if ('refused' in box) throw boxRefused(box, edition.batch);
    const { batch } = box;
    if (box.locks) await this.editions.update(id, { batch });
    const { next } = (await this.numbers
      .createQueryBuilder('n')
      .select('COALESCE(MAX(n.number), 0) + 1', 'next')
      .where('n.editionId = :id AND n.series = :series', { id, series: input.series })
      .getRawOne<{ next: number }>())!;
    const most = sizesOf(edition)[input.series];
    if (most !== null && next > most)
      throw new RakuenError(409, `All ${most} of the ${SERIES[input.series].name} series are given.`, {
        field: 'series',
        remedy: 'What was destroyed keeps its number. Another edition has another name.',
      });
    const row = this.numbers.create({
      id: randomUUID(),
      editionId: id,
      series: input.series,
      number: next,
      printId: input.printId ?? null,
      givenAt: new Date().toISOString(),
      batch,
    });
    await this.numbers.insert(row);
    return numberView(await this.numberRow(row.id), edition, await this.ordinalOf(id));
  }

  /** The next numbers of a series; all of them, or none. */
  async manyNumbers(id: string, { count, ...input }: NumbersInput): Promise<NumberView[]> {
    return this.database.transaction(async () => {
      const given: NumberView[] = [];
      for (let i = 0; i < count; i++) given.push(await this.number(id, input));
      return given;
    });
  }

  async accept(id: string, input: DriftAccepted): Promise<EditionView> {
    const edition = await this.get(id);
    await this.editions.update(id, { accepted: [...edition.accepted, { ...input, batch: input.batch.trim() }] });
    return this.view(id);
  }

  async numberRow(id: string): Promise<NumberRow> {
    const row = await this.numbers.findOneBy({ id });
    if (!row) throw notFound('number');
    return row;
  }

  async get(id: string): Promise<EditionRow> {
    const row = await this.editions.findOneBy({ id });
    if (!row) throw notFound('edition');
    return row;
  }

  private async check(input: EditionInput): Promise<void> {
    if (!(await this.pictures.existsBy({ id: input.pictureId }))) throw notFound('picture');
    await this.conditions.get(input.conditionId);
  }

  /** A numbered print is of the edition’s picture, sheet and size. */
  private async suits(edition: EditionRow, printId: string): Promise<PrintRow> {
    const print = await this.prints.findOneBy({ id: printId });
    if (!print) throw notFound('print');
    const wrong =
      print.state !== 'printed'
        ? 'It was not printed yet'
        : print.pictureId !== edition.pictureId
          ? 'It is another picture'
          : print.conditionId !== edition.conditionId
            ? 'It is on another sheet or in another setting'
            : Math.abs(print.widthMm - edition.widthMm) > 1 || Math.abs(print.heightMm - edition.heightMm) > 1
              ? 'It has another size'
              : undefined;
    if (wrong)
      throw new RakuenError(409, `${wrong} than this edition’s.`.replace('yet than this edition’s', 'yet'), {
        field: 'printId',
        remedy: 'Choose a print of this picture on the edition’s sheet, in its size.',
      });
    const given = await this.numbers.countBy({ printId });
    if ((await this.moves.neverMoved(printId)) < 1)
      throw new RakuenError(
        409,
        given >= print.copies
          ? 'Every copy of this print bears a number.'
          : 'Every copy of this print without a number has left the studio.',
        {
          field: 'printId',
          remedy: 'Choose another print.',
        },
      );
    return print;
  }
}

/** Why a sheet can’t join an edition yet, and what to do. */
function boxRefused(box: Extract<BoxOfNumber, { refused: string }>, own: string): RakuenError {
  const edition = own ? `the box “${own}”` : 'a box that is not known';
  switch (box.refused) {
    case 'not known':
      return new RakuenError(409, `The edition is printed on ${edition}; the box of this sheet is not known.`, {
        field: 'batch',
        remedy: 'Choose the box of the print, or enter the formulation that is printed on it.',
      });
    case 'contradicts':
      return new RakuenError(409, `The print was made from the box “${box.batch}”.`, {
        field: 'batch',
        remedy: 'Correct the box of the print first, if it is wrong.',
      });
    case 'another box':
      return new RakuenError(
        409,
        `The edition is printed on ${edition}; this sheet comes from the box “${box.batch}”.`,
        {
          field: 'batch',
          remedy: 'Hold the print against the first one, and enter who accepted the box and why.',
        },
      );
  }
}

/** An edition is of the same by these, its condition by the paper. */
const SAME_BY = ['pictureId', 'conditionId', 'widthMm', 'heightMm'] as const;
const ORDINALS = `SELECT e.id, ${EARLIER} AS earlier FROM editions e`;
const SAME_EDITION = `SELECT o.name FROM editions o,
  (SELECT ? AS id, ? AS pictureId, ? AS conditionId, ? AS widthMm, ? AS heightMm) e
  WHERE o.id <> e.id AND ${SAME} ORDER BY o.createdAt LIMIT 1`;

const LOCKED = [
  'pictureId',
  'conditionId',
  'size',
  'artist',
  'printer',
  'good',
  'widthMm',
  'heightMm',
  'batch',
] as const;

export const sizesOf = (e: EditionRow): EditionSizes => ({
  edition: e.size,
  artist: e.artist,
  printer: e.printer,
  good: e.good,
});

const columns = (input: EditionInput) => ({
  pictureId: input.pictureId,
  conditionId: input.conditionId,
  name: input.name.trim(),
  size: input.size ?? null,
  artist: input.artist,
  printer: input.printer,
  good: input.good,
  widthMm: input.widthMm,
  heightMm: input.heightMm,
  batch: input.batch.trim(),
  notes: input.notes ?? '',
});

function numberView(n: NumberRow, edition: EditionRow, ordinal: number, moves: MoveView[] = []): NumberView {
  return {
    id: n.id,
    revision: n.revision,
    series: n.series,
    number: n.number,
    written: numberText(n.series, n.number, sizesOf(edition), ordinal),
    givenAt: n.givenAt,
    batch: n.batch,
    moves,
    printId: n.printId ?? undefined,
  };
}

function editionView(
  row: EditionRow,
  numbers: readonly NumberRow[],
  moves: ReadonlyMap<string, MoveView[]>,
  ordinal: number,
): EditionView {
  return {
    id: row.id,
    revision: row.revision,
    createdAt: row.createdAt,
    pictureId: row.pictureId,
    conditionId: row.conditionId,
    name: row.name,
    size: row.size ?? undefined,
    artist: row.artist,
    printer: row.printer,
    good: row.good,
    widthMm: row.widthMm,
    heightMm: row.heightMm,
    batch: row.batch,
    accepted: row.accepted,
    notes: row.notes,
    ordinal,
    numbers: numbers.map((n) => numberView(n, row, ordinal, moves.get(n.id))),
    locked: numbers.length > 0,
  };
}
