import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import { useAddPaperMutation, useChangePaperMutation, useRemovePaperMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { BinButton } from '../parts/bin-button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { PaperFields, PaperSizes } from './paper-fields.tsx';

const BLANK: PaperInput = {
  maker: '',
  name: '',
  brightenerClaim: 'not stated',
  sizes: [],
  currency: 'EUR',
  notes: '',
};

/** A paper as its maker sells it. */
export function PaperDialog({
  paper,
  onClose,
  onAdded,
}: {
  paper?: PaperView;
  onClose: () => void;
  onAdded: (paper: PaperView) => void;
}) {
  const dispatch = useAppDispatch();
  const [add, adding] = useAddPaperMutation();
  const [change, changing] = useChangePaperMutation();
  const [remove, removing] = useRemovePaperMutation();
  const [revision, setRevision] = useState(paper?.revision ?? 0);
  const theirs = theirsOf<PaperView>(changing.error);
  const form = useForm<PaperInput>({
    defaultValues: paper ? inputOf(paper) : BLANK,
  });
  const keep = (from: number) =>
    form.handleSubmit(async (values) => {
      if (paper) {
        await change({ id: paper.id, revision: from, paper: values }).unwrap();
        dispatch(said(`${values.name} changed.`));
        onClose();
      } else onAdded(await add(values).unwrap());
    });

  return (
    <Dialog
      wide
      open
      onClose={onClose}
      title={paper ? `Change ${paper.name}` : 'Add a paper'}
      description="As its maker sells it: everything here is claimed, and shown so. Maker and name are enough; what is left open is not claimed."
    >
      <form onSubmit={(e) => void keep(revision)(e).catch(() => undefined)} className="space-y-4" noValidate>
        <PaperFields form={form} />
        <PaperSizes form={form} />
        <AreaField label="Notes" {...form.register('notes')} />
        {theirs ? (
          <Conflict
            mine={form.getValues()}
            theirs={inputOf(theirs)}
            onMine={() => void keep(theirs.revision)().catch(() => undefined)}
            onTheirs={() => {
              form.reset(inputOf(theirs));
              setRevision(theirs.revision);
              changing.reset();
            }}
          />
        ) : (
          <ErrorNote error={adding.error ?? changing.error ?? removing.error} />
        )}
        <div className="flex items-center gap-3">
          <Button main type="submit" disabled={adding.isLoading || changing.isLoading}>
            {paper ? 'Keep the change' : 'Add and say how it prints'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
          {paper && (
            <BinButton
              framed
              className="ml-auto"
              words="Remove this paper"
              onBin={() => remove(paper.id).unwrap().then(onClose)}
            />
          )}
        </div>
      </form>
    </Dialog>
  );
}

function inputOf({
  maker,
  name,
  coating,
  base,
  surface,
  brightenerClaim,
  weightGsm,
  thicknessUm,
  sizes,
  currency,
  notes,
}: PaperView): PaperInput {
  return { maker, name, coating, base, surface, brightenerClaim, weightGsm, thicknessUm, sizes, currency, notes };
}
