import { useState, type ReactNode } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { BenchKind } from '@rakuen/contract/observations';
import type { ApiError } from '@rakuen/contract/settings';
import {
  GRADES,
  OBSERVATION_KINDS,
  primaryObservations,
  type Observation,
  type ObservationKind,
} from '@rakuen/core/measurement/observations';
import {
  useForgetObservationMutation,
  useKeepScanMutation,
  useObserveMutation,
  useReadBenchMutation,
  useSimulateScanMutation,
} from './reading-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Download } from '../parts/download.tsx';
import { BinButton } from '../parts/bin-button.tsx';
import { Button, QuietButton } from '../parts/button.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { Caution, ErrorNote } from '../parts/messages.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { FeedingForm } from './feeding-form.tsx';
import { BENCH_FORMS, inWords, TypingError, type BenchForm } from './bench-forms.ts';

const STAND_IN_NAMES: Record<BenchKind, string> = {
  weight: 'the simulated scale',
  thickness: 'the simulated micrometer',
  opacity: 'the simulated spectrophotometer',
  gloss: 'the simulated gloss meter',
};

const isBench = (kind: ObservationKind): kind is BenchKind => kind in BENCH_FORMS;
const GROUPS = [
  {
    of: 'sheet',
    title: 'Of the bare sheet',
    hint: 'True of every print condition on this paper.',
    kinds: ['weight', 'thickness', 'opacity', 'texture', 'curl'],
  },
  {
    of: 'print',
    title: 'Of this print',
    hint: 'True of this print condition alone.',
    kinds: ['gloss', 'rub', 'bronzing', 'rings', 'hairlines', 'scuffs', 'feeding'],
  },
] as const satisfies readonly { of: string; title: string; hint: string; kinds: readonly ObservationKind[] }[];

/** What is weighed, measured, scanned and looked at besides the patches. */
export function BenchPlace({ condition }: { condition: ConditionView }) {
  const [by, setBy] = useRemembered('printmaker', '');
  const [light, setLight] = useRemembered('judging-light', '');
  return (
    <div className="space-y-7">
      <div className="grid max-w-[720px] grid-cols-2 gap-4">
        <TextField label="Who works at the bench" maxLength={80} value={by} onChange={(e) => setBy(e.target.value)} />
        <TextField
          label="Light for what is judged"
          maxLength={80}
          placeholder="the lamp, and how bright"
          value={light}
          onChange={(e) => setLight(e.target.value)}
        />
      </div>
      <p className="-mt-4 text-[13px] text-quiet">
        Write several readings into one box with a space between: their spread is carried into every figure.
      </p>
      {GROUPS.map(({ of, title, hint, kinds }) => (
        <section key={of} aria-label={title}>
          <h3 className="text-[1.15rem]">
            {title} <span className="font-sans text-[13px] text-quiet">{hint}</span>
          </h3>
          {kinds.map((kind) => (
            <Kind key={kind} kind={kind} condition={condition}>
              {kind === 'texture' ? (
                <ScanForm condition={condition} by={by} />
              ) : kind === 'feeding' ? (
                <FeedingForm condition={condition} by={by} />
              ) : isBench(kind) ? (
                <MeasuredForm kind={kind} condition={condition} by={by} />
              ) : (
                <JudgedForm kind={kind} condition={condition} by={by} light={light} />
              )}
            </Kind>
          ))}
        </section>
      ))}
      <Caution>
        Looking for brightener with a UV torch: never look into the lamp, do not aim it at people, wear glasses that
        block UV. Dust of barium-coated papers: do not breathe it. The maker’s safety data sheet goes before this page.
      </Caution>
    </div>
  );
}

function Kind({ kind, condition, children }: { kind: ObservationKind; condition: ConditionView; children: ReactNode }) {
  const { name, how, source, figure } = OBSERVATION_KINDS[kind];
  return (
    <section
      aria-label={name}
      className="grid grid-cols-[minmax(0,0.9fr)_minmax(0,1.5fr)_minmax(0,1.2fr)] gap-x-7 gap-y-3 border-t border-line py-3 max-[1150px]:grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)]"
    >
      <div>
        <h4 className="font-semibold">{name}</h4>
        <p className="font-serif leading-snug">{how}</p>
        <p className="text-[12.5px] text-quiet">
          {figure}, {source}
        </p>
      </div>
      <div>{children}</div>
      <Kept kind={kind} condition={condition} />
    </section>
  );
}

