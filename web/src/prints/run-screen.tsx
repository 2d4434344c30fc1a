import { today } from '@rakuen/core/day';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { RunItemView, RunView } from '@rakuen/contract/runs';
import { FEED_PATHS } from '@rakuen/core/print/feed';
import { SESSION_CHECKS } from '@rakuen/core/print/checks';
import { written, SETTINGS } from '@rakuen/core/print/settings';
import { formatNumber } from '@rakuen/core/measurement/show';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { Caution, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { FINGER, MarkPrinted, NotChecked } from './mark-printed.tsx';
import { MisprintForm } from './misprint-form.tsx';
import {
  useBoxesQuery,
  useCloseRunMutation,
  useRunDoneMutation,
  useRunLookedMutation,
  useRunSpoiltMutation,
  useRunsQuery,
  useSettlePrintMutation,
  useSheetLookedMutation,
} from './print-api.ts';
import { clock } from './clock.ts';
import { PlanRun } from './plan-run.tsx';
import { PrintPlaces } from './print-places.tsx';

/** A session at the printer: in which order, what to do before each sheet, ticked as it comes out. Made for a finger. */
export function RunScreen() {
  const { data: runs, error, isLoading } = useRunsQuery();
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <PrintPlaces />
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Fetching the run" />}
      {runs?.map((run) => (
        <Run key={run.id} run={run} />
      ))}
      {runs && <PlanRun open={runs.map((r) => r.printer)} />}
    </>
  );
}

function Run({ run }: { run: RunView }) {
  const [looked] = useRunLookedMutation();
  const [close, closing] = useCloseRunMutation();
  const { plan } = run;
  const left = run.items.filter((i) => i.state === 'waiting');
  const hours = (min: number) => (min >= 90 ? `${formatNumber(min / 60, 1)} h` : `${formatNumber(min, 0)} min`);
  return (
    <section aria-label={`Run at the ${run.printer}`} className="mb-8">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6">
        <h2>Run at the {run.printer}</h2>
        <p>
          {left.length} of {run.items.length} to print · {hours(plan.minutes)} at the printer, dry after{' '}
          {hours(plan.dryMin)} ·{' '}
          {plan.blackInkChanges === 0
            ? 'the black stays in'
            : `${plan.blackInkChanges === 1 ? 'one change' : `${plan.blackInkChanges} changes`} of the black, ${formatNumber(plan.inkMl, 0)} ml (practice)`}
          {!plan.exact && ' · a good order, not proved the best'}
        </p>
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-6 text-[13px]">
        {run.needs.map((n) => (
          <li key={n.paperId} className={n.left !== undefined && n.left < n.sheets ? 'font-semibold' : ''}>
            {n.paper}: {n.sheets === 1 ? 'one sheet' : `${n.sheets} sheets`}
            {n.left === undefined
              ? ', stock not counted'
              : n.left < n.sheets
                ? `, only ${n.left} left`
                : ` of ${n.left} left`}
          </li>
        ))}
        <li className="text-quiet">
          minutes as timed on this sheet, else estimated from feed and area; the stack of a feeder as found at the
          bench, else {FEED_PATHS.auto.stack} (practice)
        </li>
        {run.inkMl !== undefined && run.inkMl > 0 && (
          <li>some {formatNumber(run.inkMl, 1)} ml of ink, by area and density</li>
        )}
      </ul>
      <Ticks
        label="Before the first sheet"
        looks={Object.keys(SESSION_CHECKS)}
        looked={run.looked}
        onChange={(next) => looked({ id: run.id, looked: next })}
      />
      {run.unplaced.length > 0 && (
        <p role="alert" className="mt-3 max-w-[80ch]">
          <b>Not planned:</b> {run.unplaced.map((p) => p.title).join(', ')}. Nobody is at the printer for long enough.
          They wait for another run.
        </p>
      )}
      <ol className="mt-3 border-t border-edge">
        {run.items.map((item, i) => (
          <Item key={item.print.id} run={run} item={item} turn={i + 1} next={left[0] === item} />
        ))}
      </ol>
      <p className="mt-3">
        <Button disabled={closing.isLoading} onClick={() => void close(run.id)}>
          {left.length === 0 ? 'Close the run' : 'Close the run; the rest waits on'}
        </Button>
      </p>
    </section>
  );
}

