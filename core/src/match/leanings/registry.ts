import { brightener } from './brightener.ts';
import { bronzing } from './bronzing.ts';
import { contrastLeft } from './contrast-left.ts';
import { colourHeld } from './colour-held.ts';
import { depth } from './depth.ts';
import { feeding } from './feeding.ts';
import { grainOnGloss } from './grain-on-gloss.ts';
import { inTheHand } from './in-the-hand.ts';
import type { Leaning } from './leaning.ts';
import { linearity } from './linearity.ts';
import { longGreys } from './long-greys.ts';
import { loudSheet } from './loud-sheet.ts';
import { money } from './money.ts';
import { neutralGreys } from './neutral-greys.ts';
import { originalGround } from './original-ground.ts';
import { paperWhite } from './paper-white.ts';
import { recipeChange } from './recipe-change.ts';
import { reflections } from './reflections.ts';
import { shadowSteps } from './shadow-steps.ts';
import { sharpness } from './sharpness.ts';
import { size } from './size.ts';
import { darkroomBlackAndWhite, quietBlackAndWhite } from './surface-of-black-and-white.ts';
import { textureSeenInPlain } from './texture-seen.ts';
import { textureWelcome } from './texture-welcome.ts';
import { toothInPlain } from './tooth-in-plain.ts';
import { tonedWhite } from './toned-white.ts';
import { whatItRestsOn } from './what-it-rests-on.ts';

/** All leanings, in the order their reasons are told when they weigh the same. */
export const LEANINGS: readonly Leaning[] = [
  colourHeld,
  shadowSteps,
  contrastLeft,
  linearity,
  sharpness,
  depth,
  paperWhite,
  reflections,
  textureSeenInPlain,
  textureWelcome,
  toothInPlain,
  longGreys,
  loudSheet,
  grainOnGloss,
  neutralGreys,
  darkroomBlackAndWhite,
  quietBlackAndWhite,
  tonedWhite,
  originalGround,
  brightener,
  bronzing,
  inTheHand,
  money,
  size,
  feeding,
  recipeChange,
  whatItRestsOn,
];
