import { useState } from 'react';
import { useFieldArray, useForm, useWatch } from 'react-hook-form';
import { Link, useNavigate } from 'react-router';
import type { ChartView } from '@rakuen/contract/charts';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PackInput, PackView } from '@rakuen/contract/packs';
import { SHEET_SIZES, type SheetSize } from '@rakuen/core/chart/sheet-sizes';
import { planPack, type PackItem, type PlannedSheet } from '@rakuen/core/layout/pack-plan';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useChartsQuery } from '../readings/session-api.ts';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import {
  usePacksQuery,
  usePlanPackMutation,
  useRemovePackMutation,
  useSheetPrintedMutation,
} from '../compare/judging-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { asNumber } from '../parts/decimal.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';

/** Sample packs: a plan before the first sheet is fed, and what has become of it. */
export function PacksScreen() {
  const packs = usePacksQuery();
  const conditions = useConditionsQuery();
  const navigate = useNavigate();
  const [planning, setPlanning] = useState(false);
  const error = packs.error ?? conditions.error;
  return (
    <>
      <ScreenHead title="Sample packs" question="What goes on which sample, so that no sheet is wasted?">
        <Link to="/papers" className="underline decoration-line underline-offset-3 hover:decoration-ink">
          To the drawer
        </Link>
        {(conditions.data?.length ?? 0) > 0 && (
          <Button main={!planning} onClick={() => setPlanning(!planning)}>
            {planning ? 'Leave the plan' : 'Plan a pack'}
          </Button>
        )}
      </ScreenHead>
      <ErrorNote error={error} />
      {packs.isLoading && <Waiting what="Fetching the packs" />}
      {conditions.data?.length === 0 && (
        <Empty
          title="No print condition yet"
          action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}
        >
          A sample is printed in a print condition: a paper in a printer, with its inks and a media setting. Add one for
          each type in the pack first.
        </Empty>
      )}
      {planning && conditions.data && <PlanForm conditions={conditions.data} onPlanned={() => setPlanning(false)} />}
      {!planning && packs.data?.length === 0 && (conditions.data?.length ?? 0) > 0 && (
        <p className="text-quiet">
          No pack was planned yet. Six types of four sheets are usual (practice): a chart to be read, a test page for
          the eye, crops of pictures, and one to spare.
        </p>
      )}
      <ul className="space-y-8">
        {!planning &&
          packs.data?.map((pack) => <PackEntry key={pack.id} pack={pack} conditions={conditions.data ?? []} />)}
      </ul>
    </>
  );
}

const SIZES = { A4: [210, 297], A3: [297, 420], letter: [215.9, 279.4], other: undefined } as const;
type Size = keyof typeof SIZES;
interface Wish extends Omit<PackInput, 'types' | 'chartId'> {
  chartId: string;
  size: Size;
  sheets: number;
}

function PlanForm({ conditions, onPlanned }: { conditions: ConditionHead[]; onPlanned: () => void }) {
  const { data: charts } = useChartsQuery();
  const { data: pictures } = usePicturesQuery();
  if (!charts || !pictures) return <Waiting what="Fetching charts and pictures" />;
  return <Plan conditions={conditions} charts={charts} pictures={pictures} onPlanned={onPlanned} />;
}

