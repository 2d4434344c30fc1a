import { Fragment, useState } from 'react';
import type { PaperSize, PaperView } from '@rakuen/contract/papers';
import type { BoxInput, BoxView } from '@rakuen/contract/stock';
import { usePapersQuery } from '../api/api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useAddBoxMutation, useChangeBoxMutation, useCountBoxMutation } from './print-api.ts';

/** Adds a box or a roll, with what its paper is sold in as a start. */
export function AddBox({ onClose }: { onClose: () => void }) {
  const { data: papers = [] } = usePapersQuery();
  const [add, adding] = useAddBoxMutation();
  const [paperId, setPaper] = useState(papers[0]?.id ?? '');
  const paper = papers.find((p) => p.id === paperId) ?? papers[0];
  const [label, setLabel] = useState('');
  const size = paper?.sizes.find((s) => s.label === label) ?? paper?.sizes[0];
  if (!paper) return null;
  return (
    <form
      aria-label="A box or a roll"
      className="mt-2 border border-edge bg-field px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        const input = boxOf(new FormData(e.currentTarget), paper.id, paper.currency, size?.label);
        void add(input)
          .unwrap()
          .then(onClose)
          .catch(() => undefined);
      }}
    >
      <div className="grid grid-cols-3 gap-x-3 gap-y-2">
        <ChoiceField
          label="Paper"
          value={paper.id}
          onChange={(e) => setPaper(e.target.value)}
          options={papers.map((p) => [p.id, p.name] as const)}
        />
        <ChoiceField
          label="Size"
          value={size?.label ?? ''}
          onChange={(e) => setLabel(e.target.value)}
          options={paper.sizes.map((s) => [s.label, s.label] as const)}
        />
        <BoxFields key={size?.label} start={startOf(size)} currency={paper.currency} />
      </div>
      <ErrorNote error={adding.error} />
      <div className="mt-2 flex gap-3">
        <Button type="submit" disabled={adding.isLoading}>
          Add to stock
        </Button>
        <QuietButton onClick={onClose}>Cancel</QuietButton>
      </div>
    </form>
  );
}

/** Corrects what was entered of a box or a roll. */
export function ChangeBox({ box, paper, onClose }: { box: BoxView; paper: PaperView; onClose: () => void }) {
  const [change, changing] = useChangeBoxMutation();
  const theirs = theirsOf<BoxView>(changing.error);
  const asked = changing.originalArgs;
  const send = (revision: number, input: BoxInput) =>
    void change({ id: box.id, revision, box: input })
      .unwrap()
      .then(onClose)
      .catch(() => undefined);
  return (
    <form
      aria-label={`Change ${box.label}`}
      className="col-span-full mt-1 border border-edge bg-field px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const label = String(form.get('label') ?? '').trim();
        send(box.revision, { ...boxOf(form, paper.id, box.currency, label), note: box.note });
      }}
    >
      <div className="grid grid-cols-3 gap-x-3 gap-y-2">
        <TextField label="Label" name="label" required maxLength={60} defaultValue={box.label} />
        <BoxFields start={box} currency={box.currency} />
      </div>
      {theirs && asked ? (
        <Conflict
          mine={asked.box}
          theirs={theirs}
          onMine={() => send(theirs.revision, asked.box)}
          onTheirs={changing.reset}
        />
      ) : (
        <ErrorNote error={changing.error} />
      )}
      <div className="mt-2 flex gap-3">
        <Button type="submit" disabled={changing.isLoading}>
          Save the box
        </Button>
        <QuietButton onClick={onClose}>Cancel</QuietButton>
      </div>
    </form>
  );
}

/** Keeps what was counted in a box, or measured on a roll. */
export function CountBox({ box, onClose }: { box: BoxView; onClose: () => void }) {
  const [count, counting] = useCountBoxMutation();
  const roll = box.kind === 'roll';
  return (
    <form
      aria-label={`Count ${box.label}`}
      className="col-span-full mt-1 flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        const left = decimal(String(new FormData(e.currentTarget).get('left'))) * (roll ? 1000 : 1);
        void count({ id: box.id, revision: box.revision, left })
          .unwrap()
          .then(onClose)
          .catch(() => undefined);
      }}
    >
      <TextField
        label={roll ? 'Left on the roll' : 'Sheets in the box'}
        unit={roll ? 'm' : undefined}
        name="left"
        {...NUMBER_TYPED}
        required
        autoFocus
        className="w-40"
        defaultValue={Math.max(0, roll ? box.left / 1000 : box.left)}
      />
      <Button type="submit" disabled={counting.isLoading}>
        Save the count
      </Button>
      <QuietButton onClick={onClose}>Cancel</QuietButton>
      <ErrorNote error={counting.error} />
    </form>
  );
}

function boxOf(form: FormData, paperId: string, currency: string, label?: string): BoxInput {
  const text = (key: string) => String(form.get(key) ?? '').trim();
  const number = (key: string) => decimal(text(key));
  return {
    paperId,
    kind: text('kind') as 'sheet' | 'roll',
    label: label || `${text('width')} × ${text('height')} mm`,
    widthMm: number('width'),
    heightMm: number('height'),
    sheets: text('kind') === 'roll' ? 1 : Math.round(number('sheets')),
    batch: text('batch'),
    boughtOn: text('boughtOn'),
    ...(text('price') && { price: number('price') }),
    currency,
  };
}

type Start = Partial<Pick<BoxView, 'kind' | 'widthMm' | 'heightMm' | 'sheets' | 'price' | 'boughtOn' | 'batch'>>;

/** A size as it is sold, longer than any sheet: a roll. */
const ROLL_FROM_MM = 3000;
const startOf = (size?: PaperSize): Start =>
  size
    ? {
        kind: size.sheets === 1 && size.heightMm > ROLL_FROM_MM ? 'roll' : 'sheet',
        widthMm: size.widthMm,
        heightMm: size.heightMm,
        sheets: size.sheets,
        price: size.packPrice,
      }
    : {};

function BoxFields({ start, currency }: { start: Start; currency: string }) {
  return (
    <Fragment>
      <ChoiceField
        label="Type"
        name="kind"
        defaultValue={start.kind ?? 'sheet'}
        options={[
          ['sheet', 'box of sheets'],
          ['roll', 'roll'],
        ]}
      />
      <TextField label="Width" unit="mm" name="width" {...NUMBER_TYPED} required defaultValue={start.widthMm} />
      <TextField
        label="Height or length"
        unit="mm"
        name="height"
        {...NUMBER_TYPED}
        required
        defaultValue={start.heightMm}
      />
      <TextField label="Sheets" name="sheets" {...NUMBER_TYPED} required defaultValue={start.sheets ?? 25} />
      <TextField label="Price" unit={currency} name="price" {...NUMBER_TYPED} defaultValue={start.price} />
      <TextField
        label="Bought on"
        name="boughtOn"
        type="date"
        required
        defaultValue={start.boughtOn ?? new Date().toLocaleDateString('sv')}
      />
      <TextField
        label="Formulation"
        unit="as printed on the box"
        name="batch"
        maxLength={120}
        defaultValue={start.batch}
      />
    </Fragment>
  );
}
