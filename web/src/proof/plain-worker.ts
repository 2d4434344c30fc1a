import { expose, transfer } from 'comlink';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { drawProof, type DrawnSheet, type LabPixels } from '@rakuen/core/proof/drawn';
import type { LocalBase } from '@rakuen/core/proof/local-contrast';
import type { Part } from '@rakuen/core/proof/part';
import type { Matrix3 } from '@rakuen/core/colour/matrix';
import { latticeOf } from '../pictures/picture-api.ts';
import type { ProofView, SeenSheet } from './proof-canvas.ts';

let picture: LabPixels | undefined;
let detail: { part: Part; image: LabPixels } | undefined;
let base: LocalBase | undefined;
const sheets: [DrawnSheet?, DrawnSheet?] = [];

/** Draws a proof where there is no WebGL 2; what is asked for is drawn one after another. */
const board = {
  picture: (image: LabPixels) => void (picture = image),
  detail: (part: Part | undefined, image: LabPixels | undefined) => void (detail = part && image && { part, image }),
  base: (found: LocalBase | undefined) => void (base = found),
  sheet: (hand: 0 | 1, seen: SeenSheet) =>
    void (sheets[hand] = {
      lattice: unpackLab(seen.nodes, latticeOf(seen)),
      white: seen.white,
      blackL: seen.blackL,
    }),
  /** Pixels of the proof; nothing before a picture and both sheets are there. */
  draw: (view: ProofView, toScreen: Matrix3, widthPx: number, heightPx: number) => {
    const [left, right] = sheets;
    if (!picture || !left || !right) return undefined;
    const pixels = drawProof({ ...view, toScreen, picture, detail, base, sheets: [left, right] }, widthPx, heightPx);
    return transfer(pixels, [pixels.buffer]);
  },
};
export type Board = typeof board;
expose(board);
