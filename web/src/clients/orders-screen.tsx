import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { OrderLineView, OrderView } from '@rakuen/contract/clients';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useDecisionsQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useBeginPrintMutation } from '../prints/print-api.ts';
import { PrintPlaces } from '../prints/print-places.tsx';
import {
  useClientsQuery,
  useMovesQuery,
  useOrdersQuery,
  usePlacesQuery,
  useRemoveOrderMutation,
  useStepOrderMutation,
} from './client-api.ts';
import { dueWords } from './due.ts';
import { overdueWords, priceWords, whereWords } from './move-words.ts';
import { OrderDialog } from './order-dialog.tsx';

/** What was ordered and is due, and which prints are out of the studio. */
export function OrdersScreen() {
  const { data: orders, error, isLoading } = useOrdersQuery();
  const { data: clients } = useClientsQuery();
  const navigate = useNavigate();
  const [entering, setEntering] = useState<{ order?: OrderView }>();
  const open = orders?.filter((o) => o.state === 'open') ?? [];
  const closed = orders?.filter((o) => o.state !== 'open') ?? [];
  const noClients = clients?.length === 0;
  const action = noClients ? (
    <Button onClick={() => void navigate('/prints/clients')}>Enter a client first</Button>
  ) : (
    <Button onClick={() => setEntering({})}>New order</Button>
  );
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')}>
        {action}
      </ScreenHead>
      <PrintPlaces />
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Loading the orders" />}
      {orders?.length === 0 && (
        <Empty title="No order yet" action={action}>
          An order keeps who wants which pictures, by when and at what price. Its prints begin here. When it goes out,
          they are recorded as sold.
        </Empty>
      )}
      {open.map((o) => (
        <Order key={o.id} order={o} onChange={() => setEntering({ order: o })} />
      ))}
      <Out />
      {closed.length > 0 && (
        <details className="border-t border-edge py-3">
          <summary className="cursor-pointer">
            {closed.length} {closed.length === 1 ? 'order' : 'orders'} delivered or cancelled
          </summary>
          {closed.map((o) => (
            <Order key={o.id} order={o} onChange={() => setEntering({ order: o })} />
          ))}
        </details>
      )}
      {entering && <OrderDialog order={entering.order} onClose={() => setEntering(undefined)} />}
    </>
  );
}

function Order({ order: o, onChange }: { order: OrderView; onChange: () => void }) {
  const { data: clients = [] } = useClientsQuery();
  const { data: places = [] } = usePlacesQuery();
  const place = places.find((p) => p.id === o.placeId)?.name;
  return (
    <section aria-label={o.name} id={o.id} className="border-t border-edge py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2 className="min-w-0 text-[1.1rem] break-words">
          {o.name}
          <span className="font-sans text-[1rem]">, {clients.find((c) => c.id === o.clientId)?.name}</span>
        </h2>
        <p>{[dueWords(o), priceWords(o)].filter(Boolean).join(' · ')}</p>
      </div>
      {(place || o.notes) && (
        <p className="text-[13px] whitespace-pre-line text-quiet">{[place, o.notes].filter(Boolean).join(' · ')}</p>
      )}
      <ul aria-label={`Prints of ${o.name}`}>
        {o.lines.map((l) => (
          <Line key={l.id} line={l} open={o.state === 'open'} />
        ))}
      </ul>
      {o.lines.length === 0 && <p className="text-[13px] text-quiet">No picture is entered yet.</p>}
      <Steps order={o} onChange={onChange} />
    </section>
  );
}

