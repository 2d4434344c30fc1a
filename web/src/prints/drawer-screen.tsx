import { useState } from 'react';
import { Link } from 'react-router';
import type { RateLine, RatesInput, RatesView } from '@rakuen/contract/costs';
import type { PaperView } from '@rakuen/contract/papers';
import type { BoxView } from '@rakuen/contract/stock';
import { paysUpTo } from '@rakuen/core/cost/print-cost';
import type { Rate } from '@rakuen/core/cost/spoilage';
import { FEED_PATHS } from '@rakuen/core/print/feed';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, usePapersQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { Explained } from '../parts/explained.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import {
  useBoxesQuery,
  useRatesQuery,
  useRemoveBoxMutation,
  useSetRatesMutation,
  useSpoilageQuery,
} from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';
import { decimal, NUMBER_TYPED } from '../parts/decimal.ts';
import { eachExplained, leftExplained, longestIdle, rateExplained, worthExplained } from './explanations.ts';
import { AddBox, ChangeBox, CountBox } from './add-box.tsx';

/** What lies in the drawer, what is spoilt, and what the studio reckons with. */
export function DrawerScreen() {
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <PrintPlaces />
      <div className="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-10 max-[1150px]:grid-cols-1">
        <Boxes />
        <div className="space-y-8">
          <Spoilage />
          <Feeds />
          <Rates />
        </div>
      </div>
    </>
  );
}

const leftOf = (b: BoxView) =>
  b.left < 0
    ? `empty, and ${b.kind === 'sheet' ? `${-b.left} more taken` : `${formatNumber(-b.left / 1000, 1)} m more taken`} than it held: count it`
    : b.kind === 'sheet'
      ? `${b.left} of ${b.sheets} sheets`
      : `${formatNumber(b.left / 1000, 1)} of ${formatNumber(b.heightMm / 1000, 1)} m`;

function Boxes() {
  const { data: boxes, error } = useBoxesQuery();
  const { data: papers = [] } = usePapersQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const suits = (paperId: string) => conditions.find((c) => c.paperId === paperId && c.facts)?.id;
  const [adding, setAdding] = useState(false);
  const idlest = longestIdle(boxes ?? []);
  // Amounts of two currencies are never added.
  const worth = new Map<string, number>();
  for (const b of boxes ?? []) if (b.worth !== undefined) worth.set(b.currency, (worth.get(b.currency) ?? 0) + b.worth);
  const unpriced = boxes?.filter((b) => b.worth === undefined).length ?? 0;
  return (
    <section aria-label="In the drawer">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2>In the drawer</h2>
        <p>
          <Explained why={worth.size > 0 ? worthExplained(boxes ?? []) : undefined}>
            {[
              ...[...worth].map(([currency, amount]) => `${formatNumber(amount, 0)} ${currency}`),
              ...(unpriced > 0 && worth.size > 0 ? [`${unpriced} without a price`] : []),
            ].join(' and ')}
          </Explained>
        </p>
      </div>
      {idlest && (
        <p className="text-[13px] text-quiet">
          Unused for longest: {papers.find((p) => p.id === idlest.paperId)?.name}, {idlest.label}, since{' '}
          {day(idlest.touchedOn ?? idlest.boughtOn)}
        </p>
      )}
      <ErrorNote error={error} />
      {boxes?.length === 0 && !adding && (
        <p className="my-2">
          No box is counted yet. Enter what is in the drawer; prints and misprints then take from it.
        </p>
      )}
      <ul className="border-t border-edge">
        {boxes?.map((b) => (
          <Box key={b.id} box={b} paper={papers.find((p) => p.id === b.paperId)} suits={suits(b.paperId)} />
        ))}
      </ul>
      {adding ? (
        <AddBox onClose={() => setAdding(false)} />
      ) : (
        <Button className="mt-2" onClick={() => setAdding(true)} disabled={papers.length === 0}>
          Add a box or a roll
        </Button>
      )}
    </section>
  );
}

