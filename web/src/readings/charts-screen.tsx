import { useDeferredValue, useMemo, useState } from 'react';
import { Link } from 'react-router';
import {
  CHART_LIMITS,
  ChartError,
  designChart,
  type ChartDesign,
  isWished,
  type WishedSpec,
  OWN_PURPOSES,
  type OwnPurpose,
} from '@rakuen/core/chart/chart-design';
import {
  patchLimits,
  CHART_PURPOSE_KEYS,
  CHART_PURPOSES,
  type ChartPurpose,
  type PatchRole,
} from '@rakuen/core/chart/purposes';
import { SHEET_SIZE_KEYS, SHEET_SIZES, type SheetSize } from '@rakuen/core/chart/sheet-sizes';
import type { ChartView } from '@rakuen/contract/charts';
import { useAddChartMutation, useChartsQuery, useRemoveChartMutation } from './session-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { Caution, ErrorNote, Waiting } from '../parts/messages.tsx';
import { Download } from '../parts/download.tsx';
import { BenchHead } from './bench-head.tsx';
import { ChartSheet } from './chart-sheet.tsx';
import { decimal } from '../parts/decimal.ts';

const PURPOSES = CHART_PURPOSE_KEYS.map((key) => [key, CHART_PURPOSES[key].name] as const);
const SHEETS = SHEET_SIZE_KEYS.map((key) => [key, SHEET_SIZES[key].name] as const);
const ROLE_NAMES: Record<PatchRole, string> = {
  surface: 'on the surface of the device cube',
  inner: 'inside the cube',
  grey: 'greys',
  dark: 'dark colours, where black sets in',
  shadow: 'steps from black',
  highlight: 'steps to paper',
  tint: 'faint tints of ink',
  'ink ramp': 'ink ramp steps',
  white: 'whites',
  black: 'blacks',
  repeat: 'repeats',
};

/** The boxes as they are typed; a chart is made of them when they hold numbers. */
interface Wish {
  purpose: ChartPurpose;
  patches: string;
  sheet: SheetSize;
  patchMm: string;
  dpi: string;
  seed: string;
}

const purposeName = (purpose: ChartView['spec']['purpose']) =>
  purpose in OWN_PURPOSES ? OWN_PURPOSES[purpose as OwnPurpose] : CHART_PURPOSES[purpose as ChartPurpose].name;
const FIRST_WISH: Wish = { purpose: 'combined', patches: '600', sheet: 'A4', patchMm: '8', dpi: '300', seed: '1' };
const typed = (spec: WishedSpec): Wish => ({
  ...spec,
  patches: String(spec.patches),
  patchMm: String(spec.patchMm),
  dpi: String(spec.dpi),
  seed: String(spec.seed),
});

interface LaidOut {
  design?: ChartDesign;
  error?: ChartError;
}

function layOut(wish: Wish): LaidOut {
  const number = (text: string) => (text.trim() === '' ? NaN : decimal(text));
  const spec: WishedSpec = {
    purpose: wish.purpose,
    sheet: wish.sheet,
    patches: number(wish.patches),
    patchMm: number(wish.patchMm),
    dpi: number(wish.dpi),
    seed: number(wish.seed),
  };
  const notWhole = (['patches', 'dpi', 'seed'] as const).find((k) => !Number.isInteger(spec[k]));
  if (notWhole)
    return {
      error: new ChartError(
        'This takes a whole number.',
        notWhole,
        `From ${(notWhole === 'patches' ? patchLimits(wish.purpose) : CHART_LIMITS[notWhole]).join(' to ')}.`,
      ),
    };
  try {
    return { design: designChart(spec) };
  } catch (error) {
    if (error instanceof ChartError) return { error };
    throw error;
  }
}

/** Charts to be printed and read: laid out while they are described, kept, given out. */
export function ChartsScreen() {
  const at = useNewChart();
  const { design } = at;
  return (
    <>
      <BenchHead title="Charts" question="What goes on the sheet that will be read?" />
      <div className="grid grid-cols-[minmax(0,0.95fr)_minmax(0,1fr)] gap-x-8 gap-y-6">
        <div className="space-y-6">
          <NewChart at={at} />
          <ChartsKept onLook={(spec) => at.setWish(typed(spec))} />
          <Caution>Print heads and cutters move without warning: power off before you reach in.</Caution>
        </div>
        <section aria-label="The sheet" className="min-w-0">
          {design ? (
            <Sheets key={`${design.pages.length}`} design={design} />
          ) : (
            <p role="status">No chart can be laid out of this; the box at fault says why.</p>
          )}
        </section>
      </div>
    </>
  );
}

