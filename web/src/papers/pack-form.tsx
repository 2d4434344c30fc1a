import { useState } from 'react';
import { useForm, useWatch } from 'react-hook-form';
import type { ChartView } from '@rakuen/contract/charts';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PackLookInput } from '@rakuen/contract/packs';
import type { PictureView } from '@rakuen/contract/pictures';
import { useChartsQuery } from '../readings/session-api.ts';
import { usePicturesQuery } from '../api/api.ts';
import { usePackLookQuery, usePlanPackMutation } from '../compare/judging-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { TickField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { useTable } from '../table/use-table.ts';
import { OnEveryType, PackSizes, sheetOf, type PackWish } from './pack-fields.tsx';
import { PackSheets } from './pack-sheets.tsx';

/** Plans a pack: which types, what goes on each, and how it will lie. */
export function PackForm({ conditions, onPlanned }: { conditions: ConditionHead[]; onPlanned: () => void }) {
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
  const [types, setTypes] = useState<ReadonlySet<string>>(() => new Set(laid.map((c) => c.id)));
  const [plan, planning] = usePlanPackMutation();
  const dispatch = useAppDispatch();
  const form = useForm<PackWish>({ defaultValues: beginning(charts, pictures) });
  const submit = form.handleSubmit(async (wish) => {
    const { sheets, ...rest } = asked(wish);
    await plan({
      ...rest,
      name: wish.name,
      types: [...types].map((conditionId) => ({ conditionId, sheets })),
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
        <PackSizes form={form} />
        <Types conditions={conditions} chosen={types} onChoose={setTypes} />
        <OnEveryType form={form} charts={charts} pictures={pictures} />
        <ErrorNote error={planning.error} />
        <Button main type="submit" disabled={planning.isLoading || types.size === 0}>
          Keep the plan
        </Button>
      </div>
      <Look wish={asked(useWatch({ control: form.control }) as PackWish)} />
    </form>
  );
}

const beginning = (charts: ChartView[], pictures: PictureView[]): PackWish => ({
  name: '',
  size: 'A4',
  widthMm: 210,
  heightMm: 297,
  sheets: 4,
  marginMm: 5,
  chartId: charts[0]?.id ?? '',
  testPage: true,
  crops: pictures.slice(0, 2).map((p) => ({ pictureId: p.id, widthMm: 100, heightMm: 140 })),
});

/** What is asked of the server; a number that is none yet stands as NaN. */
const asked = (wish: PackWish): PackLookInput => ({
  ...sheetOf(wish),
  sheets: Number(wish.sheets),
  marginMm: Number(wish.marginMm),
  chartId: wish.chartId || undefined,
  testPage: wish.testPage,
  crops: wish.crops.map((c) => ({ ...c, widthMm: Number(c.widthMm), heightMm: Number(c.heightMm) })),
});

function Types({
  conditions,
  chosen,
  onChoose,
}: {
  conditions: ConditionHead[];
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}) {
  return (
    <fieldset>
      <legend className="font-serif text-[1.05rem]">Types</legend>
      {conditions.map((c) => (
        <TickField
          key={c.id}
          label={`${c.paper.name}, ${conditionLine(c)}`}
          checked={chosen.has(c.id)}
          onChange={(e) =>
            onChoose(new Set(e.target.checked ? [...chosen, c.id] : [...chosen].filter((id) => id !== c.id)))
          }
        />
      ))}
    </fieldset>
  );
}

/** How the sheets of each type would lie; while a number is being written, as they lay before. */
function Look({ wish }: { wish: PackLookInput }) {
  const numbers = [wish.widthMm, wish.heightMm, wish.sheets, ...wish.crops.flatMap((c) => [c.widthMm, c.heightMm])];
  const { data, error } = usePackLookQuery(wish, {
    skip: !numbers.every((v) => v > 0) || !((wish.marginMm ?? 0) >= 0),
  });
  const each = data?.each;
  return (
    <section aria-label="The plan">
      <h2 className="mb-1">Each type</h2>
      <ErrorNote error={error} />
      {each && !error && (
        <>
          <PackSheets sheets={each.sheets} left={each.left} width={wish.widthMm} height={wish.heightMm} />
          <p className="mt-2">
            {each.sheets.length} {each.sheets.length === 1 ? 'sheet' : 'sheets'} printed, {each.left} left.
          </p>
          {each.lacking.length > 0 && (
            <p role="alert" className="mt-1 border-l-4 border-ink bg-field px-3 py-1.5">
              No room for {each.lacking.map((i) => i.name).join(', ')}: take more sheets of each type, or smaller crops.
            </p>
          )}
        </>
      )}
    </section>
  );
}
