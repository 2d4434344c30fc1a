import { useForm } from 'react-hook-form';
import { Link, useNavigate, useSearchParams } from 'react-router';
import type { ChartView } from '@rakuen/contract/charts';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { SessionHead, SessionInput } from '@rakuen/contract/sessions';
import { INSTRUMENTS, REHEARSALS, type Rehearsal } from '@rakuen/contract/vocabulary';
import { useBeginSessionMutation, useChartsQuery, useRemoveSessionMutation, useSessionsQuery } from './session-api.ts';
import { useConditionsQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { Button } from '../parts/button.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { conditionLine, day, hour } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';
import { useTable } from '../table/use-table.ts';
import { BenchHead } from './bench-head.tsx';

const REHEARSAL_NAMES: Record<Rehearsal, string> = {
  none: 'nothing goes wrong',
  'now and then': 'something goes wrong now and then',
  slipped: 'the second strip starts a patch late',
  skipped: 'a patch is skipped within the second strip',
  repeated: 'a patch is read twice within the second strip',
  stopped: 'the instrument stops within the second strip',
  doubled: 'the first strip is read twice',
  dirty: 'a dirty patch on the second strip',
  turned: 'the sheet is the wrong way round',
};

/** Reading sessions: begun here, and gone on with where they stopped. */
export function SessionsScreen() {
  const sessions = useSessionsQuery();
  const conditions = useConditionsQuery();
  const charts = useChartsQuery();
  const { left } = useTable();
  const [asked] = useSearchParams();
  const navigate = useNavigate();
  const error = sessions.error ?? conditions.error ?? charts.error;
  const ready = sessions.data && conditions.data && charts.data;
  const condition = conditions.data?.find((c) => c.id === asked.get('condition'));
  return (
    <>
      <BenchHead title="Read a chart" question="Which sheet lies under the instrument?" condition={condition} />
      <ErrorNote error={error} />
      {!ready && !error && <Waiting what="Fetching the sessions" />}
      {ready && conditions.data!.length === 0 && (
        <Empty
          title="No print condition yet"
          action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}
        >
          A chart is read for a paper in a printer, with its inks and a media setting. Add one first.
        </Empty>
      )}
      {ready && conditions.data!.length > 0 && charts.data!.length === 0 && (
        <Empty
          title="No chart to read yet"
          action={<Button onClick={() => void navigate('/readings/charts')}>To the charts</Button>}
        >
          Lay a chart out first, print it in the print condition, let it dry, and come back.
        </Empty>
      )}
      {ready && conditions.data!.length > 0 && charts.data!.length > 0 && (
        <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-8 gap-y-6 max-[1150px]:grid-cols-1">
          <section aria-label="Begin">
            <h2 className="mb-2">Begin</h2>
            <BeginForm
              key={asked.toString()}
              conditions={conditions.data!}
              charts={charts.data!}
              conditionId={condition?.id ?? left?.id}
              chartId={asked.get('chart') ?? undefined}
            />
          </section>
          <section aria-label="Sessions">
            <h2 className="mb-2">Sessions</h2>
            {sessions.data!.length === 0 && <p className="text-quiet">None yet.</p>}
            <ul className="border-t border-edge">
              {sessions.data!.map((s) => (
                <SessionEntry key={s.id} session={s} condition={conditions.data!.find((c) => c.id === s.conditionId)} />
              ))}
            </ul>
          </section>
        </div>
      )}
    </>
  );
}

type Fields = Omit<SessionInput, 'passes'> & { passes: string };

const TIMES = [
  ['1', 'once'],
  ['2', 'twice'],
  ['3', 'three times'],
  ['4', 'four times'],
] as const;

const asBegun = (first: string, firstChart: string, asked: { conditionId?: string; chartId?: string }): Fields => ({
  conditionId: asked.conditionId ?? first,
  chartId: asked.chartId ?? firstChart,
  instrument: INSTRUMENTS[0],
  passes: '2',
  // Asked, not guessed: a drying time counted from the click would be wrong and look measured.
  printedAt: '',
  batch: '',
  rehearsal: 'now and then',
});