/** What is kept of a kind, newest first; what gives the figures is marked. */
function Kept({ kind, condition }: { kind: ObservationKind; condition: ConditionView }) {
  const [forget, { error }] = useForgetObservationMutation();
  const dispatch = useAppDispatch();
  const { name } = OBSERVATION_KINDS[kind];
  const kept = condition.observations.filter((o) => o.kind === kind).reverse();
  const read = new Map(kept.map((o) => [o, { kind, takenAt: o.takenAt, ...o.value } as Observation]));
  const primary = primaryObservations([...read.values()].reverse());
  if (kept.length === 0) return <p className="text-quiet max-[1150px]:col-start-2">Nothing written down yet.</p>;
  return (
    <div className="max-[1150px]:col-start-2">
      <ul aria-label={`${name}, written down`} className="space-y-1.5">
        {kept.map((o) => {
          const words = inWords(read.get(o)!);
          return (
            <li key={o.id} className="flex items-start justify-between gap-x-3">
              <div className="min-w-0">
                <p className={OBSERVATION_KINDS[kind].figure === 'judged' ? 'font-serif' : ''}>
                  {words}
                  {kept.length > 1 && primary.has(read.get(o)!) && (
                    <span className="ml-2 border border-edge px-1 font-sans text-[11.5px] text-quiet">
                      {kind === 'texture' && primary.size > 1 ? `used, one of ${primary.size} places` : 'used'}
                    </span>
                  )}
                </p>
                <p className="text-[12.5px] break-words text-quiet">
                  {[day(o.takenAt), o.by, o.instrument, o.light, o.note].filter(Boolean).join(', ')}
                  {o.conditionId !== condition.id && ', with another print condition of this paper'}
                </p>
                {o.scanHash && (
                  <figure className="mt-1">
                    <img
                      src={`/api/observations/${o.id}/scan?as=raised`}
                      alt={`Scan of the bare sheet under a raking lamp: ${words}`}
                      className="size-36 border border-line object-cover"
                    />
                    <figcaption className="text-[12.5px] text-quiet">
                      contrast raised; <Download href={`/api/observations/${o.id}/scan`}>the scan itself</Download>
                    </figcaption>
                  </figure>
                )}
              </div>
              <BinButton
                of={`${name}, ${words}`}
                onBin={() =>
                  forget(o.id)
                    .unwrap()
                    .then(() => dispatch(said(`${name} removed.`)))
                }
              />
            </li>
          );
        })}
      </ul>
      <ErrorNote error={error} />
    </div>
  );
}

const now = () => new Date().toISOString();
const NOBODY = 'Say first who works at the bench, at the top.';

interface Measured<K extends BenchKind> {
  kind: K;
  condition: ConditionView;
  by: string;
}

/** What is typed of a kind, filled in by a stand-in, asked about where it is hard to believe, and kept. */
function useMeasured<K extends BenchKind>({ kind, condition, by }: Measured<K>) {
  const { fields, toValues, fromValues } = BENCH_FORMS[kind] as BenchForm<K>;
  const blank = Object.fromEntries(fields.map((f) => [f.key, f.start ?? '']));
  const [typed, setTyped] = useState<Record<string, string>>(blank);
  const [instrument, setInstrument] = useRemembered(`instrument.${kind}`, '');
  const [wrong, setWrong] = useState<{ field?: string; message: string }>();
  const [observe, observing] = useObserveMutation();
  const [read, reading] = useReadBenchMutation();
  const dispatch = useAppDispatch();
  const { name } = OBSERVATION_KINDS[kind];
  // What is hard to believe is asked about, at its field, and kept when somebody says that it is right.
  const refusal = observing.error as ApiError | undefined;
  const doubt = refusal?.statusCode === 409 && refusal.field ? refusal : undefined;

  const fill = async () => {
    const { data } = await read({ conditionId: condition.id, kind });
    if (!data) return;
    setTyped({ ...blank, ...fromValues(data.values as never) });
    setInstrument(data.instrument);
    setWrong(undefined);
  };
  const keep = async (sure = false) => {
    setWrong(undefined);
    if (!by.trim()) return setWrong({ message: NOBODY });
    try {
      const values = toValues(typed);
      const done = await observe({
        conditionId: condition.id,
        observations: values.map((value) => ({ kind, value, takenAt: now(), by, instrument })),
        ...(sure && { sure }),
      });
      if (!('data' in done)) return;
      setTyped(blank);
      dispatch(said(`${name} kept.`));
    } catch (error) {
      if (!(error instanceof TypingError)) throw error;
      setWrong({ field: error.field, message: error.message });
    }
  };
  const change = (key: string, value: string) => {
    setTyped({ ...typed, [key]: value });
    observing.reset();
  };
  const faultOf = (key: string) =>
    wrong?.field === key ? wrong.message : doubt?.field === key ? doubt.message : undefined;
  return {
    ...{ typed, change, instrument, setInstrument, faultOf, doubt, fill, keep },
    busy: observing.isLoading,
    reading: reading.isLoading,
    /** What is said of no field. */
    fault: wrong && !wrong.field ? wrong.message : undefined,
    error: doubt ? reading.error : (observing.error ?? reading.error),
  };
}

