import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import { brightenerDisagreement } from '@rakuen/core/measurement/claims';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { useConditionsQuery, useRemoveReadingMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { STEPS } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Claimed, Measured, Term } from '../parts/figure.tsx';
import { asClaimed, conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Strip } from '../parts/strip.tsx';
import { useTable } from '../table/use-table.ts';
import { NeutralRampChart } from './neutral-ramp-chart.tsx';
import { SpectraChart } from './spectra-chart.tsx';
import { ReadingImport } from './reading-import.tsx';

/** One print condition: its readings, and every figure that follows from them. */
export function ReadingsScreen() {
  const { conditionId } = useParams();
  const { data: conditions, error, isLoading } = useConditionsQuery();
  const { left } = useTable();
  const navigate = useNavigate();
  const condition = conditions?.find((c) => c.id === conditionId) ?? (conditionId ? undefined : (left ?? conditions?.[0]));

  return (
    <>
      <ScreenHead title="Readings" question={STEPS[1].question}>
        {conditions && conditions.length > 0 && (
          <label className="flex items-center gap-2">
            <span className="text-quiet">Print condition</span>
            <select value={condition?.id ?? ''} onChange={(e) => void navigate(`/readings/${e.target.value}`)} className="min-h-8 max-w-[46ch] rounded-[3px] border border-edge bg-field px-2">
              {!condition && <option value="">Choose</option>}
              {conditions.map((c) => (
                <option key={c.id} value={c.id}>
                  {c.paper.name}, {conditionLine(c)}
                </option>
              ))}
            </select>
          </label>
        )}
      </ScreenHead>
      <ErrorNote error={error as never} />
      {isLoading && <Waiting what="Fetching the readings" />}
      {conditions?.length === 0 && (
        <Empty title="Nothing to read yet" action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}>
          Readings belong to a print condition: a paper in a printer, with its inks and a media setting. Add one first.
        </Empty>
      )}
      {conditions && conditionId && !condition && <ErrorNote error={{ message: 'There is no such print condition.', remedy: 'Choose another above; it may have been removed.' }} />}
      {condition && <ConditionSheet key={condition.id} condition={condition} />}
    </>
  );
}

