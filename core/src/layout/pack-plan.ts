import { nest, type Placed } from './nest.ts';

/** A thing to be printed on a sample sheet. Sizes in mm, a cutting edge included by the planner. */
export interface PackItem {
  readonly key: string;
  readonly kind: 'chart' | 'test page' | 'crop';
  readonly name: string;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** Sheets of one type in the pack, all of one size. */
export interface PackType {
  readonly id: string;
  readonly sheets: number;
}

export type PlacedItem = PackItem & Placed;

export interface PlannedSheet {
  readonly items: readonly PlacedItem[];
  /** Share of the sheet that is printed on, 0–1. */
  readonly used: number;
}

export interface TypePlan {
  readonly id: string;
  readonly sheets: readonly PlannedSheet[];
  /** Sheets nothing is planned for. */
  readonly left: number;
  /** What found no room. */
  readonly lacking: readonly PackItem[];
}

/** Between things on a sheet, for the knife, mm (our own choice). */
export const GAP_MM = 4;

/** Bare paper that charts and test pages keep along their own edges, mm: as far as that, they may reach into a margin. */
const OWN_MARGIN_MM = 10;

/**
 * Places everything wanted on as few sheets of a type as hold it. Charts go on first: without them nothing is measured.
 * Nothing is printed within the margin that the printer can't reach; charts and test pages are pages of their own and
 * bring their margins along.
 */
export function planPack(
  widthMm: number,
  heightMm: number,
  types: readonly PackType[],
  items: readonly PackItem[],
  marginMm = 0,
): TypePlan[] {
  // Of a page only what is printed on it needs room: it is placed without its own bare edges, and drawn with them.
  const bareMm = ({ kind }: PackItem) => (kind === 'crop' ? 0 : Math.min(marginMm, OWN_MARGIN_MM));
  const pieces = items.map((item) => ({
    ...item,
    widthMm: item.widthMm - 2 * bareMm(item),
    heightMm: item.heightMm - 2 * bareMm(item),
    mayTurn: true,
  }));
  const inner = { kind: 'sheet', widthMm: widthMm - 2 * marginMm, heightMm: heightMm - 2 * marginMm } as const;
  const whole = (key: string) => items.find((i) => i.key === key)!;
  return types.map(({ id, sheets }) => {
    const { sheets: laid, lacking } = nest(inner, pieces, {
      gapMm: GAP_MM,
      sheets,
      first: (p) => p.kind === 'chart',
    });
    return {
      id,
      sheets: laid.map(({ placed }) => {
        const on = placed.map((p): PlacedItem => {
          const item = whole(p.key);
          const shift = marginMm - bareMm(item);
          return { ...p, ...item, xMm: p.xMm + shift, yMm: p.yMm + shift };
        });
        const covered = on.reduce((sum, i) => sum + i.widthMm * i.heightMm, 0);
        return { items: on, used: covered / (widthMm * heightMm) };
      }),
      left: sheets - laid.length,
      lacking: lacking.map((l) => whole(l.key)),
    };
  });
}
