import type { RenderingKey } from '../characterisation/renderings.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import type { Lab } from '../colour/types.ts';
import { WHITE_ICC } from '../colour/white.ts';

/** What a printed colour is held against: light over the white times `gain`, plus `black`; relative to the sheet's white. */
export interface Aim {
  readonly gain: readonly [x: number, y: number, z: number];
  readonly black: number;
}

/**
 * What a rendering aims at for a colour of a file. Perceptual and saturation move every colour on purpose: they are
 * held against the colour as it is, black compensated.
 * @param white Lab of the sheet's white
 * @param blackL L* of its black, relative to that white
 */
export function aimOf(rendering: RenderingKey, { white, blackL }: { white: Lab; blackL: number }): Aim {
  if (rendering === 'uncompensated') return { gain: [1, 1, 1], black: 0 };
  if (rendering === 'absolute') {
    const xyz = labToXyz(white);
    return { gain: [WHITE_ICC[0] / xyz[0], WHITE_ICC[1] / xyz[1], WHITE_ICC[2] / xyz[2]], black: 0 };
  }
  const black = labToXyz([blackL, 0, 0])[1] / 100;
  return { gain: [1 - black, 1 - black, 1 - black], black };
}

/** The colour aimed at. */
export function aimed({ gain, black }: Aim, lab: Lab): Lab {
  const xyz = labToXyz(lab);
  return xyzToLab([
    xyz[0] * gain[0] + black * WHITE_ICC[0],
    xyz[1] * gain[1] + black * WHITE_ICC[1],
    xyz[2] * gain[2] + black * WHITE_ICC[2],
  ]);
}

/** Renderings that move colours which the sheet could print as they are. */
export const movesAll = (rendering: RenderingKey): boolean => rendering === 'perceptual' || rendering === 'saturation';
