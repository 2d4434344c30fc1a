import { dayOf } from '../day.ts';
import { GRADES, TAKES, type FeedingObservation } from '../measurement/observations.ts';
import { FEED_PATHS, pathOf, type FeedKey } from './feed.ts';

/** What was found of a way into the printer, and by whom and when (ISO 8601). */
export type Fed = Omit<FeedingObservation, 'kind'> & { readonly by: string; readonly takenAt: string };

/** Of each path the newest word; paths nobody tried are not there. @param fed from old to new */
export function feedPaths(fed: readonly Fed[]): ReadonlyMap<FeedKey, Fed> {
  return new Map(fed.map((f) => [f.feed, f]));
}

/** The ways a sheet, and not a roll, goes in. */
const SHEET_PATHS: readonly FeedKey[] = ['auto', 'rear', 'front'];

/** Nothing takes it: every way for a sheet was tried and none did, and no roll does. */
export const fedByNone = (paths: ReadonlyMap<FeedKey, Pick<Fed, 'takes'>>): boolean =>
  SHEET_PATHS.every((key) => paths.get(key)?.takes === 'not') && (paths.get('roll')?.takes ?? 'not') === 'not';

/** Who found last that a sheet is printed to its edge by some path, in words; undefined where nobody did. @param fed from old to new */
export function borderlessBy(fed: readonly Fed[]): string | undefined {
  const found = [...feedPaths(fed).values()].find((f) => f.borderless && f.takes !== 'not');
  return found && `by the ${FEED_PATHS[found.feed].name} (${found.by}, ${dayOf(found.takenAt)})`;
}

/** Grade from which a corner is minded. */
const MINDED = 2;

/** What to do and to mind before a sheet is fed by the path its settings name. */
export function feedCautions(paths: ReadonlyMap<FeedKey, Fed>, feed: string): string[] {
  const key = pathOf(feed);
  const found = key && paths.get(key);
  if (!key || !found) return [];
  const { name } = FEED_PATHS[key];
  const said = `(${found.by}, ${dayOf(found.takenAt)})`;
  const set = [
    found.headHeight && `head height ${found.headHeight}`,
    found.suction && `suction ${found.suction}`,
  ].filter(Boolean);
  return [
    ...(found.takes === 'well' ? [] : [`The ${name} ${TAKES[found.takes]} ${said}.`]),
    ...(set.length > 0 ? [`For the ${name}: ${set.join(', ')} ${said}.`] : []),
    ...(found.corners >= MINDED
      ? [`Its corners lift here, ${GRADES[found.corners]}: flatten them first ${said}.`]
      : []),
    ...(key === 'auto' && found.stack !== undefined
      ? [`At most ${found.stack} sheets in the feeder at once ${said}.`]
      : []),
    ...(found.coreCurl !== undefined && found.coreCurl >= MINDED
      ? [`The last metres at the core curl, ${GRADES[found.coreCurl]}: keep them for small prints ${said}.`]
      : []),
    ...(found.reloads === false ? [`A part-used roll was not taken again ${said}.`] : []),
  ];
}
