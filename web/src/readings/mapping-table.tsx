import type { SpreadsheetPreview } from '@rakuen/contract/readings';
import { useState } from 'react';
import {
  COLUMN_ROLES,
  DEVICE_SCALES,
  spectralBlock,
  withSpectralBlock,
  type ColumnMapping,
  type ColumnRole,
} from '@rakuen/core/formats/column-mapping';
import { Button } from '../parts/button.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';

/** The columns of a table, each with what it is taken for; the hand says otherwise. */
export function MappingTable({
  spreadsheet,
  onChange,
}: {
  spreadsheet: SpreadsheetPreview;
  onChange: (mapping: ColumnMapping) => void;
}) {
  const { columns, sample, roles, startNm, stepNm, deviceScale, remembered, fault } = spreadsheet;
  const now: ColumnMapping = { roles, startNm, stepNm, deviceScale };
  const say = (at: number, role: ColumnRole) => onChange({ ...now, roles: roles.map((r, i) => (i === at ? role : r)) });
  const spectral = roles.filter((r) => r === 'nm').length;
  return (
    <section aria-label="Columns" className="mt-3">
      <p className="font-semibold">Which column holds what</p>
      <p className="text-[13px] text-quiet">
        {remembered
          ? 'As you said it the last time for columns of these names.'
          : 'As their names suggest. What you say is remembered for columns of these names.'}
        {spectral > 0 && ` ${spectral} columns hold a spectrum.`}
      </p>
      {fault && (
        <p role="alert" className="mt-1 border-l-4 border-ink bg-field px-3 py-1.5">
          {fault}
        </p>
      )}
      <div
        className="scroll-quiet mt-2 max-h-72 overflow-auto border border-line"
        tabIndex={0}
        role="region"
        aria-label="Columns of the file"
      >
        <Columns columns={columns} roles={roles} sample={sample} onSay={say} />
      </div>
      {roles.some((r) => /^(rgb|cmyk)/.test(r)) && (
        <ChoiceField
          className="mt-2 max-w-sm"
          label="Device values run to"
          value={deviceScale ?? ''}
          onChange={(e) =>
            onChange({ ...now, deviceScale: DEVICE_SCALES.find((scale) => String(scale) === e.target.value) })
          }
          options={[
            ['', 'as the values themselves tell'],
            ...DEVICE_SCALES.map((s) => [String(s), String(s)] as const),
          ]}
        />
      )}
      {columns.length >= MIN_BAND_COLUMNS && <SpectralColumns now={now} columns={columns} onChange={onChange} />}
    </section>
  );
}

/** Each column, what it holds, and what its first rows say. */
function Columns({
  columns,
  roles,
  sample,
  onSay,
}: {
  columns: readonly string[];
  roles: readonly ColumnRole[];
  sample: readonly (readonly string[])[];
  onSay: (column: number, role: ColumnRole) => void;
}) {
  return (
    <table className="w-full text-[13px]">
      <thead className="sticky top-0 bg-sheet">
        <tr className="text-left text-quiet">
          <th scope="col" className="px-2 py-1 font-normal">
            Column
          </th>
          <th scope="col" className="px-2 py-1 font-normal">
            holds
          </th>
          <th scope="col" className="px-2 py-1 font-normal">
            first rows
          </th>
        </tr>
      </thead>
      <tbody>
        {columns.map((name, i) => (
          <tr key={i} className="border-t border-line">
            <th scope="row" className="max-w-40 truncate px-2 py-1 text-left font-semibold" title={name}>
              {name}
            </th>
            <td className="px-2 py-1">
              <select
                aria-label={`${name} holds`}
                value={roles[i]}
                onChange={(e) => onSay(i, e.target.value as ColumnRole)}
                className="min-h-7 rounded-[3px] border border-edge bg-field px-1"
              >
                {Object.entries(COLUMN_ROLES).map(([role, words]) => (
                  <option key={role} value={role}>
                    {words}
                  </option>
                ))}
              </select>
            </td>
            <td className="max-w-56 truncate px-2 py-1 text-quiet">{sample.map((r) => r[i]).join('   ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const MIN_BAND_COLUMNS = 8;
/** The first column after the last that is known to hold something else. */
const firstOpen = ({ roles }: ColumnMapping) => roles.findLastIndex((r) => r !== '' && r !== 'nm') + 1;

/** The spectrum as one block: which columns, and their wavelengths. A wrong guess is corrected for all of them at once. */
function SpectralColumns({
  now,
  columns,
  onChange,
}: {
  now: ColumnMapping;
  columns: readonly string[];
  onChange: (said: ColumnMapping) => void;
}) {
  const guessed = spectralBlock(now, columns);
  const [typed, setTyped] = useState({
    from: String((guessed?.from ?? firstOpen(now)) + 1),
    to: String((guessed?.to ?? now.roles.lastIndexOf('nm')) + 1 || columns.length),
    startNm: String(guessed?.startNm ?? 380),
    stepNm: String(guessed?.stepNm ?? 10),
  });
  const field = (key: keyof typeof typed, label: string, unit?: string) => (
    <TextField
      label={label}
      unit={unit}
      inputMode="numeric"
      value={typed[key]}
      onChange={(e) => setTyped({ ...typed, [key]: e.target.value })}
    />
  );
  const [from, to, startNm, stepNm] = [typed.from, typed.to, typed.startNm, typed.stepNm].map(Number);
  const fits = from >= 1 && to > from && to <= columns.length && startNm >= 300 && startNm <= 1100 && stepNm >= 1;
  return (
    <fieldset className="mt-3 border border-line px-3 pb-3">
      <legend className="px-1 font-semibold">Spectrum</legend>
      <p className="text-[13px] text-quiet">
        {guessed
          ? `Columns ${guessed.from + 1} to ${guessed.to + 1}: ${guessed.startNm} nm to ${guessed.startNm + (guessed.to - guessed.from) * guessed.stepNm} nm every ${guessed.stepNm} nm.`
          : 'No block of columns is used as a spectrum.'}
      </p>
      <div className="mt-2 grid grid-cols-4 items-end gap-3 max-[1000px]:grid-cols-2">
        {field('from', 'First column')}
        {field('to', 'Last column')}
        {field('startNm', 'First wavelength', 'nm')}
        {field('stepNm', 'Step', 'nm')}
      </div>
      <div className="mt-2 flex flex-wrap gap-3">
        <Button
          disabled={!fits}
          onClick={() => onChange(withSpectralBlock(now, { from: from - 1, to: to - 1, startNm, stepNm }))}
        >
          Use these columns as the spectrum
        </Button>
        {now.roles.includes('nm') && (
          <Button onClick={() => onChange(withSpectralBlock(now, undefined))}>No spectrum</Button>
        )}
      </div>
    </fieldset>
  );
}
