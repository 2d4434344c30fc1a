import { useEffect, useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { ModelView, ProfileSettingsInput } from '@rakuen/contract/profiles';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { api } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useMakeProfileMutation, useProfileJobQuery, useStopProfileJobMutation } from './profile-api.ts';

const VERSIONS = [
  ['2', 'ICC 2.4: every program takes it'],
  ['4', 'ICC 4.3'],
] as const;
const GREYS = [
  ['paper', 'as neutral as the paper'],
  ['D50', 'neutral to D50, giving way to the paper in the lights'],
] as const;
const GRIDS = [
  ['17', 'small, 17 nodes'],
  ['33', 'usual, 33 nodes'],
  ['45', 'large, 45 nodes'],
] as const;
const BRIGHTENER: Record<string, string> = {
  M1: 'M1, with brightener as D50 wakes it',
  M0: 'M0, with brightener as a lamp of the instrument wakes it',
  M2: 'M2, without brightener',
};

/** Settings of a profile, and its making. */
export function ProfileMaker({ condition, model }: { condition: ConditionHead; model: ModelView }) {
  const [wish, setWish] = useState({
    name: `${condition.paper.name}, ${condition.mediaSetting}`.slice(0, 160),
    version: '2',
    greys: 'paper',
    grid: '33',
    light: 'D50',
    builtFrom: model.canBuildFrom[0] ?? '',
  });
  const through = condition.printMode === 'colour through a profile';
  const [use, setUse] = useState(true);
  const [make, making] = useMakeProfileMutation();
  const [jobId, setJobId] = useState<string>();
  const set = (key: keyof typeof wish) => ({
    value: wish[key],
    onChange: (e: { target: { value: string } }) => setWish({ ...wish, [key]: e.target.value }),
  });
  const lights = model.spectral ? TABLE_LIGHTS : TABLE_LIGHTS.slice(0, 1);
  const begin = async () => {
    const settings: ProfileSettingsInput = {
      name: wish.name,
      version: wish.version === '4' ? 4 : 2,
      greys: wish.greys === 'D50' ? 'D50' : 'paper',
      grid: Number(wish.grid) as ProfileSettingsInput['grid'],
      light: wish.light,
      builtFrom: (wish.builtFrom || undefined) as ProfileSettingsInput['builtFrom'],
      use: through && use,
    };
    const { data } = await make({ conditionId: condition.id, settings });
    setJobId(data?.id);
  };
  return (
    <section aria-label="Write a profile">
      <h3 className="mb-1 text-[1.1rem]">Write a profile</h3>
      <form
        className="grid grid-cols-2 gap-x-4 gap-y-2"
        onSubmit={(e) => {
          e.preventDefault();
          void begin();
        }}
      >
        <TextField label="Name" className="col-span-2" maxLength={160} required {...set('name')} />
        <ChoiceField label="Version" options={VERSIONS} {...set('version')} />
        <ChoiceField label="For the light" options={lights.map((l) => [l.key, l.name] as const)} {...set('light')} />
        <ChoiceField label="Greys" options={GREYS} {...set('greys')} />
        {model.canBuildFrom.length > 0 && (
          <ChoiceField
            label="Built from"
            options={model.canBuildFrom.map((c) => [c, BRIGHTENER[c]] as const)}
            {...set('builtFrom')}
          />
        )}
        <ChoiceField label="Tables" options={GRIDS} {...set('grid')} />
        {through && (
          <TickField
            className="col-span-2"
            label="Use it for this print condition"
            checked={use}
            onChange={(e) => setUse(e.target.checked)}
          />
        )}
        <div className="flex items-end">
          <Button type="submit" main disabled={making.isLoading || jobId !== undefined}>
            Write the profile
          </Button>
        </div>
      </form>
      <ErrorNote error={making.error} />
      {jobId && <Making id={jobId} onEnd={() => setJobId(undefined)} />}
    </section>
  );
}

function Making({ id, onEnd }: { id: string; onEnd: () => void }) {
  const dispatch = useAppDispatch();
  const [stop] = useStopProfileJobMutation();
  const { data: job } = useProfileJobQuery(id, { pollingInterval: 250 });
  useEffect(() => {
    if (job?.state === 'done') {
      dispatch(api.util.invalidateTags(['profiles', 'history', 'conditions']));
      dispatch(said('The profile is written.'));
      onEnd();
    } else if (job?.state === 'cancelled') onEnd();
    // The handler is made anew at each rendering; only the job's news matters.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job]);
  if (job?.state === 'failed')
    return (
      <div className="mt-2 flex items-start gap-3">
        <ErrorNote error={job.error} />
        <QuietButton onClick={onEnd}>Put away</QuietButton>
      </div>
    );
  return (
    <div className="mt-2 flex items-center gap-3">
      <progress max={1} value={job?.progress ?? 0} aria-label="Writing the profile" className="h-2 w-52 accent-ink" />
      <span className="text-quiet">
        {job?.state === 'reading' ? `${Math.round(job.progress * 100)} %` : 'learning from the readings'}
      </span>
      <QuietButton onClick={() => void stop(id)}>Stop</QuietButton>
    </div>
  );
}
