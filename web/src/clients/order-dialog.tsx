import { useFieldArray, useForm, type UseFormReturn } from 'react-hook-form';
import type { OrderInput, OrderView } from '@rakuen/contract/clients';
import type { PictureView } from '@rakuen/contract/pictures';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { decimal, typedNumber, typedNumberOrNone } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { AreaField, ChoiceField, TextField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useRatesQuery } from '../prints/print-api.ts';
import { useTable } from '../table/use-table.ts';
import { useAddOrderMutation, useChangeOrderMutation, useClientsQuery, usePlacesQuery } from './client-api.ts';

interface LineFields {
  /** Id of a line that is there; '' for a new one. */
  lineId: string;
  pictureId: string;
  conditionId: string;
  width: string;
  copies: string;
}
interface Fields {
  clientId: string;
  placeId: string;
  name: string;
  dueOn: string;
  price: string;
  currency: string;
  notes: string;
  lines: LineFields[];
}

/** @param order to be changed; a new one where absent */
export function OrderDialog({ order, onClose }: { order?: OrderView; onClose: () => void }) {
  const [add, adding] = useAddOrderMutation();
  const [change, changing] = useChangeOrderMutation();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: rates } = useRatesQuery();
  const table = useTable();
  const begins = order?.lines.map(lineFields) ?? table.laidPictures.map((p) => newLine(p));
  const form = useForm<Fields>({ defaultValues: fieldsOf(order, begins, rates?.currency ?? 'EUR') });
  const submit = form.handleSubmit((fields) => {
    const input = inputOf(fields, order, pictures);
    return (order ? change({ id: order.id, revision: order.revision, input }) : add(input))
      .unwrap()
      .then(onClose)
      .catch(() => undefined);
  });
  return (
    <Dialog open wide onClose={onClose} title={order ? 'Change order' : 'New order'}>
      <form onSubmit={(e) => void submit(e)} className="grid grid-cols-4 gap-x-4 gap-y-3" noValidate>
        <Head form={form} />
        <Lines form={form} pictures={pictures} />
        <AreaField label="Notes" className="col-span-4" maxLength={2000} {...form.register('notes')} />
        <div className="col-span-4">
          <ErrorNote error={adding.error ?? changing.error} />
        </div>
        <div className="col-span-4 flex gap-2">
          <Button main type="submit" disabled={adding.isLoading || changing.isLoading}>
            Save the order
          </Button>
          <QuietButton onClick={onClose}>Cancel</QuietButton>
        </div>
      </form>
    </Dialog>
  );
}

/** Who wants it, what it is called, by when, at what price. */
function Head({ form: { register, watch, formState } }: { form: UseFormReturn<Fields> }) {
  const { data: clients = [] } = useClientsQuery();
  const { data: places = [] } = usePlacesQuery();
  const clientId = watch('clientId');
  const theirs = places.filter((p) => !p.clientId || p.clientId === clientId);
  return (
    <>
      <ChoiceField
        label="Client"
        className="col-span-2"
        error={formState.errors.clientId?.message}
        options={[['', 'choose'], ...clients.map((c) => [c.id, c.name] as const)]}
        {...register('clientId', { validate: (v) => v !== '' || 'Choose a client' })}
      />
      <ChoiceField
        label="Where it will hang"
        className="col-span-2"
        options={[['', 'not set'], ...theirs.map((p) => [p.id, p.name] as const)]}
        {...register('placeId')}
      />
      <TextField
        label="Order"
        unit="as you call it"
        className="col-span-2"
        needed
        maxLength={160}
        error={formState.errors.name?.message}
        {...register('name', { validate: (v) => v.trim() !== '' || 'Enter a name' })}
      />
      <TextField label="Due on" type="date" className="col-span-2" {...register('dueOn')} />
      <TextField
        label="Price asked"
        unit="for all of it"
        className="col-span-2"
        inputMode="decimal"
        error={formState.errors.price?.message}
        {...register('price', typedNumberOrNone)}
      />
      <TextField label="Currency" maxLength={3} {...register('currency')} />
    </>
  );
}

