import { useMemo, useState } from 'react';
import { colourTemperature, lightXyz } from '@rakuen/core/colour/temperature';
import { GLASSES } from '@rakuen/core/light/glass';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useAddLightMutation, useRemoveLightMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useLight } from './use-light.ts';

const SELECT = 'min-h-8 max-w-[26ch] rounded-[3px] border border-edge bg-field px-2';
const IMPORT = 'import';

/** The light over the table and the glass before it: everything below is recomputed when they change. */
export function LightBar() {
  const { lights, light, glass, choose, chooseGlass } = useLight();
  const [importing, setImporting] = useState(false);
  const white = useMemo(() => colourTemperature(lightXyz(light.power)), [light]);
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
        <span className="w-14 text-[13px] text-quiet" title="Correlated colour temperature, CIE 15">
          {white ? `${formatNumber(Math.round(white.kelvin / 10) * 10, 0)} K` : 'no white'}
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
  const { own, choose } = useLight();
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState<string>();
  const [add, adding] = useAddLightMutation();
  const [remove, removing] = useRemoveLightMutation();
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
      description="Its spectrum as a file of two columns, nm and power: CSV, tabs or spaces. What was not measured below 400 nm counts as no UV."
    >
      <div className="space-y-3">
        <TextField label="Name" maxLength={80} value={name} onChange={(e) => setName(e.target.value)} error={wrong} />
        <DropZone
          label="Bring a spectrum"
          hint="or drop it here"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          disabled={adding.isLoading}
          onFiles={([file]) => void take(file)}
        />
        <ErrorNote error={adding.error ?? removing.error} />
        {own.length > 0 && (
          <ul aria-label="Lamps imported" className="border-t border-line">
            {own.map((l) => (
              <li key={l.key} className="flex items-center justify-between border-b border-line">
                {l.name}
                <QuietButton aria-label={`Remove ${l.name}`} onClick={() => void remove(l.key)}>
                  Remove
                </QuietButton>
              </li>
            ))}
          </ul>
        )}
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
