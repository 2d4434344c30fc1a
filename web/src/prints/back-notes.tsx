import type { CostView } from '@rakuen/contract/costs';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintLook } from '@rakuen/contract/prints';
import { GLASSES } from '@rakuen/core/light/glass';
import { marginAt, priceFor } from '@rakuen/core/cost/print-cost';
import { formatNumber } from '@rakuen/core/measurement/show';
import { LABEL_SHEETS } from '@rakuen/core/print/label';
import { day, settingLine } from '../parts/label.ts';
import { Download } from '../parts/download.tsx';
import { Explained } from '../parts/explained.tsx';
import { TextField } from '../parts/form.tsx';
import { Caution } from '../parts/messages.tsx';
import { useLight } from '../compare/use-light.ts';
import { useTable } from '../table/use-table.ts';
import { Photographs } from './photographs.tsx';
import { costExplained } from './explanations.ts';
import { useCostQuery, useEditionsQuery, useRatesQuery } from './print-api.ts';
import { NumberGiver } from './number-giver.tsx';
import { decimal } from '../parts/decimal.ts';

interface Of {
  look: PrintLook;
  picture: PictureView;
  condition: ConditionHead;
}

/** Notes beside the back: what changed since, what was learned, what it costs, its number, its labels. */
export function BackNotes({ look, picture, condition }: Of) {
  const { print } = look;
  return (
    <aside aria-label="Notes" className="space-y-5">
      <ToldOfIt look={look} />
      <Cost print={print} />
      <KeptProof look={look} />
      {print.state === 'printed' && <Photographs printId={print.id} list={look.photographs} />}
      {look.order && <ItsOrder order={look.order} />}
      {print.state === 'printed' && <ItsNumber print={print} picture={picture} condition={condition} />}
      <Labels print={print} />
    </aside>
  );
}

/** What changed since the print it repeats, what the ledger teaches, and what to look out for. */
function ToldOfIt({ look: { print, since, learned, cautions } }: Pick<Of, 'look'>) {
  return (
    <>
      {since.length > 0 && (
        <section aria-label="Changed since">
          <h3>Changed since that print</h3>
          {since.map((s) => (
            <p key={s.sentence} className="mt-1 border-l-2 border-ink pl-3 font-serif">
              {s.sentence}
            </p>
          ))}
        </section>
      )}
      {learned.length > 0 && (
        <section aria-label="Learned">
          <h3>From the ledger</h3>
          {learned.map((l) => (
            <p key={l} className="mt-1 font-serif">
              {l}
            </p>
          ))}
        </section>
      )}
      {print.state === 'waiting' && (
        <section aria-label="Before the sheet goes in" className="space-y-1.5">
          <h3>Before the sheet goes in</h3>
          {cautions.map((c) => (
            <Caution key={c}>{c}</Caution>
          ))}
        </section>
      )}
    </>
  );
}

/** The order it is made for. */
function ItsOrder({ order }: { order: NonNullable<PrintLook['order']> }) {
  return (
    <section aria-label="Order">
      <h3>Order</h3>
      <p>
        <Link className="underline" to={`/prints/orders#${order.id}`}>
          {order.name}
        </Link>
        , {order.client}
      </p>
    </section>
  );
}

/** How the proof looked when it was printed: what was meant. */
function KeptProof({ look: { print, proof } }: Pick<Of, 'look'>) {
  const { lights } = useLight();
  if (!proof) return null;
  const light = lights.find((l) => l.key === proof.light)?.name ?? 'a lamp that was removed';
  const glass = GLASSES.find((g) => g.key === proof.glass)?.name;
  return (
    <section aria-label="Proof of that day">
      <h3 className="mb-1">Its proof, as drawn when it was marked as printed</h3>
      <img
        src={`/api/prints/${print.id}/proof`}
        alt="The picture as its proof looked"
        className="max-h-44 border border-line"
      />
      <p className="text-[12.5px] text-quiet">
        {light}
        {proof.glass !== 'none' && glass && `, behind ${glass}`}, {day(proof.at)}
      </p>
    </section>
  );
}

function ItsNumber({ print, picture, condition }: Omit<Of, 'look'> & { print: PrintLook['print'] }) {
  const { data: editions = [] } = useEditionsQuery();
  const own = editions.filter((e) => e.pictureId === picture.id && e.conditionId === condition.id);
  const numbers = own.flatMap((e) =>
    e.numbers.filter((n) => n.printId === print.id).map((n) => ({ ...n, edition: e.name })),
  );
  return (
    <section aria-label="Number">
      <h3>Number</h3>
      {numbers.map((n) => (
        <p key={n.id}>
          <b>{n.written}</b> of {n.edition}
        </p>
      ))}
      {numbers.length < print.copies && own.length > 0 && <NumberGiver editions={own} printId={print.id} />}
      {own.length === 0 && (
        <p className="text-[13px] text-quiet">
          No edition of it on this sheet.{' '}
          <Link
            className="underline"
            to={`/prints/editions?picture=${picture.id}&condition=${condition.id}&print=${print.id}`}
          >
            Begin one
          </Link>
        </p>
      )}
    </section>
  );
}

function Labels({ print }: { print: PrintLook['print'] }) {
  return (
    <section aria-label="Labels">
      <h3>Labels</h3>
      <ul className="text-[13px]">
        {Object.entries(LABEL_SHEETS).map(([key, { name }]) => (
          <li key={key}>
            <Download href={`/api/prints/labels.pdf?prints=${print.id}&sheet=${key}`}>For the back, {name}</Download>
          </li>
        ))}
        <li>
          <Download href={`/api/prints/labels.pdf?prints=${print.id}&kind=strip`}>
            Settings strip for the margin
          </Download>
        </li>
      </ul>
    </section>
  );
}

