import type { Commission } from '@rakuen/core/match/commission';
import { onSheet } from '@rakuen/core/match/on-sheet';
import { gistPalette, paletteOf, type Palette } from '@rakuen/core/match/palette';
import { rankSheets } from '@rakuen/core/match/rank';
import type { ReadySheet } from '@rakuen/core/match/ready-sheet';
import type { Weights } from '@rakuen/core/match/schools';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import { wouldHelp } from '@rakuen/core/match/would-help';
import { aspectOf } from '@rakuen/core/picture/aspect';
import { gistOf, packGist, unpackGist } from '@rakuen/core/picture/gist';
import { askedOf, type PictureJson, type PictureSides } from '../pictures/asked.ts';
import type { SuitLine, UnsuitLine } from '@rakuen/contract/matches';

/** Colours of a picture: all of them, or the gist. */
export interface ColoursOfPicture {
  readonly cells?: Float32Array;
  readonly gist?: Float32Array;
}

/** A picture as it is asked for: its row as it is kept, for it is parsed here, and its colours. */
export interface AskedPicture extends PictureJson, PictureSides, ColoursOfPicture {
  readonly id: string;
  /** Which of the sheets: the one as it is seen where this picture will hang. */
  readonly sheet: number;
}

const paletteOn = ({ cells, gist }: ColoursOfPicture, nodes: number): Palette =>
  cells ? paletteOf({ count: cells.length / 4, data: cells }, nodes) : gistPalette(unpackGist(gist!), nodes);

/** Pictures on one sheet, each where it will hang. @param task sheets are the same one, seen in several places */
export function suitPictures(task: {
  pictures: readonly AskedPicture[];
  sheets: readonly { qualities: SheetQualities; ready: ReadySheet }[];
  weights?: Weights;
}): (SuitLine | UnsuitLine)[] {
  return task.pictures.map((picture) => {
    const { id } = picture;
    const { figures, hints, commission, marks } = askedOf(picture);
    const { qualities: sheet, ready } = task.sheets[picture.sheet];
    const match = onSheet(paletteOn(picture, ready.nodes), marks, ready);
    const { places, refused } = rankSheets(
      { picture: figures, hints, commission, aspect: aspectOf(picture), weights: task.weights },
      [{ sheet, figures: match }],
    );
    const [place] = places;
    if (!place) return { pictureId: id, refused: refused[0].why };
    return {
      pictureId: id,
      exact: picture.cells !== undefined,
      score: place.score,
      scoreSd: place.scoreSd,
      verdict: place.verdict,
      wouldHelp: wouldHelp(figures, match, sheet),
    };
  });
}

/** A picture of a show: its row as it is kept, its colours, and where it will hang. */
export interface ShownPicture extends PictureJson, PictureSides, ColoursOfPicture {
  readonly id: string;
  /** What the show says of the place, in place of the picture’s own commission. */
  readonly place: Partial<Commission>;
  /** Which of the places: the sheets as they are seen there. */
  readonly at: number;
}

/** Sheets of a show as they are seen in one place. */
export type SheetsInPlace = readonly { qualities: SheetQualities; ready: ReadySheet }[];

/**
 * Every picture on every sheet. @returns by picture the score on each sheet, in their order, absent where it is refused
 */
export function scoreShow(task: {
  pictures: readonly ShownPicture[];
  places: readonly SheetsInPlace[];
  weights?: Weights;
}): (number | undefined)[][] {
  return task.pictures.map((picture) => {
    const { figures, hints, commission, marks } = askedOf(picture);
    const palettes = new Map<number, Palette>();
    const candidates = task.places[picture.at].map(({ qualities: sheet, ready }) => {
      const palette = palettes.get(ready.nodes) ?? paletteOn(picture, ready.nodes);
      palettes.set(ready.nodes, palette);
      return { sheet, figures: onSheet(palette, marks, ready) };
    });
    const asked = {
      picture: figures,
      hints,
      commission: { ...commission, ...picture.place },
      aspect: aspectOf(picture),
      weights: task.weights,
    };
    const scores = new Map(rankSheets(asked, candidates).places.map((p) => [p.id, p.score]));
    return candidates.map(({ sheet }) => scores.get(sheet.id));
  });
}

/** A sheet whose lattices all threads read where they lie: it is not copied for each page of pictures. */
export function sharedSheet(sheet: ReadySheet): ReadySheet {
  const shared = (v: Int16Array): Int16Array => {
    const own = new Int16Array(new SharedArrayBuffer(v.byteLength));
    own.set(v);
    return own;
  };
  const held = new Uint8Array(new SharedArrayBuffer(sheet.held.byteLength));
  held.set(sheet.held);
  return {
    ...sheet,
    losses: shared(sheet.losses),
    seenAb: shared(sheet.seenAb),
    chromasAimed: shared(sheet.chromasAimed),
    held,
  };
}

/** Gists of pictures, packed. @param task L*, a*, b* and share of each picture */
export const gistsOf = (task: { cells: readonly Float32Array[] }): Float32Array[] =>
  task.cells.map((data) => packGist(gistOf({ count: data.length / 4, data })));