function Plan({
  conditions,
  charts,
  pictures,
  onPlanned,
}: {
  conditions: ConditionHead[];
  charts: ChartView[];
  pictures: PictureView[];
  onPlanned: () => void;
}) {
  const { laid } = useTable();
  const [types, setTypes] = useState(() => new Set(laid.map((c) => c.id)));
  const [plan, planning] = usePlanPackMutation();
  const dispatch = useAppDispatch();
  const { register, control, handleSubmit, formState } = useForm<Wish>({
    defaultValues: {
      name: '',
      size: 'A4',
      widthMm: 210,
      heightMm: 297,
      sheets: 4,
      chartId: charts[0]?.id ?? '',
      testPage: true,
      crops: pictures.slice(0, 2).map((p) => ({ pictureId: p.id, widthMm: 100, heightMm: 140 })),
    },
  });
  const crops = useFieldArray({ control, name: 'crops' });
  const wish = useWatch({ control }) as Wish;
  const [width, height] = SIZES[wish.size] ?? [Number(wish.widthMm), Number(wish.heightMm)];
  const chart = charts.find((c) => c.id === wish.chartId);
  const number = {
    ...asNumber,
    required: 'This is needed',
    validate: (v: number) => v > 0 || 'A number above 0',
  } as const;
  // A chart's pages are cut to its sheet; here its own size stands for them until the plan is kept.
  const items: PackItem[] = [
    ...(chart
      ? Array.from({ length: chart.pageCount }, (_, i): PackItem => ({
          key: `chart-${i}`,
          kind: 'chart',
          name: chart.name,
          ...sizeOf(chart.spec.sheet),
        }))
      : []),
    ...(wish.testPage
      ? [{ key: 'test-page', kind: 'test page' as const, name: 'Test page', widthMm: 210, heightMm: 297 }]
      : []),
    ...(wish.crops ?? []).map((c, i): PackItem => ({
      key: `crop-${i}`,
      kind: 'crop',
      name: pictures.find((p) => p.id === c.pictureId)?.title ?? '',
      widthMm: Number(c.widthMm) || 1,
      heightMm: Number(c.heightMm) || 1,
    })),
  ];
  const [look] =
    width > 0 && height > 0
      ? planPack(width, height, [{ id: 'any', sheets: Number(wish.sheets) || 1 }], items)
      : [undefined];
  const submit = handleSubmit(async ({ size: _size, sheets, chartId, ...rest }) => {
    await plan({
      ...rest,
      widthMm: width,
      heightMm: height,
      chartId: chartId || undefined,
      types: [...types].map((conditionId) => ({ conditionId, sheets: Number(sheets) })),
    }).unwrap();
    dispatch(said('The pack is planned.'));
    onPlanned();
  });
  return (
    <form
      noValidate
      aria-label="Plan a pack"
      onSubmit={(e) => void submit(e).catch(() => undefined)}
      className="mb-8 grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-8 gap-y-5"
    >
      <div className="space-y-4">
        <div className="grid grid-cols-2 gap-4">
          <TextField
            label="Name"
            maxLength={80}
            error={formState.errors.name?.message}
            {...register('name', { validate: (v) => v.trim() !== '' || 'This is needed' })}
          />
          <TextField
            label="Sheets of each type"
            inputMode="numeric"
            error={formState.errors.sheets?.message}
            {...register('sheets', number)}
          />
          <ChoiceField
            label="Sheet"
            options={[
              ['A4', 'A4'],
              ['A3', 'A3'],
              ['letter', 'Letter'],
              ['other', 'another size'],
            ]}
            {...register('size')}
          />
          {wish.size === 'other' && (
            <div className="grid grid-cols-2 gap-3">
              <TextField label="Width" unit="mm" {...register('widthMm', number)} />
              <TextField label="Length" unit="mm" {...register('heightMm', number)} />
            </div>
          )}
        </div>
        <fieldset>
          <legend className="font-serif text-[1.05rem]">Types</legend>
          {conditions.map((c) => (
            <TickField
              key={c.id}
              label={`${c.paper.name}, ${conditionLine(c)}`}
              checked={types.has(c.id)}
              onChange={(e) =>
                setTypes(new Set(e.target.checked ? [...types, c.id] : [...types].filter((id) => id !== c.id)))
              }
            />
          ))}
        </fieldset>
        <fieldset className="space-y-3">
          <legend className="font-serif text-[1.05rem]">On every type</legend>
          <ChoiceField
            label="Chart"
            options={[
              ['', 'none'],
              ...charts.map(
                (c) => [c.id, `${c.name}, ${c.pageCount} ${c.pageCount === 1 ? 'sheet' : 'sheets'}`] as const,
              ),
            ]}
            {...register('chartId')}
          />
          <TickField label="The test page" {...register('testPage')} />
          {crops.fields.map((f, i) => (
            <div key={f.id} className="grid grid-cols-[1.6fr_0.7fr_0.7fr_auto] items-start gap-3 [&>button]:mt-6">
              <ChoiceField
                label="Crop of"
                options={pictures.map((p) => [p.id, p.title] as const)}
                {...register(`crops.${i}.pictureId`)}
              />
              <TextField
                label="Width"
                unit="mm"
                error={formState.errors.crops?.[i]?.widthMm?.message}
                {...register(`crops.${i}.widthMm`, number)}
              />
              <TextField
                label="Length"
                unit="mm"
                error={formState.errors.crops?.[i]?.heightMm?.message}
                {...register(`crops.${i}.heightMm`, number)}
              />
              <QuietButton aria-label={`Remove crop ${i + 1}`} onClick={() => crops.remove(i)}>
                Remove
              </QuietButton>
            </div>
          ))}
          {pictures.length > 0 && (
            <QuietButton onClick={() => crops.append({ pictureId: pictures[0].id, widthMm: 100, heightMm: 140 })}>
              Another crop
            </QuietButton>
          )}
        </fieldset>
        <ErrorNote error={planning.error} />
        <Button main type="submit" disabled={planning.isLoading || types.size === 0}>
          Keep the plan
        </Button>
      </div>
      <section aria-label="The plan">
        <h2 className="mb-1">Each type</h2>
        {look && (
          <>
            <SheetRow sheets={look.sheets} left={look.left} width={width} height={height} />
            <p className="mt-2">
              {look.sheets.length} {look.sheets.length === 1 ? 'sheet' : 'sheets'} printed, {look.left} left.
            </p>
            {look.lacking.length > 0 && (
              <p role="alert" className="mt-1 border-l-4 border-ink bg-field px-3 py-1.5">
                No room for {look.lacking.map((i) => i.name).join(', ')}: take more sheets of each type, or smaller
                crops.
              </p>
            )}
          </>
        )}
      </section>
    </form>
  );
}

const sizeOf = (sheet: SheetSize) => ({
  widthMm: SHEET_SIZES[sheet].widthMm as number,
  heightMm: SHEET_SIZES[sheet].heightMm as number,
});

const PX_PER_MM = 0.42;

