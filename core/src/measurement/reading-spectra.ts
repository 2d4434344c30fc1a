import type { ReadingFacts } from './reading-facts.ts';
import { groupSpectrum } from './spectra-of-group.ts';

/** Spectra worth a look: reflectance factors of white and black on one grid, and of the white without UV where it was read so. */
export interface ReadingSpectra {
  readonly startNm: number;
  readonly stepNm: number;
  readonly white: readonly number[];
  readonly black: readonly number[];
  readonly whiteWithoutUv?: readonly number[];
}

/** @returns undefined where the reading holds no spectra */
export function readingSpectra({ reading, white, black, withoutUv }: ReadingFacts): ReadingSpectra | undefined {
  const [w, b] = [groupSpectrum(reading, white), groupSpectrum(reading, black)];
  if (!w || !b) return undefined;
  const u = withoutUv && groupSpectrum(withoutUv.reading, withoutUv.white);
  const sameGrid = u && u.startNm === w.startNm && u.stepNm === w.stepNm && u.values.length === w.values.length;
  return {
    startNm: w.startNm,
    stepNm: w.stepNm,
    white: w.values,
    black: b.values,
    whiteWithoutUv: sameGrid ? u.values : undefined,
  };
}
