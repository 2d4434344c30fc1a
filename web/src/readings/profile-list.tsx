import { useState } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { ProfileView } from '@rakuen/contract/profiles';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useAddProfileMutation, useProfilesQuery, useRemoveProfileMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { FileButton } from '../parts/file-button.tsx';
import { Download } from '../parts/download.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useChooseProfileMutation } from './profile-api.ts';
import { ProfileChecks } from './profile-checks.tsx';

const SOURCES = { made: 'written here', brought: 'brought', named: 'known by its name' } as const;

/** Profiles this condition may be printed through: its own, the one it uses, and those that were brought. */
export function ProfileList({ condition }: { condition: ConditionView }) {
  const { data: profiles = [], error } = useProfilesQuery();
  const [choose, choosing] = useChooseProfileMutation();
  const [bring, bringing] = useAddProfileMutation();
  const dispatch = useAppDispatch();
  const [others, setOthers] = useState(false);
  const own = (p: ProfileView) =>
    p.conditionId === condition.id ||
    p.id === condition.profileId ||
    p.uses.some((u) => u.conditionId === condition.id);
  const shown = profiles.filter((p) => own(p) || (others && !p.conditionId && p.kept));
  const rest = profiles.filter((p) => !own(p) && !p.conditionId && p.kept).length;
  const through = condition.printMode === 'colour through a profile';
  const pick = (profileId?: string) =>
    void choose({ conditionId: condition.id, profileId }).then(
      ({ data }) =>
        data && dispatch(said(profileId ? 'Printed through this profile from now on.' : 'No profile is named.')),
    );
  return (
    <section aria-label="Profiles">
      <div className="mb-1 flex flex-wrap items-baseline justify-between gap-3">
        <h3 className="text-[1.1rem]">Profiles</h3>
        <FileButton
          label="Bring a profile"
          accept=".icc,.icm"
          disabled={bringing.isLoading}
          onFile={(file) => void bring(file).then(({ data }) => data && setOthers(true))}
        />
      </div>
      {!through && (
        <p className="mb-2 text-quiet">
          This condition is printed in the {condition.printMode} mode: no profile takes part. One written here shows how
          a profile’s greys would do against it.
        </p>
      )}
      {shown.length === 0 && <p className="text-quiet">None of its own yet.</p>}
      <ul className="border-t border-edge">
        {shown.map((p) => (
          <ProfileEntry
            key={p.id}
            profile={p}
            condition={condition}
            all={profiles}
            onPick={pick}
            busy={choosing.isLoading}
          />
        ))}
      </ul>
      <div className="flex flex-wrap gap-x-3">
        {rest > 0 && (
          <QuietButton onClick={() => setOthers(!others)}>
            {others ? 'Hide those brought for others' : `Show ${rest} that ${rest === 1 ? 'was' : 'were'} brought`}
          </QuietButton>
        )}
        {condition.profileId && <QuietButton onClick={() => pick()}>Name no profile</QuietButton>}
      </div>
      <ErrorNote error={error ?? choosing.error ?? bringing.error} />
    </section>
  );
}

function ProfileEntry({
  profile,
  condition,
  all,
  onPick,
  busy,
}: {
  profile: ProfileView;
  condition: ConditionView;
  all: readonly ProfileView[];
  onPick: (id: string) => void;
  busy: boolean;
}) {
  const [remove, removing] = useRemoveProfileMutation();
  const [open, setOpen] = useState(false);
  const used = profile.id === condition.profileId;
  const next = all.find((p) => p.id === profile.supersededBy);
  const elsewhere = profile.usedBy.filter((id) => id !== condition.id).length;
  return (
    <li className="border-b border-line py-2">
      <label className="flex items-baseline gap-2">
        <input
          type="radio"
          name="printed-through"
          className="size-4 shrink-0 translate-y-0.5 accent-ink"
          checked={used}
          disabled={busy}
          onChange={() => onPick(profile.id)}
          aria-label={`Use this profile: ${profile.name}`}
        />
        <span className="min-w-0 font-serif text-[1.05rem] break-words">{profile.name}</span>
        <span className="ml-auto shrink-0 text-[13px]">{used ? 'In use here' : 'Use this profile'}</span>
      </label>
      <p className="pl-6 text-[13px] text-quiet">
        {describe(profile)}
        {elsewhere > 0 && `; used by ${elsewhere} other print condition${elsewhere === 1 ? '' : 's'}`}
        {next && `; superseded by ${next.name}, ${day(next.createdAt)}`}
      </p>
      {profile.uses
        .filter((u) => u.conditionId === condition.id)
        .map((u) => (
          <p key={u.since} className="pl-6 text-[13px] text-quiet">
            {u.until ? `Used here from ${day(u.since)} to ${day(u.until)}` : `Used here since ${day(u.since)}`}
          </p>
        ))}
      <div className="flex flex-wrap items-center gap-x-3 pl-6">
        {profile.kept && (
          <Download href={`/api/profiles/${profile.id}/file`} label={`${profile.name} as a file`}>
            Take the file
          </Download>
        )}
        {profile.kept && (
          <QuietButton aria-expanded={open} onClick={() => setOpen(!open)} aria-label={`Check ${profile.name}`}>
            {profile.checks > 0 ? `Check it (${profile.checks} so far)` : 'Check it'}
          </QuietButton>
        )}
        {!used && profile.usedBy.length === 0 && (
          <QuietButton onClick={() => void remove(profile.id)} aria-label={`Remove ${profile.name}`}>
            Remove
          </QuietButton>
        )}
      </div>
      <ErrorNote error={removing.error} />
      {open && <ProfileChecks profile={profile} condition={condition} />}
    </li>
  );
}

function describe({ source, createdAt, settings, error, space }: ProfileView): string {
  const made = settings && [
    `ICC ${settings.version}`,
    TABLE_LIGHTS.find((l) => l.key === settings.light)?.name,
    settings.builtFrom && `from ${settings.builtFrom}`,
    settings.greys === 'D50' && 'greys to D50',
  ];
  return [
    `${SOURCES[source]} ${source === 'named' ? 'alone' : day(createdAt)}`,
    ...(made ?? [space]),
    error && `expected error ${formatNumber(error.stated.all.mean, 1)} ΔE00 (mean)`,
  ]
    .filter(Boolean)
    .join(', ');
}
