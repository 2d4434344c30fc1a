import { useState } from 'react';
import { Link } from 'react-router';
import type { ClientView, PlaceView } from '@rakuen/contract/clients';
import { GLASSES } from '@rakuen/core/light/glass';
import { formatNumber } from '@rakuen/core/measurement/show';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { useLight } from '../compare/use-light.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { PrintPlaces } from '../prints/print-places.tsx';
import {
  useClientsQuery,
  useMovesQuery,
  usePlacesQuery,
  useRemoveClientMutation,
  useRemovePlaceMutation,
} from './client-api.ts';
import { ClientDialog } from './client-dialog.tsx';
import { whereWords } from './move-words.ts';
import { PlaceDialog } from './place-dialog.tsx';

/** What is being entered. */
type Entering = { client?: ClientView } | { place?: PlaceView; clientId?: string } | undefined;

/** Who orders and buys prints, and where they hang. */
export function ClientsScreen() {
  const clients = useClientsQuery();
  const places = usePlacesQuery();
  const [entering, setEntering] = useState<Entering>();
  const [kind, setKind] = useState<'client' | 'place'>('client');
  const enter = (what: 'client' | 'place', of: Entering) => {
    setKind(what);
    setEntering(of);
  };
  const nothing = clients.data?.length === 0 && places.data?.length === 0;
  const loose = places.data?.filter((p) => !p.clientId) ?? [];
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')}>
        <Button onClick={() => enter('client', {})}>New client</Button>
        <Button onClick={() => enter('place', {})}>New place</Button>
      </ScreenHead>
      <PrintPlaces />
      <ErrorNote error={clients.error ?? places.error} />
      {clients.isLoading && <Waiting what="Loading the clients" />}
      {nothing && (
        <Empty title="No client yet" action={<Button onClick={() => enter('client', {})}>New client</Button>}>
          A client orders prints, buys them or is lent them. A place is where they hang: its light and glass can be
          taken over for each picture that goes there.
        </Empty>
      )}
      {clients.data?.map((c) => (
        <Client
          key={c.id}
          client={c}
          places={places.data?.filter((p) => p.clientId === c.id) ?? []}
          onChange={() => enter('client', { client: c })}
          onPlace={(place) => enter('place', place ? { place } : { clientId: c.id })}
        />
      ))}
      {loose.length > 0 && (
        <section aria-label="Places of no client" className="border-t border-edge py-3">
          <h2 className="text-[1.1rem]">Other places</h2>
          <Places places={loose} onChange={(place) => enter('place', { place })} />
        </section>
      )}
      {entering && kind === 'client' && (
        <ClientDialog
          client={'client' in entering ? entering.client : undefined}
          onClose={() => setEntering(undefined)}
        />
      )}
      {entering && kind === 'place' && (
        <PlaceDialog
          {...(entering as { place?: PlaceView; clientId?: string })}
          onClose={() => setEntering(undefined)}
        />
      )}
    </>
  );
}

function Client({
  client: c,
  places,
  onChange,
  onPlace,
}: {
  client: ClientView;
  places: readonly PlaceView[];
  onChange: () => void;
  /** A new one where absent. */
  onPlace: (place?: PlaceView) => void;
}) {
  const dispatch = useAppDispatch();
  const [remove, removing] = useRemoveClientMutation();
  return (
    <section aria-label={c.name} className="border-t border-edge py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="min-w-0 text-[1.1rem] break-words">{c.name}</h2>
        <p className="flex flex-wrap items-center gap-x-4 text-[13px]">
          {c.openOrders > 0 && (
            <Link className="underline" to="/prints/orders">
              {c.openOrders} open {c.openOrders === 1 ? 'order' : 'orders'}
            </Link>
          )}
          <Link className="underline" to={`/ledger?q=${encodeURIComponent(c.name)}`}>
            In the ledger
          </Link>
          <QuietButton aria-label={`Change ${c.name}`} onClick={onChange}>
            Change
          </QuietButton>
          <QuietButton aria-label={`New place of ${c.name}`} onClick={() => onPlace()}>
            Add place
          </QuietButton>
          <QuietButton
            aria-label={`Remove ${c.name}`}
            disabled={removing.isLoading}
            onClick={() =>
              void remove(c.id)
                .unwrap()
                .then(() => dispatch(said(`${c.name} is removed. It can be restored from the bin.`)))
                .catch(() => undefined)
            }
          >
            Remove
          </QuietButton>
        </p>
      </div>
      <ErrorNote error={removing.error} />
      {c.contact && <p className="text-[13px] whitespace-pre-line text-quiet">{c.contact}</p>}
      {c.wishes && <p className="font-serif whitespace-pre-line">{c.wishes}</p>}
      {c.notes && <p className="text-[13px] whitespace-pre-line">{c.notes}</p>}
      <Places places={places} onChange={onPlace} />
      {c.copies > 0 && <With clientId={c.id} copies={c.copies} />}
    </section>
  );
}

/** What a client has. */
function With({ clientId, copies }: { clientId: string; copies: number }) {
  const [open, setOpen] = useState(false);
  const { data: moves = [] } = useMovesQuery({ clientId }, { skip: !open });
  return (
    <details className="mt-1 text-[13px]" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="cursor-pointer text-quiet">
        {copies} {copies === 1 ? 'print is' : 'prints are'} with them
      </summary>
      <ul>
        {moves.map((m) => (
          <li key={m.id} className="border-b border-line py-0.5">
            {m.standing > 1 && `${m.standing} × `}
            <span className="font-serif">{m.what}</span>, {whereWords(m)}
          </li>
        ))}
      </ul>
    </details>
  );
}

function Places({ places, onChange }: { places: readonly PlaceView[]; onChange: (place: PlaceView) => void }) {
  const dispatch = useAppDispatch();
  const { lights } = useLight();
  const [remove, removing] = useRemovePlaceMutation();
  return (
    <>
      <ul>
        {places.map((p) => (
          <li key={p.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1">
            <span className="min-w-0 flex-1">
              <b>{p.name}</b>{' '}
              <span className="text-[13px]">
                {[
                  p.address.replace(/\n+/g, ', '),
                  p.light && (lights.find((l) => l.key === p.light)?.name ?? 'a lamp that was removed'),
                  p.glass && GLASSES.find((g) => g.key === p.glass)?.name,
                  p.lux !== undefined && `${formatNumber(p.lux, 0)} lx`,
                  p.copies > 0 && `${p.copies} ${p.copies === 1 ? 'print hangs' : 'prints hang'} there`,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
              {p.notes && <span className="block text-[13px] text-quiet">{p.notes}</span>}
            </span>
            <QuietButton className="text-[13px]" aria-label={`Change ${p.name}`} onClick={() => onChange(p)}>
              Change
            </QuietButton>
            <QuietButton
              className="text-[13px]"
              aria-label={`Remove ${p.name}`}
              disabled={removing.isLoading}
              onClick={() =>
                void remove(p.id)
                  .unwrap()
                  .then(() => dispatch(said(`${p.name} is removed. It can be restored from the bin.`)))
                  .catch(() => undefined)
              }
            >
              Remove
            </QuietButton>
          </li>
        ))}
      </ul>
      <ErrorNote error={removing.error} />
    </>
  );
}
