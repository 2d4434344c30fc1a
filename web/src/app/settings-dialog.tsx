import { useForm, type UseFormRegister } from 'react-hook-form';
import type { Settings } from '@rakuen/contract/settings';
import { DEFAULT_THRESHOLDS as START } from '@rakuen/core/measurement/thresholds';
import { useChangeSettingsMutation, useSettingsQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { TextField } from '../parts/form.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { said, settingsShown, useAppDispatch, useAppSelector } from './store.ts';

const MEGA = 2 ** 20;

const SCALES = [
  ['deltaE', 'Colour', 'ΔE00', '0.1'],
  ['density', 'Density', 'D', '0.01'],
  ['percent', 'Gamut volume', '%', '1'],
] as const;

/** From when on a difference can be seen, and how large a file may be. */
export function SettingsDialog() {
  const open = useAppSelector((s) => s.view.settingsOpen);
  const dispatch = useAppDispatch();
  const { data } = useSettingsQuery();
  return (
    <Dialog title="Settings" open={open} onClose={() => dispatch(settingsShown(false))}>
      {data && <SettingsForm settings={data} onDone={() => dispatch(settingsShown(false))} />}
    </Dialog>
  );
}

interface Values {
  thresholds: Settings['thresholds'];
  readingMega: number;
  pictureMega: number;
  pictureMegapixels: number;
  address: string;
}

function SettingsForm({ settings, onDone }: { settings: Settings; onDone: () => void }) {
  const dispatch = useAppDispatch();
  const [change, { error, isLoading, originalArgs }] = useChangeSettingsMutation();
  const theirs = theirsOf<Settings & { revision: number }>(error);
  const { register, handleSubmit } = useForm<Values>({
    defaultValues: {
      thresholds: settings.thresholds,
      readingMega: settings.limits.readingBytes / MEGA,
      pictureMega: settings.limits.pictureBytes / MEGA,
      pictureMegapixels: settings.limits.picturePixels / 1e6,
      address: settings.address ?? '',
    },
  });
  const submit = handleSubmit(async (v) => {
    const { address: _, ...rest } = settings;
    const address = v.address.trim().replace(/\/+$/, '');
    await change({
      ...rest,
      ...(address && { address }),
      thresholds: v.thresholds,
      limits: {
        readingBytes: Math.round(v.readingMega * MEGA),
        pictureBytes: Math.round(v.pictureMega * MEGA),
        picturePixels: Math.round(v.pictureMegapixels * 1e6),
      },
    }).unwrap();
    dispatch(said('Settings kept.'));
    onDone();
  });
  return (
    <form onSubmit={(e) => void submit(e).catch(() => undefined)} className="space-y-5">
      <Seen register={register} />
      <LetIn register={register} />
      <Reached register={register} />
      {theirs && originalArgs ? (
        <Conflict
          mine={flat(originalArgs)}
          theirs={flat(theirs)}
          onMine={() =>
            void change({ ...originalArgs, revision: theirs.revision })
              .unwrap()
              .then(onDone, () => undefined)
          }
          onTheirs={onDone}
        />
      ) : (
        <ErrorNote error={error} />
      )}
      <Button main type="submit" disabled={isLoading}>
        Keep settings
      </Button>
    </form>
  );
}

const NUMBER = { valueAsNumber: true, required: true } as const;

/** From when on a difference is one. */
function Seen({ register }: { register: UseFormRegister<Values> }) {
  return (
    <fieldset>
      <legend className="font-serif text-[1.05rem]">From when on you see a difference</legend>
      <div className="mt-2 grid grid-cols-[1fr_1fr_1fr] items-end gap-x-4 gap-y-2">
        {SCALES.map(([key, name, unit, step]) => (
          <div key={key} className="contents">
            <span className="self-center pt-5">{name}</span>
            <TextField
              label="Edge to edge"
              unit={unit}
              type="number"
              step={step}
              min={0}
              {...register(`thresholds.${key}.edgeToEdge`, NUMBER)}
            />
            <TextField
              label="Across the room"
              unit={unit}
              type="number"
              step={step}
              min={0}
              {...register(`thresholds.${key}.acrossRoom`, NUMBER)}
            />
          </div>
        ))}
      </div>
      <p className="mt-2 text-quiet">
        As delivered: ΔE00 {START.deltaE.edgeToEdge} and {START.deltaE.acrossRoom}, {START.density.edgeToEdge} and{' '}
        {START.density.acrossRoom} D, {START.percent.edgeToEdge} % of gamut volume (practice);{' '}
        {START.percent.acrossRoom} % across the room is our own start.
      </p>
    </fieldset>
  );
}

/** Where other devices find this studio. */
function Reached({ register }: { register: UseFormRegister<Values> }) {
  return (
    <fieldset>
      <legend className="font-serif text-[1.05rem]">Codes on labels</legend>
      <TextField
        label="Address of this studio for other devices"
        unit="as http://192.168.1.20:4173"
        maxLength={200}
        {...register('address')}
      />
      <p className="mt-1 text-quiet">
        Empty: the address in this browser, {window.location.origin}. Every label also carries a short code that can be
        typed under Ledger.
      </p>
    </fieldset>
  );
}

/** How large a file may be. */
function LetIn({ register }: { register: UseFormRegister<Values> }) {
  return (
    <fieldset>
      <legend className="font-serif text-[1.05rem]">What is let in</legend>
      <div className="mt-2 grid grid-cols-3 gap-4">
        <TextField
          label="Readings up to"
          unit="MB"
          type="number"
          min={1}
          max={1000}
          {...register('readingMega', NUMBER)}
        />
        <TextField
          label="Pictures up to"
          unit="MB"
          type="number"
          min={1}
          max={4000}
          {...register('pictureMega', NUMBER)}
        />
        <TextField
          label="Pictures up to"
          unit="megapixels"
          type="number"
          min={1}
          max={2000}
          {...register('pictureMegapixels', NUMBER)}
        />
      </div>
    </fieldset>
  );
}

/** Settings as lines of one table. */
const flat = ({ thresholds, limits, backupsKept }: Settings): object => ({
  ...Object.fromEntries(
    SCALES.flatMap(([key, name]) => [
      [`${name}, edge to edge`, thresholds[key].edgeToEdge],
      [`${name}, across the room`, thresholds[key].acrossRoom],
    ]),
  ),
  ...limits,
  backupsKept,
});
