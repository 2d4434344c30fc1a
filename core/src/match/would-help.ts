import type { PictureFigures } from '../picture/tally.ts';
import { isMatt } from '../paper.ts';
import type { MatchFigures } from './on-sheet.ts';
import type { SheetQualities } from './sheet.ts';

/** Bounds from which something is worth trying (our own choices). */
const SHADOWS_LOST = 0.8;
const CONTRAST_LOST = 0.9;
const OUTSIDE = 0.05;
const PALE = 0.9;

/**
 * What would make a picture suit a sheet, in a printmaker's words, the strongest first: to be tried on a strip. How much
 * is told by the suggested recipe.
 */
export function wouldHelp(
  picture: PictureFigures,
  match: MatchFigures,
  sheet: Pick<SheetQualities, 'coating' | 'monochrome'>,
): string[] {
  const matt = sheet.coating !== undefined && isMatt(sheet.coating);
  const shadows = match.shadowShare > 0.05 && match.shadowStepsKept < SHADOWS_LOST;
  const flat = match.stepsKept < CONTRAST_LOST || (sheet.coating === 'metallic' && picture.contrast === 'soft');
  const outside = match.outsideShare > OUTSIDE && picture.colour === 'colour' && !sheet.monochrome;
  const pale = match.chromaKept < PALE && picture.colour === 'colour';
  const detail = matt && (picture.structure?.fineL ?? 0) > 3;
  return [
    ...(shadows ? ['shadows opened'] : []),
    ...(flat ? ['more local contrast'] : []),
    ...(outside ? ['perceptual rendering'] : pale ? ['more saturation'] : []),
    ...(detail ? ['a larger print, sharpened for matt'] : []),
  ];
}