/** Readings typed in or filled in by a stand-in. */
function MeasuredForm<K extends BenchKind>(measured: Measured<K>) {
  const { kind } = measured;
  const { fields, toValues, derived } = BENCH_FORMS[kind] as BenchForm<K>;
  const { typed, change, instrument, setInstrument, faultOf, doubt, fill, keep, busy, reading, fault, error } =
    useMeasured(measured);
  const { name } = OBSERVATION_KINDS[kind];
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      className="space-y-2"
    >
      <div
        className={`grid gap-x-3 gap-y-2 ${kind === 'gloss' || kind === 'opacity' ? 'grid-cols-2' : kind === 'weight' ? 'grid-cols-[1.6fr_0.7fr_0.7fr]' : 'grid-cols-[1.6fr_0.7fr]'}`}
      >
        {fields.map((f) => (
          <TextField
            key={f.key}
            label={f.label}
            unit={f.unit}
            inputMode={f.many ? 'text' : 'decimal'}
            error={faultOf(f.key)}
            value={typed[f.key]}
            onChange={(e) => change(f.key, e.target.value)}
          />
        ))}
      </div>
      {derived && !doubt && <Derived typed={typed} toValues={toValues} derived={derived} />}
      {doubt && (
        <p>
          <Button disabled={busy} onClick={() => void keep(true)}>
            It is right: keep it
          </Button>
        </p>
      )}
      <div className="flex items-end gap-3">
        <TextField
          className="flex-1"
          label="Instrument"
          maxLength={120}
          value={instrument}
          onChange={(e) => setInstrument(e.target.value)}
        />
        <Button type="submit" disabled={busy} aria-label={`Keep ${name.toLowerCase()}`}>
          Keep
        </Button>
      </div>
      <QuietButton className="-ml-1.5" disabled={reading} onClick={() => void fill()}>
        Read with {STAND_IN_NAMES[kind]}
      </QuietButton>
      {fault && <p role="alert">{fault}</p>}
      <ErrorNote error={error} />
    </form>
  );
}

/** The figure that follows from what is typed so far, before it is kept. */
function Derived<K extends BenchKind>({
  typed,
  toValues,
  derived,
}: { typed: Readonly<Record<string, string>> } & Required<Pick<BenchForm<K>, 'toValues' | 'derived'>>) {
  let words: string | undefined;
  try {
    words = derived(toValues(typed));
  } catch (error) {
    if (!(error instanceof TypingError)) throw error;
  }
  return (
    <p className="min-h-5 text-[13px]" aria-live="polite">
      {words && <>That gives {words}.</>}
    </p>
  );
}

const RUB_TIMES = [
  ['10', '10 minutes'],
  ['1440', 'a day'],
  ['10080', 'a week'],
] as const;

type JudgedKind = 'rub' | 'bronzing' | 'rings' | 'hairlines' | 'curl' | 'scuffs';

