import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { EditionInput, EditionView, NumberView } from '@rakuen/contract/editions';
import { FATES, proofsOf, SERIES, type Fate } from '@rakuen/core/print/edition';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { NumberGiver } from './number-giver.tsx';
import {
  useAcceptBoxMutation,
  useEditionsQuery,
  useFateMutation,
  useFoundEditionMutation,
  usePrintsQuery,
  useRemoveEditionMutation,
} from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';
import { decimal } from '../parts/decimal.ts';

/** Editions: which numbers are given, and where each print is. */
export function EditionsScreen() {
  const { data: editions, error, isLoading } = useEditionsQuery();
  const [params] = useSearchParams();
  const [founding, setFounding] = useState(params.has('picture'));
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')}>
        <Button onClick={() => setFounding(true)}>Begin an edition</Button>
      </ScreenHead>
      <PrintPlaces />
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Fetching the editions" />}
      {founding && <Founding onClose={() => setFounding(false)} />}
      {editions?.length === 0 && !founding && (
        <Empty title="No edition yet" action={<Button onClick={() => setFounding(true)}>Begin an edition</Button>}>
          An edition keeps picture, sheet, size and number together: no number is given twice, and none is lost.
        </Empty>
      )}
      {editions?.map((e) => (
        <Edition key={e.id} edition={e} />
      ))}
    </>
  );
}

function Edition({ edition }: { edition: EditionView }) {
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const [remove, removing] = useRemoveEditionMutation();
  const [accepting, setAccepting] = useState(false);
  const condition = conditions.find((c) => c.id === edition.conditionId);
  const given = edition.numbers.filter((n) => n.series === 'edition').length;
  return (
    <section aria-label={edition.name} className="mb-7 border-t border-edge pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="break-words">
          {pictures.find((p) => p.id === edition.pictureId)?.title}
          <span className="font-sans text-[1rem]"> {edition.name}</span>
        </h2>
        <p>
          {edition.size === undefined ? `open, ${given} given` : `${given} of ${edition.size} given`}
          {edition.artist > 0 && `, ${edition.artist} artist’s proof${edition.artist > 1 ? 's' : ''}`}
        </p>
      </div>
      <p className="text-[13px]">
        {condition?.paper.name}, {condition && conditionLine(condition)} · {formatNumber(edition.widthMm, 0)} ×{' '}
        {formatNumber(edition.heightMm, 0)} mm · {edition.batch || 'first box'}
        {edition.locked && ' · locked by its first number'}
      </p>
      {edition.accepted.map((a) => (
        <p key={`${a.batch} ${a.by}`} className="text-[13px]">
          Box “{a.batch}” accepted by {a.by}
          {a.meanDeltaE !== undefined && `, ${formatNumber(a.meanDeltaE, 1)} ΔE00 from the first`}: {a.why}
        </p>
      ))}
      <ul aria-label={`Numbers of ${edition.name}`} className="my-2">
        {edition.numbers.map((n) => (
          <Numbered key={n.id} number={n} />
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-4">
        <NumberGiver editions={[edition]} />
        <QuietButton onClick={() => setAccepting(!accepting)}>A print from another box</QuietButton>
        {!edition.locked && (
          <QuietButton disabled={removing.isLoading} onClick={() => void remove(edition.id)}>
            Remove the edition
          </QuietButton>
        )}
      </div>
      <ErrorNote error={removing.error} />
      {accepting && <AcceptBox edition={edition} onClose={() => setAccepting(false)} />}
    </section>
  );
}

function Numbered({ number: n }: { number: NumberView }) {
  const [open, setOpen] = useState(false);
  const [set, setting] = useFateMutation();
  const where =
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
  return (
    <li className="border-b border-line py-1.5">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <b className="w-16 tabular-nums">{n.written}</b>
        <span className="flex-1">
          {where}
          {n.note && <span className="text-quiet"> {n.note}</span>}
          {n.batch && <span className="text-[13px] text-quiet"> box {n.batch}</span>}
        </span>
        {n.printId && (
          <Link className="text-[13px] underline" to={`/prints/${n.printId}`}>
            the print
          </Link>
        )}
        <a
          className="text-[13px] underline"
          href={`/api/numbers/${n.id}/certificate.pdf`}
          target="_blank"
          rel="noreferrer"
          aria-label={`Certificate of ${n.written}`}
        >
          certificate
        </a>
        <QuietButton onClick={() => setOpen(!open)} aria-expanded={open} aria-label={`Where ${n.written} is`}>
          Where it is
        </QuietButton>
      </div>
      {open && (
        <form
          className="mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            const form = new FormData(e.currentTarget);
            const text = (key: string) => String(form.get(key) ?? '').trim();
            const price = decimal(text('price'));
            void set({
              id: n.id,
              revision: n.revision,
              fate: {
                fate: text('fate') as Fate,
                ...(text('to') && { to: text('to') }),
                ...(text('on') && { on: text('on') }),
                ...(price > 0 && { price, currency: text('currency').toUpperCase() }),
                ...(text('note') && { note: text('note') }),
              },
            })
              .unwrap()
              .then(() => setOpen(false))
              .catch(() => undefined);
          }}
        >
          <ChoiceField label="It is" name="fate" defaultValue={n.fate} options={named(FATES)} />
          <TextField label="To whom" name="to" defaultValue={n.to} maxLength={160} />
          <TextField label="On" name="on" type="date" defaultValue={n.on?.slice(0, 10)} />
          <TextField label="Price" name="price" inputMode="decimal" defaultValue={n.price} className="w-24" />
          <TextField
            label="Currency"
            name="currency"
            defaultValue={n.currency ?? 'EUR'}
            maxLength={3}
            className="w-20"
          />
          <TextField label="Note" name="note" defaultValue={n.note} maxLength={1000} />
          <Button type="submit" disabled={setting.isLoading}>
            Enter it
          </Button>
          <ErrorNote error={setting.error} />
        </form>
      )}
    </li>
  );
}

function AcceptBox({ edition, onClose }: { edition: EditionView; onClose: () => void }) {
  const [accept, accepting] = useAcceptBoxMutation();
  return (
    <form
      aria-label="Another box"
      className="mt-2 border border-edge bg-field px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const text = (key: string) => String(form.get(key) ?? '').trim();
        const meanDeltaE = decimal(text('deltaE'));
        void accept({
          id: edition.id,
          accepted: { batch: text('batch'), by: text('by'), why: text('why'), ...(text('deltaE') && { meanDeltaE }) },
        })
          .unwrap()
          .then(onClose)
          .catch(() => undefined);
      }}
    >
      <p className="mb-1 font-serif">
        Print the picture on the new box, dry it, and hold it against the first in the light where it will hang. Then
        say who accepted it.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <TextField label="The box says" name="batch" required maxLength={120} />
        <TextField
          label="Mean ΔE00 from the first"
          unit="where it was read"
          name="deltaE"
          inputMode="decimal"
          className="w-56"
        />
        <TextField label="Accepted by" name="by" required maxLength={80} />
        <TextField label="Why" name="why" required maxLength={1000} />
        <Button type="submit" disabled={accepting.isLoading}>
          Accept the box
        </Button>
        <QuietButton onClick={onClose}>Leave it</QuietButton>
      </div>
      <ErrorNote error={accepting.error} />
    </form>
  );
}

