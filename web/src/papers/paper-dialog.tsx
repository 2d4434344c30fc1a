import { useState } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import type { PaperInput, PaperView } from '@rakuen/contract/papers';
import { BASES, BRIGHTENER_CLAIMS, COATING_CLASSES, SURFACES } from '@rakuen/core/paper';
import { useAddPaperMutation, useChangePaperMutation, useRemovePaperMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { asNumber, asNumberOrNone } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, named, TextField } from '../parts/form.tsx';
import { NOT_CLAIMED } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';

/** What is chosen where nothing is claimed. */
const OPEN = ['', NOT_CLAIMED] as const;
const CLASSES = Object.entries(COATING_CLASSES).map(([key, { name }]) => [key, name] as const);

/** Numbers not given yet; the form checks them before they are sent. */
const NOT_YET = undefined as unknown as number;

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
  const [sure, setSure] = useState(false);
  const [revision, setRevision] = useState(paper?.revision ?? 0);
  const theirs = theirsOf<PaperView>(changing.error);
  const { register, handleSubmit, control, formState, getValues, reset } = useForm<PaperInput>({
    defaultValues: paper ? inputOf(paper) : BLANK,
  });
  const sizes = useFieldArray({ control, name: 'sizes' });
  const { errors } = formState;
  const required = 'This is needed';
  const number = { ...asNumber, required, validate: (v: number) => v > 0 || 'A number above 0' } as const;
  const numberOrNone = {
    ...asNumberOrNone,
    validate: (v?: number) => v === undefined || v > 0 || 'A number above 0',
  } as const;
  const choiceOrNone = { setValueAs: (v?: string) => v || undefined } as const;

  const keep = (from: number) =>
    handleSubmit(async (values) => {
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
        <div className="grid grid-cols-2 gap-4">
          <TextField label="Maker" error={errors.maker?.message} {...register('maker', { required })} />
          <TextField label="Name" error={errors.name?.message} {...register('name', { required })} />
        </div>
        <div className="grid grid-cols-4 gap-4">
          <ChoiceField label="Coating" options={[OPEN, ...CLASSES]} {...register('coating', choiceOrNone)} />
          <ChoiceField label="Base" options={[OPEN, ...named(BASES)]} {...register('base', choiceOrNone)} />
          <ChoiceField label="Surface" options={[OPEN, ...named(SURFACES)]} {...register('surface', choiceOrNone)} />
          <ChoiceField
            label="Brightener, as claimed"
            options={named(BRIGHTENER_CLAIMS)}
            {...register('brightenerClaim')}
          />
          <TextField
            label="Weight"
            unit="g/m²"
            inputMode="decimal"
            error={errors.weightGsm?.message}
            {...register('weightGsm', numberOrNone)}
          />
          <TextField
            label="Thickness"
            unit="µm"
            inputMode="decimal"
            error={errors.thicknessUm?.message}
            {...register('thicknessUm', numberOrNone)}
          />
          <TextField
            label="Currency"
            maxLength={3}
            error={errors.currency?.message}
            {...register('currency', { required, pattern: { value: /^[A-Z]{3}$/, message: 'Three capitals' } })}
          />
        </div>
        <fieldset>
          <legend className="font-serif text-[1.05rem]">Sizes and prices</legend>
          {sizes.fields.map((field, i) => (
            <div
              key={field.id}
              className="mt-1 grid grid-cols-[1.4fr_1fr_1fr_1fr_1fr_auto] items-start gap-3 [&>button]:mt-6"
            >
              <TextField
                label="Size"
                error={errors.sizes?.[i]?.label?.message}
                {...register(`sizes.${i}.label`, { required })}
              />
              <TextField
                label="Width"
                unit="mm"
                inputMode="decimal"
                error={errors.sizes?.[i]?.widthMm?.message}
                {...register(`sizes.${i}.widthMm`, number)}
              />
              <TextField
                label="Length"
                unit="mm"
                inputMode="decimal"
                error={errors.sizes?.[i]?.heightMm?.message}
                {...register(`sizes.${i}.heightMm`, number)}
              />
              <TextField
                label="Sheets"
                inputMode="numeric"
                error={errors.sizes?.[i]?.sheets?.message}
                {...register(`sizes.${i}.sheets`, number)}
              />
              <TextField
                label="Pack price"
                inputMode="decimal"
                error={errors.sizes?.[i]?.packPrice?.message}
                {...register(`sizes.${i}.packPrice`, numberOrNone)}
              />
              <QuietButton onClick={() => sizes.remove(i)} aria-label={`Remove size ${i + 1}`}>
                Remove
              </QuietButton>
            </div>
          ))}
          <QuietButton
            className="mt-2"
            onClick={() => sizes.append({ label: '', widthMm: NOT_YET, heightMm: NOT_YET, sheets: 25 })}
          >
            {sizes.fields.length === 0 ? 'Add a size' : 'Another size'}
          </QuietButton>
        </fieldset>
        <AreaField label="Notes" {...register('notes')} />
        {theirs ? (
          <Conflict
            mine={getValues()}
            theirs={inputOf(theirs)}
            onMine={() => void keep(theirs.revision)().catch(() => undefined)}
            onTheirs={() => {
              reset(inputOf(theirs));
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
            <Button
              className="ml-auto"
              onClick={() =>
                sure
                  ? void remove(paper.id)
                      .unwrap()
                      .then(onClose, () => setSure(false))
                  : setSure(true)
              }
            >
              {sure ? 'Put in the bin' : 'Remove this paper'}
            </Button>
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
