import { skipToken } from '@reduxjs/toolkit/query/react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ConditionHead, ConditionView } from '@rakuen/contract/conditions';
import type { CheckView, ProfileView } from '@rakuen/contract/profiles';
import { greatestTurn } from '@rakuen/core/characterisation/profile-check';
import { MISTAKES } from '@rakuen/core/proof/mistakes';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useWholeConditionsQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { READING_FILES } from '../parts/file-kinds.ts';
import { FileButton } from '../parts/file-button.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import {
  useCheckFileMutation,
  useCheckReadingMutation,
  useLayOutStripMutation,
  useProfileChecksQuery,
} from './profile-api.ts';

/** A strip printed through the profile, read, and held against what it promised. */
export function ProfileChecks({ profile, condition }: { profile: ProfileView; condition: ConditionView }) {
  const { data } = useProfileChecksQuery(profile.id);
  const [layOut, strip] = useLayOutStripMutation();
  const [checkReading, ofReading] = useCheckReadingMutation();
  const [checkFile, ofFile] = useCheckFileMutation();
  // A profile made here answers for the measurement condition it was built from alone.
  const builtFrom = profile.settings?.builtFrom;
  const sets = condition.readings.filter(
    (r) => r.source === 'measured' && (!builtFrom || r.measurementCondition === builtFrom),
  );
  const [readingId, setReadingId] = useState(sets.at(-1)?.id ?? '');
  const { data: conditions = [] } = useConditionsQuery();
  const inDriver = conditions.filter((c) => isDriversOwn(c, condition)).map((c) => c.id);
  const { data: candidates = [] } = useWholeConditionsQuery(inDriver.length > 0 ? inDriver : skipToken);
  const driver = greysOfDriver(candidates, builtFrom);
  const busy = ofReading.isLoading || ofFile.isLoading;
  return (
    <div className="mt-2 ml-6 space-y-3 border-l border-edge pl-4">
      <p className="text-[13px] text-quiet">
        About fifty patches, greys, skin-like and well-known colours and the ends of the gamut, as the profile sends
        them. Print them with colour management off, let them dry, read them, and hold them against its promise.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <Button disabled={strip.isLoading} onClick={() => void layOut(profile.id)}>
          Lay out the strip
        </Button>
        {strip.data && (
          <Link
            to={`/readings/sessions?chart=${strip.data.id}`}
            className="font-semibold underline decoration-line underline-offset-3 hover:decoration-ink"
          >
            Read {strip.data.name}
          </Link>
        )}
      </div>
      <div className="flex flex-wrap items-center gap-3">
        {sets.length > 0 && (
          <>
            <select
              aria-label="Readings of the strip"
              value={readingId}
              onChange={(e) => setReadingId(e.target.value)}
              className="min-h-8 max-w-[30ch] rounded-[3px] border border-edge bg-field px-2"
            >
              {sets.map((r) => (
                <option key={r.id} value={r.id}>
                  {r.fileName}
                  {r.measurementCondition && `, ${r.measurementCondition}`}, {r.patchCount} patches
                </option>
              ))}
            </select>
            <Button
              disabled={busy || !readingId}
              onClick={() => void checkReading({ profileId: profile.id, readingId })}
            >
              Hold them against it
            </Button>
          </>
        )}
        <FileButton
          label="Bring readings of a strip"
          accept={READING_FILES}
          disabled={busy}
          onFile={(file) => void checkFile({ profileId: profile.id, conditionId: condition.id, file })}
        />
      </div>
      <ErrorNote error={strip.error ?? ofReading.error ?? ofFile.error} />
      <ul className="space-y-2">
        {data?.checks.map((c) => (
          <Check key={c.id} check={c} driver={driver} />
        ))}
      </ul>
    </div>
  );
}

const isDriversOwn = (c: ConditionHead, condition: ConditionHead) =>
  c.paperId === condition.paperId &&
  c.printer === condition.printer &&
  c.inkSet === condition.inkSet &&
  c.printMode === 'driver black-and-white' &&
  c.facts?.source === 'measured';

/** The greys of the driver's black-and-white mode on the same paper, in the same printer, under the same measurement condition. */
function greysOfDriver(candidates: readonly ConditionView[], builtFrom: string | undefined): Driver | undefined {
  const found = candidates.find(
    (c) => c.facts?.ramp && c.readings.some((r) => r.id === c.facts!.readingId && r.measurementCondition === builtFrom),
  );
  const white = found?.facts?.figures.white;
  if (!found || white?.shape !== 'colour') return undefined;
  return {
    name: found.mediaSetting,
    turn: greatestTurn(
      found.facts!.ramp!.map((r) => r.lab),
      white.lab,
    ),
  };
}

interface Driver {
  readonly name: string;
  readonly turn: number;
}

function Check({ check: { at, fileName, result, words }, driver }: { check: CheckView; driver?: Driver }) {
  const { greys } = result;
  return (
    <li>
      <p className="font-serif text-[1.05rem]">{words}</p>
      <p className="text-[13px] text-quiet">
        {day(at)}, {fileName}, {result.patches} patches (measured); worst {formatNumber(result.max, 1)} ΔE00
        {result.worst[0] && ` at ${result.worst[0].patch}`}.{' '}
        {greys
          ? `Greys within ${formatNumber(greys.maxDeltaC, 1)} ΔC* and ${formatNumber(greys.maxDeltaL, 1)} L*; ${greys.monotone ? 'no step falls back' : 'a step falls back'}.`
          : 'Too few greys to judge them.'}
      </p>
      {result.off && result.off.length > 0 && <p className="text-[13px]">{result.off.join('; ')}.</p>}
      {result.recognised && (
        <details className="text-[13px]">
          <summary className="min-h-7 cursor-pointer">{result.recognised.sentence}</summary>
          <table>
            <caption className="text-left text-quiet">What it would lie off, if</caption>
            <tbody>
              {result.recognised.causes.map((c) => (
                <tr key={`${c.mistake} ${c.which ?? ''}`}>
                  <th scope="row" className="pr-4 text-left font-normal">
                    {MISTAKES[c.mistake]}
                    {c.which && `: ${c.which}`}
                  </th>
                  <td className="text-right tabular-nums">{formatNumber(c.meanDeltaE, 1)} ΔE00</td>
                </tr>
              ))}
            </tbody>
          </table>
        </details>
      )}
      {greys?.maxTurn !== undefined && (
        <p className="text-[13px] text-quiet">
          Greys through the profile turn by up to {formatNumber(greys.maxTurn, 1)} C* against the paper
          {driver &&
            `; in the driver’s black-and-white mode (${driver.name}) by up to ${formatNumber(driver.turn, 1)} (measured)`}
          .
        </p>
      )}
    </li>
  );
}
