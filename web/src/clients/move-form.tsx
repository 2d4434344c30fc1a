import { useState } from 'react';
import type { MoveInput } from '@rakuen/contract/clients';
import { COMES_BACK, WHEREABOUT_KEYS, WHEREABOUTS, type Whereabout } from '@rakuen/core/print/whereabouts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useRatesQuery } from '../prints/print-api.ts';
import { useAddMoveMutation, useClientsQuery, usePlacesQuery } from './client-api.ts';

/** Copies that stand together, and are about to move. */
export interface Movable {
  readonly printId?: string;
  readonly numberId?: string;
  /** The move they stand at; absent for copies that never left the studio. */
  readonly fromId?: string;
  readonly at: Whereabout;
  readonly copies: number;
  /** What they are called where it is said that they moved. */
  readonly called: string;
}

const PRICED: readonly Whereabout[] = ['sold', 'consigned'];
const HELD: readonly Whereabout[] = ['sold', 'lent', 'consigned', 'given'];

/** Records where copies go. */
export function MoveForm({ of, onDone }: { of: Movable; onDone: () => void }) {
  const dispatch = useAppDispatch();
  const [add, adding] = useAddMoveMutation();
  const goes = WHEREABOUT_KEYS.filter((key) => !(key === 'studio' && of.at === 'studio'));
  const [to, setTo] = useState<Whereabout>(goes[0]);
  return (
    <form
      aria-label={`Move ${of.called}`}
      className="mt-1 flex flex-wrap items-end gap-2 border-l-2 border-edge pl-3"
      onSubmit={(e) => {
        e.preventDefault();
        const move = moveOf(new FormData(e.currentTarget), of, to);
        void add(move)
          .unwrap()
          .then(() => {
            dispatch(said(`${of.called}: ${WHEREABOUTS[to].name}.`));
            onDone();
          })
          .catch(() => undefined);
      }}
    >
      <ChoiceField
        label="Now"
        value={to}
        onChange={(e) => setTo(e.target.value as Whereabout)}
        options={goes.map((key) => [key, WHEREABOUTS[key].name] as const)}
      />
      {of.copies > 1 && (
        <TextField
          label="Copies"
          unit={`of ${of.copies}`}
          name="copies"
          {...NUMBER_TYPED}
          defaultValue="1"
          className="w-24"
        />
      )}
      {HELD.includes(to) && <Holder />}
      <TextField label="On" name="on" type="date" />
      {COMES_BACK.includes(to) && <TextField label="Until" name="until" type="date" />}
      {PRICED.includes(to) && <Price each={of.copies > 1} />}
      <TextField label="Note" name="note" maxLength={1000} />
      <Button type="submit" disabled={adding.isLoading}>
        Save
      </Button>
      <QuietButton onClick={onDone}>Cancel</QuietButton>
      <ErrorNote error={adding.error} />
    </form>
  );
}

/** Who has it, and where it hangs. */
function Holder() {
  const { data: clients = [] } = useClientsQuery();
  const { data: places = [] } = usePlacesQuery();
  const [clientId, setClient] = useState('');
  const theirs = places.filter((p) => !clientId || !p.clientId || p.clientId === clientId);
  return (
    <>
      {clients.length > 0 && (
        <ChoiceField
          label="Client"
          name="client"
          value={clientId}
          onChange={(e) => setClient(e.target.value)}
          options={[['', 'none'], ...clients.map((c) => [c.id, c.name] as const)]}
        />
      )}
      <TextField label={clientId ? 'Through whom' : 'To whom'} name="withWhom" maxLength={160} />
      {theirs.length > 0 && (
        <ChoiceField
          label="Place"
          name="place"
          options={[['', 'not set'], ...theirs.map((p) => [p.id, p.name] as const)]}
        />
      )}
    </>
  );
}

function Price({ each }: { each: boolean }) {
  const { data: rates } = useRatesQuery();
  return (
    <>
      <TextField label="Price" unit={each ? 'of a copy' : undefined} name="price" {...NUMBER_TYPED} className="w-32" />
      <TextField
        key={rates?.currency}
        label="Currency"
        name="currency"
        defaultValue={rates?.currency ?? 'EUR'}
        maxLength={3}
        className="w-20"
      />
    </>
  );
}

function moveOf(form: FormData, { printId, numberId, fromId }: Movable, to: Whereabout): MoveInput {
  const text = (key: string) => String(form.get(key) ?? '').trim();
  return {
    ...(printId && { printId }),
    ...(numberId && { numberId }),
    ...(fromId && { fromId }),
    to,
    ...(text('copies') && { copies: Math.round(decimal(text('copies'))) }),
    ...(text('client') && { clientId: text('client') }),
    ...(text('place') && { placeId: text('place') }),
    ...(text('withWhom') && { withWhom: text('withWhom') }),
    ...(text('on') && { on: text('on') }),
    ...(text('until') && { until: text('until') }),
    ...(text('price') && { price: decimal(text('price')), currency: text('currency').toUpperCase() }),
    ...(text('note') && { note: text('note') }),
  };
}
