import { labToXyz, xyzToLab } from './lab.ts';
import type { Lab } from './types.ts';
import { WHITE_ICC } from './white.ts';

/**
 * Media-relative Lab: XYZ scaled so that the paper's white becomes the connection space's white (ICC.1, 6.3.2.1).
 * It is how a print is made in a relative intent and roughly how an eye that has adapted to the sheet sees it.
 */
export function relativeToWhite(paperWhite: Lab): (lab: Lab) => Lab {
  const white = labToXyz(paperWhite);
  const s = [WHITE_ICC[0] / white[0], WHITE_ICC[1] / white[1], WHITE_ICC[2] / white[2]];
  return (lab) => {
    const xyz = labToXyz(lab);
    return xyzToLab([xyz[0] * s[0]!, xyz[1] * s[1]!, xyz[2] * s[2]!]);
  };
}

/** The inverse of {@link relativeToWhite}: from media-relative Lab to what an instrument would read on that paper. */
export function absoluteOnWhite(paperWhite: Lab): (lab: Lab) => Lab {
  const white = labToXyz(paperWhite);
  const s = [white[0] / WHITE_ICC[0], white[1] / WHITE_ICC[1], white[2] / WHITE_ICC[2]];
  return (lab) => {
    const xyz = labToXyz(lab);
    return xyzToLab([xyz[0] * s[0]!, xyz[1] * s[1]!, xyz[2] * s[2]!]);
  };
}
