import { dayOf } from '../day.ts';
import { CHANGE_COSTS } from './run-timing.ts';
import { SETTING_KEYS, SETTINGS, written, type SettingKey, type SettingValues } from './settings.ts';

/** A print that was made, as far as the next is held against it. */
export interface Earlier {
  /** ISO 8601 day. */
  readonly printedOn: string;
  readonly settings: SettingValues;
  /** Paper and picture, as they are called. */
  readonly on: string;
}

/** What the printmaker found best for the paper on this printer, and stamped. */
export interface Standing {
  readonly mediaSetting: string;
  /** ISO 8601. */
  readonly stampedAt: string;
  readonly reason: string;
}

export interface Difference {
  readonly key: SettingKey;
  readonly is: string;
  readonly was: string;
  /** What it differs from: the last sheet through the printer, the last print of this picture, or the setting that was stamped. */
  readonly from: 'printer' | 'picture' | 'standing';
  readonly sentence: string;
}

export interface HeldAgainst {
  /** The last sheet through that printer. */
  readonly atPrinter?: Earlier;
  /** The last print of this picture on this paper. */
  readonly ofPicture?: Earlier;
  readonly standing?: Standing;
}

/** A thing that must be done at the printer costs more than a glance. */
const DOING: Partial<Record<SettingKey, string>> = {
  blackInk: `The black ink must change: ${CHANGE_COSTS.blackInkMinutes} minutes and ${CHANGE_COSTS.blackInkMl} ml (practice).`,
};

/** What the last sheet through the printer says something about: what the printer holds, and what its driver was told. */
const atThePrinter = (key: SettingKey): boolean =>
  key !== 'printer' && key !== 'inkSet' && !('ofPicture' in SETTINGS[key]);

/**
 * What differs from the last sheet through that printer and from the last print of the picture, in the order in which
 * settings are looked at; what the printer was told for another sheet first, for that is what spoils this one.
 */
export function differences(settings: SettingValues, { atPrinter, ofPicture, standing }: HeldAgainst): Difference[] {
  return SETTING_KEYS.flatMap((key): Difference[] => [
    ...(key === 'mediaSetting' && standing && settings.mediaSetting !== standing.mediaSetting
      ? [
          {
            key,
            is: written(key, settings[key]),
            was: standing.mediaSetting,
            from: 'standing' as const,
            sentence: `${SETTINGS[key].name} says ${written(key, settings[key])}; the standing setting of this paper is ${standing.mediaSetting}, stamped ${dayOf(standing.stampedAt)}: “${standing.reason}”`,
          },
        ]
      : []),
    ...(atPrinter && atThePrinter(key) ? against(key, settings, atPrinter, 'printer') : []),
    ...(ofPicture ? against(key, settings, ofPicture, 'picture') : []),
  ]);
}

function against(
  key: SettingKey,
  settings: SettingValues,
  earlier: Earlier,
  from: 'printer' | 'picture',
): Difference[] {
  // What an earlier print does not say can't be told to differ.
  if (earlier.settings[key] === undefined || earlier.settings[key] === '') return [];
  const [is, was] = [written(key, settings[key]), written(key, earlier.settings[key])];
  if (is === was) return [];
  const last =
    from === 'printer'
      ? `the last sheet through the printer (${earlier.on}, ${dayOf(earlier.printedOn)}) had ${was}`
      : `this picture was last printed with ${was} (${dayOf(earlier.printedOn)})`;
  const doing = from === 'printer' && DOING[key] ? ` ${DOING[key]}` : '';
  return [{ key, is, was, from, sentence: `${SETTINGS[key].name} is ${is}; ${last}.${doing}` }];
}