/** A chart that is being described, laid out as far as it can be. */
function useNewChart() {
  const [wish, setWish] = useState<Wish>(FIRST_WISH);
  const [name, setName] = useState('');
  const [add, adding] = useAddChartMutation();
  const dispatch = useAppDispatch();
  const later = useDeferredValue(wish);
  const laidOut = useMemo(() => layOut(later), [later]);
  const { design } = laidOut;
  const suggestion = `${CHART_PURPOSES[wish.purpose].name}, ${SHEET_SIZES[wish.sheet].name}`;

  const keep = async () => {
    if (!design) return;
    const { spec } = design;
    if (!isWished(spec)) return;
    const done = await add({ name: name.trim() || suggestion, spec: { ...spec } });
    if (!('data' in done) || !done.data) return;
    dispatch(said(`${done.data.name} kept.`));
    setName('');
  };

  return { wish, setWish, name, setName, error: laidOut.error, design, suggestion, keep, adding };
}

function NewChart({ at }: { at: ReturnType<typeof useNewChart> }) {
  const { wish, setWish, name, suggestion, design, adding } = at;
  const set = (key: keyof Wish) => ({
    value: wish[key],
    onChange: (e: { target: { value: string } }) => setWish({ ...wish, [key]: e.target.value }),
  });
  const number = (key: 'patches' | 'patchMm' | 'dpi' | 'seed') => ({
    ...set(key),
    inputMode: 'numeric' as const,
    error: at.error?.field === key ? `${at.error.message} ${at.error.remedy}` : undefined,
  });
  return (
    <form
      aria-label="A new chart"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        void at.keep();
      }}
      className="space-y-3"
    >
      <ChoiceField
        label="Purpose"
        options={PURPOSES}
        value={wish.purpose}
        onChange={(e) => {
          const purpose = e.target.value as ChartPurpose;
          const [fewest, most] = patchLimits(purpose);
          const fits = Number(wish.patches) >= fewest && Number(wish.patches) <= most;
          // A number of patches that the purpose can't have gives way to a usual one.
          setWish({ ...wish, purpose, ...(!fits && { patches: purpose === 'control' ? '48' : FIRST_WISH.patches }) });
        }}
      />
      <p className="font-serif text-[1.05rem]">{CHART_PURPOSES[wish.purpose].answers}</p>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <TextField label="Patches" unit="distinct, at the least" {...number('patches')} />
        <ChoiceField label="Sheet" options={SHEETS} {...set('sheet')} />
        <TextField label="Patch" unit="mm" {...number('patchMm')} />
        <TextField label="Resolution" unit="dpi" {...number('dpi')} />
        <div className="flex items-end gap-2">
          <TextField className="flex-1" label="Seed of the shuffle" {...number('seed')} />
          <Button
            onClick={() =>
              setWish({ ...wish, seed: String(1 + Math.floor(Math.random() * (CHART_LIMITS.seed[1] - 1))) })
            }
          >
            Shuffle
          </Button>
        </div>
        <TextField
          label="Name"
          maxLength={80}
          placeholder={suggestion}
          value={name}
          onChange={(e) => at.setName(e.target.value)}
        />
      </div>
      <Button main type="submit" disabled={!design || adding.isLoading}>
        Keep this chart
      </Button>
      <ErrorNote error={adding.error} />
    </form>
  );
}

function ChartsKept({ onLook }: { onLook: (spec: WishedSpec) => void }) {
  const { data: charts, error, isLoading } = useChartsQuery();
  return (
    <section aria-label="Charts kept">
      <h2 className="mb-1">Charts kept</h2>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Fetching the charts" />}
      {charts?.length === 0 && (
        <p className="text-quiet">None yet. Describe one above; it is drawn beside it as it will print.</p>
      )}
      <ul className="border-t border-edge">
        {charts?.map((c) => (
          <ChartEntry key={c.id} chart={c} onLook={onLook} />
        ))}
      </ul>
    </section>
  );
}