function BeginForm({
  conditions,
  charts,
  conditionId,
  chartId,
}: {
  conditions: ConditionHead[];
  charts: ChartView[];
  conditionId?: string;
  chartId?: string;
}) {
  const navigate = useNavigate();
  const [begin, beginning] = useBeginSessionMutation();
  const known = charts.find((c) => c.id === chartId)?.id;
  const { register, handleSubmit, formState } = useForm<Fields>({
    defaultValues: asBegun(conditions[0].id, charts[0].id, { conditionId, chartId: known }),
  });
  const submit = handleSubmit(async ({ passes, printedAt, ...rest }) => {
    const session = await begin({
      ...rest,
      passes: Number(passes),
      printedAt: new Date(printedAt).toISOString(),
    }).unwrap();
    void navigate(`/readings/sessions/${session.id}`);
  });
  return (
    <form noValidate onSubmit={(e) => void submit(e).catch(() => undefined)} className="space-y-3">
      <ChoiceField
        label="Print condition"
        options={conditions.map((c) => [c.id, `${c.paper.name}, ${conditionLine(c)}`] as const)}
        {...register('conditionId')}
      />
      <ChoiceField
        label="Chart"
        options={charts.map((c) => [c.id, `${c.name}, ${c.patchCount} patches`] as const)}
        {...register('chartId')}
      />
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <ChoiceField label="Instrument" options={named(INSTRUMENTS)} {...register('instrument')} />
        <ChoiceField label="Every strip" options={TIMES} {...register('passes')} />
        <TextField
          label="Left the printer"
          type="datetime-local"
          needed
          error={formState.errors.printedAt?.message}
          {...register('printedAt', {
            required: 'Enter when the chart left the printer. The drying time is counted from it.',
          })}
        />
        <TextField label="Box or formulation" unit="if not the first" maxLength={80} {...register('batch')} />
      </div>
      <ChoiceField
        label="To practise"
        unit="with the simulated instrument"
        options={REHEARSALS.map((r) => [r, REHEARSAL_NAMES[r]] as const)}
        {...register('rehearsal')}
      />
      <p className="text-[13px] text-quiet">
        Colour settles as ink dries: minutes for a look, a day before a reading is trusted (practice). The drying time
        is kept with the reading; read again the next day and compare.
      </p>
      <Button main type="submit" disabled={beginning.isLoading}>
        Begin to read
      </Button>
      <ErrorNote error={beginning.error} />
    </form>
  );
}

function SessionEntry({ session, condition }: { session: SessionHead; condition?: ConditionHead }) {
  const [remove, { error }] = useRemoveSessionMutation();
  const dispatch = useAppDispatch();
  const all = session.stripCount * session.passes;
  const name = `${session.chartName}${condition ? ` on ${condition.paper.name}` : ''}`;
  return (
    <li className="flex items-start gap-4 border-b border-line py-2">
      {condition && <Strip paper={condition.paper} facts={condition.facts} size="small" />}
      <div className="min-w-0 flex-1">
        <Link
          to={`/readings/sessions/${session.id}`}
          className="font-serif text-[1.05rem] break-words underline decoration-line underline-offset-3 hover:decoration-ink"
        >
          {name}
        </Link>
        <p className="text-[13px]">
          {session.state === 'finished' ? (
            `read, ${all} ${all === 1 ? 'strip' : 'strips'}`
          ) : (
            <b>{session.kept === 0 ? 'not begun' : `stopped after ${session.kept} of ${all} strips`}</b>
          )}
          , {day(session.createdAt)}
        </p>
        <p className="text-[12.5px] break-words text-quiet">
          {condition && `${conditionLine(condition)}. `}
          Printed {hour(session.printedAt)}
          {session.batch && `, ${session.batch}`}
        </p>
        <ErrorNote error={error} />
      </div>
      {session.state === 'open' && (
        <BinButton
          of={name}
          onBin={() =>
            remove(session.id)
              .unwrap()
              .then(() => dispatch(said('The session lies in the bin.')))
          }
        />
      )}
    </li>
  );
}
