import { useState } from 'react';
import type { EditionView, NumberView } from '@rakuen/contract/editions';
import { SERIES, SERIES_KEYS, type Series } from '@rakuen/core/print/edition';
import { MAX_NUMBERS_AT_ONCE } from '@rakuen/contract/vocabulary';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useBoxesQuery, useGiveNumbersMutation, usePrintsQuery } from './print-api.ts';

/** Gives the next numbers of an edition to the copies of a print. @param printId the print it is for; chosen among those that suit where absent */
export function NumberGiver({ editions, printId }: { editions: readonly EditionView[]; printId?: string }) {
  const at = useGiver(editions, printId);
  return (
    <div className="mt-1 space-y-2">
      <div className="flex flex-wrap items-end gap-2">
        {editions.length > 1 && (
          <ChoiceField
            label="Edition"
            value={at.editionId}
            onChange={(e) => at.setEdition(e.target.value)}
            options={editions.map((e) => [e.id, e.name] as const)}
          />
        )}
        {!printId && (
          <ChoiceField
            label="Print"
            value={at.chosen}
            onChange={(e) => at.setChosen(e.target.value)}
            options={[['', 'not recorded here'], ...at.suiting.map((p) => [p.id, p.words] as const)]}
          />
        )}
        <ChoiceField
          label="Series"
          value={at.series}
          onChange={(e) => at.setSeries(e.target.value as Series)}
          options={SERIES_KEYS.map((key) => [key, SERIES[key].name] as const)}
        />
        {at.asks && (
          <TextField
            label="Formulation, as printed on the box"
            value={at.batch}
            maxLength={120}
            onChange={(e) => at.setBatch(e.target.value)}
          />
        )}
        {at.many && (
          <TextField
            label="Numbers"
            {...NUMBER_TYPED}
            value={at.count}
            className="w-20"
            onChange={(e) => at.setCount(e.target.value)}
          />
        )}
        <Button disabled={!at.ready} onClick={at.submit}>
          {at.asked > 1 ? 'Give the next numbers' : 'Give the next number'}
        </Button>
      </div>
      {at.print?.batch && <p className="text-[13px] text-quiet">The sheet came from the box “{at.print.batch}”.</p>}
      <ErrorNote error={at.error} />
    </div>
  );
}

/** What is chosen for the next numbers, and how they are given. */
function useGiver(editions: readonly EditionView[], printId: string | undefined) {
  const dispatch = useAppDispatch();
  const [give, giving] = useGiveNumbersMutation();
  const [editionId, setEdition] = useState(editions[0].id);
  const [series, setSeries] = useState<Series>('edition');
  const [chosen, setChosen] = useState('');
  const [batch, setBatch] = useState('');
  const [count, setCount] = useState('1');
  const edition = editions.find((e) => e.id === editionId) ?? editions[0];
  const suiting = useSuiting(edition);
  const print = suiting.find((p) => p.id === (printId ?? chosen));
  const most = print ? Math.min(print.left, MAX_NUMBERS_AT_ONCE) : MAX_NUMBERS_AT_ONCE;
  const many = most > 1;
  // A number that was typed for another print does not count for one with a single copy.
  const asked = many ? Math.round(decimal(count)) : 1;
  // What the print’s own box says is not asked for.
  const asks = edition.batch !== '' && !print?.batch;
  const submit = () =>
    void give({
      id: editionId,
      input: {
        series,
        count: asked,
        ...((printId ?? chosen) && { printId: printId ?? chosen }),
        ...(asks && batch.trim() && { batch: batch.trim() }),
      },
    })
      .unwrap()
      .then((given) => {
        setCount('1');
        setChosen('');
        setBatch('');
        dispatch(said(givenWords(given)));
      })
      .catch(() => undefined);
  return {
    ...{ editionId, setEdition, series, setSeries, chosen, setChosen, batch, setBatch, count, setCount },
    ...{ suiting, print, many, asked, asks, submit },
    ready: !giving.isLoading && asked >= 1 && asked <= most,
    error: giving.error,
  };
}

/** “It is number 3/12.”, “Numbers 3/12 to 7/12 are given.” */
const givenWords = (given: readonly NumberView[]): string =>
  given.length === 1
    ? `It is number ${given[0].written}.`
    : `Numbers ${given[0].written} to ${given.at(-1)!.written} are given.`;

/** Prints of the edition’s picture, paper and size that have a copy without a number, each with its box. */
function useSuiting(edition: EditionView) {
  const { data: prints = [] } = usePrintsQuery('printed');
  const { data: boxes = [] } = useBoxesQuery();
  const numbered = (id: string) => edition.numbers.filter((n) => n.printId === id).length;
  const near = (a: number, b: number) => Math.abs(a - b) <= 1;
  return prints
    .filter(
      (p) =>
        p.pictureId === edition.pictureId &&
        p.conditionId === edition.conditionId &&
        near(p.widthMm, edition.widthMm) &&
        near(p.heightMm, edition.heightMm) &&
        numbered(p.id) < p.copies,
    )
    .map((p) => {
      const batch = boxes.find((b) => b.id === p.boxId)?.batch.trim() ?? '';
      const words = `${day(p.printedOn)}, ${p.copies} ${p.copies === 1 ? 'copy' : 'copies'}, ${batch ? `box ${batch}` : 'box not known'}`;
      return { id: p.id, batch, words, left: p.copies - numbered(p.id) };
    });
}
