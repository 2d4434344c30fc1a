/** Ink on a square metre of full black, ml, where the printmaker measured none (practice). */
export const SOLID_ML_PER_M2 = 14;

/** A colour of a picture as it is printed, and the share of the picture it covers. */
export interface InkCell {
  /** Relative luminance of the printed colour over that of the bare sheet, 0–1. */
  readonly over: number;
  readonly share: number;
}

/**
 * Ink a print takes, from area and mean density: what lies on the sheet goes with the density it makes, and full black
 * takes the most. Judged from what is seen, not counted at the nozzles: saturated light colours take more than it says,
 * black from one ink less.
 * @param blackDensity density of full black above the paper
 * @returns ml, and the mean density above the paper it rests on
 */
export function inkOf(
  cells: readonly InkCell[],
  areaM2: number,
  blackDensity: number,
  solidMlPerM2 = SOLID_ML_PER_M2,
): { readonly ml: number; readonly meanDensity: number } {
  const least = 10 ** -blackDensity;
  const meanDensity = cells.reduce((sum, c) => sum - c.share * Math.log10(Math.min(1, Math.max(c.over, least))), 0);
  return { ml: (areaM2 * solidMlPerM2 * meanDensity) / blackDensity, meanDensity };
}

/**
 * Ink a print takes where it is counted colour by colour, as a simulated printer lays it down.
 * @param colours ink of each colour of the picture, and the share of the picture it covers
 * @param fullBlack ink of full black, in the same measure
 * @returns ml
 */
export function countedInk(
  colours: readonly { readonly taken: number; readonly share: number }[],
  areaM2: number,
  fullBlack: number,
  solidMlPerM2 = SOLID_ML_PER_M2,
): number {
  return areaM2 * solidMlPerM2 * (colours.reduce((sum, c) => sum + c.share * c.taken, 0) / fullBlack);
}
