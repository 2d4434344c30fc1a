import { useForm } from 'react-hook-form';
import type { ShowInput } from '@rakuen/contract/shows';
import type { ApiError } from '@rakuen/contract/settings';
import { LightThere } from '../clients/light-there.tsx';
import { PlaceChoice } from '../clients/place-choice.tsx';
import { Button, QuietButton } from '../parts/button.tsx';
import { decimal, typedNumberOrNone } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';

interface Fields {
  name: string;
  place: string;
  light: string;
  glass: string;
  lux: string;
}

/** Name of a show, and where it hangs. */
export function ShowDialog({
  show,
  title,
  save,
  error,
  onSave,
  onClose,
}: {
  show: ShowInput;
  title: string;
  /** Words of the button. */
  save: string;
  error?: Partial<ApiError>;
  onSave: (what: Pick<ShowInput, 'name' | 'place' | 'light' | 'glass' | 'lux'>) => void;
  onClose: () => void;
}) {
  const { register, handleSubmit, setValue, formState } = useForm<Fields>({
    defaultValues: {
      name: show.name,
      place: show.place,
      light: show.light ?? '',
      glass: show.glass ?? '',
      lux: show.lux === undefined ? '' : String(show.lux),
    },
  });
  const submit = handleSubmit(({ name, place, light, glass, lux }) =>
    onSave({
      name: name.trim(),
      place: place.trim(),
      light: light || undefined,
      glass: glass || undefined,
      lux: lux.trim() ? decimal(lux) : undefined,
    }),
  );
  return (
    <Dialog open onClose={onClose} title={title}>
      <form onSubmit={(e) => void submit(e)} className="grid grid-cols-2 gap-x-4 gap-y-3" noValidate>
        <TextField
          label="Name"
          className="col-span-2"
          autoFocus
          needed
          maxLength={120}
          error={formState.errors.name?.message}
          {...register('name', { validate: (v) => v.trim() !== '' || 'Enter a name' })}
        />
        <TextField label="Where it hangs" className="col-span-2" maxLength={200} {...register('place')} />
        <PlaceChoice
          className="col-span-2"
          onChoose={(place, client) => {
            setValue('place', [client?.name, place.name].filter(Boolean).join(', '));
            setValue('light', place.light ?? '');
            setValue('glass', place.glass ?? '');
            setValue('lux', place.lux === undefined ? '' : String(place.lux));
          }}
        />
        <LightThere
          light={register('light')}
          glass={register('glass')}
          lux={register('lux', typedNumberOrNone)}
          luxError={formState.errors.lux?.message}
          unset="as each picture says"
        />
        <div className="col-span-2">
          <ErrorNote error={error} />
        </div>
        <div className="col-span-2 flex gap-2">
          <Button main type="submit">
            {save}
          </Button>
          <QuietButton onClick={onClose}>Cancel</QuietButton>
        </div>
      </form>
    </Dialog>
  );
}