function Line({ line: l, open }: { line: OrderLineView; open: boolean }) {
  const navigate = useNavigate();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const { data: decisions = [] } = useDecisionsQuery();
  const [begin, beginning] = useBeginPrintMutation();
  const title = pictures.find((p) => p.id === l.pictureId)?.title ?? '';
  // The paper of the order; else the one that was chosen last for this picture.
  const chosen = decisions.find((d) => d.pictureId === l.pictureId && d.stamp === 'chosen')?.conditionId;
  const condition = conditions.find((c) => c.id === (l.conditionId ?? chosen));
  const left = l.copies - l.printed;
  return (
    <li className="flex flex-wrap items-center gap-x-4 border-b border-line py-1.5">
      <img src={`/api/pictures/${l.pictureId}/preview`} alt="" className="h-10 w-14 object-contain object-left" />
      <span className="min-w-0 flex-1">
        <span className="font-serif">{title}</span>, {formatNumber(l.widthMm, 0)} × {formatNumber(l.heightMm, 0)} mm
        {condition && <span className="text-[13px] text-quiet"> on {condition.paper.name}</span>}
      </span>
      <span className="text-[13px]">
        {l.printed} of {l.copies} printed{l.waiting > 0 && `, ${l.waiting} waiting`}
      </span>
      {open &&
        left > 0 &&
        l.waiting === 0 &&
        (condition ? (
          <Button
            disabled={beginning.isLoading}
            aria-label={`Begin the print of ${title}`}
            onClick={() =>
              void begin({ orderLineId: l.id, conditionId: condition.id })
                .unwrap()
                .then((print) => navigate(`/prints/${print.id}`))
                .catch(() => undefined)
            }
          >
            Begin the print
          </Button>
        ) : (
          <Link className="text-[13px] underline" to="/match">
            Choose a paper
          </Link>
        ))}
      <ErrorNote error={beginning.error} />
    </li>
  );
}

/** What can be done with an order. */
function Steps({ order: o, onChange }: { order: OrderView; onChange: () => void }) {
  const dispatch = useAppDispatch();
  const [step, stepping] = useStepOrderMutation();
  const [remove, removing] = useRemoveOrderMutation();
  const go = (to: 'deliver' | 'cancel' | 'reopen', words: string) =>
    void step({ id: o.id, step: to })
      .unwrap()
      .then(() => dispatch(said(words)))
      .catch(() => undefined);
  const printed = o.lines.some((l) => l.printed > 0);
  return (
    <>
      <p className="mt-1 flex flex-wrap items-center gap-x-4">
        {o.state === 'open' ? (
          <>
            <Button
              disabled={stepping.isLoading || !printed}
              onClick={() => go('deliver', `${o.name} is delivered. Its prints are recorded as sold.`)}
            >
              Mark as delivered
            </Button>
            <QuietButton onClick={onChange}>Change order</QuietButton>
            <QuietButton disabled={stepping.isLoading} onClick={() => go('cancel', `${o.name} is cancelled.`)}>
              Cancel order
            </QuietButton>
          </>
        ) : (
          <QuietButton disabled={stepping.isLoading} onClick={() => go('reopen', `${o.name} is open again.`)}>
            Reopen order
          </QuietButton>
        )}
        <QuietButton
          disabled={removing.isLoading}
          onClick={() =>
            void remove(o.id)
              .unwrap()
              .then(() => dispatch(said(`${o.name} is removed. It can be restored from the bin.`)))
              .catch(() => undefined)
          }
        >
          Remove order
        </QuietButton>
      </p>
      <ErrorNote error={stepping.error ?? removing.error} />
    </>
  );
}

/** Prints that come back: lent, or on consignment. */
function Out() {
  const { data: moves = [] } = useMovesQuery({});
  const back = moves.filter((m) => m.to === 'lent' || m.to === 'consigned');
  if (back.length === 0) return null;
  const late = back.filter((m) => m.daysOverdue > 0).length;
  return (
    <section aria-label="Out of the studio" className="border-t border-edge py-3">
      <h2 className="text-[1.1rem]">
        Lent and on consignment{late > 0 && <span className="font-sans text-[1rem]"> {late} overdue</span>}
      </h2>
      <ul>
        {back.map((m) => (
          <li key={m.id} className="border-b border-line py-1">
            {m.standing > 1 && `${m.standing} × `}
            {m.printId ? (
              <Link className="font-serif underline decoration-line underline-offset-3" to={`/prints/${m.printId}`}>
                {m.what}
              </Link>
            ) : (
              <Link className="font-serif underline decoration-line underline-offset-3" to="/prints/editions">
                {m.what}
              </Link>
            )}
            , {whereWords({ ...m, daysOverdue: 0 })}
            {m.daysOverdue > 0 && <b>, {overdueWords(m)}</b>}
          </li>
        ))}
      </ul>
    </section>
  );
}
