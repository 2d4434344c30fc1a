import { useState } from 'react';
import type { HistoryEntry } from '@rakuen/contract/readings';
import { DRY_HOURS, whyUnlike, type Basis } from '@rakuen/core/measurement/alike';
import { differenceOf } from '@rakuen/core/measurement/difference';
import type { Figure } from '@rakuen/core/measurement/figure';
import { MEASURE_GROUPS, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { surelyApart } from '@rakuen/core/measurement/marks';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { describeBeside, describePair, LATER_SET } from '@rakuen/core/measurement/sentences';
import { formatFigure } from '@rakuen/core/measurement/show';
import { DEFAULT_THRESHOLDS, type Thresholds } from '@rakuen/core/measurement/thresholds';
import { useSettingsQuery } from '../api/api.ts';
import { Waiting } from '../parts/messages.tsx';
import { Patchwise, patchwiseWords } from './patchwise.tsx';
import { useAgainstQuery } from './reading-api.ts';
import { setName } from './set-name.ts';

/** What a set rests on besides its numbers. */
const basisOf = ({ measurementCondition, driedHours, source }: HistoryEntry): Basis => ({
  condition: measurementCondition,
  wet: driedHours !== undefined && driedHours < DRY_HOURS,
  told: source === 'profile',
});

/** What a change amounts to: for the eye, or where it is none for the eye, whether it is more than noise. */
function verdictOf(measure: Measure, later: Figure, first: Figure, thresholds: Thresholds): string | undefined {
  const seen = differenceOf(measure, later, first, thresholds)?.verdict;
  if (seen || later.shape === 'missing' || first.shape === 'missing') return seen;
  return surelyApart(measure, later, first, thresholds) ? 'changed, beyond your noise' : 'within your noise';
}

interface Pair {
  first: HistoryEntry;
  later: HistoryEntry;
  thresholds: Thresholds;
}

/** Why a measure of the two is not compared. */
const apart = (m: Measure, { first, later }: Pick<Pair, 'first' | 'later'>) =>
  whyUnlike(m, basisOf(later), basisOf(first));

/** A later set against an earlier one, in words first, then measure by measure. */
export function Drift({ entries }: { entries: HistoryEntry[] }) {
  const [firstId, setFirst] = useState(entries[0].readingId);
  const [laterId, setLater] = useState(entries[entries.length - 1].readingId);
  const { data: settings } = useSettingsQuery();
  const thresholds = settings?.thresholds ?? DEFAULT_THRESHOLDS;
  const first = entries.find((e) => e.readingId === firstId) ?? entries[0];
  const later = entries.find((e) => e.readingId === laterId) ?? entries[entries.length - 1];
  return (
    <section aria-label="Drift">
      <h3 className="mb-1 text-[1.1rem]">Drift</h3>
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
        {(
          [
            ['Later set', later, setLater],
            ['against', first, setFirst],
          ] as const
        ).map(([label, chosen, set]) => (
          <label key={label} className="flex items-center gap-2">
            <span className="text-quiet">{label}</span>
            <select
              value={chosen.readingId}
              onChange={(e) => set(e.target.value)}
              className="min-h-8 max-w-[36ch] rounded-[3px] border border-edge bg-field px-2"
            >
              {entries.map((e) => (
                <option key={e.readingId} value={e.readingId}>
                  {setName(e, entries)}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      {first === later ? (
        <p>This is one and the same set. Choose another to compare it with.</p>
      ) : (
        <>
          <InWords {...{ first, later, thresholds }} />
          <DriftTable
            {...{ first, later, thresholds }}
            names={{ first: setName(first, entries), later: setName(later, entries) }}
          />
        </>
      )}
    </section>
  );
}

/** Why two sets are not compared patch by patch; undefined where they are. */
function whyNotPatchwise(first: HistoryEntry, later: HistoryEntry): string | undefined {
  const [p, q] = [basisOf(first), basisOf(later)];
  if (p.told || q.told) return 'A profile holds no readings to compare patch by patch.';
  if (Boolean(p.wet) !== Boolean(q.wet)) return 'One of them was read before it had dried.';
  if (p.condition && q.condition && p.condition !== q.condition)
    return `They were read in ${q.condition} and ${p.condition}: patches are not compared.`;
  return undefined;
}

function InWords({ first, later, thresholds }: Pair) {
  const why = whyNotPatchwise(first, later);
  const {
    currentData: compared,
    error,
    isFetching,
  } = useAgainstQuery({ later: later.readingId, first: first.readingId }, { skip: why !== undefined });
  const alike = MEASURES.filter((m) => apart(m, { first, later }) === undefined);
  const told = describePair(alike, later.figures, first.figures, thresholds, LATER_SET);
  const beside = describeBeside(alike, later.figures, first.figures, LATER_SET);
  const seen = told.filter((t) => t.verdict.startsWith('visible'));
  return (
    <>
      <ul aria-label="What can be seen" className="max-w-[72ch] font-serif text-[1.08rem] leading-snug">
        {compared && <li>{patchwiseWords(compared)}</li>}
        {(why ?? error) && <li>{why ?? error?.message}</li>}
        {seen.map((t) => (
          <li key={t.measure}>{t.sentence}</li>
        ))}
        {seen.length === 0 && !isFetching && (
          <li>
            {told.length === 0
              ? 'No figure of these two sets can be compared.'
              : `No visible difference in the ${told.length === 1 ? 'one figure' : `${told.length} figures`} that both sets have${compared ? '' : '; single colours may differ'}.`}
          </li>
        )}
      </ul>
      {isFetching && <Waiting what="Comparing the two sets patch by patch" />}
      {compared && <Patchwise compared={compared} />}
      {beside.length > 0 && (
        <ul aria-label="Besides" className="mt-1 max-w-[72ch] font-serif leading-snug">
          {beside.map((t) => (
            <li key={t.measure}>{t.sentence}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function DriftTable({ first, later, thresholds, names }: Pair & { names: Record<'first' | 'later', string> }) {
  return (
    <table className="mt-3 w-full border-t border-edge">
      <thead>
        <tr className="text-left text-[13px] text-quiet">
          {['Measure', names.first, names.later, 'What can be seen'].map((h, i) => (
            <th key={i} scope="col" className="py-1 pr-4 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {MEASURE_GROUPS.flatMap((g) => g.measures)
          .filter((m) => [first, later].some((e) => (e.figures[m.key]?.shape ?? 'missing') !== 'missing'))
          .map((m) => (
            <DriftRow key={m.key} measure={m} {...{ first, later, thresholds }} />
          ))}
      </tbody>
    </table>
  );
}

function DriftRow({ measure: m, first, later, thresholds }: Pair & { measure: Measure }) {
  const [a, b] = [first.figures[m.key], later.figures[m.key]];
  const why = apart(m, { first, later });
  const verdict = a && b && !why ? verdictOf(m, b, a, thresholds) : undefined;
  return (
    <tr className={`border-t border-line ${verdict?.startsWith('visible') ? 'font-semibold' : 'font-normal'}`}>
      <th
        scope="row"
        className={`py-1 pr-4 text-left ${verdict?.startsWith('visible') ? '' : 'font-normal'}`}
        title={m.definition}
      >
        {m.name} <span className="text-[12px] font-normal text-quiet">{m.unit}</span>
      </th>
      <td className="py-1 pr-4 whitespace-pre">{a ? formatFigure(m, a) : '—'}</td>
      <td className="py-1 pr-4 whitespace-pre">{b ? formatFigure(m, b) : '—'}</td>
      <td className="py-1 pr-4">
        {verdict ?? <span className="text-[12px] font-normal text-quiet">{why ? `not compared: ${why}` : '—'}</span>}
      </td>
    </tr>
  );
}
