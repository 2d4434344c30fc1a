import { seededRandom, shuffled } from '../random.ts';
import { kindsOf, partings, partsOf, placesOf, slicings, type Kinds } from './slicing.ts';

/**
 * What is printed on: a sheet, or a roll of which as much is taken as is needed. Sizes in mm, the unprintable edge
 * taken off already (see `printable`).
 */
export interface Stock {
  readonly kind: 'sheet' | 'roll';
  readonly widthMm: number;
  /** Height of a sheet; what is left of a roll. */
  readonly heightMm: number;
}

/** A thing to be printed: a print, a strip of crops, a card. */
export interface Piece {
  readonly key: string;
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** It may lie turned by a quarter; where the grain counts it may not. */
  readonly mayTurn: boolean;
}

export interface Placed extends Piece {
  readonly xMm: number;
  readonly yMm: number;
  /** Lies turned by a quarter. */
  readonly turned: boolean;
}

/** A free rectangle, and how it was cut: `first` is the cut that goes through all of it. */
interface Free {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

export interface NestedSheet<P extends Piece = Piece> {
  readonly placed: readonly (P & Placed)[];
  /** Of a roll the length taken; of a sheet its height. */
  readonly heightMm: number;
  /** Share of it that is printed on, 0–1. */
  readonly used: number;
}

export interface Nesting<P extends Piece = Piece> {
  readonly sheets: readonly NestedSheet<P>[];
  /** What found no room. */
  readonly lacking: readonly P[];
}

export interface NestOptions<P extends Piece = Piece> {
  /** Between things, for the knife, mm. */
  readonly gapMm: number;
  /** Sheets there are; as many as it takes where absent. */
  readonly sheets?: number;
  /** What is laid before anything else, so that it is the last to find no room. */
  readonly first?: (piece: P) => boolean;
}

/** Partings up to which every layout that a knife can part is weighed: of eight unlike pieces there are 3⁸. */
const MAX_PARTINGS = 3 ** 8;
/** Orders tried at random beyond it. */
const SHUFFLES = 40;
const NEAR = 1e-6;

type Split = 'shorter rest' | 'longer rest';

/** Room there is between the edges a printer can't print on, mm. */
export function printable(
  stock: Stock,
  edge: { readonly top: number; readonly right: number; readonly bottom: number; readonly left: number },
): Stock {
  return {
    ...stock,
    widthMm: stock.widthMm - edge.left - edge.right,
    heightMm: stock.heightMm - edge.top - edge.bottom,
  };
}

/**
 * Lays pieces on as few sheets as hold them, or on as little of a roll, so that a straight knife parts them. Of
 * eight unlike pieces, or of more that are alike, the answer is the best there is (`slicings`); beyond, and where not all
 * find room, each goes into the free place it leaves the least of along its shorter side and what is free is cut through (the guillotine heuristics
 * of Jylänki 2010), in the usual orders and some at random, always the same.
 */
export function nest<P extends Piece>(stock: Stock, pieces: readonly P[], options: NestOptions<P>): Nesting<P> {
  if (pieces.length === 0) return { sheets: [], lacking: [] };
  const kinds = kindsOf(pieces);
  return (
    (partings(kinds) <= MAX_PARTINGS ? bestOf(stock, kinds, options) : undefined) ?? searched(stock, pieces, options)
  );
}

/** The best layout there is, where all find room. */
function bestOf<P extends Piece>(
  stock: Stock,
  kinds: Kinds<P>,
  { gapMm, sheets = Infinity, first = () => false }: NestOptions<P>,
): Nesting<P> | undefined {
  const fronts = slicings(kinds, stock.widthMm, stock.heightMm, gapMm);
  const all = kinds.sets - 1;
  const lowest = (set: number) => fronts[set]!.reduce((a, b) => (b.h < a.h - NEAR ? b : a));
  const taken = new Map<readonly P[], number>();
  const laid = (set: number) => sheetOf(stock, placesOf(lowest(set), gapMm, taken));
  if (stock.kind === 'roll') return fronts[all]!.length > 0 ? { sheets: [laid(all)], lacking: [] } : undefined;
  // Fewest sheets that hold each set, and the sheet that is taken off it.
  const least = [{ sheets: 0, taken: 0 }];
  for (let set = 1; set <= all; set++) {
    least[set] = { sheets: Infinity, taken: 0 };
    for (const part of partsOf(kinds, set))
      if (part > 0 && fronts[part]!.length > 0 && least[set - part]!.sheets + 1 < least[set]!.sheets)
        least[set] = { sheets: least[set - part]!.sheets + 1, taken: part };
  }
  if (least[all]!.sheets > sheets || least[all]!.sheets === Infinity) return undefined;
  const out: NestedSheet<P>[] = [];
  for (let set = all; set > 0; set -= least[set]!.taken) out.push(laid(least[set]!.taken));
  const weight = ({ placed }: NestedSheet<P>) => [Number(placed.some(first)), Math.max(...placed.map(areaOf))];
  return { sheets: out.sort((a, b) => (before(weight(a), weight(b)) ? 1 : -1)), lacking: [] };
}

const areaOf = (p: Piece): number => p.widthMm * p.heightMm;

function searched<P extends Piece>(
  stock: Stock,
  pieces: readonly P[],
  { gapMm, sheets = Infinity, first = () => false }: NestOptions<P>,
): Nesting<P> {
  let best: { nesting: Nesting<P>; cost: readonly number[] } | undefined;
  for (const asked of ordersOf(pieces)) {
    const order = [...asked].sort((a, b) => Number(first(b.piece)) - Number(first(a.piece)));
    for (const split of ['shorter rest', 'longer rest'] as const) {
      const nesting = layInOrder(stock, order, gapMm, sheets, split);
      const cost = costOf(stock, nesting, first);
      if (!best || before(cost, best.cost)) best = { nesting, cost };
    }
  }
  return best!.nesting;
}

/** None of what goes on first left over, then fewer of all; fewer sheets, less of the roll, and what is left in one piece. */
function costOf<P extends Piece>(
  stock: Stock,
  { sheets, lacking }: Nesting<P>,
  first: (piece: P) => boolean,
): readonly number[] {
  const taken = sheets.reduce((sum, s) => sum + s.heightMm, 0);
  const last = sheets[sheets.length - 1];
  const deepest = last ? Math.max(...last.placed.map((p) => p.yMm + (p.turned ? p.widthMm : p.heightMm))) : 0;
  return [lacking.filter(first).length, lacking.length, stock.kind === 'roll' ? taken : sheets.length, deepest];
}

const before = (a: readonly number[], b: readonly number[]): boolean => {
  const at = a.findIndex((v, i) => Math.abs(v - b[i]!) > NEAR);
  return at >= 0 && a[at]! < b[at]!;
};

/** A piece in an order; `turned` where it is said, else as it fits better. */
interface Ordered<P extends Piece> {
  readonly piece: P;
  readonly turned?: boolean;
}

function* ordersOf<P extends Piece>(pieces: readonly P[]): Generator<readonly Ordered<P>[]> {
  const longest = (p: Piece) => Math.max(p.widthMm, p.heightMm);
  for (const size of [areaOf, longest, (p: Piece) => p.heightMm, (p: Piece) => p.widthMm]) {
    const sorted = [...pieces].sort((p, q) => size(q) - size(p));
    yield sorted.map((piece) => ({ piece }));
    yield sorted.map((piece) => ({ piece, turned: false }));
  }
  const next = seededRandom(pieces.length * 7919);
  for (let n = 0; n < SHUFFLES; n++) {
    const turned = pieces.map((piece): Ordered<P> => ({ piece, ...(piece.mayTurn && { turned: next() < 0.5 }) }));
    const mixed = shuffled(turned, next);
    yield n % 2 === 0 ? mixed : mixed.map(({ piece }) => ({ piece }));
  }
}

function layInOrder<P extends Piece>(
  stock: Stock,
  order: readonly Ordered<P>[],
  gapMm: number,
  most: number,
  split: Split,
): Nesting<P> {
  const laid: { placed: (P & Placed)[]; free: Free[] }[] = [];
  const lacking: P[] = [];
  const whole = (): Free => ({ x: 0, y: 0, w: stock.widthMm, h: stock.heightMm });
  for (const ordered of order) {
    let at = laid.findIndex((s) => bestFit(s.free, ordered));
    if (at < 0 && laid.length < (stock.kind === 'roll' ? Math.min(1, most) : most) && bestFit([whole()], ordered))
      at = laid.push({ placed: [], free: [whole()] }) - 1;
    if (at < 0) {
      lacking.push(ordered.piece);
      continue;
    }
    const sheet = laid[at]!;
    const { free, turned } = bestFit(sheet.free, ordered)!;
    sheet.placed.push({ ...ordered.piece, xMm: free.x, yMm: free.y, turned });
    const rest = cut(free, sizeOf(ordered.piece, turned), gapMm, split);
    sheet.free = [...sheet.free.filter((f) => f !== free), ...rest];
  }
  return { lacking, sheets: laid.map(({ placed }) => sheetOf(stock, placed)) };
}

function sheetOf<P extends Piece>(stock: Stock, placed: readonly (P & Placed)[]): NestedSheet<P> {
  const heightMm =
    stock.kind === 'roll' ? Math.max(...placed.map((p) => p.yMm + sizeOf(p, p.turned).h)) : stock.heightMm;
  const printed = placed.reduce((sum, p) => sum + p.widthMm * p.heightMm, 0);
  return { placed, heightMm, used: printed / (stock.widthMm * heightMm) };
}

const sizeOf = (p: Piece, turned: boolean) =>
  turned ? { w: p.heightMm, h: p.widthMm } : { w: p.widthMm, h: p.heightMm };

/** The free place that a piece leaves the least of along its shorter side. */
function bestFit<P extends Piece>(places: readonly Free[], { piece, turned }: Ordered<P>) {
  let best: { free: Free; turned: boolean } | undefined;
  let least = Infinity;
  const ways = turned === undefined ? (piece.mayTurn ? [false, true] : [false]) : [turned];
  for (const free of places) {
    for (const way of ways) {
      const { w, h } = sizeOf(piece, way);
      if (w > free.w + NEAR || h > free.h + NEAR) continue;
      const rest = Math.min(free.w - w, free.h - h);
      if (rest < least - NEAR) [best, least] = [{ free, turned: way }, rest];
    }
  }
  return best;
}

/** What a piece leaves of a free place, in two rectangles with the knife's gap between. */
function cut(free: Free, { w, h }: { w: number; h: number }, gapMm: number, split: Split): Free[] {
  const [restW, restH] = [free.w - w - gapMm, free.h - h - gapMm];
  const alongTop = split === 'shorter rest' ? restW < restH : restW >= restH;
  const pieces: Free[] = alongTop
    ? [
        { x: free.x + w + gapMm, y: free.y, w: restW, h },
        { x: free.x, y: free.y + h + gapMm, w: free.w, h: restH },
      ]
    : [
        { x: free.x + w + gapMm, y: free.y, w: restW, h: free.h },
        { x: free.x, y: free.y + h + gapMm, w, h: restH },
      ];
  return pieces.filter((p) => p.w > NEAR && p.h > NEAR);
}
