import { useNavigate } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import { differenceOf } from '@rakuen/core/measurement/difference';
import { MEASURE_GROUPS, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { describePair } from '@rakuen/core/measurement/sentences';
import { formatNumber } from '@rakuen/core/measurement/show';
import { DEFAULT_THRESHOLDS, type Thresholds } from '@rakuen/core/measurement/thresholds';
import { bulk } from '@rakuen/core/paper';
import { useConditionsQuery, useSettingsQuery } from '../api/api.ts';
import { STEPS } from '../app/steps.ts';
import { Button } from '../parts/button.tsx';
import { Claimed, Measured } from '../parts/figure.tsx';
import { GamutOutline } from '../parts/gamut-outline.tsx';
import { asClaimed, conditionLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Strip } from '../parts/strip.tsx';
import { type Table, useTable } from '../table/use-table.ts';
import { DmaxBars } from './dmax-bars.tsx';

/** Papers judged side by side: the pair in hand in words, then every measure of all that lies on the table. */
export function CompareScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const { isLoading, error } = useConditionsQuery();
  const { data: settings } = useSettingsQuery();
  const thresholds = settings?.thresholds ?? DEFAULT_THRESHOLDS;
  const { laid, left, right } = table;

  return (
    <>
      <ScreenHead title="Compare" question={STEPS[2].question}>
        {left && right && (
          <Button onClick={table.swapHands} title="x">
            Swap hands
          </Button>
        )}
      </ScreenHead>
      <ErrorNote error={error as never} />
      {isLoading && <Waiting what="Laying the papers out" />}
      {!isLoading && laid.length < 2 && (
        <Empty title={laid.length === 0 ? 'The table is bare' : 'One paper can’t be compared'} action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}>
          Lay two to six print conditions on the table: drag them over from the papers, or press t on one. Two of them are in your hands.
        </Empty>
      )}
      {left && right && (
        <>
          <PairInHand left={left} right={right} thresholds={thresholds} />
          <MeasureTable table={table} thresholds={thresholds} />
          <div className="mt-7 grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-8 max-[1150px]:grid-cols-1">
            <GamutOutline outlines={laid.map((c) => ({ id: c.id, name: c.paper.name, points: c.facts?.outline ?? [], strong: c.id === left.id || c.id === right.id }))} />
            <DmaxBars laid={laid} left={left} right={right} />
          </div>
        </>
      )}
    </>
  );
}

function PairInHand({ left, right, thresholds }: { left: ConditionView; right: ConditionView; thresholds: Thresholds }) {
  const told = left.facts && right.facts ? describePair(MEASURES, left.facts.figures, right.facts.figures, thresholds) : [];
  const seen = told.filter((t) => t.verdict.startsWith('visible'));
  const unseen = told.filter((t) => !t.verdict.startsWith('visible'));
  return (
    <section aria-label="The pair in hand" className="mb-6">
      <div className="grid grid-cols-2 gap-8">
        {([['Left hand', left], ['Right hand', right]] as const).map(([hand, c]) => (
          <div key={hand} className="min-w-0">
            <p className="text-[13px] text-quiet">{hand}</p>
            <Strip paper={c.paper} facts={c.facts} size="large" />
            <h2 className="mt-1 truncate" title={c.paper.name}>
              {c.paper.name}
            </h2>
            <p className="truncate text-[13px]" title={conditionLine(c)}>
              {conditionLine(c)}
            </p>
          </div>
        ))}
      </div>
      {told.length === 0 ? (
        <p className="mt-4">{(left.facts ? right : left).paper.name} was not measured yet, so nothing can be said of the pair.</p>
      ) : (
        <>
          <ul aria-label="What can be seen" className="mt-4 max-w-[72ch] font-serif text-[1.08rem] leading-snug">
            {seen.map((t) => (
              <li key={t.measure}>{t.sentence}</li>
            ))}
            {seen.length === 0 && <li>Nobody could tell these two apart by what was measured.</li>}
          </ul>
          {unseen.length > 0 && (
            <ul aria-label="What can not be seen" className="mt-2 max-w-[80ch] text-[13px]">
              {unseen.map((t) => (
                <li key={t.measure}>{t.sentence}</li>
              ))}
            </ul>
          )}
        </>
      )}
    </section>
  );
}