/** A box or a roll: what is left of it, and what can be done with it. */
function Box({ box: b, paper, suits }: { box: BoxView; paper?: PaperView; suits?: string }) {
  const [remove, removing] = useRemoveBoxMutation();
  const [open, setOpen] = useState<'count' | 'change'>();
  const turn = (what: 'count' | 'change') => setOpen(open === what ? undefined : what);
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto_auto] items-baseline gap-x-4 border-b border-line py-1.5">
      <span className="min-w-0">
        <Link className="font-serif underline decoration-line underline-offset-3" to={`/ledger/papers/${b.paperId}`}>
          {paper?.name}
        </Link>
        , {b.label}
      </span>
      <Explained why={leftExplained(b)} className={b.left < 3 && b.kind === 'sheet' ? 'font-semibold' : ''}>
        {leftOf(b)}
      </Explained>
      <span>
        <QuietButton aria-expanded={open === 'count'} onClick={() => turn('count')} aria-label={`Count ${b.label}`}>
          Count
        </QuietButton>
        <QuietButton aria-expanded={open === 'change'} onClick={() => turn('change')} aria-label={`Change ${b.label}`}>
          Change
        </QuietButton>
        <QuietButton onClick={() => void remove(b.id)} aria-label={`Remove ${b.label}`}>
          Remove
        </QuietButton>
      </span>
      <span className="col-span-full text-[13px] text-quiet">
        {suits && (
          <Link className="float-right underline" to={`/match/papers/${suits}`}>
            Pictures for it
          </Link>
        )}
        {b.each !== undefined && (
          <>
            <Explained why={eachExplained(b)}>
              {formatNumber(b.each, 2)} {b.currency} {b.kind === 'sheet' ? 'a sheet' : 'a metre'}
            </Explained>{' '}
            ·{' '}
          </>
        )}
        {[
          b.batch,
          `bought ${day(b.boughtOn)}`,
          b.countedAt && `counted ${day(b.countedAt)}`,
          b.idle && 'not touched for a year',
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
      <ErrorNote error={removing.error} />
      {open === 'count' && <CountBox box={b} onClose={() => setOpen(undefined)} />}
      {open === 'change' && paper && <ChangeBox box={b} paper={paper} onClose={() => setOpen(undefined)} />}
    </li>
  );
}

/** What a cause took; where prices are lacking for some of it, that they are. */
const lostOf = ({ lost, unpriced }: { lost: number; unpriced: number }) =>
  unpriced === 0
    ? formatNumber(lost, 2)
    : lost === 0
      ? 'no price'
      : `${formatNumber(lost, 2)}, and ${unpriced} without a price`;

const percent = (share: number) => `${formatNumber(share * 100, 0)} %`;
const spread = (r: Rate) => `${percent(r.low)} to ${percent(r.high)}`;