/** The sheets as they will print, and what is on them. */
function Sheets({ design }: { design: ChartDesign }) {
  const [page, setPage] = useState(0);
  const [lifeSize, setLifeSize] = useState(false);
  const counts = new Map<PatchRole, number>();
  for (const s of design.strips) for (const p of s.patches) counts.set(p.role, (counts.get(p.role) ?? 0) + 1);
  return (
    <>
      <div className="mb-1 flex flex-wrap items-baseline gap-x-5">
        <p>
          <span className="font-semibold">{design.patchCount} patches</span> in {design.strips.length} strips of{' '}
          {design.strips[0].patches.length}
        </p>
        {design.pages.length > 1 && (
          <label>
            Sheet{' '}
            <select
              value={page}
              onChange={(e) => setPage(Number(e.target.value))}
              className="min-h-7 rounded-[3px] border border-edge bg-field px-1"
            >
              {design.pages.map((_, i) => (
                <option key={i} value={i}>
                  {i + 1} of {design.pages.length}
                </option>
              ))}
            </select>
          </label>
        )}
        <TickField label="As large as life" checked={lifeSize} onChange={(e) => setLifeSize(e.target.checked)} />
      </div>
      <div
        className={lifeSize ? 'scroll-quiet max-h-[640px] overflow-auto' : ''}
        {...(lifeSize ? { tabIndex: 0, role: 'region', 'aria-label': 'Sheet, as large as life' } : {})}
      >
        <ChartSheet design={design} page={page} lifeSize={lifeSize} />
      </div>
      <p className="mt-2 text-[13px]">
        {[...counts].map(([role, n]) => `${n} ${ROLE_NAMES[role]}`).join(', ')}.
        {design.surfaceLevels > 0 && ` The surface is sampled at ${design.surfaceLevels} places along an edge.`}
      </p>
      {design.notes.map((n) => (
        <p key={n} className="mt-1 border-l-4 border-ink bg-field px-3 py-1 text-[13px]">
          {n}
        </p>
      ))}
      <p className="mt-1 text-[13px] text-quiet">
        Colours as this screen shows device values; how they print is for the instrument to say.
      </p>
    </>
  );
}

function ChartEntry({ chart, onLook }: { chart: ChartView; onLook: (spec: WishedSpec) => void }) {
  const [remove, { error }] = useRemoveChartMutation();
  const dispatch = useAppDispatch();
  const { spec } = chart;
  const file = (query: string) => `/api/charts/${chart.id}/file?as=${query}`;
  return (
    <li className="border-b border-line py-2">
      <div className="flex items-baseline justify-between gap-x-4">
        <p className="min-w-0 font-serif text-[1.05rem] break-words">{chart.name}</p>
        <Link
          to={`/readings/sessions?chart=${chart.id}`}
          className="shrink-0 font-semibold underline decoration-line underline-offset-3 hover:decoration-ink"
          aria-label={`Read ${chart.name}`}
        >
          Read it
        </Link>
      </div>
      <p className="text-[13px] text-quiet">
        {purposeName(chart.spec.purpose)}, {chart.patchCount} patches in {chart.stripCount} strips,{' '}
        {SHEET_SIZES[chart.spec.sheet].name}
        {chart.pageCount > 1 && `, ${chart.pageCount} sheets`}, seed {chart.spec.seed}, {day(chart.createdAt)}
        {chart.sessionCount > 0 &&
          `, read in ${chart.sessionCount} ${chart.sessionCount === 1 ? 'session' : 'sessions'}`}
      </p>
      <div className="flex flex-wrap items-center gap-x-3">
        {Array.from({ length: chart.pageCount }, (_, i) => (
          <Download
            key={i}
            href={file(`tiff&page=${i + 1}`)}
            label={`${chart.name} as TIFF${chart.pageCount > 1 ? `, sheet ${i + 1}` : ''}`}
          >
            TIFF{chart.pageCount > 1 && ` ${i + 1}`}
          </Download>
        ))}
        <Download href={file('pdf')} label={`${chart.name} as PDF`}>
          PDF
        </Download>
        <Download href={file('cgats')} label={`Reference of ${chart.name}, CGATS`}>
          CGATS reference
        </Download>
        <span className="ml-auto flex">
          {isWished(spec) && (
            <QuietButton onClick={() => onLook(spec)} aria-label={`Look at ${chart.name}`}>
              Look at it
            </QuietButton>
          )}
          {chart.sessionCount === 0 && (
            <BinButton
              of={chart.name}
              onBin={() =>
                remove(chart.id)
                  .unwrap()
                  .then(() => dispatch(said(`${chart.name} removed.`)))
              }
            />
          )}
        </span>
      </div>
      <ErrorNote error={error} />
    </li>
  );
}