function MeasureTable({ table, thresholds }: { table: Table; thresholds: Thresholds }) {
  const { laid, left, right } = table;
  const inHand = (c: ConditionView) => (c.id === left?.id || c.id === right?.id ? 'bg-sheet' : '');
  return (
    <div className="scroll-quiet overflow-x-auto" tabIndex={0} role="region" aria-label="All measures">
      <table className="w-full border-collapse whitespace-nowrap">
        <thead>
          <tr className="border-b border-edge align-bottom">
            <th scope="col" className="py-1 pr-4 text-left font-normal text-quiet">
              Measured
            </th>
            <th scope="col" className="py-1 pr-4 text-left font-normal text-quiet">
              Left against right
            </th>
            {laid.map((c, i) => (
              <th key={c.id} scope="col" className={`px-2 py-1 text-left font-normal ${inHand(c)}`}>
                <span className="font-serif font-semibold">{MARKS[i].letter}</span> {c.id === left?.id && <span className="text-quiet">left hand</span>}
                {c.id === right?.id && <span className="text-quiet">right hand</span>}
                <span className="block max-w-36 truncate font-serif" title={`${c.paper.name}, ${conditionLine(c)}`}>
                  {c.paper.name}
                </span>
                <span className="block max-w-36 truncate text-[12px] text-quiet" title={conditionLine(c)}>
                  {c.mediaSetting}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        {MEASURE_GROUPS.map((group) => (
          <tbody key={group.name}>
            <GroupHead name={group.name} columns={laid.length + 2} />
            {group.measures.map((m) => {
              const [l, r] = [left?.facts?.figures[m.key], right?.facts?.figures[m.key]];
              const difference = l && r ? differenceOf(m, l, r, thresholds) : undefined;
              return (
                <tr key={m.key} className="border-b border-line">
                  <th scope="row" className="py-1 pr-4 text-left font-normal" title={m.definition}>
                    {m.name} <span className="text-[12px] text-quiet">{m.unit === ': 1' || m.name.endsWith(m.unit) ? '' : m.unit}</span>
                  </th>
                  <td className="py-1 pr-4">{difference ? difference.verdict : <span className="text-quiet">—</span>}</td>
                  {laid.map((c) => (
                    <td key={c.id} className={`px-2 py-1 whitespace-pre ${inHand(c)}`}>
                      <Measured measure={m} condition={c} unit={m.unit === ': 1'} />
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        ))}
        <tbody>
          <GroupHead name="As the makers claim" columns={laid.length + 2} />
          {CLAIMS.map(([name, show]) => (
            <tr key={name} className="border-b border-line">
              <th scope="row" className="py-1 pr-4 text-left font-normal">
                {name}
              </th>
              <td className="py-1 pr-4 text-quiet">not judged</td>
              {laid.map((c) => (
                <td key={c.id} className={`px-2 py-1 ${inHand(c)}`}>
                  <Claimed>{show(c)}</Claimed>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function GroupHead({ name, columns }: { name: string; columns: number }) {
  return (
    <tr className="border-b border-edge">
      <th scope="rowgroup" colSpan={columns} className="pt-3 pb-0.5 text-left font-serif text-[1.05rem] font-medium">
        {name}
      </th>
    </tr>
  );
}

const CLAIMS: readonly (readonly [name: string, show: (c: ConditionView) => string])[] = [
  ['Weight, claimed', (c) => `${asClaimed(c.paper.weightGsm)} g/m²`],
  ['Thickness, claimed', (c) => `${asClaimed(c.paper.thicknessUm)} µm`],
  ['Bulk, claimed', (c) => `${formatNumber(bulk(c.paper.thicknessUm, c.paper.weightGsm), 2)} cm³/g`],
  ['Surface, claimed', (c) => c.paper.surface],
  ['Brightener, claimed', (c) => c.paper.brightenerClaim],
];