/** Sheets to scale: what lies where, what is printed, what is blank. */
function SheetRow({
  sheets,
  left,
  width,
  height,
  printed,
  onPrinted,
}: {
  sheets: readonly PlannedSheet[];
  left: number;
  width: number;
  height: number;
  printed?: (n: number) => boolean;
  onPrinted?: (n: number, is: boolean) => void;
}) {
  return (
    <ol className="flex flex-wrap gap-4">
      {sheets.map((s, n) => (
        <li key={n}>
          <svg
            role="img"
            aria-label={`Sheet ${n + 1}: ${s.items.map((i) => i.name).join(', ')}; ${formatNumber(100 * s.used, 0)} % used`}
            width={width * PX_PER_MM}
            height={height * PX_PER_MM}
            viewBox={`0 0 ${width} ${height}`}
            className="block border border-edge bg-field"
          >
            {s.items.map((i) => {
              const [w, h] = i.turned ? [i.heightMm, i.widthMm] : [i.widthMm, i.heightMm];
              return (
                <g key={i.key}>
                  <rect
                    x={i.xMm}
                    y={i.yMm}
                    width={w}
                    height={h}
                    fill={i.kind === 'crop' ? 'var(--sheet)' : 'var(--ground)'}
                    stroke="var(--ink)"
                    strokeWidth={1.4}
                    strokeDasharray={i.kind === 'chart' ? undefined : i.kind === 'test page' ? '8 4' : '3 3'}
                  />
                  <text
                    x={i.xMm + w / 2}
                    y={i.yMm + h / 2}
                    fontSize={Math.min(20, w / 9)}
                    textAnchor="middle"
                    fill="var(--ink)"
                    fontFamily="var(--font-serif)"
                  >
                    {i.kind === 'crop' ? i.name.slice(0, 16) : i.kind}
                  </text>
                </g>
              );
            })}
          </svg>
          {onPrinted && (
            <TickField
              label="printed"
              aria-label={`Sheet ${n + 1}, printed`}
              checked={printed?.(n) ?? false}
              onChange={(e) => onPrinted(n, e.target.checked)}
            />
          )}
        </li>
      ))}
      {Array.from({ length: Math.min(left, 6) }, (_, n) => (
        <li key={`left-${n}`}>
          <svg
            aria-hidden
            width={width * PX_PER_MM}
            height={height * PX_PER_MM}
            className="block border border-dashed border-edge"
          />
        </li>
      ))}
    </ol>
  );
}

function PackEntry({ pack, conditions }: { pack: PackView; conditions: ConditionHead[] }) {
  const [tick] = useSheetPrintedMutation();
  const [remove, { error }] = useRemovePackMutation();
  const [sure, setSure] = useState(false);
  const printed = new Set(pack.printed);
  const total = pack.plan.reduce((n, t) => n + t.sheets.length, 0);
  const left = pack.plan.reduce((n, t) => n + t.left, 0);
  const nameOf = (id: string) => {
    const c = conditions.find((x) => x.id === id);
    return c ? `${c.paper.name}, ${conditionLine(c)}` : 'a removed print condition';
  };
  return (
    <li>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2>{pack.spec.name}</h2>
        <p className="text-[13px] text-quiet">
          {day(pack.createdAt)}; {printed.size} of {total} sheets printed, {left} left,{' '}
          {pack.unread.length === 0
            ? 'all charts read'
            : `${pack.unread.length} ${pack.unread.length === 1 ? 'chart' : 'charts'} unread`}
        </p>
        <QuietButton
          className="ml-auto"
          aria-label={`${sure ? 'Put in the bin' : 'Remove'}: ${pack.spec.name}`}
          onClick={() => (sure ? void remove(pack.id) : setSure(true))}
        >
          {sure ? 'Put in the bin' : 'Remove'}
        </QuietButton>
      </div>
      <ErrorNote error={error} />
      <ul className="mt-2 space-y-4">
        {pack.plan.map((t) => (
          <li key={t.id} className="border-t border-line pt-2">
            <p className="mb-1.5">
              <span className="font-serif">{nameOf(t.id)}</span>{' '}
              {pack.unread.includes(t.id) && (
                <>
                  <b>unread</b>{' '}
                  <Link
                    className="underline decoration-line underline-offset-3 hover:decoration-ink"
                    to={`/readings/sessions?condition=${t.id}${pack.spec.chartId ? `&chart=${pack.spec.chartId}` : ''}`}
                    aria-label={`Read the chart of ${nameOf(t.id)}`}
                  >
                    read it
                  </Link>
                </>
              )}
              {t.lacking.length > 0 && (
                <span className="text-quiet">; no room for {t.lacking.map((i) => i.name).join(', ')}</span>
              )}
            </p>
            <SheetRow
              sheets={t.sheets}
              left={t.left}
              width={pack.spec.widthMm}
              height={pack.spec.heightMm}
              printed={(n) => printed.has(`${t.id}/${n}`)}
              onPrinted={(n, is) => void tick({ id: pack.id, sheet: `${t.id}/${n}`, printed: is })}
            />
          </li>
        ))}
      </ul>
    </li>
  );
}
