import { dayOf } from '@rakuen/core/day';
import { COATING_CLASSES } from '@rakuen/core/paper';
import { GRADES, type FeedingObservation } from '@rakuen/core/measurement/observations';
import { feedCautions, feedPaths, type Fed } from '@rakuen/core/print/handling';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PrintSettings } from '@rakuen/contract/prints';

/** Weight from which a sheet wants the straight path and its head height looked at, g/m² (practice). */
const HEAVY_GSM = 250;

/** A sheet as the hands that used it know it. */
type Handled = Pick<ConditionView, 'paper' | 'observations'>;

/** Grade from which what was judged of a sheet in the hand becomes a caution. */
const MINDED = 2;
const HANDLING = {
  curl: 'It curls: flatten it first, or the head strikes a lifted corner',
  scuffs: 'It scuffs and takes fingerprints: cotton gloves, and nothing laid on it until it is dry',
} as const;

/** What was graded by hand, with who said so: the newest of each kind. */
function handling(observations: Handled['observations']): string[] {
  return (Object.keys(HANDLING) as (keyof typeof HANDLING)[]).flatMap((kind) => {
    const found = [...observations].reverse().find((o) => o.kind === kind);
    const { grade = 0 }: { grade?: number } = found?.value ?? {};
    return found && grade >= MINDED
      ? [`${HANDLING[kind]} (${GRADES[grade]}, judged by ${found.by}, ${dayOf(found.takenAt)}).`]
      : [];
  });
}

/** What was found of the ways into the printer, from old to new. */
export const fedOf = (observations: readonly { kind: string; value: object; by: string; takenAt: string }[]): Fed[] =>
  observations.flatMap(({ kind, value, by, takenAt }) =>
    kind === 'feeding' ? [{ ...(value as Omit<FeedingObservation, 'kind'>), by, takenAt }] : [],
  );

/** What a sheet's weight asks for; where its maker claims none, that the hand has to find out. */
function heaviness(weightGsm: number | undefined): string[] {
  const heavy = 'straight path, head height raised, corners flat, or the head strikes it.';
  if (weightGsm === undefined) return [`Its weight is not known: bend a corner. A heavy sheet wants the ${heavy}`];
  return weightGsm >= HEAVY_GSM ? [`A heavy sheet: ${heavy}`] : [];
}

/** Cautions where the hands are, for this sheet in this printer. */
export function cautionsFor({ settings }: { settings: PrintSettings }, { paper, observations }: Handled): string[] {
  const blackInk = paper.coating && COATING_CLASSES[paper.coating].blackInk;
  const wrongBlack =
    (blackInk === 'photo' && settings.blackInk === 'matt black') ||
    (blackInk === 'matt' && settings.blackInk === 'photo black');
  return [
    'Feed with the coated side right: it feels slightly tacky to a damp fingertip, at a corner outside the picture.',
    'Power off before you reach into the printer.',
    ...(wrongBlack
      ? [`${settings.blackInk} does not hold on a ${paper.coating} sheet: it rubs off or looks grey.`]
      : []),
    ...heaviness(paper.weightGsm),
    ...feedCautions(feedPaths(fedOf(observations)), settings.feed),
    ...handling(observations),
    ...(settings.printMode === 'colour through a profile'
      ? ['Colour management off in the driver: the profile is in the file already.']
      : []),
  ];
}
