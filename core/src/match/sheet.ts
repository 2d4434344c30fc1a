import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { relativeToWhite } from '../colour/relative.ts';
import type { Lab } from '../colour/types.ts';
import { WHITE_ICC } from '../colour/white.ts';
import { mapMesh, type GamutMesh } from '../gamut/mesh.ts';
import { indexMesh, type MeshIndex } from '../gamut/mesh-index.ts';
import type { CoatingClass } from '../paper.ts';

/** What a match needs of a print condition; Lab as measured. */
export interface SheetQualities {
  readonly id: string;
  /** Paper it is a condition of. */
  readonly paperId: string;
  readonly white: Lab;
  readonly black: Lab;
  readonly gamut: GamutMesh;
  readonly coating: CoatingClass;
  /** Δb* of the brightener, where it was measured. */
  readonly brightenerShift?: number;
  /** Its figures are told by a profile and were not measured. */
  readonly told?: boolean;
  /** Read before the print had dried. */
  readonly wet?: boolean;
  /** Price of the paper a square metre, where it is known, in the currency of its price list (ISO 4217). */
  readonly pricePerM2?: number;
  readonly currency?: string;
}

/** A sheet made ready for pictures: everything relative to its own white, as prints are made and seen. */
export interface ReadySheet {
  readonly qualities: SheetQualities;
  /** Black relative to the paper's white. */
  readonly relativeBlack: Lab;
  readonly gamut: MeshIndex;
  /** Black point compensation: the picture's black is laid on the sheet's, its white on the sheet's white. */
  readonly compensate: (lab: Lab) => Lab;
}

export function readySheet(qualities: SheetQualities): ReadySheet {
  const relative = relativeToWhite(qualities.white);
  const relativeBlack = relative(qualities.black);
  return {
    qualities,
    relativeBlack,
    gamut: indexMesh(mapMesh(qualities.gamut, relative)),
    compensate: blackPointCompensation(relativeBlack),
  };
}

/**
 * Black point compensation as ISO 18619 describes it for a source whose black is 0: XYZ is scaled linearly between the white of
 * the connection space and a black of the destination's lightness. The destination's black is taken as neutral, as the standard does.
 */
export function blackPointCompensation(black: Lab): (lab: Lab) => Lab {
  const Yb = labToXyz([Math.max(0, black[0]), 0, 0])[1] / 100;
  return (lab) => {
    const xyz = labToXyz(lab);
    return xyzToLab([
      xyz[0] * (1 - Yb) + WHITE_ICC[0] * Yb,
      xyz[1] * (1 - Yb) + WHITE_ICC[1] * Yb,
      xyz[2] * (1 - Yb) + WHITE_ICC[2] * Yb,
    ]);
  };
}