function Item({ run, item, turn, next }: { run: RunView; item: RunItemView; turn: number; next: boolean }) {
  const dispatch = useAppDispatch();
  const [looked] = useSheetLookedMutation();
  const [done, finishing] = useRunDoneMutation();
  const [spoil] = useRunSpoiltMutation();
  const [spoilt, setSpoilt] = useState(false);
  const { print } = item;
  const at = { id: run.id, printId: print.id };
  const marking = {
    open: item.open,
    busy: finishing.isLoading,
    onDone: (what: { passReason?: string }) =>
      void done({ ...at, done: { printedOn: today(), ...what } })
        .unwrap()
        .then(() => dispatch(said(`${item.title} is marked as printed.`)))
        .catch(() => undefined),
  };
  return (
    <li className={`border-b border-line py-3 ${item.state === 'waiting' ? '' : 'text-quiet'}`}>
      <div className="grid grid-cols-[28px_64px_minmax(0,1fr)_auto] items-start gap-x-4 max-[900px]:grid-cols-[28px_64px_minmax(0,1fr)]">
        <span className="tabular-nums">{turn}</span>
        <img
          src={`/api/pictures/${print.pictureId}/preview`}
          alt=""
          className="max-h-14 w-16 object-contain object-left-top"
        />
        <What item={item} since={run.createdAt} />
        {item.state === 'waiting' ? (
          <div className="flex flex-wrap justify-end gap-2 max-[900px]:col-span-3 max-[900px]:mt-2 max-[900px]:justify-start max-[900px]:pl-[44px]">
            <MarkPrinted {...marking} main={next} />
            <Button className={FINGER} onClick={() => setSpoilt(!spoilt)}>
              Sheet spoiled
            </Button>
          </div>
        ) : (
          <span>{item.state === 'printed' ? 'printed' : 'waits on'}</span>
        )}
      </div>
      {next && (
        <div className="mt-2 space-y-1.5 pl-[44px]">
          <Ticks
            label="Before this sheet"
            looks={item.looks}
            looked={item.looked}
            onChange={(words) => looked({ ...at, looked: words })}
            says={{ 'media setting': `media setting: ${print.settings.mediaSetting}` }}
          />
          <Differences item={item} />
          {item.open.includes('box') && <ProposedBox print={print} />}
          <NotChecked {...marking} />
          {item.cautions.map((c) => (
            <Caution key={c}>{c}</Caution>
          ))}
        </div>
      )}
      <ErrorNote error={finishing.error} />
      {spoilt && (
        <div className="mt-2">
          <MisprintForm
            printId={print.id}
            onClose={() => setSpoilt(false)}
            book={(misprint) => spoil({ ...at, misprint }).unwrap()}
          />
        </div>
      )}
    </li>
  );
}

/** What differs from the sheet before it, each to be checked by a finger. */
function Differences({ item: { print, differs } }: { item: RunItemView }) {
  const [settle, settling] = useSettlePrintMutation();
  const open = (key: string) => print.carriedOver.includes(key);
  if (differs.length === 0) return null;
  return (
    <ul aria-label={`Differs: ${print.code}`} className="border-t border-line">
      {differs.map((d, i) => (
        <li
          key={`${d.key} ${d.from}`}
          className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line py-1"
        >
          <p className="min-w-0 flex-1 basis-64 font-serif">{d.sentence}</p>
          {differs.findIndex((other) => other.key === d.key) === i &&
            (open(d.key) ? (
              <Button
                className={FINGER}
                disabled={settling.isLoading}
                aria-label={`${SETTINGS[d.key].name} is right: ${written(d.key, print.settings[d.key])}`}
                onClick={() => void settle({ id: print.id, revision: print.revision, change: { looked: [d.key] } })}
              >
                Setting is right
              </Button>
            ) : (
              <span className="text-[13px] text-quiet">checked</span>
            ))}
        </li>
      ))}
    </ul>
  );
}

