import type { ProfileUse } from '@rakuen/contract/profiles';
import type { ConditionRow } from '../conditions/conditions.entity.ts';
import type { ProfileRow } from './profiles.entity.ts';

/** A change of the name of the profile that a print condition is printed through, as the record has it. */
export interface NameChange {
  readonly id: string;
  readonly at: string;
  readonly was: string | null;
  readonly now: string;
}

/** Every such change, the earliest first. */
export const NAME_CHANGES = `
  SELECT id, at, json_extract(before, '$.profile') AS was, json_extract(after, '$.profile') AS now FROM events
  WHERE subject = 'conditions' AND deed = 'changed' AND was IS NOT now AND now IS NOT NULL ORDER BY seq`;

/** A profile, by the name a print condition gave it for a while. */
interface NamedUse {
  readonly name: string;
  /** Known of what is used now. */
  readonly profileId?: string | null;
  readonly use: ProfileUse;
}

/** When each print condition was printed through which profile. */
export function namedUses(
  conditions: readonly Pick<ConditionRow, 'id' | 'createdAt' | 'profile' | 'profileId'>[],
  changes: readonly NameChange[],
): NamedUse[] {
  return conditions.flatMap(({ id, createdAt, profile, profileId }) => {
    const own = changes.filter((c) => c.id === id);
    const names = [own[0]?.was ?? profile, ...own.map((c) => c.now)];
    const from = [createdAt, ...own.map((c) => c.at)];
    return names.flatMap((name, i): NamedUse[] =>
      name
        ? [
            {
              name: name.toLowerCase(),
              profileId: i === names.length - 1 ? profileId : undefined,
              use: { conditionId: id, since: from[i], ...(from[i + 1] && { until: from[i + 1] }) },
            },
          ]
        : [],
    );
  });
}

/**
 * The uses of one profile among `all`: by what is known of today's, and by the name where no other has it. Profiles of an
 * earlier Rakuen may share a name: which of them was used then is not known.
 */
export function usesOf(
  { id, name }: Pick<ProfileRow, 'id' | 'name'>,
  uses: readonly NamedUse[],
  all: readonly Pick<ProfileRow, 'name'>[],
): ProfileUse[] {
  const own = name.toLowerCase();
  const shared = all.filter((p) => p.name.toLowerCase() === own).length > 1;
  return uses.filter((u) => u.profileId === id || (!u.profileId && !shared && u.name === own)).map((u) => u.use);
}
