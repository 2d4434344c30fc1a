import { today } from '@rakuen/core/day';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintLook, PrintSettle, PrintView } from '@rakuen/contract/prints';
import { SETTING_KEYS, type SettingKey } from '@rakuen/contract/vocabulary';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { MarkPrinted, NotChecked } from './mark-printed.tsx';
import { MisprintForm } from './misprint-form.tsx';
import { usePrintDoneMutation, useRemovePrintMutation, useSettlePrintMutation } from './print-api.ts';
import { MadeBy } from './made-by.tsx';
import { SettingChoice } from './setting-choice.tsx';
import { SizeLine } from './size-line.tsx';
import { StandingSetting } from './standing-setting.tsx';

/** A print to be made: what differs stands out and is looked at; the rest is small. */
export function WaitingBack({
  look,
  picture,
  condition,
}: {
  look: PrintLook;
  picture: PictureView;
  condition: ConditionHead;
}) {
  const { print, differs } = look;
  const at = useSettling(print);
  const carried = new Set(print.carriedOver);
  const differing = SETTING_KEYS.filter((key) => differs.some((d) => d.key === key));
  return (
    <div className="space-y-5">
      <SizeLine print={print} picture={picture} condition={condition} onChange={at.change} />
      <MadeBy look={look} onTake={(recipeId) => at.change({ recipeId })} />
      <StandingSetting look={look} />
      {differing.length > 0 && <Differing {...{ look, at, carried, differing }} />}
      <Alike {...{ print, at, carried }} differ={differing.length > 0} keys={without(differing)} />
      {at.theirs ? (
        <Conflict
          mine={flat(at.asked?.change)}
          theirs={flat(at.theirs)}
          onMine={() => at.asked && at.change(at.asked.change)}
          onTheirs={at.leave}
        />
      ) : (
        <ErrorNote error={at.error} />
      )}
      <Doing print={print} title={picture.title} open={look.open} />
    </div>
  );
}

const without = (keys: readonly SettingKey[]) => SETTING_KEYS.filter((key) => !keys.includes(key));

/** Changes of a waiting print, a setting at a time; one of them is open. */
function useSettling(print: PrintView) {
  const [settle, settling] = useSettlePrintMutation();
  const [open, setOpen] = useState<SettingKey>();
  const change = (what: PrintSettle) =>
    void settle({ id: print.id, revision: print.revision, change: what })
      .unwrap()
      .then(() => setOpen(undefined))
      .catch(() => undefined);
  return {
    change,
    choose: (key: SettingKey, value: string | number | boolean) => change({ settings: { [key]: value } }),
    open,
    turn: (key: SettingKey) => setOpen(open === key ? undefined : key),
    busy: settling.isLoading,
    error: settling.error,
    theirs: theirsOf<PrintView>(settling.error),
    asked: settling.originalArgs,
    leave: settling.reset,
  };
}
type Settling = ReturnType<typeof useSettling>;

/** Settings that differ from what went before, each with what it differs from. */
function Differing({
  look: { print, differs },
  at,
  carried,
  differing,
}: {
  look: PrintLook;
  at: Settling;
  carried: ReadonlySet<string>;
  differing: readonly SettingKey[];
}) {
  return (
    <section aria-label="Differs from last time">
      <h3 className="mb-1">Differs from last time</h3>
      <ul className="border-t border-edge">
        {differing.map((key) => (
          <li key={key} className="border-b border-line py-2">
            <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
              <SettingChoice
                name={key}
                print={print}
                open={at.open === key}
                onOpen={() => at.turn(key)}
                onChoose={(value) => at.choose(key, value)}
                underlined
              />
              {carried.has(key) ? (
                <Button onClick={() => at.change({ looked: [key] })} disabled={at.busy}>
                  Setting is right
                </Button>
              ) : (
                <span className="text-[13px] text-quiet">checked</span>
              )}
            </div>
            {differs
              .filter((d) => d.key === key)
              .map((d) => (
                <p key={d.from} className="max-w-[70ch] font-serif">
                  {d.sentence}
                </p>
              ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Settings that are as they were. */
function Alike({
  print,
  at,
  carried,
  differ,
  keys,
}: {
  print: PrintView;
  at: Settling;
  carried: ReadonlySet<string>;
  /** Others differ, and stand before these. */
  differ: boolean;
  keys: readonly SettingKey[];
}) {
  const unseen = keys.filter((key) => carried.has(key));
  return (
    <section aria-label="As last time">
      <h3 className="mb-1">{differ ? 'The rest' : 'Settings'}</h3>
      <ul className="flex flex-wrap gap-x-5 gap-y-0.5 text-[13px]">
        {keys.map((key) => (
          <li key={key} className={at.open === key ? 'w-full' : ''}>
            <SettingChoice
              name={key}
              print={print}
              open={at.open === key}
              onOpen={() => at.turn(key)}
              onChoose={(value) => at.choose(key, value)}
              from={carried.has(key) ? print.carriedFrom[key] : undefined}
            />
          </li>
        ))}
      </ul>
      {unseen.length > 0 && (
        <p className="mt-1 text-[13px] text-quiet">
          ○ carried over, not checked.{' '}
          <QuietButton onClick={() => at.change({ looked: unseen })}>Mark all as checked</QuietButton>
        </p>
      )}
    </section>
  );
}

/** What becomes of it: printed, a sheet spoilt, or not printed after all. */
function Doing({ print, title, open }: { print: PrintView; title: string; open: readonly string[] }) {
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const [done, finishing] = usePrintDoneMutation();
  const [remove, removing] = useRemovePrintMutation();
  const [spoilt, setSpoilt] = useState(false);
  const marking = {
    open,
    busy: finishing.isLoading,
    onDone: (what: { passReason?: string }) =>
      void done({ id: print.id, done: { printedOn: today(), ...what } })
        .unwrap()
        .then(() => dispatch(said(`${title} is in the ledger. Judge it when it is dry.`)))
        .catch(() => undefined),
  };
  return (
    <>
      <ErrorNote error={finishing.error ?? removing.error} />
      <div className="flex flex-wrap items-center gap-3">
        <MarkPrinted {...marking} main />
        <Button onClick={() => setSpoilt(!spoilt)}>Sheet spoiled</Button>
        <QuietButton
          onClick={() =>
            void remove(print.id)
              .unwrap()
              .then(() => navigate('/prints'))
              .catch(() => undefined)
          }
        >
          Cancel this print
        </QuietButton>
      </div>
      <NotChecked {...marking} />
      {print.misprints > 0 && (
        <p className="text-[13px]">
          Spoiled so far: {print.misprints}, {print.misprintCause}.
        </p>
      )}
      {spoilt && <MisprintForm printId={print.id} onClose={() => setSpoilt(false)} />}
    </>
  );
}

/** A change, or a print, with its settings beside the rest: one table shows both. */
const flat = ({ settings, ...rest }: { settings?: object } = {}): object => ({ ...rest, ...settings });