function Spoilage() {
  const { data, error } = useSpoilageQuery({});
  return (
    <section aria-label="Spoiled in the last quarter">
      <h2>Spoiled in the last quarter</h2>
      <ErrorNote error={error} />
      {data && data.all.of === 0 && <p>Nothing was printed since {day(data.from)}.</p>}
      {data && data.all.of > 0 && (
        <>
          <p>
            <Explained why={rateExplained(data.all)}>
              <b>{percent(data.all.share)}</b>
            </Explained>{' '}
            of {data.all.of} sheets; it lies between {spread(data.all)}{' '}
            <span className="text-quiet">(95 %, Wilson 1927)</span>
          </p>
          {data.sentence && <p className="font-serif">{data.sentence}</p>}
          <RateTable head="Paper" lines={data.papers} />
          <RateTable head="Feed" lines={data.feeds} />
          {data.causes.length > 0 && (
            <table className="mt-3 w-full text-[13px]">
              <thead>
                <tr className="border-b border-edge text-left">
                  <th>Cause</th>
                  <th className="text-right">Sheets</th>
                  <th className="text-right">{data.currency}</th>
                  <th className="pl-4">Caught by</th>
                </tr>
              </thead>
              <tbody>
                {data.causes.map((c) => (
                  <tr key={c.cause} className="border-b border-line">
                    <td>{c.cause}</td>
                    <td className="text-right">{c.sheets}</td>
                    <td className="text-right">{lostOf(c)}</td>
                    <td className="pl-4">{c.check || 'no check'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {data.otherCurrency > 0 && (
            <p className="text-[13px] text-quiet">
              {data.otherCurrency} misprints are priced in another currency and count in sheets alone.
            </p>
          )}
        </>
      )}
    </section>
  );
}

function RateTable({ head, lines }: { head: string; lines: readonly RateLine[] }) {
  return (
    <table className="mt-3 w-full text-[13px]">
      <thead>
        <tr className="border-b border-edge text-left">
          <th>{head}</th>
          <th className="text-right">Spoiled</th>
          <th className="text-right">Rate</th>
          <th className="pl-4">Lies between</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((l) => (
          <tr key={l.of} className="border-b border-line">
            <td>{l.of}</td>
            <td className="text-right">
              {l.rate.spoilt} of {l.rate.of}
            </td>
            <td className="pl-3 text-right">
              <Explained why={rateExplained(l.rate)}>{percent(l.rate.share)}</Explained>
            </td>
            <td className="pl-4">{spread(l.rate)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Two ways to feed a print, and up to how many the one that is quick to set up serves better. */
function Feeds() {
  const hand = FEED_PATHS.front;
  const [slow, setSlow] = useState({ setUp: '20', each: String(FEED_PATHS.roll.minutesEach) });
  const [each, setEach] = useState(String(hand.minutesEach));
  const number = (text: string) => decimal(text) || 0;
  const upTo = paysUpTo({ setUp: 0, each: number(each) }, { setUp: number(slow.setUp), each: number(slow.each) });
  return (
    <section aria-label="By hand or from the roll">
      <h2>By hand or from the roll</h2>
      <div className="grid grid-cols-3 gap-3">
        <TextField
          label="By hand, each"
          unit="min"
          inputMode="decimal"
          value={each}
          onChange={(e) => setEach(e.target.value)}
        />
        <TextField
          label="Roll, to set up"
          unit="min"
          inputMode="decimal"
          value={slow.setUp}
          onChange={(e) => setSlow({ ...slow, setUp: e.target.value })}
        />
        <TextField
          label="Roll, each"
          unit="min"
          inputMode="decimal"
          value={slow.each}
          onChange={(e) => setSlow({ ...slow, each: e.target.value })}
        />
      </div>
      <p className="mt-1 font-serif" role="status">
        {upTo === Infinity
          ? 'Feeding by hand always takes less.'
          : upTo === 0
            ? 'The roll takes less from the first print on.'
            : `Up to ${upTo === 1 ? 'one print' : `${upTo} prints`} feeding by hand takes no longer; from the next on the roll is quicker.`}
      </p>
      <p className="text-[13px] text-quiet">
        Six to eight minutes a sheet by hand (practice); the roll as you time it.
      </p>
    </section>
  );
}

const FIELDS = [
  ['perHour', 'An hour of work'],
  ['inkPerMl', 'Ink, a millilitre'],
  ['solidMlPerM2', 'Ink on a m² of full black, ml'],
  ['finishing', 'Sleeve and board, a print'],
] as const;

function Rates() {
  const { data } = useRatesQuery();
  const [set, setting] = useSetRatesMutation();
  if (!data) return null;
  const theirs = theirsOf<RatesView>(setting.error);
  return (
    <section aria-label="Studio rates">
      <h2>Studio rates</h2>
      <form
        key={JSON.stringify(data)}
        className="mt-1"
        onSubmit={(e) => {
          e.preventDefault();
          const form = new FormData(e.currentTarget);
          const number = (key: string) => decimal(String(form.get(key)));
          const rates: RatesInput = {
            currency: String(form.get('currency')).toUpperCase(),
            perHour: number('perHour'),
            inkPerMl: number('inkPerMl'),
            solidMlPerM2: number('solidMlPerM2'),
            finishing: number('finishing'),
            asOf: new Date().toLocaleDateString('sv'),
          };
          void set({ rates, revision: data.revision });
        }}
      >
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          {FIELDS.map(([key, name]) => (
            <TextField key={key} label={name} name={key} {...NUMBER_TYPED} required defaultValue={data[key]} />
          ))}
          <TextField label="Currency" name="currency" maxLength={3} required defaultValue={data.currency} />
        </div>
        <p className="mt-1 text-[13px] text-quiet">
          {data.said ? `As of ${data.asOf};` : 'Default rates: the studio has set none;'} saving them dates them today.
        </p>
        {theirs && setting.originalArgs ? (
          <Conflict
            mine={setting.originalArgs.rates}
            theirs={theirs}
            onMine={() => void set({ rates: setting.originalArgs!.rates, revision: theirs.revision })}
            onTheirs={setting.reset}
          />
        ) : (
          <ErrorNote error={setting.error} />
        )}
        <Button className="mt-2" type="submit" disabled={setting.isLoading}>
          Save the rates
        </Button>
      </form>
    </section>
  );
}
