import { useState } from 'react';
import { Link } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { ModelView } from '@rakuen/contract/profiles';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { UnderWay, workOf } from '../parts/under-way.tsx';
import { useLayOutNextMutation, useModelQuery } from './profile-api.ts';
import { DoubtfulReadings } from './doubtful-readings.tsx';
import { ProfileList } from './profile-list.tsx';
import { ProfileMaker } from './profile-maker.tsx';

/** What the readings of a condition tell of every other colour, and the profiles written from it or brought. */
export function ProfilePlace({ condition }: { condition: ConditionView }) {
  const measured = condition.readings.some((r) => r.source === 'measured');
  const work = workOf('model');
  const {
    currentData: model,
    error,
    isFetching,
    refetch,
  } = useModelQuery({ id: condition.id, work }, { skip: !measured });
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-x-10 gap-y-6 max-[1000px]:grid-cols-1">
      <section aria-label="What the readings tell" className="min-w-0 space-y-4">
        <h3 className="text-[1.1rem]">What the readings tell</h3>
        {!measured && (
          <p className="text-quiet">
            Nothing measured yet. Once a chart is read, every colour between its patches can be told, and a profile
            written.
          </p>
        )}
        {isFetching && !model && (
          <UnderWay what="Learning from the readings" work={work} far={(done) => `${done} %.`} />
        )}
        {!isFetching && error && (
          <>
            <ErrorNote error={error} />
            <Button onClick={() => void refetch()}>Learn from them again</Button>
          </>
        )}
        {model && <Known model={model} />}
        {model?.deviceSpace === 'RGB' && <NextPatches conditionId={condition.id} />}
      </section>
      <div className="min-w-0 space-y-7">
        {model?.deviceSpace === 'RGB' && <ProfileMaker condition={condition} model={model} />}
        <ProfileList condition={condition} />
      </div>
    </div>
  );
}

const deltaE = (value: number) => `${formatNumber(value, value < 0.1 ? 2 : 1)} ΔE00`;

function Known({ model }: { model: ModelView }) {
  const { error } = model;
  return (
    <>
      <p className="font-serif text-[1.15rem]">
        Expected error of colours that were not read: {deltaE(error.stated.pictures.mean)} for colours as pictures have
        them (95 % within {deltaE(error.stated.pictures.p95)}), {deltaE(error.stated.all.mean)} for all colours of the
        printer (95 % within {deltaE(error.stated.all.p95)}).
      </p>
      <p className="text-[13px] text-quiet">
        Computed from {error.patches} different patches of {model.sets.join(', ')}
        {model.measurementCondition && `, ${model.measurementCondition}`}: estimated by predicting each from all the
        others.{' '}
        {error.noise === undefined
          ? 'No patch was read twice, so the noise of the readings is not known.'
          : `Noise of the readings: ${deltaE(error.noise)} (measured, from repeats).`}{' '}
        {model.spectral
          ? model.brightenerApart
            ? 'With spectra, with and without UV: figures can be computed for any light.'
            : 'With spectra. The same patches were not read without UV: for other lights the brightener is estimated from the white.'
          : 'Without spectra: figures for D50 only.'}
      </p>
      {model.like && (
        <p className="border-l-4 border-ink bg-field px-3 py-1.5">
          Few patches were read, so the model starts from a similar print: {model.like.name} (it predicts them to{' '}
          {deltaE(model.like.deltaE00)}).{' '}
          {model.runnerUp && `Next best: ${model.runnerUp.name} (${deltaE(model.runnerUp.deltaE00)}). `}
          Read more patches to rest on this sheet alone.
        </p>
      )}
      <DoubtfulReadings model={model} />
      <Regions error={error} />
    </>
  );
}

/** Where it is least sure: parts of the print, the length of a line for the size of the error. */
function Regions({ error: { regions, worst } }: Pick<ModelView, 'error'>) {
  const [all, setAll] = useState(false);
  const most = Math.max(...regions.map((r) => r.mean));
  const shown = all ? regions : regions.slice(0, 8);
  return (
    <div>
      <table className="w-full">
        <caption className="text-left font-semibold">Where it is least sure</caption>
        <thead className="text-left text-[13px] text-quiet">
          <tr>
            <th scope="col" className="py-1 font-normal">
              Colours
            </th>
            <th scope="col" className="py-1 pr-4 text-right font-normal">
              Patches
            </th>
            <th scope="col" colSpan={2} className="py-1 font-normal">
              Mean, ΔE00
            </th>
          </tr>
        </thead>
        <tbody>
          {shown.map((r) => (
            <tr key={r.name} className="border-t border-line">
              <th scope="row" className="py-1 text-left font-normal">
                {r.name}
              </th>
              <td className="py-1 pr-4 text-right">{r.patches}</td>
              <td className="w-12 py-1 pr-2 text-right">{formatNumber(r.mean, 2)}</td>
              <td className="w-2/5 py-1" aria-hidden>
                <span className="block h-2 bg-ink" style={{ width: `${Math.max(1, (100 * r.mean) / most)}%` }} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <p className="text-[13px] text-quiet">
          Least well told: {worst.map((w) => `${w.patch} (${formatNumber(w.deltaE00, 1)})`).join(', ')}
        </p>
        {regions.length > 8 && <Button onClick={() => setAll(!all)}>{all ? 'Fewer' : 'All of them'}</Button>}
      </div>
    </div>
  );
}

/** The patches whose reading would win most, laid out as a small chart. */
function NextPatches({ conditionId }: { conditionId: string }) {
  const [count, setCount] = useState('15');
  const [layOut, { data: chart, error, isLoading }] = useLayOutNextMutation();
  return (
    <div>
      <h4 className="font-semibold">Which patches next</h4>
      <p className="text-[13px] text-quiet">
        The patches that would take most doubt away, for the colours of the pictures on the table. Read into this print
        condition, they join the first.
      </p>
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <label className="flex items-center gap-2">
          How many
          <input
            type="number"
            min={5}
            max={60}
            value={count}
            onChange={(e) => setCount(e.target.value)}
            className="min-h-8 w-16 rounded-[3px] border border-edge bg-field px-2"
          />
        </label>
        <Button disabled={isLoading} onClick={() => void layOut({ conditionId, count: Number(count) })}>
          {isLoading ? 'Looking for them' : 'Lay them out'}
        </Button>
        {chart && (
          <Link
            to={`/readings/sessions?chart=${chart.id}`}
            className="font-semibold underline decoration-line underline-offset-3 hover:decoration-ink"
          >
            Read {chart.name}, {chart.patchCount} patches
          </Link>
        )}
      </div>
      <ErrorNote error={error} />
    </div>
  );
}
