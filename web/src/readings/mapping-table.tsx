import type { SpreadsheetPreview } from '@rakuen/contract/readings';
import { COLUMN_ROLES, DEVICE_SCALES, type ColumnMapping, type ColumnRole } from '@rakuen/core/formats/column-mapping';
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
  // A spectrum's many columns say what they are; the hand is needed for the others.
  const unnamed = columns.some((c, i) => roles[i] === 'nm' && !/\d{3}/.test(c));
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
      {unnamed && <Wavelengths now={now} onChange={onChange} />}
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

/** Where the columns of a spectrum don't say it themselves. */
function Wavelengths({ now, onChange }: { now: ColumnMapping; onChange: (said: ColumnMapping) => void }) {
  return (
    <div className="mt-2 grid max-w-sm grid-cols-2 gap-3">
      <TextField
        label="First wavelength"
        unit="nm"
        type="number"
        min={300}
        max={1100}
        defaultValue={now.startNm}
        onBlur={(e) => onChange({ ...now, startNm: Number(e.target.value) || undefined })}
      />
      <TextField
        label="Step"
        unit="nm"
        type="number"
        min={1}
        max={50}
        defaultValue={now.stepNm}
        onBlur={(e) => onChange({ ...now, stepNm: Number(e.target.value) || undefined })}
      />
    </div>
  );
}
