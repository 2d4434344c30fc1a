import { COATING_CLASSES } from '@rakuen/core/paper';
import type { PaperHead } from '@rakuen/contract/papers';
import type { PrintSettings } from '@rakuen/contract/prints';

/** Weight from which a sheet wants the straight path and its head height looked at, g/m² (practice). */
const HEAVY_GSM = 250;

/** Cautions where the hands are, for this sheet in this printer. */
export function cautionsFor({ settings }: { settings: PrintSettings }, paper: PaperHead): string[] {
  const { blackInk } = COATING_CLASSES[paper.coating];
  const wrongBlack =
    (blackInk === 'photo' && settings.blackInk === 'matt black') ||
    (blackInk === 'matt' && settings.blackInk === 'photo black');
  return [
    'Feed with the coated side right: it feels slightly tacky to a damp fingertip, at a corner outside the picture.',
    'Power off before you reach into the printer.',
    ...(wrongBlack
      ? [`${settings.blackInk} does not hold on a ${paper.coating} sheet: it rubs off or looks grey.`]
      : []),
    ...(paper.weightGsm >= HEAVY_GSM
      ? ['A heavy sheet: straight path, head height raised, corners flat, or the head strikes it.']
      : []),
    ...(settings.printMode === 'colour through a profile'
      ? ['Colour management off in the driver: the profile is in the file already.']
      : []),
  ];
}
