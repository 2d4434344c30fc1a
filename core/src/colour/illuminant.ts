import { CIE_START_NM, CIE_STEP_NM, ILLUMINANT_A, ILLUMINANT_C, ILLUMINANT_D50, ILLUMINANT_D65 } from './cie-tables.ts';
import type { Spectrum } from './types.ts';

const table = (values: readonly number[]): Spectrum => ({ startNm: CIE_START_NM, stepNm: CIE_STEP_NM, values });

/** Relative spectral power of the illuminants the measures call for (CIE 15), 340–830 nm at 10 nm. */
export const ILLUMINANTS = {
  A: table(ILLUMINANT_A),
  C: table(ILLUMINANT_C),
  D50: table(ILLUMINANT_D50),
  D65: table(ILLUMINANT_D65),
} as const;

export type IlluminantName = keyof typeof ILLUMINANTS;
