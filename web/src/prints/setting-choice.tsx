import { useState } from 'react';
import type { PrintView } from '@rakuen/contract/prints';
import { BLACK_INKS, INTENTS, PRINT_MODES, type SettingKey } from '@rakuen/contract/vocabulary';
import { SETTINGS, written } from '@rakuen/core/print/settings';
import { Button } from '../parts/button.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { useSettingWordsQuery } from './print-api.ts';
import { asNumber } from '../parts/decimal.ts';
import { Waiting } from '../parts/messages.tsx';

const CHOICES: Partial<Record<SettingKey, readonly string[]>> = {
  blackInk: BLACK_INKS,
  printMode: PRINT_MODES,
  intent: INTENTS,
};
const NEW_WORD = '…';

/** A setting as it is written on the back; opened, it is chosen from what the printer knows. */
export function SettingChoice({
  name,
  print,
  open,
  onOpen,
  onChoose,
  from,
  underlined = false,
}: {
  name: SettingKey;
  print: PrintView;
  open: boolean;
  onOpen?: () => void;
  onChoose?: (value: string | number | boolean) => void;
  /** Where it was carried over from, while it was not looked at. */
  from?: string;
  underlined?: boolean;
}) {
  const setting = SETTINGS[name];
  const value = print.settings[name];
  const line = (
    <>
      <span className="text-quiet">{setting.name} </span>
      <span className={underlined ? 'border-b-2 border-ink font-semibold' : ''}>{written(name, value)}</span>
      {from && (
        <span className="text-quiet" title={`from ${from}`}>
          {' '}
          ○<span className="sr-only"> carried over from {from}</span>
        </span>
      )}
    </>
  );
  if (!onOpen) return line;
  return (
    <>
      <button
        type="button"
        onClick={onOpen}
        aria-expanded={open}
        className="min-h-7 rounded-[3px] text-left hover:bg-sheet"
      >
        {line}
      </button>
      {open && onChoose && <Chooser name={name} print={print} onChoose={onChoose} />}
    </>
  );
}

function Chooser({
  name,
  print,
  onChoose,
}: {
  name: SettingKey;
  print: PrintView;
  onChoose: (value: string | number | boolean) => void;
}) {
  const { entry, name: label } = SETTINGS[name];
  const value = print.settings[name];
  const { data, isFetching } = useSettingWordsQuery(print.settings.printer);
  const known = CHOICES[name] ?? data?.words[name] ?? [];
  const [typed, setTyped] = useState<string>();
  const [wrong, setWrong] = useState<string>();
  if (entry === 'yes or no')
    return (
      <Button onClick={() => onChoose(!value)} className="ml-2">
        {value ? 'Leave it off' : 'Set it'}
      </Button>
    );
  // No field gives way to another under the hand: it is there once its words are.
  if (entry === 'word' && known.length === 0 && isFetching) return <Waiting what="Looking up what it was before" />;
  const stands = entry === 'number' ? String(value ?? '') : '';
  const typing = entry === 'number' || typed !== undefined || (entry === 'word' && known.length === 0);
  return (
    <form
      className="my-1 flex max-w-md items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        const text = (typed ?? stands).trim();
        if (entry !== 'number') return onChoose(text);
        const number = asNumber.setValueAs(text);
        if (!Number.isFinite(number)) return setWrong('A number is needed');
        onChoose(number);
      }}
    >
      {typing ? (
        <TextField
          label={entry === 'number' ? label : `${label}, a new word`}
          unit={'unit' in SETTINGS[name] ? (SETTINGS[name] as { unit?: string }).unit : undefined}
          autoFocus
          maxLength={120}
          inputMode={entry === 'number' ? 'decimal' : undefined}
          error={wrong}
          value={typed ?? stands}
          onChange={(e) => {
            setTyped(e.target.value);
            setWrong(undefined);
          }}
          className="min-w-56"
        />
      ) : (
        <ChoiceField
          label={label}
          autoFocus
          value={String(value ?? '')}
          options={[
            ...named([...new Set([String(value ?? ''), ...known])]),
            ...(entry === 'word' ? [[NEW_WORD, 'another word…'] as const] : []),
          ]}
          onChange={(e) => (e.target.value === NEW_WORD ? setTyped('') : onChoose(e.target.value))}
          className="min-w-56"
        />
      )}
      {typing && <Button type="submit">Write it</Button>}
    </form>
  );
}