function Cost({ print }: { print: PrintLook['print'] }) {
  const { pictureId, conditionId, widthMm, heightMm } = print;
  const { data, error } = useCostQuery({ pictureId, conditionId, widthMm, heightMm, printId: print.id });
  const { data: rates } = useRatesQuery();
  return (
    <section aria-label="Cost">
      <h3>A good print costs</h3>
      {error && <p className="text-[13px]">{error.message}</p>}
      {data && (
        <>
          <p>
            <b className="text-[1.15rem]">
              {formatNumber(data.cost.good, 2)} {data.currency}
            </b>
            {data.spoilage.of > 0 && data.cost.high > data.cost.low && (
              <span className="text-[13px] text-quiet">
                {' '}
                {formatNumber(data.cost.low, 2)} to {formatNumber(data.cost.high, 2)} by spoilage
              </span>
            )}
          </p>
          <table className="text-[13px]">
            <tbody>
              {data.cost.lines.map((l) => (
                <tr key={l.name}>
                  <th scope="row" className="pr-4 text-left font-normal text-quiet">
                    {l.name}
                  </th>
                  <td className="text-right">
                    <Explained
                      why={rates && costExplained(l.name, data, rates.perHour, rates.inkPerMl)}
                      className="tabular-nums"
                    >
                      {formatNumber(l.amount, 2)}
                    </Explained>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="text-[13px] text-quiet">
            Paper by {data.paperFrom}. Ink {formatNumber(data.inkMl, 2)} ml by {INK_WORDS[data.inkFrom]}.{' '}
            {data.spoilage.of === 0
              ? 'Nothing was printed here yet: no spoilage is added.'
              : `${data.spoilage.spoilt} of ${data.spoilage.of} spoiled.`}{' '}
            {formatNumber(data.minutes, 0)} min with the desk, {MINUTES_WORDS[data.minutesFrom]}.{' '}
            {data.asOf ? `Rates of ${data.asOf}.` : 'Default rates: the studio has set none.'}
          </p>
          {data && <OtherSheets print={print} inkFrom={data.inkFrom} />}
          <Price cost={data.cost.good} currency={data.currency} />
        </>
      )}
    </section>
  );
}

/** The same picture, as large, on the other sheets that lie on the table. */
function OtherSheets({ print, inkFrom }: { print: PrintLook['print']; inkFrom: CostView['inkFrom'] }) {
  const { laid } = useTable();
  const others = laid.filter((c) => c.id !== print.conditionId);
  if (others.length === 0) return null;
  return (
    <table className="mt-2 text-[13px]">
      <caption className="text-left text-quiet">On the other sheets on the table</caption>
      <tbody>
        {others.map((c) => (
          <OtherSheet key={c.id} print={print} condition={c} inkFrom={inkFrom} />
        ))}
      </tbody>
    </table>
  );
}

function OtherSheet({
  print,
  condition,
  inkFrom,
}: {
  print: PrintLook['print'];
  condition: ConditionHead;
  /** How the ink of the sheet in hand is reckoned: another way is said, since the two are not alike. */
  inkFrom: CostView['inkFrom'];
}) {
  const { pictureId, widthMm, heightMm } = print;
  const { data, error } = useCostQuery({ pictureId, conditionId: condition.id, widthMm, heightMm });
  return (
    <tr>
      <th scope="row" className="pr-4 text-left font-normal">
        {condition.paper.name}
        <span className="block text-[12px] text-quiet">{settingLine(condition)}</span>
      </th>
      <td className="text-right align-top tabular-nums">
        {data && `${formatNumber(data.cost.good, 2)} ${data.currency}`}
        {error && 'no price'}
        {data && data.inkFrom !== inkFrom && (
          <span className="block text-[12px] text-quiet">its ink by {INK_WORDS[data.inkFrom]}</span>
        )}
      </td>
    </tr>
  );
}

/** What a price leaves, or which price leaves so much. */
function Price({ cost, currency }: { cost: number; currency: string }) {
  const [price, setPrice] = useState('');
  const [margin, setMargin] = useState('');
  const asked = decimal(price);
  const share = decimal(margin) / 100;
  return (
    <div className="mt-2 grid grid-cols-2 gap-2 text-[13px]">
      <TextField
        label="At a price of"
        unit={currency}
        inputMode="decimal"
        value={price}
        onChange={(e) => setPrice(e.target.value)}
      />
      <TextField
        label="To keep"
        unit="%"
        inputMode="decimal"
        value={margin}
        onChange={(e) => setMargin(e.target.value)}
      />
      <output aria-label="What the price leaves">
        {asked > 0 &&
          (asked > cost
            ? `${formatNumber(marginAt(asked, cost) * 100, 0)} % are left`
            : `${formatNumber(cost - asked, 2)} ${currency} less than it costs`)}
      </output>
      <output aria-label="The price that leaves it">
        {share > 0 && share < 1 && `${formatNumber(priceFor(share, cost), 2)} ${currency}`}
      </output>
    </div>
  );
}

const MINUTES_WORDS: Record<CostView['minutesFrom'], string> = {
  timed: 'timed on this sheet by this feed in this size',
  scaled: 'computed from timed prints of another size or feed',
  estimated: 'estimated from feed and area',
};

const INK_WORDS: Record<CostView['inkFrom'], string> = {
  'simulated printer': 'what this simulated printer lays down, colour by colour',
  'picture and sheet': 'area and mean density on this sheet',
  'area alone': 'area; the sheet was not read',
};
