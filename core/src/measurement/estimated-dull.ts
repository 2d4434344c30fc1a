import type { Spectrum } from '../colour/types.ts';
import { estimateBrightener } from '../light/estimated-brightener.ts';
import { sdBetween, type ScalarFigure } from './figure.ts';
import type { ReadingFacts } from './reading-facts.ts';
import { groupSpectrum } from './spectra-of-group.ts';

/**
 * A figure of what the brightener does to the white, where the sheet was not read without UV: estimated from the one
 * spectrum there is, with the interval that holds nine of ten.
 * @param figure of the white with UV and of the same without
 * @returns undefined where the spectrum does not let it be told
 */
export function estimatedOfWhite(
  { reading, white, unserved }: Pick<ReadingFacts, 'reading' | 'white' | 'unserved'>,
  figure: (withUv: Spectrum, without: Spectrum) => number,
): ScalarFigure | undefined {
  const withUv = groupSpectrum(reading, white);
  const grid = reading.spectralGrid;
  const estimate = withUv && grid && estimateBrightener(grid, withUv.values, reading.condition);
  if (!estimate) return undefined;
  const at = (strength: number) =>
    figure(withUv, { ...withUv, values: withUv.values.map((v, i) => v - strength * estimate.unit[i]!) });
  const [p, q] = [at(estimate.low), at(estimate.high)];
  const between = [Math.min(p, q), Math.max(p, q)] as const;
  // A reading without UV that is there and does not serve is named: with it the figure would be measured.
  const { M2: note } = unserved;
  return { shape: 'scalar', value: at(estimate.strength), sd: sdBetween(between), between, ...(note && { note }) };
}
