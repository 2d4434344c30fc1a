import { skipToken } from '@reduxjs/toolkit/query/react';
import { useState } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import { useNavigate } from 'react-router';
import type { ConditionHead, ConditionInput, ConditionView } from '@rakuen/contract/conditions';
import type { PaperHead } from '@rakuen/contract/papers';
import { BLACK_INKS, PRINT_MODES } from '@rakuen/contract/vocabulary';
import { isMatt } from '@rakuen/core/paper';
import {
  useAddConditionMutation,
  useChangeConditionMutation,
  useConditionQuery,
  useConditionsQuery,
  useRemoveConditionMutation,
} from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { Button } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { REQUIRED } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, named, TextField, TickField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';

interface Props {
  paper: Pick<PaperHead, 'id' | 'name' | 'coating'>;
  condition?: ConditionView;
  onClose: () => void;
}

/** How a paper is printed. Begins with what was used last, and says so. */
export function ConditionDialog({ condition, ...props }: Omit<Props, 'condition'> & { condition?: ConditionHead }) {
  const { data, error } = useConditionQuery(condition?.id ?? skipToken);
  if (error)
    return (
      <Dialog open title="Change the print condition" onClose={props.onClose}>
        <ErrorNote error={error} />
      </Dialog>
    );
  if (condition && !data) return null;
  return <ConditionForm condition={data} {...props} />;
}

function ConditionForm({ paper, condition, onClose }: Props) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const { data: all = [] } = useConditionsQuery();
  const [add, adding] = useAddConditionMutation();
  const [change, changing] = useChangeConditionMutation();
  const [remove, removing] = useRemoveConditionMutation();
  const last = all[all.length - 1];
  const [revision, setRevision] = useState(condition?.revision ?? 0);
  const theirs = theirsOf<ConditionView>(changing.error);
  const form = useForm<ConditionInput>({
    defaultValues: condition ? inputOf(condition) : beginning(paper, last),
  });
  const keep = (from: number) =>
    form.handleSubmit(async (values) => {
      if (condition) {
        await change({ id: condition.id, revision: from, condition: values }).unwrap();
        dispatch(said('Print condition changed.'));
        onClose();
      } else {
        const made = await add(values).unwrap();
        onClose();
        void navigate(`/readings/${made.id}`);
      }
    });

  return (
    <Dialog
      wide
      open
      onClose={onClose}
      title={condition ? `Change how ${paper.name} is printed` : `How is ${paper.name} printed?`}
      description={
        !condition && last
          ? `Printer, inks and resolution are carried over from ${last.paper.name}: look at them.`
          : undefined
      }
    >
      <form onSubmit={(e) => void keep(revision)(e).catch(() => undefined)} className="space-y-4" noValidate>
        <ConditionFields form={form} all={all} />
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
            {condition ? 'Keep the change' : 'Add and bring its readings'}
          </Button>
          <Button onClick={onClose}>Leave it</Button>
          {condition && (
            <BinButton
              framed
              className="ml-auto"
              words="Remove this print condition"
              sureWords="Remove with its readings"
              onBin={() => remove(condition.id).unwrap().then(onClose)}
            />
          )}
        </div>
      </form>
    </Dialog>
  );
}

/** As one begins: with what was used last. */
const beginning = (paper: Props['paper'], last?: ConditionHead): ConditionInput => ({
  paperId: paper.id,
  printer: last?.printer ?? '',
  inkSet: last?.inkSet ?? '',
  blackInk: paper.coating && isMatt(paper.coating) ? 'matt black' : 'photo black',
  mediaSetting: '',
  resolution: last?.resolution ?? '',
  printMode: 'colour through a profile',
  profile: '',
  blackOvercoat: false,
  notes: '',
});

const KNOWN = [
  ['known-printers', 'printer'],
  ['known-inks', 'inkSet'],
  ['known-media', 'mediaSetting'],
  ['known-resolutions', 'resolution'],
] as const;

/** Printer, inks and settings; what was written elsewhere is offered. */
function ConditionFields({ form, all }: { form: UseFormReturn<ConditionInput>; all: readonly ConditionHead[] }) {
  const { register } = form;
  const { errors } = form.formState;
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        <TextField
          needed
          label="Printer"
          list="known-printers"
          error={errors.printer?.message}
          {...register('printer', REQUIRED)}
        />
        <TextField
          needed
          label="Ink set"
          list="known-inks"
          error={errors.inkSet?.message}
          {...register('inkSet', REQUIRED)}
        />
        <ChoiceField label="Black ink" options={named(BLACK_INKS)} {...register('blackInk')} />
        <TextField
          needed
          label="Media setting"
          list="known-media"
          error={errors.mediaSetting?.message}
          {...register('mediaSetting', REQUIRED)}
        />
        <TextField
          label="Resolution (optional)"
          list="known-resolutions"
          error={errors.resolution?.message}
          {...register('resolution')}
        />
        <ChoiceField label="Print mode" options={named(PRINT_MODES)} {...register('printMode')} />
        <TextField label="Profile" {...register('profile')} />
        <TickField className="mt-5" label="Extra black overcoat" {...register('blackOvercoat')} />
      </div>
      {KNOWN.map(([id, key]) => (
        <datalist key={id} id={id}>
          {[...new Set(all.map((c) => c[key]))].map((v) => (
            <option key={v} value={v} />
          ))}
        </datalist>
      ))}
      <AreaField label="Notes" {...register('notes')} />
    </>
  );
}

function inputOf({
  paperId,
  printer,
  inkSet,
  blackInk,
  mediaSetting,
  resolution,
  printMode,
  profile,
  blackOvercoat,
  notes,
}: ConditionView): ConditionInput {
  return { paperId, printer, inkSet, blackInk, mediaSetting, resolution, printMode, profile, blackOvercoat, notes };
}
