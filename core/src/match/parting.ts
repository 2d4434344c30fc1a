import type { ReasonFigure } from './leanings/leaning.ts';
import type { MarkOnSheet } from './on-sheet.ts';

/** A figure of one criterion, of a sheet and of the one it is compared with. */
export interface PartingFigure {
  readonly name: string;
  readonly unit: string;
  /** Absent where the criterion has nothing to say of that sheet. */
  readonly own?: number;
  readonly other?: number;
}

/**
 * The figure by which a criterion parts two sheets: of those its cost is computed from, the one that differs most for its
 * size; of a criterion that speaks of one of them alone, its first.
 */
export function partingFigure(own: readonly ReasonFigure[], other: readonly ReasonFigure[]): PartingFigure | undefined {
  const [mine, theirs] = [own, other].map((figures) => figures.filter((f) => f.weighed));
  const both = mine!.flatMap(({ name, unit, value }) => {
    const there = theirs!.find((f) => f.name === name && f.unit === unit);
    return there ? [{ name, unit, own: value, other: there.value }] : [];
  });
  const differs = (f: (typeof both)[number]) =>
    Math.abs(f.own - f.other) / Math.max(1e-9, Math.abs(f.own), Math.abs(f.other));
  const [most] = both.sort((p, q) => differs(q) - differs(p));
  if (most) return most;
  const [alone] = [...mine!, ...theirs!];
  return alone && { name: alone.name, unit: alone.unit, [mine!.length > 0 ? 'own' : 'other']: alone.value };
}

/** Marks that differ by less between sheets print alike: half of what is seen side by side (our own choices). */
const SAME_DELTA_E = 1;
const SAME_STEPS = 0.1;

/** Which marks of a picture come out differently on some of the sheets. @param sheets the marks on each, in one order */
export function partingMarks(sheets: readonly (readonly MarkOnSheet[])[]): number[] {
  const count = sheets[0]?.length ?? 0;
  const range = (values: readonly number[]) => Math.max(...values) - Math.min(...values);
  return Array.from({ length: count }, (_, i) => i).filter((i) => {
    const there = sheets.flatMap((marks) => marks[i] ?? []);
    return range(there.map((m) => m.deltaE)) > SAME_DELTA_E || range(there.map((m) => m.stepsKept)) > SAME_STEPS;
  });
}
