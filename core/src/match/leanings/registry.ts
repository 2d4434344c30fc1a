import { brightenerCaution } from './brightener-caution.ts';
import { fidelity } from './fidelity.ts';
import type { Leaning } from './leaning.ts';
import { lostColours } from './lost-colours.ts';
import { paperWhite } from './paper-white.ts';
import { quietSheet } from './quiet-sheet.ts';
import { shadows } from './shadows.ts';
import { whatItRestsOn } from './what-it-rests-on.ts';

/** All leanings, in the order their reasons are told when they weigh the same. */
export const LEANINGS: readonly Leaning[] = [
  fidelity,
  lostColours,
  shadows,
  paperWhite,
  quietSheet,
  brightenerCaution,
  whatItRestsOn,
];
