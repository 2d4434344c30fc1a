import { useState } from 'react';
import type { PhotographView } from '@rakuen/contract/photographs';
import { PHOTOGRAPH_KINDS, type PhotographKind } from '@rakuen/contract/vocabulary';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ChoiceField, named, TextField } from '../parts/form.tsx';
import { day } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { useAddPhotographMutation, useRemovePhotographMutation } from './print-api.ts';

/** The print as it hung or lay: photographs and scans, with the light they were made in. */
export function Photographs({ printId, list }: { printId: string; list: readonly PhotographView[] }) {
  const dispatch = useAppDispatch();
  const [kind, setKind] = useState<PhotographKind>('photograph');
  const [light, setLight] = useRemembered('judging-light', '');
  const [add, adding] = useAddPhotographMutation();
  const [remove, removing] = useRemovePhotographMutation();
  const take = async ([file]: File[]) => {
    const done = await add({ printId, file, kind, light });
    if ('data' in done) dispatch(said(`${file.name} kept with the print.`));
  };
  return (
    <section aria-label="Photographs of the print">
      <h3 className="mb-1">Photographs</h3>
      {list.length > 0 && (
        <ul className="mb-3 grid grid-cols-2 gap-3">
          {list.map((p) => (
            <li key={p.id} className="min-w-0">
              <a href={`/api/prints/photographs/${p.id}`} title={`${p.fileName}, as it came`}>
                <img
                  src={`/api/prints/photographs/${p.id}/preview`}
                  alt={`${p.kind} of the print, ${p.fileName}`}
                  loading="lazy"
                  className="h-28 w-full border border-line object-cover"
                />
              </a>
              <p className="flex items-baseline justify-between gap-2 text-[12.5px] text-quiet">
                <span className="min-w-0 break-words">{[p.kind, day(p.at), p.light].filter(Boolean).join(', ')}</span>
                <QuietButton
                  aria-label={`Put ${p.fileName} in the bin`}
                  onClick={() => void remove(p.id).then(({ error }) => !error && dispatch(said('In the bin.')))}
                >
                  Remove
                </QuietButton>
              </p>
            </li>
          ))}
        </ul>
      )}
      <div className="grid grid-cols-2 gap-3">
        <ChoiceField
          label="Type"
          options={named(PHOTOGRAPH_KINDS)}
          value={kind}
          onChange={(e) => setKind(e.target.value as PhotographKind)}
        />
        <TextField label="In which light" maxLength={80} value={light} onChange={(e) => setLight(e.target.value)} />
      </div>
      <div className="mt-2">
        <DropZone
          label="Import a photograph"
          hint="or drop it here: JPEG, PNG or TIFF, kept as it comes"
          accept="image/jpeg,image/png,image/tiff,.jpg,.jpeg,.png,.tif,.tiff"
          disabled={adding.isLoading}
          onFiles={(files) => void take(files)}
        />
      </div>
      {adding.isLoading && <Waiting what="Keeping the photograph" />}
      <ErrorNote error={adding.error ?? removing.error} />
    </section>
  );
}
