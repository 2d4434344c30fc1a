import { nest, type Nesting, type Stock } from '@rakuen/core/layout/nest';
import type { LaidPiece } from '@rakuen/contract/layouts';

/** Lays pieces on sheets or a roll. */
export const nestPieces = (task: { stock: Stock; pieces: readonly LaidPiece[]; gapMm: number }): Nesting<LaidPiece> =>
  nest(task.stock, task.pieces, { gapMm: task.gapMm });
