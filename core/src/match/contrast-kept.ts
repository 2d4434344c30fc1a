import { localGain } from '../picture/local-gain.ts';
import type { ContrastScale } from '../picture/structure.ts';
import type { MatchFigures } from './on-sheet.ts';
import type { SheetQualities } from './sheet.ts';
import { surfaceSpread, transferAt } from './surface-spread.ts';

/** What is left of a picture's contrast at one scale. */
export interface ContrastKept {
  /** Size of the detail on paper, mm. */
  readonly mm: number;
  /** Contrast the picture has at it, standard deviation of L*. */
  readonly sdL: number;
  /** How much of it is left, 0–1. */
  readonly kept: number;
}

/**
 * What a sheet leaves of a picture's contrast, scale by scale. Each scale is held against the tones it lives in: a sheet
 * with a weak black takes it from the shadows, one that spreads its ink from what is fine.
 * @param scales of the picture, with the tones each lives in; scales read before they were known take the mean of all tones
 * @param longSideMm of the print
 */
export function contrastKept(
  scales: readonly ContrastScale[],
  longSideMm: number,
  match: Pick<MatchFigures, 'slopeByTone' | 'stepsKept' | 'local'>,
  sheet: Pick<SheetQualities, 'hairlines' | 'coating'>,
): ContrastKept[] {
  const spread = surfaceSpread(sheet).mm;
  return scales.map((scale) => {
    const { size, sdL, byTone } = scale;
    const mm = size * longSideMm;
    const left = byTone
      ? Math.sqrt(byTone.reduce((sum, share, i) => sum + share * match.slopeByTone[i]! ** 2, 0))
      : match.stepsKept;
    const given = match.local ? localGain(match.local, mm, scale) : 1;
    return { mm, sdL, kept: Math.min(1, left * given) * transferAt(mm, spread) };
  });
}

/** Two points of a minute of arc are told apart by a good eye (memory: acuity of one minute of arc). */
export const ARC_MINUTE = Math.PI / (180 * 60);

/** The scales an eye can part at a distance: two blocks side by side within each. */
export const scalesSeen = <T extends { readonly mm: number }>(scales: readonly T[], viewingMm: number): T[] =>
  scales.filter(({ mm }) => mm / 2 >= viewingMm * Math.tan(ARC_MINUTE));