/** The box of the print that is repeated, to be confirmed. */
function ProposedBox({ print }: { print: RunItemView['print'] }) {
  const [settle, settling] = useSettlePrintMutation();
  const { data: boxes = [] } = useBoxesQuery();
  const box = boxes.find((b) => b.id === print.boxId);
  if (!box) return null;
  return (
    <p className="flex flex-wrap items-center gap-x-4">
      <span className="font-serif">
        Sheet from {box.label}
        {box.batch && `, ${box.batch}`}, as {print.carriedFrom.box}.
      </span>
      <Button
        className={FINGER}
        disabled={settling.isLoading}
        onClick={() => void settle({ id: print.id, revision: print.revision, change: { boxId: box.id } })}
      >
        Box is right
      </Button>
    </p>
  );
}

/** Which print it is, how it goes in and when, and what has to be done before. */
function What({ item, since }: { item: RunItemView; since: string }) {
  const { print } = item;
  return (
    <div className="min-w-0">
      <p>
        <Link
          to={`/prints/${print.id}`}
          className="font-serif text-[1.06rem] underline decoration-line underline-offset-3"
        >
          {item.title} on {item.paper}
        </Link>
        {print.copies > 1 && `, ${print.copies} copies`}
      </p>
      <p className="text-[13px]">
        {print.settings.mediaSetting} · {print.settings.feed || 'feed not set'} · {clock(since, item.startMin)} to{' '}
        {clock(since, item.endMin)}
        {print.misprints > 0 && ` · spoiled so far: ${print.misprints}`}
      </p>
      {item.state === 'waiting' && item.loads.length > 1 && (
        <p className="text-[13px]">Load the feeder at {item.loads.map((at) => clock(since, at)).join(', ')}</p>
      )}
      {item.state === 'printed' && <Rack print={print} drying={item.drying} />}
      {item.state === 'waiting' &&
        item.before.map((b) => (
          <p key={b} className="border-l-2 border-ink pl-2 font-semibold">
            {b}
          </p>
        ))}
    </div>
  );
}

/** From when on a print that came out may be looked at, stacked, read and framed. */
function Rack({ print, drying }: Pick<RunItemView, 'print' | 'drying'>) {
  const at = (min: number) => clock(print.recordedAt, min);
  return (
    <p className="text-[13px]">
      Judge from {at(drying.lookMin)}, stack from {at(drying.stackMin)}, read from {at(drying.readMin)} (practice);
      frame from {at(drying.frameMin)}.
    </p>
  );
}

/** Short checks, each ticked with a finger. */
function Ticks({
  label,
  looks,
  looked,
  onChange,
  says = {},
}: {
  label: string;
  looks: readonly string[];
  looked: readonly string[];
  onChange: (looked: string[]) => Promise<unknown>;
  says?: Readonly<Record<string, string>>;
}) {
  // A tick is there when the finger leaves; the server is asked beside it.
  const [ticked, setTicked] = useState<string[]>();
  const shown = ticked ?? looked;
  const stands = looked.join();
  // What the finger did stays until the list that was fetched anew says it, and goes where it was refused.
  useEffect(() => setTicked(undefined), [stands]);
  const tick = (next: string[]) => {
    setTicked(next);
    void onChange(next).then((done) => (done as { error?: unknown }).error && setTicked(undefined));
  };
  return (
    <fieldset className="mt-2 flex flex-wrap gap-x-2 gap-y-1">
      <legend className="text-[13px] text-quiet">{label}</legend>
      {looks.map((look) => {
        const on = shown.includes(look);
        return (
          <label
            key={look}
            className={`flex min-h-[44px] items-center gap-2 rounded-[3px] border px-3 ${on ? 'border-ink bg-field' : 'border-edge'}`}
          >
            <input
              type="checkbox"
              className="size-5 accent-ink"
              checked={on}
              onChange={() => tick(on ? shown.filter((l) => l !== look) : [...shown, look])}
            />
            {says[look] ?? look}
          </label>
        );
      })}
    </fieldset>
  );
}
