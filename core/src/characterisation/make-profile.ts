import { bradford } from '../colour/adaptation.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import type { Matrix3 } from '../colour/matrix.ts';
import { illuminantWhite } from '../colour/spectrum.ts';
import type { Lab } from '../colour/types.ts';
import { writeProfile } from '../formats/icc/profile-write.ts';
import { GLASSES } from '../light/glass.ts';
import type { ViewingLight } from '../light/table-lights.ts';
import { litModel } from './lit-model.ts';
import { ModelFault, type PrintModel } from './print-model.ts';
import { profileTables, type Progress } from './profile-tables.ts';
import { relativePrint, type RelativePrint } from './relative-print.ts';

/** How a profile is to be made. */
export interface ProfileSettings {
  /** ICC version: 2 (v2.4), which every program takes, or 4 (v4.3). */
  readonly version: 2 | 4;
  /** Nodes along each axis of the tables that start from Lab, odd. */
  readonly grid: 17 | 33 | 45;
  /** Greys as neutral as the paper is, or as D50 is; towards white they give way to the paper either way. */
  readonly greys: 'paper' | 'D50';
  /** The light it is made for. */
  readonly light: ViewingLight;
}

export interface ProfileWords {
  readonly description: string;
  readonly licence: string;
  readonly createdAt: Date;
  readonly matt: boolean;
  /** The readings, as CGATS text. */
  readonly readings: string;
}

/** Why no profile is written for inks that are driven one by one. */
export const RGB_ONLY = 'The readings are of a CMYK device; profiles are written for printers that are driven in RGB.';

const NO_GLASS = GLASSES[0]!;
const IDENTITY: Matrix3 = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/**
 * An ICC output profile of an RGB print condition.
 * @throws ModelFault for a CMYK condition, or another light where there are no spectra
 */
export function makeProfile(
  model: PrintModel,
  settings: ProfileSettings,
  words: ProfileWords,
  progress?: Progress,
): Uint8Array {
  if (model.deviceSpace !== 'RGB') throw new ModelFault(RGB_ONLY);
  const underD50 = settings.light.power === ILLUMINANTS.D50;
  const print = relativePrint(underD50 ? model.labs : litModel(model, settings.light.power, NO_GLASS));
  return writeProfile({
    ...words,
    version: settings.version,
    mediaWhite: labToXyz(print.white),
    adaptation: underD50 ? IDENTITY : bradford(illuminantWhite(settings.light.power), illuminantWhite()),
    ...profileTables(print, {
      ...settings,
      greysAim: settings.greys === 'D50' ? greysTowardsD50(print) : undefined,
      progress,
    }),
  });
}

/** L* from which greys give way to the paper's own tint. */
const GIVES_WAY_L = 75;

/** A colour shifted, in the space relative to the paper, so that greys come out neutral to D50 instead of to the paper. */
function greysTowardsD50({ white }: RelativePrint): (lab: Lab) => Lab {
  const paper = labToXyz(white);
  const neutral = labToXyz([white[0], 0, 0]);
  return (lab) => {
    const t = Math.max(0, Math.min(1, (100 - lab[0]) / (100 - GIVES_WAY_L)));
    const share = t * t * (3 - 2 * t);
    const xyz = labToXyz(lab);
    const shift = (c: 0 | 1 | 2) => xyz[c] * (1 + share * (neutral[c] / paper[c] - 1));
    return xyzToLab([shift(0), shift(1), shift(2)]);
  };
}
