import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { EditionView } from '@rakuen/contract/editions';
import { ordinalWords } from '@rakuen/core/print/edition';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Download } from '../parts/download.tsx';
import { TextField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { NumberGiver } from './number-giver.tsx';
import { useAcceptBoxMutation, useEditionsQuery, useRemoveEditionMutation } from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { Founding } from './founding.tsx';
import { Numbered } from './numbered.tsx';

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
        <Edition key={e.id} edition={e} folds={editions.length > FEW} />
      ))}
    </>
  );
}

/** So many editions all stay unfolded. */
const FEW = 3;

/** @param folds it begins folded where all its numbers are given */
function Edition({ edition, folds }: { edition: EditionView; folds: boolean }) {
  const { data: pictures = [] } = usePicturesQuery();
  const given = edition.numbers.filter((n) => n.series === 'edition').length;
  const [open, setOpen] = useState(!folds || given !== edition.size);
  return (
    <section aria-label={edition.name} className="mb-7 border-t border-edge pt-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="min-w-0 break-words">
          <button type="button" aria-expanded={open} className="text-left" onClick={() => setOpen(!open)}>
            <span aria-hidden className="inline-block w-5 font-sans text-[1rem]">
              {open ? '▾' : '▸'}
            </span>
            {pictures.find((p) => p.id === edition.pictureId)?.title}
            <span className="font-sans text-[1rem]">
              {' '}
              {[edition.name, ordinalWords(edition.ordinal)].filter(Boolean).join(', ')}
            </span>
          </button>
        </h2>
        <p>
          {edition.size === undefined ? `open, ${given} given` : `${given} of ${edition.size} given`}
          {edition.artist > 0 && `, ${edition.artist} artist’s proof${edition.artist > 1 ? 's' : ''}`}
        </p>
      </div>
      {open && <Unfolded edition={edition} />}
    </section>
  );
}

function Unfolded({ edition }: { edition: EditionView }) {
  const { data: conditions = [] } = useConditionsQuery();
  const [remove, removing] = useRemoveEditionMutation();
  const [accepting, setAccepting] = useState(false);
  const condition = conditions.find((c) => c.id === edition.conditionId);
  return (
    <>
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
        <QuietButton onClick={() => setAccepting(!accepting)}>Accept another box</QuietButton>
        {!edition.locked && (
          <QuietButton disabled={removing.isLoading} onClick={() => void remove(edition.id)}>
            Remove the edition
          </QuietButton>
        )}
      </div>
      {edition.numbers.length > 0 && <AllPapers edition={edition} />}
      <ErrorNote error={removing.error} />
      {accepting && <AcceptBox edition={edition} onClose={() => setAccepting(false)} />}
    </>
  );
}

/** Certificates and labels of all that was numbered. */
function AllPapers({ edition: { numbers } }: { edition: EditionView }) {
  const prints = [...new Set(numbers.flatMap((n) => n.printId ?? []))];
  return (
    <p className="mt-1 flex flex-wrap gap-x-5 text-[13px]">
      <Download href={`/api/certificates.pdf?numbers=${numbers.map((n) => n.id).join()}`}>
        {numbers.length === 1 ? 'Certificate' : `${numbers.length} certificates`}
      </Download>
      {prints.length > 0 && (
        <Download href={`/api/prints/labels.pdf?sheet=a4of10&prints=${prints.join()}`}>
          Labels of all numbered prints, A4
        </Download>
      )}
    </p>
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
        Print the picture on a sheet of the new box, let it dry, and hold it against the first print in the light where
        it will hang. Then enter who accepted it.
      </p>
      <div className="flex flex-wrap items-end gap-2">
        <TextField label="Formulation, as printed on the box" name="batch" required maxLength={120} />
        <TextField
          label="Mean ΔE00 from the first"
          unit="where it was read"
          name="deltaE"
          {...NUMBER_TYPED}
          className="w-56"
        />
        <TextField label="Accepted by" name="by" required maxLength={80} />
        <TextField label="Why" name="why" required maxLength={1000} />
        <Button type="submit" disabled={accepting.isLoading}>
          Accept the box
        </Button>
        <QuietButton onClick={onClose}>Cancel</QuietButton>
      </div>
      <ErrorNote error={accepting.error} />
    </form>
  );
}
