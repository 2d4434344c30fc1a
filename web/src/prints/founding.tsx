import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { EditionInput } from '@rakuen/contract/editions';
import { proofsOf, SERIES } from '@rakuen/core/print/edition';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useTable } from '../table/use-table.ts';
import { useFoundEditionMutation, usePrintsQuery } from './print-api.ts';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';

/** Begins an edition: of a picture on a sheet, at a size, so and so many. */
export function Founding({ onClose }: { onClose: () => void }) {
  const dispatch = useAppDispatch();
  const at = useStart();
  const [found, founding] = useFoundEditionMutation();
  const [size, setSize] = useState('12');
  const of = Math.round(decimal(size));
  if (!at) return <p className="mb-4">An edition is of a picture on a sheet: bring both first.</p>;
  return (
    <form
      aria-label="Begin an edition"
      className="mb-6 border border-edge bg-field px-4 py-3"
      onSubmit={(e) => {
        e.preventDefault();
        const input = editionOf(new FormData(e.currentTarget), of);
        void found(input)
          .unwrap()
          .then(() => {
            dispatch(said(`${input.name} is begun.`));
            onClose();
          })
          .catch(() => undefined);
      }}
    >
      <Asked at={at} of={of} size={size} onSize={setSize} />
      <p className="mt-2 text-[13px] text-quiet">
        With the first {SERIES.edition.name} number picture, sheet, size, formulation and how many there are stay as
        they are.
      </p>
      <ErrorNote error={founding.error} />
      {founding.error && 'field' in founding.error && founding.error.field === 'later' && (
        <label className="mt-1 flex min-h-8 items-center gap-2">
          <input type="checkbox" name="later" className="size-4 accent-ink" />
          This is a later edition; labels and certificates say so
        </label>
      )}
      <div className="mt-2 flex gap-3">
        <Button main type="submit" disabled={founding.isLoading}>
          Create the edition
        </Button>
        <QuietButton onClick={onClose}>Cancel</QuietButton>
      </div>
    </form>
  );
}

/** What it begins with: what is in hand, or what the address names; undefined where there is no picture or no sheet. */
function useStart() {
  const [params] = useSearchParams();
  const { picture, left } = useTable();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const { data: prints = [] } = usePrintsQuery('printed');
  const pictureId = params.get('picture') ?? picture?.id ?? pictures.at(0)?.id;
  const conditionId = params.get('condition') ?? left?.id ?? conditions.at(0)?.id;
  const print = prints.find((p) => p.id === params.get('print')) ?? prints.find((p) => p.pictureId === pictureId);
  return pictures.length > 0 && conditions.length > 0
    ? { pictures, conditions, pictureId, conditionId, print }
    : undefined;
}

/** @param of numbered prints; 0 or NaN for an open edition */
function editionOf(form: FormData, of: number): EditionInput {
  const text = (key: string) => String(form.get(key) ?? '').trim();
  const number = (key: string) => Math.round(decimal(text(key)) || 0);
  return {
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
    ...(form.has('later') && { later: true }),
  };
}

function Asked({
  at: { pictures, conditions, pictureId, conditionId, print },
  of,
  size,
  onSize,
}: {
  at: NonNullable<ReturnType<typeof useStart>>;
  of: number;
  size: string;
  onSize: (size: string) => void;
}) {
  const proofs = proofsOf(of > 0 ? of : 0);
  return (
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
      <TextField label="Name" name="name" maxLength={120} placeholder={of > 0 ? `Edition of ${of}` : 'Open edition'} />
      <TextField
        label="Numbered prints"
        unit="empty: open edition"
        {...NUMBER_TYPED}
        value={size}
        onChange={(e) => onSize(e.target.value)}
      />
      <TextField
        key={`a${of}`}
        label="Artist’s proofs"
        unit="often a tenth (practice)"
        name="artist"
        {...NUMBER_TYPED}
        defaultValue={of > 0 ? proofs.artist : 0}
      />
      <TextField label="Printer’s proofs" name="printer" {...NUMBER_TYPED} defaultValue={0} />
      <TextField label="Good to print" name="good" {...NUMBER_TYPED} defaultValue={1} />
      <TextField label="Width" unit="mm" name="width" {...NUMBER_TYPED} required defaultValue={print?.widthMm ?? ''} />
      <TextField
        label="Height"
        unit="mm"
        name="height"
        {...NUMBER_TYPED}
        required
        defaultValue={print?.heightMm ?? ''}
      />
      <TextField label="The box says" unit="formulation" name="batch" maxLength={120} />
    </div>
  );
}
