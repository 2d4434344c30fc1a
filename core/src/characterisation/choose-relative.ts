import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Reading } from '../measurement/reading.ts';
import { totalOf, waves, type KnownRelative } from './fitted-print.ts';
import { kinPrinter, kinshipOf } from './kinship.ts';
import { samplesOf, type PrintSample } from './print-samples.ts';
import { spectraOf } from './spectra-of-model.ts';

/** A well-known print that a few patches of another may begin from. */
export interface RelativeCandidate {
  readonly relative: KnownRelative;
  /** In how many respects it is another print: printer or inks, black ink, kind of paper, media setting. */
  readonly mismatches: number;
}

/** How well a candidate explains the patches that were read. */
export interface RankedRelative {
  /** Place in the list that was given. */
  readonly index: number;
  /** Mean ΔE00 of patches that were not used to bring its inks and surface to theirs. */
  readonly deltaE00: number;
}

/** A mismatch counts as so much more error: what is known beforehand decides where the patches hardly do (our own choice). */
const PRIOR = 0.12;
const FOLDS = 3;

/**
 * Known prints by how well they explain a few patches, the best first: each is brought to the patches by the few
 * numbers in which prints of one kind differ, and judged by patches that were left out of that (3-fold
 * cross-validation).
 * @returns none where the readings hold no spectra
 */
export function rankRelatives(
  readings: readonly Reading[],
  candidates: readonly RelativeCandidate[],
): RankedRelative[] {
  const { samples, reading } = samplesOf(readings);
  const grid = reading.spectralGrid;
  const paper = samples.find((s) => s.device.every((v) => v === 1));
  if (!grid || !paper || !samples.every((s) => s.reflected)) return [];
  const white = totalOf(paper);
  const illuminant = illuminantWhite();
  const errorOf = ({ relative: { model } }: RelativeCandidate): number => {
    if (!model.spectra) return Infinity;
    const bands = { ...spectraOf(model, grid), bands: waves(grid) };
    let sum = 0;
    for (let fold = 0; fold < FOLDS; fold++) {
      const isJudge = (_: PrintSample, i: number) => i % FOLDS === fold;
      const used = samples.filter((s, i) => !isJudge(s, i) || s === paper);
      const kinship = kinshipOf(bands, used, used.map(totalOf), white);
      const { print } = kinPrinter(bands, white);
      for (const sample of samples.filter(isJudge)) {
        const values = Array.from(print(kinship, sample.device));
        const lab = xyzToLab(spectrumToXyz({ startNm: grid.startNm, stepNm: grid.stepNm, values }), illuminant);
        sum += deltaE2000(sample.lab, lab);
      }
    }
    return sum / samples.length;
  };
  return candidates
    .map((candidate, index) => ({ index, deltaE00: errorOf(candidate), mismatches: candidate.mismatches }))
    .filter(({ deltaE00 }) => Number.isFinite(deltaE00))
    .sort((p, q) => p.deltaE00 * (1 + PRIOR * p.mismatches) - q.deltaE00 * (1 + PRIOR * q.mismatches))
    .map(({ index, deltaE00 }) => ({ index, deltaE00 }));
}
