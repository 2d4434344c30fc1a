import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import type { PaperInput } from '@rakuen/contract/papers';
import { BASES, BRIGHTENER_CLAIMS, COATING_CLASSES, SURFACES } from '@rakuen/core/paper';
import { QuietButton } from '../parts/button.tsx';
import { aboveNought, aboveNoughtOrNone, REQUIRED } from '../parts/decimal.ts';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { NOT_CLAIMED } from '../parts/label.ts';

type Form = UseFormReturn<PaperInput>;

/** What is chosen where nothing is claimed. */
const OPEN = ['', NOT_CLAIMED] as const;
const CLASSES = Object.entries(COATING_CLASSES).map(([key, { name }]) => [key, name] as const);
const choiceOrNone = { setValueAs: (v?: string) => v || undefined } as const;

/** Numbers not given yet; the form checks them before they are sent. */
const NOT_YET = undefined as unknown as number;

/** Whose paper it is, and what is claimed of it. */
export function PaperFields({ form: { register, formState } }: { form: Form }) {
  const { errors } = formState;
  return (
    <>
      <div className="grid grid-cols-2 gap-4">
        <TextField needed label="Maker" error={errors.maker?.message} {...register('maker', REQUIRED)} />
        <TextField needed label="Name" error={errors.name?.message} {...register('name', REQUIRED)} />
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
          {...register('weightGsm', aboveNoughtOrNone)}
        />
        <TextField
          label="Thickness"
          unit="µm"
          inputMode="decimal"
          error={errors.thicknessUm?.message}
          {...register('thicknessUm', aboveNoughtOrNone)}
        />
        <TextField
          needed
          label="Currency"
          maxLength={3}
          error={errors.currency?.message}
          {...register('currency', { ...REQUIRED, pattern: { value: /^[A-Z]{3}$/, message: 'Three capitals' } })}
        />
      </div>
    </>
  );
}

/** Sizes it is sold in, with their prices. */
export function PaperSizes({ form }: { form: Form }) {
  const sizes = useFieldArray({ control: form.control, name: 'sizes' });
  return (
    <fieldset>
      <legend className="font-serif text-[1.05rem]">Sizes and prices</legend>
      {sizes.fields.map((field, i) => (
        <Size key={field.id} form={form} i={i} onRemove={() => sizes.remove(i)} />
      ))}
      <QuietButton
        className="mt-2"
        onClick={() => sizes.append({ label: '', widthMm: NOT_YET, heightMm: NOT_YET, sheets: 25 })}
      >
        {sizes.fields.length === 0 ? 'Add a size' : 'Another size'}
      </QuietButton>
    </fieldset>
  );
}

function Size({ form: { register, formState }, i, onRemove }: { form: Form; i: number; onRemove: () => void }) {
  const errors = formState.errors.sizes?.[i];
  return (
    <div className="mt-1 grid grid-cols-[1.4fr_1fr_1fr_1fr_1fr_auto] items-start gap-3 [&>button]:mt-6">
      <TextField label="Size" error={errors?.label?.message} {...register(`sizes.${i}.label`, REQUIRED)} />
      <TextField
        label="Width"
        unit="mm"
        inputMode="decimal"
        error={errors?.widthMm?.message}
        {...register(`sizes.${i}.widthMm`, aboveNought)}
      />
      <TextField
        label="Length"
        unit="mm"
        inputMode="decimal"
        error={errors?.heightMm?.message}
        {...register(`sizes.${i}.heightMm`, aboveNought)}
      />
      <TextField
        label="Sheets"
        inputMode="numeric"
        error={errors?.sheets?.message}
        {...register(`sizes.${i}.sheets`, aboveNought)}
      />
      <TextField
        label="Pack price"
        inputMode="decimal"
        error={errors?.packPrice?.message}
        {...register(`sizes.${i}.packPrice`, aboveNoughtOrNone)}
      />
      <QuietButton onClick={onRemove} aria-label={`Remove size ${i + 1}`}>
        Remove
      </QuietButton>
    </div>
  );
}
