import { useForm } from 'react-hook-form';
import type { ClientInput, ClientView } from '@rakuen/contract/clients';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useAddClientMutation, useChangeClientMutation } from './client-api.ts';

/** @param client to be changed; a new one where absent */
export function ClientDialog({ client, onClose }: { client?: ClientView; onClose: (id?: string) => void }) {
  const [add, adding] = useAddClientMutation();
  const [change, changing] = useChangeClientMutation();
  const { register, handleSubmit, formState } = useForm<ClientInput>({
    defaultValues: {
      name: client?.name ?? '',
      contact: client?.contact ?? '',
      wishes: client?.wishes ?? '',
      notes: client?.notes ?? '',
    },
  });
  const submit = handleSubmit((input) =>
    (client ? change({ id: client.id, revision: client.revision, input }) : add(input))
      .unwrap()
      .then((kept) => onClose(kept.id))
      .catch(() => undefined),
  );
  return (
    <Dialog open onClose={() => onClose()} title={client ? 'Change client' : 'New client'}>
      <form onSubmit={(e) => void submit(e)} className="space-y-3" noValidate>
        <TextField
          label="Name"
          autoFocus
          needed
          maxLength={160}
          error={formState.errors.name?.message}
          {...register('name', { validate: (v) => v.trim() !== '' || 'Enter a name' })}
        />
        <AreaField label="Contact" unit="address, telephone, e-mail" maxLength={1000} {...register('contact')} />
        <AreaField
          label="Wishes"
          unit="what they like, and what they do not"
          maxLength={2000}
          {...register('wishes')}
        />
        <AreaField label="Notes" maxLength={2000} {...register('notes')} />
        <ErrorNote error={adding.error ?? changing.error} />
        <div className="flex gap-2">
          <Button main type="submit" disabled={adding.isLoading || changing.isLoading}>
            Save the client
          </Button>
          <QuietButton onClick={() => onClose()}>Cancel</QuietButton>
        </div>
      </form>
    </Dialog>
  );
}
