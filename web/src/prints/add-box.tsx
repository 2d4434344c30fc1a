import { useState } from 'react';
import { usePapersQuery } from '../api/api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useAddBoxMutation } from './print-api.ts';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { Fragment } from 'react';
import type { PaperSize, PaperView } from '@rakuen/contract/papers';
import type { BoxInput } from '@rakuen/contract/stock';

/** Enters a box or a roll, with what its paper is sold in as a start. */
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
        void add(boxOf(new FormData(e.currentTarget), paper, size))
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
        <BoxFields size={size} currency={paper.currency} />
      </div>
      <ErrorNote error={adding.error} />
      <div className="mt-2 flex gap-3">
        <Button type="submit" disabled={adding.isLoading}>
          Enter it
        </Button>
        <QuietButton onClick={onClose}>Leave it</QuietButton>
      </div>
    </form>
  );
}

function boxOf(form: FormData, paper: PaperView, size?: PaperSize): BoxInput {
  const text = (key: string) => String(form.get(key) ?? '').trim();
  const number = (key: string) => decimal(text(key));
  return {
    paperId: paper.id,
    kind: text('kind') as 'sheet' | 'roll',
    label: size?.label ?? `${text('width')} × ${text('height')} mm`,
    widthMm: number('width'),
    heightMm: number('height'),
    sheets: text('kind') === 'roll' ? 1 : Math.round(number('sheets')),
    batch: text('batch'),
    boughtOn: text('boughtOn'),
    ...(text('price') && { price: number('price') }),
    currency: paper.currency,
  };
}

/** Begun anew with each size. */
function BoxFields({ size, currency }: { size?: PaperSize; currency: string }) {
  return (
    <Fragment key={size?.label}>
      <ChoiceField
        label="It is"
        name="kind"
        defaultValue={size && size.sheets === 1 && size.heightMm > 3000 ? 'roll' : 'sheet'}
        options={[
          ['sheet', 'a box of sheets'],
          ['roll', 'a roll'],
        ]}
      />
      <TextField label="Width" unit="mm" name="width" {...NUMBER_TYPED} required defaultValue={size?.widthMm} />
      <TextField
        label="Height or length"
        unit="mm"
        name="height"
        {...NUMBER_TYPED}
        required
        defaultValue={size?.heightMm}
      />
      <TextField label="Sheets" name="sheets" {...NUMBER_TYPED} required defaultValue={size?.sheets ?? 25} />
      <TextField label="Price" unit={currency} name="price" {...NUMBER_TYPED} defaultValue={size?.packPrice} />
      <TextField
        label="Bought on"
        name="boughtOn"
        type="date"
        required
        defaultValue={new Date().toLocaleDateString('sv')}
      />
      <TextField label="The box says" unit="formulation" name="batch" maxLength={120} />
    </Fragment>
  );
}
