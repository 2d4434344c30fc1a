import { useState } from 'react';
import type { EditionView } from '@rakuen/contract/editions';
import { SERIES, SERIES_KEYS, type Series } from '@rakuen/core/print/edition';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { ChoiceField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useGiveNumberMutation } from './print-api.ts';

/** Gives the next number of an edition to a print. */
export function NumberGiver({ editions, printId }: { editions: readonly EditionView[]; printId?: string }) {
  const dispatch = useAppDispatch();
  const [give, giving] = useGiveNumberMutation();
  const [editionId, setEdition] = useState(editions[0].id);
  const [series, setSeries] = useState<Series>('edition');
  return (
    <div className="mt-1 space-y-2">
      <div className="flex flex-wrap items-end gap-2">
        {editions.length > 1 && (
          <ChoiceField
            label="Edition"
            value={editionId}
            onChange={(e) => setEdition(e.target.value)}
            options={editions.map((e) => [e.id, e.name] as const)}
          />
        )}
        <ChoiceField
          label="Series"
          value={series}
          onChange={(e) => setSeries(e.target.value as Series)}
          options={SERIES_KEYS.map((key) => [key, SERIES[key].name] as const)}
        />
        <Button
          disabled={giving.isLoading}
          onClick={() =>
            void give({ id: editionId, input: { series, ...(printId && { printId }) } })
              .unwrap()
              .then((n) => dispatch(said(`It is number ${n.written}.`)))
              .catch(() => undefined)
          }
        >
          Give the next number
        </Button>
      </div>
      <ErrorNote error={giving.error} />
    </div>
  );
}