/** A grade given by eye: who, under which light. */
function JudgedForm({
  kind,
  condition,
  by,
  light,
}: {
  kind: JudgedKind;
  condition: ConditionView;
  by: string;
  light: string;
}) {
  const [grade, setGrade] = useState<number>();
  const [minutes, setMinutes] = useState<string>(RUB_TIMES[0][0]);
  const [wrong, setWrong] = useState<string>();
  const [observe, observing] = useObserveMutation();
  const dispatch = useAppDispatch();
  const { name } = OBSERVATION_KINDS[kind];
  const keep = async () => {
    setWrong(undefined);
    if (!by.trim()) return setWrong(NOBODY);
    if (!light.trim()) return setWrong('Say first under which light it is judged, at the top.');
    if (grade === undefined) return setWrong('Choose a grade first.');
    const value = kind === 'rub' ? { minutesAfterPrinting: Number(minutes), grade } : { grade };
    const done = await observe({
      conditionId: condition.id,
      observations: [{ kind, value, takenAt: now(), by, instrument: '', light }],
    });
    if (!('data' in done)) return;
    setGrade(undefined);
    dispatch(said(`${name} kept.`));
  };
  return (
    <form
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void keep();
      }}
      className="space-y-2"
    >
      {kind === 'rub' && (
        <ChoiceField
          label="After printing"
          className="max-w-48"
          options={RUB_TIMES}
          value={minutes}
          onChange={(e) => setMinutes(e.target.value)}
        />
      )}
      <fieldset>
        <legend>Grade</legend>
        <div className="flex flex-wrap gap-x-3">
          {GRADES.map((word, g) => (
            <label key={word} className="flex min-h-8 items-center gap-1 text-[13px]">
              <input
                type="radio"
                name={kind}
                className="size-4 accent-ink"
                checked={grade === g}
                onChange={() => setGrade(g)}
              />
              {g} {word}
            </label>
          ))}
        </div>
      </fieldset>
      <Button type="submit" disabled={observing.isLoading} aria-label={`Keep ${name.toLowerCase()}`}>
        Keep
      </Button>
      {wrong && <p role="alert">{wrong}</p>}
      <ErrorNote error={observing.error} />
    </form>
  );
}

/** A scan of the bare sheet, brought or made by the stand-in; its texture is measured on the way in. */
function ScanForm({ condition, by }: { condition: ConditionView; by: string }) {
  const [ppi, setPpi] = useRemembered('scan.ppi', '600');
  const [instrument, setInstrument] = useRemembered('instrument.texture', '');
  const [wrong, setWrong] = useState<string>();
  const [keep, keeping] = useKeepScanMutation();
  const [simulate, simulating] = useSimulateScanMutation();
  const dispatch = useAppDispatch();
  const busy = keeping.isLoading || simulating.isLoading;
  const take = async (scan: () => Promise<{ data?: ConditionView }>) => {
    setWrong(undefined);
    if (!by.trim()) {
      setWrong(NOBODY);
      return false;
    }
    const done = (await scan()).data !== undefined;
    if (done) dispatch(said('Texture kept.'));
    return done;
  };
  const takeAll = async (files: readonly File[]) => {
    for (const file of files)
      if (!(await take(() => keep({ conditionId: condition.id, file, ppi, by, instrument })))) return;
  };
  return (
    <div className="space-y-2">
      <div className="grid grid-cols-[0.7fr_1.6fr] gap-3">
        <TextField
          label="Scanned at"
          unit="ppi"
          inputMode="numeric"
          value={ppi}
          onChange={(e) => setPpi(e.target.value)}
        />
        <TextField
          label="Scanner and lamp"
          maxLength={120}
          value={instrument}
          onChange={(e) => setInstrument(e.target.value)}
        />
      </div>
      <DropZone
        label="Import scans"
        hint="TIFF or PNG, one lamp from one side; several places of the sheet make the figure surer"
        multiple
        accept=".tif,.tiff,.png,image/tiff,image/png"
        disabled={busy}
        onFiles={(files) => void takeAll(files)}
      />
      <QuietButton
        className="-ml-1.5"
        disabled={busy}
        onClick={() => void take(() => simulate({ conditionId: condition.id, by }))}
      >
        {simulating.isLoading ? 'Scanning…' : 'Scan with the simulated raking-light scanner'}
      </QuietButton>
      {wrong && <p role="alert">{wrong}</p>}
      <ErrorNote error={keeping.error ?? simulating.error} />
    </div>
  );
}