function Lines({
  form: { register, control, formState },
  pictures,
}: {
  form: UseFormReturn<Fields>;
  pictures: readonly PictureView[];
}) {
  const { data: conditions = [] } = useConditionsQuery();
  const lines = useFieldArray({ control, name: 'lines' });
  const errors = formState.errors.lines;
  return (
    <fieldset className="col-span-4">
      <legend className="mb-1 font-semibold">Prints</legend>
      <ul className="space-y-2">
        {lines.fields.map((line, i) => (
          <li
            key={line.id}
            className="grid grid-cols-[2fr_1fr_0.7fr_2fr_auto] items-end gap-x-3 max-[700px]:grid-cols-2"
          >
            <ChoiceField
              label="Picture"
              options={pictures.map((p) => [p.id, p.title] as const)}
              {...register(`lines.${i}.pictureId`)}
            />
            <TextField
              label="Width"
              unit="mm"
              inputMode="decimal"
              error={errors?.[i]?.width?.message}
              {...register(`lines.${i}.width`, typedNumber)}
            />
            <TextField
              label="Copies"
              inputMode="numeric"
              error={errors?.[i]?.copies?.message}
              {...register(`lines.${i}.copies`, typedNumber)}
            />
            <ChoiceField
              label="Paper"
              options={[
                ['', 'not chosen'],
                ...conditions.map((c) => [c.id, `${c.paper.name}, ${conditionLine(c)}`] as const),
              ]}
              {...register(`lines.${i}.conditionId`)}
            />
            <QuietButton aria-label={`Remove line ${i + 1}`} onClick={() => lines.remove(i)}>
              Remove
            </QuietButton>
          </li>
        ))}
      </ul>
      {pictures.length > 0 ? (
        <Button className="mt-2" onClick={() => lines.append(newLine(pictures[0]))}>
          Add picture
        </Button>
      ) : (
        <p className="text-[13px] text-quiet">Import a picture first, under Pictures.</p>
      )}
    </fieldset>
  );
}

const ratioOf = (p: Pick<PictureView, 'widthPx' | 'heightPx'>) => p.heightPx / p.widthPx;
const tenth = (mm: number) => Math.round(mm * 10) / 10;

const newLine = (p: PictureView): LineFields => {
  const long = p.commission.longSideMm;
  return {
    lineId: '',
    pictureId: p.id,
    conditionId: '',
    width: String(tenth(ratioOf(p) <= 1 ? long : long / ratioOf(p))),
    copies: String(p.commission.copies),
  };
};

const lineFields = (l: OrderView['lines'][number]): LineFields => ({
  lineId: l.id,
  pictureId: l.pictureId,
  conditionId: l.conditionId ?? '',
  width: String(l.widthMm),
  copies: String(l.copies),
});

const fieldsOf = (order: OrderView | undefined, lines: LineFields[], currency: string): Fields => ({
  clientId: order?.clientId ?? '',
  placeId: order?.placeId ?? '',
  name: order?.name ?? '',
  dueOn: order?.dueOn ?? '',
  price: order?.price === undefined ? '' : String(order.price),
  currency: order?.currency ?? currency,
  notes: order?.notes ?? '',
  lines,
});

function inputOf(f: Fields, order: OrderView | undefined, pictures: readonly PictureView[]): OrderInput {
  return {
    clientId: f.clientId,
    name: f.name,
    notes: f.notes,
    ...(f.placeId && { placeId: f.placeId }),
    ...(f.dueOn && { dueOn: f.dueOn }),
    ...(f.price.trim() && { price: decimal(f.price), currency: f.currency.trim().toUpperCase() }),
    lines: f.lines.map(({ lineId, pictureId, conditionId, width, copies }) => {
      const widthMm = decimal(width);
      const stands = order?.lines.find((l) => l.id === lineId);
      const picture = pictures.find((p) => p.id === pictureId);
      // A height that does not follow from the picture stays while the width and the picture do.
      const stays = stands?.pictureId === pictureId && stands.widthMm === widthMm;
      return {
        ...(lineId && { id: lineId }),
        pictureId,
        ...(conditionId && { conditionId }),
        widthMm,
        heightMm: stays ? stands.heightMm : tenth(widthMm * (picture ? ratioOf(picture) : 1)),
        copies: Math.round(decimal(copies)),
      };
    }),
  };
}
