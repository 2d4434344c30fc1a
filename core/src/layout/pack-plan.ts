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

/** Lays everything wanted on as few sheets of a type as hold it. Charts go on first: without them nothing is measured. */
export function planPack(
  widthMm: number,
  heightMm: number,
  types: readonly PackType[],
  items: readonly PackItem[],
): TypePlan[] {
  const pieces = items.map((item) => ({ ...item, mayTurn: true }));
  return types.map(({ id, sheets }) => {
    const { sheets: laid, lacking } = nest({ kind: 'sheet', widthMm, heightMm }, pieces, {
      gapMm: GAP_MM,
      sheets,
      first: (p) => p.kind === 'chart',
    });
    return {
      id,
      sheets: laid.map(({ placed, used }) => ({ items: placed, used })),
      left: sheets - laid.length,
      lacking,
    };
  });
}
