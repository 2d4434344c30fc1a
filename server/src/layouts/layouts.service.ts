import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import { bordersOf, DECKLE_MM, EDGES, type Borders, type Edge } from '@rakuen/core/layout/borders';
import { orderOfCuts } from '@rakuen/core/layout/cuts';
import { asLaid, GRAINS, toLie, wayToLie, type WayToLie } from '@rakuen/core/layout/lie';
import { printable } from '@rakuen/core/layout/nest';
import { borderlessBy } from '@rakuen/core/print/handling';
import type { LaidPiece, LayoutInput, LayoutView, StockInput } from '@rakuen/contract/layouts';
import { RakuenError } from '../app/errors.ts';
import { fedOf } from '../prints/cautions.ts';
import { ConditionRow, ObservationRow } from '../conditions/conditions.entity.ts';
import { Workshop } from '../work/workshop.ts';
import { PaperRow } from '../papers/papers.entity.ts';

/** More pieces than lie on any table. */
const MOST_PIECES = 200;
const IN_WORDS: Record<Edge, string> = {
  top: 'at the top',
  right: 'on the right',
  bottom: 'at the bottom',
  left: 'on the left',
};

/** Prints, strips and cards laid on sheets and rolls. Nothing is kept: a layout follows from what is asked. */
@Injectable()
export class LayoutsService {
  constructor(
    @InjectRepository(PaperRow) private readonly papers: Repository<PaperRow>,
    @InjectRepository(ConditionRow) private readonly conditions: Repository<ConditionRow>,
    @InjectRepository(ObservationRow) private readonly observations: Repository<ObservationRow>,
    private readonly workshop: Workshop,
  ) {}

  /** @throws RakuenError (400, 409) where there are too many, or where nobody has found that the sheet is printed to its edge */
  async plan(input: LayoutInput): Promise<LayoutView> {
    const { stock, gapMm } = input;
    const toTheEdge = await this.toTheEdge(stock);
    const { price, currency, kind, widthMm, heightMm } = stock;
    const bare = bareEdges(stock);
    const asked = piecesOf(input);
    const ways = new Map(asked.map(({ piece, way }) => [piece.key, way]));
    const { sheets, lacking } = await this.workshop.run('nestPieces', {
      stock: printable({ kind, widthMm, heightMm }, bare),
      pieces: asked.map(({ piece, way }) => toLie(piece, way)),
      gapMm,
    });
    const whole = sheets.map((s) => widthMm * (kind === 'roll' ? s.heightMm + bare.top + bare.bottom : heightMm));
    const laid = sheets.flatMap((s) => s.placed).reduce((sum, p) => sum + p.widthMm * p.heightMm, 0);
    const area = whole.reduce((a, b) => a + b, 0);
    const waste = area > 0 ? 1 - laid / area : 0;
    const each = price === undefined ? undefined : price / (widthMm * heightMm);
    return {
      sheets: sheets.map((s) => ({
        ...s,
        placed: s.placed.map((p) =>
          asLaid({ ...p, xMm: p.xMm + bare.left, yMm: p.yMm + bare.top }, ways.get(p.key) ?? 'either'),
        ),
        cuts:
          orderOfCuts(
            s.placed.map((p) => ({ ...p, xMm: p.xMm + bare.left, yMm: p.yMm + bare.top })),
            {
              x0: 0,
              y0: 0,
              x1: widthMm,
              y1: kind === 'roll' ? s.heightMm + bare.top + bare.bottom : heightMm,
            },
          ) ?? [],
      })),
      lacking: lacking.map((p) => asked.find((a) => a.piece.key === p.key)!.piece),
      waste,
      notes: notesOn(input, toTheEdge),
      ...(each !== undefined && currency && { wasted: each * area * waste, currency }),
    };
  }

  /** Who found that it is printed to the edge; undefined where an edge stays bare, or where nobody knows which paper it is. */
  private async toTheEdge({ paperId, printer, top, right, bottom, left }: StockInput): Promise<string | undefined> {
    if (!paperId || Math.min(top, right, bottom, left) > 0) return undefined;
    const conditions = await this.conditions.find({
      select: { id: true, printer: true },
      where: { paperId, ...(printer && { printer }) },
    });
    const found = await this.observations.find({
      where: { conditionId: In(conditions.map((c) => c.id)), kind: 'feeding' },
      order: { takenAt: 'ASC', entry: 'ASC' },
    });
    // Each printer by itself: what one can, another need not.
    for (const name of new Set(conditions.map((c) => c.printer))) {
      const own = new Set(conditions.filter((c) => c.printer === name).map((c) => c.id));
      const by = borderlessBy(fedOf(found.filter((o) => own.has(o.conditionId))));
      if (by) return `${name}, ${by}`;
    }
    const name = (await this.papers.findOneBy({ id: paperId }))?.name ?? 'this paper';
    throw new RakuenError(409, `Nobody has found that ${printer || 'a printer'} prints ${name} to its edge.`, {
      field: 'stock',
      remedy: 'Leave an edge bare, or enter under Readings, Bench, that it does.',
    });
  }
}

/** What stays bare: what the printer can't reach, and more along a torn edge. */
function bareEdges(stock: StockInput): Borders {
  const bare = (edge: Edge) => Math.max(stock[edge], stock.deckle?.includes(edge) ? DECKLE_MM : 0);
  return { top: bare('top'), right: bare('right'), bottom: bare('bottom'), left: bare('left') };
}

/** Every piece by itself, with its borders and its way to lie. */
function piecesOf({ stock, pieces }: LayoutInput): { piece: LaidPiece; way: WayToLie }[] {
  const count = pieces.reduce((sum, p) => sum + p.copies, 0);
  if (count > MOST_PIECES)
    throw new RakuenError(400, `${count} pieces are more than can be laid at once.`, {
      field: 'pieces',
      remedy: `Lay ${MOST_PIECES} or fewer.`,
    });
  return pieces.flatMap((p, i) => {
    const borders = bordersOf(p.border, p.borderMm, p.caption);
    return Array.from({ length: p.copies }, (_, n) => ({
      way: wayToLie(stock.grain, p),
      piece: {
        key: `${i}-${n}`,
        name: p.name,
        mayTurn: p.mayTurn,
        pictureId: p.pictureId,
        caption: p.caption,
        borders,
        widthMm: p.widthMm + borders.left + borders.right,
        heightMm: p.heightMm + borders.top + borders.bottom,
      },
    }));
  });
}

function notesOn({ stock, pieces }: LayoutInput, toTheEdge: string | undefined): string[] {
  const wanting = pieces.filter((p) => p.grain);
  const torn = EDGES.filter((edge) => stock.deckle?.includes(edge));
  return [
    ...(wanting.length > 0 && !stock.grain
      ? ['Which way the fibres of this stock run is not said: nothing is laid by its grain.']
      : []),
    ...(wanting.length > 0 && stock.grain
      ? [`Laid by the grain, which runs ${GRAINS[stock.grain].replace('its', 'the')} of the stock.`]
      : []),
    ...(torn.length > 0
      ? [
          `The torn edge ${torn.map((e) => IN_WORDS[e]).join(' and ')} stays as it is: ${DECKLE_MM} mm along it are kept free.`,
        ]
      : []),
    ...(toTheEdge ? [`Printed to the edge: ${toTheEdge}.`] : []),
  ];
}