function Founding({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const [params] = useSearchParams();
  const { picture, left } = useTable();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const { data: prints = [] } = usePrintsQuery('printed');
  const [found, founding] = useFoundEditionMutation();
  const [size, setSize] = useState('12');
  const of = Math.round(Number(size));
  const proofs = proofsOf(of > 0 ? of : 0);
  const pictureId = params.get('picture') ?? picture?.id ?? pictures[0]?.id ?? '';
  const conditionId = params.get('condition') ?? left?.id ?? conditions[0]?.id ?? '';
  const print = prints.find((p) => p.id === params.get('print')) ?? prints.find((p) => p.pictureId === pictureId);
  if (pictures.length === 0 || conditions.length === 0)
    return <p className="mb-4">An edition is of a picture on a sheet: bring both first.</p>;
  return (
    <form
      aria-label="Begin an edition"
      className="mb-6 border border-edge bg-field px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        const form = new FormData(e.currentTarget);
        const text = (key: string) => String(form.get(key) ?? '').trim();
        const number = (key: string) => Math.round(decimal(text(key)) || 0);
        const input: EditionInput = {
          pictureId: text('picture'),
          conditionId: text('condition'),
          name: text('name') || (of > 0 ? `Edition of ${of}` : 'Open edition'),
          ...(of > 0 && { size: of }),
          artist: number('artist'),
          printer: number('printer'),
          good: number('good'),
          widthMm: decimal(text('width')),
          heightMm: decimal(text('height')),
          batch: text('batch'),
        };
        void found(input)
          .unwrap()
          .then(() => {
            dispatch(said(`${input.name} is begun.`));
            onClose();
          })
          .catch(() => undefined);
      }}
    >
      <div className="grid grid-cols-3 gap-x-4 gap-y-2 max-[1100px]:grid-cols-2">
        <ChoiceField
          label="Picture"
          name="picture"
          defaultValue={pictureId}
          options={pictures.map((p) => [p.id, p.title] as const)}
        />
        <ChoiceField
          label="Sheet"
          name="condition"
          defaultValue={conditionId}
          options={conditions.map((c) => [c.id, `${c.paper.name}, ${conditionLine(c)}`] as const)}
        />
        <TextField
          label="Name"
          name="name"
          maxLength={120}
          placeholder={of > 0 ? `Edition of ${of}` : 'Open edition'}
        />
        <TextField
          label="Numbered prints"
          unit="empty: open edition"
          inputMode="numeric"
          value={size}
          onChange={(e) => setSize(e.target.value)}
        />
        <TextField
          key={`a${of}`}
          label="Artist’s proofs"
          unit="often a tenth (practice)"
          name="artist"
          inputMode="numeric"
          defaultValue={of > 0 ? proofs.artist : 0}
        />
        <TextField label="Printer’s proofs" name="printer" inputMode="numeric" defaultValue={0} />
        <TextField label="Good to print" name="good" inputMode="numeric" defaultValue={1} />
        <TextField
          label="Width"
          unit="mm"
          name="width"
          inputMode="decimal"
          required
          defaultValue={print?.widthMm ?? ''}
        />
        <TextField
          label="Height"
          unit="mm"
          name="height"
          inputMode="decimal"
          required
          defaultValue={print?.heightMm ?? ''}
        />
        <TextField label="The box says" unit="formulation" name="batch" maxLength={120} />
      </div>
      <p className="mt-2 text-[13px] text-quiet">
        With the first {SERIES.edition.name} number picture, sheet, size, formulation and how many there are stay as
        they are.
      </p>
      <ErrorNote error={founding.error} />
      <div className="mt-2 flex gap-3">
        <Button main type="submit" disabled={founding.isLoading}>
          Begin it
        </Button>
        <QuietButton onClick={onClose}>Leave it</QuietButton>
      </div>
    </form>
  );
}
