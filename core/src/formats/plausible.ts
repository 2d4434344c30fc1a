import type { Lab } from '../colour/types.ts';
import { FormatError } from './format-error.ts';

/** What an instrument can give of a print: beyond these lies a slip of units, or no reading. */
export const PLAUSIBLE = { L: [-1, 110], ab: 200, reflectance: [-0.05, 3] } as const;

/** Where a patch stands in its file. */
export interface PatchPlace {
  readonly patch: string;
  readonly line?: number;
  /** Names of L*, a*, b*. */
  readonly lab: readonly string[];
  readonly band: (i: number) => string;
}

/** @throws FormatError with line and column for a colour that no instrument gives of a print */
export function refuseImplausible(lab: Lab, reflectance: readonly number[] | undefined, at: PatchPlace): void {
  const [least, most] = PLAUSIBLE.reflectance;
  const band = reflectance?.findIndex((v) => !(v >= least && v <= most)) ?? -1;
  if (reflectance && band >= 0) {
    throw new FormatError({
      message: `Patch ${at.patch} reflects ${reflectance[band]} of the light; ${least} to ${most} is what an instrument may give.`,
      line: at.line,
      field: at.band(band),
      remedy: 'Check whether the spectra are in percent or in parts of one, or read the patch again.',
    });
  }
  const [L, a, b] = lab;
  const odd = ([0, 1, 2] as const).find((c) =>
    c === 0 ? !(L >= PLAUSIBLE.L[0] && L <= PLAUSIBLE.L[1]) : !(Math.abs(c === 1 ? a : b) < PLAUSIBLE.ab),
  );
  if (odd === undefined) return;
  throw new FormatError({
    message: `Patch ${at.patch} has an ${['L*', 'a*', 'b*'][odd]} of ${lab[odd].toFixed(1)}; ${odd === 0 ? `${PLAUSIBLE.L[0]} to ${PLAUSIBLE.L[1]}` : `−${PLAUSIBLE.ab} to ${PLAUSIBLE.ab}`} is what a print may have.`,
    line: at.line,
    field: at.lab[odd],
    remedy: 'Check the units of the export, or read the patch again.',
  });
}
