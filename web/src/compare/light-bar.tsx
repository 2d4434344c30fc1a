import { useMemo, useState } from 'react';
import type { LightView } from '@rakuen/contract/sheets';
import { colourRendering } from '@rakuen/core/colour/rendering';
import { colourTemperature, lightXyz } from '@rakuen/core/colour/temperature';
import { FINE_STEP_NM } from '@rakuen/core/formats/spectrum-table';
import { GLASSES } from '@rakuen/core/light/glass';
import { LAMP_UV, showsUv, type LampUv } from '@rakuen/core/light/own-lamp';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useAddLightMutation, useRemoveLightMutation, useSetLightUvMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useLight } from './use-light.ts';

const SELECT = 'min-h-8 max-w-[38ch] rounded-[3px] border border-edge bg-field px-2';
const IMPORT = 'import';

/** The light over the table and the glass before it: everything below is recomputed when they change. */
export function LightBar() {
  const { lights, light, glass, choose, chooseGlass } = useLight();
  const [importing, setImporting] = useState(false);
  const white = useMemo(() => colourTemperature(lightXyz(light.power)), [light]);
  const ra = useMemo(() => colourRendering(light.power)?.ra, [light]);
  return (
    <>
      <label className="flex items-center gap-2" title={light.source}>
        <span className="text-quiet">Light</span>
        <select
          aria-label="Light over the table"
          className={SELECT}
          value={light.key}
          onChange={(e) => (e.target.value === IMPORT ? setImporting(true) : choose(e.target.value))}
        >
          {lights.map((l) => (
            <option key={l.key} value={l.key}>
              {l.name}
            </option>
          ))}
          <option value={IMPORT}>Import a lamp…</option>
        </select>
        <span className="min-w-14 text-[13px] whitespace-nowrap text-quiet">
          {white ? (
            <>
              <span title="Correlated colour temperature, CIE 15">
                {formatNumber(Math.round(white.kelvin / 10) * 10, 0)} K
              </span>
              <span title="Distance from the line of blackbodies in CIE 1960 u, v: green above, pink below (CIE 15)">
                , Duv {white.duv < 0 ? '−' : '+'}
                {formatNumber(Math.abs(white.duv), 4)}
              </span>
              {ra !== undefined && (
                <span title="General colour rendering index (CIE 13.3): 100 renders eight test colours as its reference does">
                  , Ra {formatNumber(ra, 0)}
                </span>
              )}
            </>
          ) : (
            <span title="Further than 0.05 from the line of blackbodies: no colour temperature, and it counts in no mean">
              no white
            </span>
          )}
        </span>
      </label>
      <label className="flex items-center gap-2" title={glass.source}>
        <span className="sr-only">Glass</span>
        <select
          aria-label="Glass before it"
          className={SELECT}
          value={glass.key}
          onChange={(e) => chooseGlass(e.target.value)}
        >
          {GLASSES.map((g) => (
            <option key={g.key} value={g.key}>
              {g.name}
            </option>
          ))}
        </select>
      </label>
      {importing && <ImportDialog onClose={() => setImporting(false)} />}
    </>
  );
}

/** A lamp's spectrum from a file; the lamps that were imported, to be removed. */
function ImportDialog({ onClose }: { onClose: () => void }) {
  const { imported = [], choose } = useLight();
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState<string>();
  const [add, adding] = useAddLightMutation();
  const [remove, removing] = useRemoveLightMutation();
  const [setUv, setting] = useSetLightUvMutation();
  const dispatch = useAppDispatch();
  const take = async (file: File) => {
    if (!name.trim()) return setWrong('Give the lamp a name first.');
    setWrong(undefined);
    const { data } = await add({ file, name });
    if (!data) return;
    choose(data.id);
    dispatch(said(`${data.name} is over the table.`));
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Import a lamp"
      description="Its spectrum as a file of two columns, nm and power: CSV, tabs or spaces. Brighteners need its UV, from 340 nm on: where the file does not show it, say what is known."
    >
      <div className="space-y-3">
        <TextField label="Name" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} error={wrong} />
        <DropZone
          label="Import a spectrum"
          hint="or drop it here"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          disabled={adding.isLoading}
          onFiles={([file]) => void take(file)}
        />
        <ErrorNote error={adding.error ?? removing.error ?? setting.error} />
        {imported.length > 0 && (
          <ul aria-label="Lamps imported" className="border-t border-line">
            {imported.map((l) => (
              <Lamp
                key={l.id}
                lamp={l}
                onUv={(uv) => void setUv({ id: l.id, uv })}
                onRemove={() => void remove(l.id)}
              />
            ))}
          </ul>
        )}
        <Button onClick={onClose}>Close</Button>
      </div>
    </Dialog>
  );
}

/** A lamp of one's own: what its file shows, and what is known of its UV. */
function Lamp({ lamp, onUv, onRemove }: { lamp: LightView; onUv: (uv: LampUv) => void; onRemove: () => void }) {
  const { name, uv, startNm, stepNm, values, fileStepNm } = lamp;
  const from = startNm + stepNm;
  const notes = [
    fileStepNm !== undefined &&
      fileStepNm > FINE_STEP_NM + 0.5 &&
      `Read in steps of ${formatNumber(fileStepNm, 0)} nm: lines between them are missing.`,
    !showsUv({ startNm, stepNm, values }) && `Measured from ${formatNumber(from, 0)} nm: its UV is not in the file.`,
  ].filter(Boolean);
  return (
    <li className="border-b border-line py-1.5">
      <div className="flex items-center justify-between gap-3">
        <span className="min-w-0 break-words">{name}</span>
        <QuietButton aria-label={`Remove ${name}`} onClick={onRemove}>
          Remove
        </QuietButton>
      </div>
      {notes.map((note) => (
        <p key={String(note)} className="text-[13px] text-quiet">
          {note}
        </p>
      ))}
      {!showsUv({ startNm, stepNm, values }) && (
        <ChoiceField
          label="Its UV"
          aria-label={`UV of ${name}`}
          options={Object.entries(LAMP_UV).map(([key, { name: words }]) => [key, words] as const)}
          value={uv}
          onChange={(e) => onUv(e.target.value as LampUv)}
        />
      )}
    </li>
  );
}
