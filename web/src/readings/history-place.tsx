import type { ConditionView } from '@rakuen/contract/conditions';
import type { HistoryEntry } from '@rakuen/contract/readings';
import {
  useHistoryQuery,
  useJoinReadingMutation,
  useRemoveReadingMutation,
  useTakeFiguresFromMutation,
} from './reading-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Download } from '../parts/download.tsx';
import { BinButton } from '../parts/bin-button.tsx';
import { QuietButton } from '../parts/button.tsx';
import { asStated, day, dried } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { Drift } from './drift.tsx';
import { ReadingImport } from './reading-import.tsx';
import { setName, whenOf } from './set-name.ts';

/** Sets of readings from old to new, what has drifted between them, and the files they came from. */
export function HistoryPlace({ condition }: { condition: ConditionView }) {
  const { currentData: history, error, isFetching } = useHistoryQuery(condition.id);
  const entries = history?.entries ?? [];
  return (
    <div className="space-y-6">
      <ErrorNote error={error} />
      {isFetching && !history && <Waiting what="Computing the figures of every set" />}
      {history && (
        <section aria-label="Sets of readings">
          <h3 className="mb-1 text-[1.1rem]">Sets of readings</h3>
          {entries.length === 0 ? (
            <p className="text-quiet">None yet.</p>
          ) : (
            <SetList condition={condition} entries={entries} />
          )}
        </section>
      )}
      {entries.length > 1 && <Drift key={entries.length} entries={entries} />}
      {entries.length === 1 && (
        <p className="max-w-[68ch] text-quiet">
          One set so far. When a new box comes, or a day has passed, read the chart again and bring it here: the two are
          compared measure by measure.
        </p>
      )}
      <section aria-label="Files">
        <h3 className="mb-1 text-[1.1rem]">Readings kept</h3>
        <ReadingList condition={condition} />
        <ReadingImport condition={condition} />
      </section>
    </div>
  );
}

function SetList({ condition, entries }: { condition: ConditionView; entries: HistoryEntry[] }) {
  const [take, taking] = useTakeFiguresFromMutation();
  const dispatch = useAppDispatch();
  const speaking = condition.facts?.readingId;
  return (
    <>
      <div className="scroll-quiet overflow-x-auto" tabIndex={0} role="region" aria-label="Sets, from old to new">
        <table className="w-full border-t border-edge">
          <thead>
            <tr className="text-left text-[13px] text-quiet">
              {['Read', 'Box or formulation', 'Dried', 'Light', 'Patches', 'Instrument', 'Figures from'].map((h) => (
                <th key={h} scope="col" className="py-1 pr-4 font-normal">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {entries.map((e, i) => (
              <tr key={e.readingId} className="border-t border-line">
                <th scope="row" className="py-1.5 pr-4 text-left font-normal whitespace-nowrap">
                  {whenOf(e, entries)}
                  <span className="block max-w-44 truncate text-[13px] text-quiet" title={e.fileName}>
                    {e.fileName}
                  </span>
                </th>
                <td className="py-1.5 pr-4 font-serif">{e.batch || (i === 0 ? 'the first' : 'not named')}</td>
                <td className="py-1.5 pr-4 whitespace-nowrap">
                  {e.driedHours === undefined ? <span className="text-quiet">not stated</span> : dried(e.driedHours)}
                </td>
                <td className="py-1.5 pr-4">
                  {e.source === 'profile' ? <i>profile</i> : (e.measurementCondition ?? 'unstated')}
                </td>
                <td className="py-1.5 pr-4">{patchesOf(e)}</td>
                <td className="max-w-56 truncate py-1.5 pr-4" title={e.instrument}>
                  {e.instrument ?? <span className="text-quiet">not stated</span>}
                </td>
                <td className="py-1">
                  <label className="flex min-h-7 items-center gap-2">
                    <input
                      type="radio"
                      name="speaks"
                      className="size-4 accent-ink"
                      aria-label={`Figures from the set of ${setName(e, entries)}`}
                      checked={e.readingId === speaking}
                      onChange={() =>
                        void take({ conditionId: condition.id, readingId: e.readingId }).then(
                          ({ data }) => data && dispatch(said('The figures are taken from this set.')),
                        )
                      }
                    />
                    {e.readingId === speaking &&
                      (condition.figuresFrom
                        ? 'this one, by your choice'
                        : i === entries.length - 1
                          ? 'this one, the newest'
                          : 'this one, the newest that had dried')}
                  </label>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {condition.figuresFrom && (
        <QuietButton
          onClick={() =>
            void take({ conditionId: condition.id }).then(
              ({ data }) => data && dispatch(said('The newest set gives the figures again.')),
            )
          }
        >
          Let the newest set give them
        </QuietButton>
      )}
      <ErrorNote error={taking.error} />
    </>
  );
}

/** "350 of 175" where passes were kept apart. */
const patchesOf = ({ patches, patchCount }: HistoryEntry) =>
  patches > 0 && patchCount > patches ? `${patches}, ${patchCount} readings` : `${patchCount}`;

const FORMAT_NAMES = { cgats: 'CGATS', cxf: 'CxF3', csv: 'CSV' } as const;

function ReadingList({ condition }: { condition: ConditionView }) {
  const [remove, { error }] = useRemoveReadingMutation();
  const [join, joining] = useJoinReadingMutation();
  const dispatch = useAppDispatch();
  if (condition.readings.length === 0) return <p className="mb-3 text-quiet">None yet.</p>;
  return (
    <>
      <ul className="mb-3 border-t border-edge">
        {condition.readings.map((r) => (
          <li key={r.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-1">
            <span className="w-14 font-semibold">
              {r.source === 'profile' ? <i>profile</i> : (r.measurementCondition ?? '—')}
            </span>
            <Download
              href={`/api/readings/${r.id}/file`}
              className="min-w-0 flex-1 truncate underline decoration-line underline-offset-3 hover:decoration-ink"
              title={r.fileName}
            >
              {r.fileName}
            </Download>
            <span>
              {r.patchCount} patches, {r.colourFrom}
            </span>
            <span className="flex gap-2">
              {(['cgats', 'cxf', 'csv'] as const).map((format) => (
                <Download
                  key={format}
                  href={`/api/readings/${r.id}/file?as=${format}`}
                  label={`${r.fileName}, ${r.measurementCondition ?? 'unstated'}, as ${FORMAT_NAMES[format]}`}
                >
                  {FORMAT_NAMES[format]}
                </Download>
              ))}
            </span>
            <span className="text-quiet">
              {r.measuredAt ? `measured ${asStated(r.measuredAt)}` : `kept ${day(r.importedAt)}`}
            </span>
            <span className="w-28 text-quiet">{r.primary ? 'figures from this' : r.apart ? 'kept apart' : ''}</span>
            <BinButton
              of={`${r.fileName}, ${r.measurementCondition ?? 'unstated'}`}
              onBin={() =>
                remove(r.id)
                  .unwrap()
                  .then(() => dispatch(said(`${r.fileName} removed.`)))
              }
            />
            {r.apart && (
              <p className="w-full pb-1 text-[13px]">
                {r.apart} It gives no figures unless you choose it.{' '}
                <QuietButton
                  aria-label={`Use ${r.fileName} with the others`}
                  onClick={() => void join(r.id).then(({ data }) => data && dispatch(said(`${r.fileName} joined.`)))}
                >
                  Use with the others
                </QuietButton>
              </p>
            )}
          </li>
        ))}
      </ul>
      <ErrorNote error={error ?? joining.error} />
    </>
  );
}
