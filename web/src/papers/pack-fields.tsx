import { useFieldArray, useWatch, type UseFormReturn } from 'react-hook-form';
import type { ChartView } from '@rakuen/contract/charts';
import type { PackInput } from '@rakuen/contract/packs';
import type { PictureView } from '@rakuen/contract/pictures';
import { QuietButton } from '../parts/button.tsx';
import { aboveNought } from '../parts/decimal.ts';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';

const SIZES = { A4: [210, 297], A3: [297, 420], letter: [215.9, 279.4], other: undefined } as const;

/** A pack as it is being asked for. */
export interface PackWish extends Omit<PackInput, 'types' | 'chartId'> {
  chartId: string;
  size: keyof typeof SIZES;
  sheets: number;
}
type Form = UseFormReturn<PackWish>;

/** The sheet that is asked for. */
export function sheetOf({ size, widthMm, heightMm }: PackWish): { widthMm: number; heightMm: number } {
  const [width, height] = SIZES[size] ?? [Number(widthMm), Number(heightMm)];
  return { widthMm: width, heightMm: height };
}

/** Name, sheets of each type, and their size. */
export function PackSizes({ form: { register, control, formState } }: { form: Form }) {
  const size = useWatch({ control, name: 'size' });
  return (
    <div className="grid grid-cols-2 gap-4">
      <TextField
        label="Name"
        maxLength={80}
        error={formState.errors.name?.message}
        {...register('name', { validate: (v) => v.trim() !== '' || 'This is needed' })}
      />
      <TextField
        label="Sheets of each type"
        inputMode="numeric"
        error={formState.errors.sheets?.message}
        {...register('sheets', aboveNought)}
      />
      <ChoiceField
        label="Sheet"
        options={[
          ['A4', 'A4'],
          ['A3', 'A3'],
          ['letter', 'Letter'],
          ['other', 'another size'],
        ]}
        {...register('size')}
      />
      <TextField
        label="Unprintable margin"
        unit="mm, every edge"
        inputMode="decimal"
        error={formState.errors.marginMm?.message}
        {...register('marginMm', {
          validate: (v) => (String(v).trim() !== '' && Number(v) >= 0 && Number(v) <= 100) || 'Enter 0 to 100 mm',
        })}
      />
      {size === 'other' && (
        <div className="grid grid-cols-2 gap-3">
          <TextField
            label="Width"
            unit="mm"
            error={formState.errors.widthMm?.message}
            {...register('widthMm', aboveNought)}
          />
          <TextField
            label="Length"
            unit="mm"
            error={formState.errors.heightMm?.message}
            {...register('heightMm', aboveNought)}
          />
        </div>
      )}
    </div>
  );
}

/** Chart, test page and crops of pictures. */
export function OnEveryType({ form, charts, pictures }: { form: Form; charts: ChartView[]; pictures: PictureView[] }) {
  const { register, control } = form;
  const crops = useFieldArray({ control, name: 'crops' });
  return (
    <fieldset className="space-y-3">
      <legend className="font-serif text-[1.05rem]">On every type</legend>
      <ChoiceField
        label="Chart"
        options={[
          ['', 'none'],
          ...charts.map((c) => [c.id, `${c.name}, ${c.pageCount} ${c.pageCount === 1 ? 'sheet' : 'sheets'}`] as const),
        ]}
        {...register('chartId')}
      />
      <TickField label="The test page" {...register('testPage')} />
      {crops.fields.map((f, i) => (
        <Crop key={f.id} form={form} pictures={pictures} i={i} onRemove={() => crops.remove(i)} />
      ))}
      {pictures.length > 0 && (
        <QuietButton onClick={() => crops.append({ pictureId: pictures[0].id, widthMm: 100, heightMm: 140 })}>
          Another crop
        </QuietButton>
      )}
    </fieldset>
  );
}

function Crop({
  form: { register, formState },
  pictures,
  i,
  onRemove,
}: {
  form: Form;
  pictures: PictureView[];
  i: number;
  onRemove: () => void;
}) {
  const errors = formState.errors.crops?.[i];
  return (
    <div className="grid grid-cols-[1.6fr_0.7fr_0.7fr_auto] items-start gap-3 [&>button]:mt-6">
      <ChoiceField
        label="Crop of"
        options={pictures.map((p) => [p.id, p.title] as const)}
        {...register(`crops.${i}.pictureId`)}
      />
      <TextField
        label="Width"
        unit="mm"
        error={errors?.widthMm?.message}
        {...register(`crops.${i}.widthMm`, aboveNought)}
      />
      <TextField
        label="Length"
        unit="mm"
        error={errors?.heightMm?.message}
        {...register(`crops.${i}.heightMm`, aboveNought)}
      />
      <QuietButton aria-label={`Remove crop ${i + 1}`} onClick={onRemove}>
        Remove
      </QuietButton>
    </div>
  );
}