function ConditionSheet({ condition }: { condition: ConditionView }) {
  const { paper, facts } = condition;
  const quarrel = brightenerDisagreement(paper.brightenerClaim, facts?.figures.brightenerDeltaB);
  return (
    <>
      <div className="mb-5 flex flex-wrap items-center gap-x-6 gap-y-2">
        <Strip paper={paper} facts={facts} size="large" />
        <div className="min-w-0">
          <h2 className="break-words">{paper.name}</h2>
          <p>{conditionLine(condition)}</p>
        </div>
      </div>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.15fr)] gap-x-8 gap-y-6 max-[1150px]:grid-cols-1">
        <section aria-label="Figures">
          <h3 className="mb-1 text-[1.1rem]">Figures</h3>
          {facts ? (
            <table className="w-full border-t border-edge">
              <tbody>
                {MEASURES.map((m) => (
                  <tr key={m.key} className="border-b border-line">
                    <th scope="row" className="py-1 pr-3 text-left font-normal" title={m.definition}>
                      {m.name} {m.scale === 'deltaE' && facts.figures[m.key].shape === 'colour' && <span className="text-quiet">{m.unit}</span>}
                    </th>
                    <td className="py-1 text-right whitespace-pre">
                      <Measured measure={m} condition={condition} note />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <p className="text-quiet">Nothing measured yet. Drop the file your instrument wrote below.</p>
          )}
          {quarrel && <p className="mt-2 border-l-4 border-ink bg-field px-3 py-1.5">{quarrel}</p>}
          <WhyMissing condition={condition} />
        </section>
        <section aria-label="Neutral ramp">
          {facts?.ramp && (
            <>
              <h3 className="mb-1 text-[1.1rem]">Neutral ramp</h3>
              <NeutralRampChart ramp={facts.ramp} />
            </>
          )}
          {facts?.spectra && (
            <>
              <h3 className="mt-3 mb-1 text-[1.1rem]">Spectra of white and black</h3>
              <SpectraChart spectra={facts.spectra} />
            </>
          )}
          <h3 className="mt-3 mb-1 text-[1.1rem]">How it is made</h3>
          <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5">
            <Term name="Paper">
              {paper.maker} {paper.name}, <Claimed>{asClaimed(paper.weightGsm)} g/m²</Claimed>, <Claimed>{asClaimed(paper.thicknessUm)} µm</Claimed>
            </Term>
            <Term name="Inks">
              {condition.inkSet}, {condition.blackInk}
              {condition.blackOvercoat && ', black overcoat'}
            </Term>
            <Term name="Mode">
              {condition.printMode}, {condition.resolution}
            </Term>
            <Term name="Profile">{condition.profile || 'none'}</Term>
            {facts && (
              <Term name="Gamut from">
                {facts.gamutMethod === 'device surface' ? 'the device cube’s surface' : facts.gamutMethod === 'modified hull' ? 'a modified hull of all patches' : '—'}
                {facts.repeats !== undefined && `; repeatability from ${facts.repeats} repeats`}
              </Term>
            )}
            {condition.notes && <Term name="Notes">{condition.notes}</Term>}
          </dl>
        </section>
      </div>
      <section aria-label="Files" className="mt-6">
        <h3 className="mb-1 text-[1.1rem]">Readings kept</h3>
        <ReadingList condition={condition} />
        <ReadingImport condition={condition} />
      </section>
    </>
  );
}

function WhyMissing({ condition }: { condition: ConditionView }) {
  const reasons = [...new Set(Object.values(condition.facts?.figures ?? {}).flatMap((f) => (f.shape === 'missing' ? [f.why] : [])))];
  if (reasons.length === 0) return null;
  return <p className="mt-2 text-[13px] text-quiet">Not computed: {reasons.join(' ')}</p>;
}

const FORMAT_NAMES = { cgats: 'CGATS', cxf: 'CxF3', csv: 'CSV' } as const;

function ReadingList({ condition }: { condition: ConditionView }) {
  const [remove, { error }] = useRemoveReadingMutation();
  const dispatch = useAppDispatch();
  const [sure, setSure] = useState<string>();
  if (condition.readings.length === 0) return <p className="mb-3 text-quiet">None yet.</p>;
  return (
    <>
      <ul className="mb-3 border-t border-edge">
        {condition.readings.map((r) => (
          <li key={r.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1">
            <span className="w-10 font-semibold">{r.measurementCondition ?? '—'}</span>
            <a href={`/api/readings/${r.id}/file`} className="min-w-0 flex-1 truncate underline decoration-line underline-offset-3 hover:decoration-ink" title={r.fileName}>
              {r.fileName}
            </a>
            <span>
              {r.patchCount} patches, {r.colourFrom}
            </span>
            <span className="flex gap-2">
              {(['cgats', 'cxf', 'csv'] as const).map((format) => (
                <a key={format} href={`/api/readings/${r.id}/file?as=${format}`} aria-label={`${r.fileName} as ${FORMAT_NAMES[format]}`} className="underline decoration-line underline-offset-3 hover:decoration-ink">
                  {FORMAT_NAMES[format]}
                </a>
              ))}
            </span>
            <span className="text-quiet">{r.measuredAt ? `measured ${r.measuredAt}` : `kept ${day(r.importedAt)}`}</span>
            <span className="w-28 text-quiet">{r.primary ? 'figures from this' : ''}</span>
            <QuietButton
              aria-label={sure === r.id ? `Remove ${r.fileName} for good` : `Remove ${r.fileName}`}
              onClick={() => (sure === r.id ? void remove(r.id).unwrap().then(() => dispatch(said(`${r.fileName} removed.`)), () => undefined) : setSure(r.id))}
            >
              {sure === r.id ? 'Remove for good' : 'Remove'}
            </QuietButton>
          </li>
        ))}
      </ul>
      <ErrorNote error={error as never} />
    </>
  );
}
