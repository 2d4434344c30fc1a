import { useState } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { ReadingPreview } from '@rakuen/contract/readings';
import { MEASUREMENT_CONDITIONS } from '@rakuen/contract/vocabulary';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { formatFigure } from '@rakuen/core/measurement/show';
import { useKeepReadingMutation, usePreviewReadingMutation } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ChoiceField } from '../parts/form.tsx';
import { ErrorNote, Waiting } from '../parts/messages.tsx';

/** Brings readings from a file: shows what was recognised, and keeps it only when told to. */
export function ReadingImport({ condition }: { condition: ConditionView }) {
  const dispatch = useAppDispatch();
  const [file, setFile] = useState<File>();
  const [stated, setStated] = useState('');
  const [look, looking] = usePreviewReadingMutation();
  const [keep, keeping] = useKeepReadingMutation();
  const preview = looking.data;

  const take = async ([chosen]: File[]) => {
    setFile(chosen);
    setStated('');
    keeping.reset();
    await look({ file: chosen });
  };
  const leave = () => {
    setFile(undefined);
    looking.reset();
    keeping.reset();
  };
  const keepIt = async () => {
    if (!file) return;
    const done = await keep({ conditionId: condition.id, file, measurementCondition: stated || undefined });
    if ('data' in done) {
      dispatch(said(`${file.name} kept.`));
      leave();
    }
  };

  return (
    <div className="space-y-3">
      <DropZone label="Bring a file of readings" hint="or drop it here: CGATS text (ISO 28178) or CxF3 (ISO 17972), with L*a*b*, XYZ or spectra" accept=".txt,.cgats,.it8,.ti3,.cie,.ascii,.cxf,.xml,text/plain,text/xml" disabled={looking.isLoading || keeping.isLoading} onFiles={(f) => void take(f)} />
      {looking.isLoading && <Waiting what={`Reading ${file?.name}`} />}
      <ErrorNote error={looking.error as never} />
      {preview && file && !looking.isLoading && (
        <section aria-label="What was recognised" className="border border-edge bg-sheet p-4">
          <h3 className="break-words">{preview.fileName}</h3>
          <div className="mt-2 grid grid-cols-[1fr_1fr] gap-6">
            <div>
              <p className="font-semibold">Recognised</p>
              <ul className="list-inside list-disc">
                {preview.recognised.map((r) => (
                  <li key={r}>{r}</li>
                ))}
                {preview.parts.length > 1 ? (
                  <li>
                    {preview.parts.length} readings in one file: {preview.parts.map((p) => p.measurementCondition ?? 'unstated').join(', ')}; all are kept
                  </li>
                ) : (
                  preview.measurementCondition && <li>measurement condition {preview.measurementCondition}</li>
                )}
                {preview.instrument && <li>{preview.instrument}</li>}
                {preview.measuredAt && <li>measured {preview.measuredAt}</li>}
              </ul>
              {preview.missing.length > 0 && (
                <>
                  <p className="mt-2 font-semibold">Missing</p>
                  <ul className="list-inside list-disc">
                    {preview.missing.map((m) => (
                      <li key={m}>{m}</li>
                    ))}
                  </ul>
                </>
              )}
              <details className="mt-2">
                <summary className="cursor-pointer">{preview.columns.length} columns</summary>
                <p className="mt-1 text-[13px] break-words text-quiet">{preview.columns.join(', ')}</p>
              </details>
            </div>
            <div>
              <p className="font-semibold">It would give</p>
              <PreviewFigures preview={preview} />
              {!preview.measurementCondition && (
                <ChoiceField className="mt-3" label="Measurement condition" unit="(ISO 13655; the file does not say)" value={stated} onChange={(e) => setStated(e.target.value)} options={[['', 'not stated'], ...MEASUREMENT_CONDITIONS.map((m) => [m, m] as const)]} />
              )}
            </div>
          </div>
          <div className="mt-4 flex gap-3">
            <Button main disabled={keeping.isLoading} onClick={() => void keepIt()}>
              {keeping.isLoading ? 'Keeping…' : 'Keep these readings'}
            </Button>
            <Button onClick={leave}>Leave them</Button>
          </div>
          <div className="mt-3">
            <ErrorNote error={keeping.error as never} />
          </div>
        </section>
      )}
    </div>
  );
}

function PreviewFigures({ preview }: { preview: ReadingPreview }) {
  return (
    <table className="w-full">
      <tbody>
        {MEASURES.map((m) => {
          const figure = preview.figures[m.key];
          return (
            <tr key={m.key}>
              <th scope="row" className="pr-3 text-left font-normal text-quiet">
                {m.name}
              </th>
              <td className="text-right whitespace-pre">
                {formatFigure(m, figure)} {figure.shape === 'scalar' && m.unit}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
