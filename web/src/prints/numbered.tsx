import { dayOf } from '@rakuen/core/day';
import { useState } from 'react';
import { Link } from 'react-router';
import type { NumberView } from '@rakuen/contract/editions';
import { FATES, type Fate } from '@rakuen/core/print/edition';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button, QuietButton } from '../parts/button.tsx';
import { Download } from '../parts/download.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useFateMutation } from './print-api.ts';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';

/** A number that was given, and where its print is. */
export function Numbered({ number: n }: { number: NumberView }) {
  const [open, setOpen] = useState(false);
  return (
    <li className="border-b border-line py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="w-16 tabular-nums">{n.written}</b>
        <span className="flex-1">
          {whereabouts(n)}
          {n.note && <span className="text-quiet"> {n.note}</span>}
          {n.batch && <span className="text-[13px] text-quiet"> box {n.batch}</span>}
        </span>
        {n.printId && (
          <Link className="text-[13px] underline" to={`/prints/${n.printId}`}>
            the print
          </Link>
        )}
        <Download
          className="text-[13px] underline"
          href={`/api/numbers/${n.id}/certificate.pdf`}
          label={`Certificate of ${n.written}`}
        >
          certificate
        </Download>
        <QuietButton onClick={() => setOpen(!open)} aria-expanded={open} aria-label={`Where ${n.written} is`}>
          Where it is
        </QuietButton>
      </div>
      {open && <WhereForm number={n} onDone={() => setOpen(false)} />}
    </li>
  );
}

const whereabouts = (n: NumberView): string =>
  n.fate === 'here'
    ? 'here'
    : [
        n.fate,
        n.to && `to ${n.to}`,
        n.on && day(n.on),
        n.price !== undefined && `${formatNumber(n.price, 0)} ${n.currency}`,
      ]
        .filter(Boolean)
        .join(', ');

function WhereForm({ number: n, onDone }: { number: NumberView; onDone: () => void }) {
  const [set, setting] = useFateMutation();
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const text = (key: string) => String(form.get(key) ?? '').trim();
        void set({
          id: n.id,
          revision: n.revision,
          fate: {
            fate: text('fate') as Fate,
            ...(text('to') && { to: text('to') }),
            ...(text('on') && { on: text('on') }),
            ...(text('price') && { price: decimal(text('price')), currency: text('currency').toUpperCase() }),
            ...(text('note') && { note: text('note') }),
          },
        })
          .unwrap()
          .then(onDone)
          .catch(() => undefined);
      }}
    >
      <ChoiceField label="It is" name="fate" defaultValue={n.fate} options={named(FATES)} />
      <TextField label="To whom" name="to" defaultValue={n.to} maxLength={160} />
      <TextField label="On" name="on" type="date" defaultValue={n.on && dayOf(n.on)} />
      <TextField label="Price" name="price" {...NUMBER_TYPED} defaultValue={n.price} className="w-24" />
      <TextField label="Currency" name="currency" defaultValue={n.currency ?? 'EUR'} maxLength={3} className="w-20" />
      <TextField label="Note" name="note" defaultValue={n.note} maxLength={1000} />
      <Button type="submit" disabled={setting.isLoading}>
        Save
      </Button>
      <ErrorNote error={setting.error} />
    </form>
  );
}
