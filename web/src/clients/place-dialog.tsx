import { useForm } from 'react-hook-form';
import type { PlaceInput, PlaceView } from '@rakuen/contract/clients';
import { Button, QuietButton } from '../parts/button.tsx';
import { decimal, typedNumberOrNone } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { LightThere } from './light-there.tsx';
import { useAddPlaceMutation, useChangePlaceMutation, useClientsQuery } from './client-api.ts';

type Fields = Record<'name' | 'address' | 'clientId' | 'light' | 'glass' | 'lux' | 'notes', string>;

/** @param place to be changed; a new one where absent */
export function PlaceDialog({
  place,
  clientId = '',
  onClose,
}: {
  place?: PlaceView;
  /** Whose a new one is. */
  clientId?: string;
  onClose: () => void;
}) {
  const [add, adding] = useAddPlaceMutation();
  const [change, changing] = useChangePlaceMutation();
  const { data: clients = [] } = useClientsQuery();
  const { register, handleSubmit, formState } = useForm<Fields>({
    defaultValues: {
      name: place?.name ?? '',
      address: place?.address ?? '',
      clientId: place?.clientId ?? clientId,
      light: place?.light ?? '',
      glass: place?.glass ?? '',
      lux: place?.lux === undefined ? '' : String(place.lux),
      notes: place?.notes ?? '',
    },
  });
  const submit = handleSubmit((fields) =>
    (place ? change({ id: place.id, revision: place.revision, input: inputOf(fields) }) : add(inputOf(fields)))
      .unwrap()
      .then(onClose)
      .catch(() => undefined),
  );
  return (
    <Dialog open onClose={onClose} title={place ? 'Change place' : 'New place'}>
      <form onSubmit={(e) => void submit(e)} className="grid grid-cols-2 gap-x-4 gap-y-3" noValidate>
        <TextField
          label="Name"
          autoFocus
          needed
          className="col-span-2"
          maxLength={160}
          error={formState.errors.name?.message}
          {...register('name', { validate: (v) => v.trim() !== '' || 'Enter a name' })}
        />
        <ChoiceField
          label="Client"
          className="col-span-2"
          options={[['', 'none'], ...clients.map((c) => [c.id, c.name] as const)]}
          {...register('clientId')}
        />
        <AreaField label="Address" className="col-span-2" maxLength={1000} {...register('address')} />
        <LightThere
          light={register('light')}
          glass={register('glass')}
          lux={register('lux', typedNumberOrNone)}
          luxError={formState.errors.lux?.message}
          unset="not set"
        />
        <AreaField label="Notes" className="col-span-2" maxLength={2000} {...register('notes')} />
        <div className="col-span-2">
          <ErrorNote error={adding.error ?? changing.error} />
        </div>
        <div className="col-span-2 flex gap-2">
          <Button main type="submit" disabled={adding.isLoading || changing.isLoading}>
            Save the place
          </Button>
          <QuietButton onClick={onClose}>Cancel</QuietButton>
        </div>
      </form>
    </Dialog>
  );
}

const inputOf = ({ name, address, clientId, light, glass, lux, notes }: Fields): PlaceInput => ({
  name,
  address,
  notes,
  ...(clientId && { clientId }),
  ...(light && { light }),
  ...(glass && { glass }),
  ...(lux.trim() && { lux: decimal(lux) }),
});
