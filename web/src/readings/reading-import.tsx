import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PlacingView, ReadingPreview } from '@rakuen/contract/readings';
import { MEASUREMENT_CONDITIONS } from '@rakuen/contract/vocabulary';
import type { ColumnMapping } from '@rakuen/core/formats/column-mapping';
import { readingFormatsInWords } from '@rakuen/core/formats/reading-formats';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { formatFigure, formatNumber } from '@rakuen/core/measurement/show';
import { useKeepReadingMutation, usePreviewReadingMutation } from './reading-api.ts';
import { putAway, useHanded } from '../app/handed.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { DropZone } from '../parts/drop-zone.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { READING_OR_PROFILE_FILES } from '../parts/file-kinds.ts';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { MappingTable } from './mapping-table.tsx';

const BLANK = { condition: '', batch: '', printedAt: '' };

/** Brings readings from a file: shows what was recognised, and keeps it only when told to. */
export function ReadingImport({ condition }: { condition: ConditionView }) {
  const at = useImport(condition);
  const { preview, file, looking, keeping } = at;
  return (
    <div className="space-y-3">
      <DropZone
        label="Bring a file of readings"
        hint={`or drop it here: ${readingFormatsInWords()}, an ICC profile`}
        accept={READING_OR_PROFILE_FILES}
        disabled={keeping.isLoading || (looking.isLoading && !preview)}
        onFiles={(f) => void at.take(f)}
      />
      {looking.isLoading && <Waiting what={`Reading ${file?.name}`} />}
      <ErrorNote error={looking.error} />
      {preview && file && (
        <section
          aria-label="What was recognised"
          aria-busy={looking.isLoading}
          className="border border-edge bg-sheet p-4"
        >
          <h3 className="break-words">{preview.fileName}</h3>
          {at.handed && (
            <p>
              For {condition.paper.name}, {conditionLine(condition)}. Another print condition is chosen above; a new
              paper is added in{' '}
              <Link className="underline" to="/papers">
                Papers
              </Link>
              , and this waits.
            </p>
          )}
          <Placing placing={at.placing} claims={preview.claims} />
          {preview.parts.length > 0 && (
            <div className="mt-2 grid grid-cols-[repeat(auto-fit,minmax(320px,1fr))] gap-x-6 gap-y-3">
              <Recognised preview={preview} />
              <div>
                <p className="font-semibold">It would give</p>
                <PreviewFigures preview={preview} />
              </div>
            </div>
          )}
          {preview.spreadsheet && (
            <MappingTable key={preview.fileName} spreadsheet={preview.spreadsheet} onChange={(m) => void at.map(m)} />
          )}
          <Stated preview={preview} stated={at.stated} onState={at.setStated} />
          <div className="sticky -bottom-5 -mx-4 mt-3 flex flex-wrap gap-3 border-t border-line bg-sheet px-4 py-2.5">
            {at.placing?.against ? (
              <>
                {!at.placing.otherBox && at.placing.resembles[0] && (
                  <Button
                    main
                    disabled={keeping.isLoading}
                    onClick={() => void at.keepIt({ conditionId: at.placing!.resembles[0].conditionId })}
                  >
                    {`Import into ${at.placing.resembles[0].name}`}
                  </Button>
                )}
                <Button disabled={keeping.isLoading} onClick={() => void at.keepIt({ keep: 'apart' })}>
                  Keep here, apart
                </Button>
              </>
            ) : (
              <Button main disabled={keeping.isLoading || preview.parts.length === 0} onClick={() => void at.keepIt()}>
                {keeping.isLoading
                  ? 'Keeping…'
                  : preview.source === 'profile'
                    ? 'Keep the profile’s colours'
                    : 'Keep these readings'}
              </Button>
            )}
            <Button onClick={at.leave}>Leave them</Button>
          </div>
          <div className="mt-3">
            <ErrorNote error={keeping.error} />
          </div>
        </section>
      )}
    </div>
  );
}

/** A file of readings on its way in. */
function useImport(condition: ConditionView) {
  const dispatch = useAppDispatch();
  const [file, setFile] = useState<File>();
  const [stated, setStated] = useState(BLANK);
  const [mapping, setMapping] = useState<string>();
  const [look, looking] = usePreviewReadingMutation();
  const [keep, keeping] = useKeepReadingMutation();

  const take = async ([chosen]: File[]) => {
    setFile(chosen);
    setStated(BLANK);
    setMapping(undefined);
    keeping.reset();
    await look({ file: chosen, conditionId: condition.id });
  };
  const map = async (said: ColumnMapping) => {
    if (!file) return;
    const text = JSON.stringify(said);
    setMapping(text);
    await look({ file, mapping: text, conditionId: condition.id });
  };
  // What was dropped elsewhere lies here until it is kept or left; another print condition may be chosen for it. It
  // waits for what is looked at.
  const [waiting] = useHanded('readings');
  useEffect(() => {
    if (waiting && !file) void take([waiting]);
  });
  const leave = () => {
    if (file) putAway('readings', file);
    setFile(undefined);
    looking.reset();
    keeping.reset();
  };
  const keepIt = async (choice: { conditionId?: string; keep?: 'apart' } = {}) => {
    if (!file) return;
    const done = await keep({
      conditionId: condition.id,
      ...choice,
      file,
      measurementCondition: stated.condition || undefined,
      batch: stated.batch.trim() || undefined,
      printedAt: stated.printedAt ? new Date(stated.printedAt).toISOString() : undefined,
      mapping,
    });
    if ('data' in done) {
      dispatch(said(`${file.name} kept.`));
      leave();
    }
  };
  const handed = file !== undefined && file === waiting;
  // What the server found at the last moment counts more than what the preview found.
  const placing = (keeping.error as { current?: PlacingView } | undefined)?.current ?? placingFor(looking.data, stated);
  return {
    file,
    handed,
    placing,
    preview: looking.data,
    looking,
    keeping,
    stated,
    setStated,
    take,
    map,
    leave,
    keepIt,
  };
}

/** Another box was stated: it may differ from what is kept. */
const placingFor = (preview: ReadingPreview | undefined, { batch }: typeof BLANK): PlacingView | undefined =>
  preview?.placing?.otherBox && batch.trim() ? { ...preview.placing, against: undefined } : preview?.placing;

/** Whether the readings belong here: what they resemble, and what does not go together with the maker's claims. */
function Placing({ placing, claims = [] }: { placing?: PlacingView; claims?: readonly string[] }) {
  if (!placing) return null;
  const { against, own, resembles } = placing;
  return (
    <section aria-label="Where it belongs" className="mt-3">
      {against ? (
        <div role="alert" className="border-l-4 border-ink bg-field px-3 py-2">
          <p className="font-semibold">{against}</p>
          <p>
            {placing.otherBox
              ? 'Import it where it belongs, state another box below, or keep it here apart.'
              : 'Import it where it belongs, or keep it here apart.'}{' '}
            A set apart gives no figures until you choose it.
          </p>
        </div>
      ) : (
        own && (
          <p>
            Agrees with what is kept here: {formatNumber(own.deltaE00, 1)} ΔE00 over {own.common} common patches.
          </p>
        )
      )}
      {!against && !own && resembles[0] && resembles[0].deltaE00 < 3 && (
        <p className="text-quiet">
          Nearest print: {resembles[0].name}, {formatNumber(resembles[0].deltaE00, 1)} ΔE00 over {resembles[0].common}{' '}
          common patches.
        </p>
      )}
      {claims.map((c) => (
        <p key={c}>{c}</p>
      ))}
    </section>
  );
}

/** What the file can't say: its condition, the box, the hour of the print. */
function Stated({
  preview,
  stated,
  onState,
}: {
  preview: ReadingPreview;
  stated: typeof BLANK;
  onState: (stated: typeof BLANK) => void;
}) {
  const state = (key: keyof typeof BLANK) => ({
    value: stated[key],
    onChange: (e: { target: { value: string } }) => onState({ ...stated, [key]: e.target.value }),
  });
  return (
    <div className="mt-3 grid grid-cols-2 gap-3">
      {!preview.measurementCondition && preview.source === 'measured' && (
        <ChoiceField
          className="col-span-2"
          label="Measurement condition"
          unit="(ISO 13655; the file does not say)"
          {...state('condition')}
          options={[['', 'not stated'], ...MEASUREMENT_CONDITIONS.map((m) => [m, m] as const)]}
        />
      )}
      <TextField label="Box or formulation" unit="if not the first" maxLength={80} {...state('batch')} />
      <TextField label="Printed" unit="(for the drying time)" type="datetime-local" {...state('printedAt')} />
    </div>
  );
}

/** What was recognised, one after another in a line. */
const TOLD = "[&>li]:inline [&>li:not(:last-child)]:after:content-['_·_']";

function Recognised({ preview }: { preview: ReadingPreview }) {
  return (
    <div>
      <p className="font-semibold">Recognised</p>
      <ul className={TOLD}>
        {preview.recognised.map((r) => (
          <li key={r}>{r}</li>
        ))}
        {preview.parts.length > 1 ? (
          <li>
            {preview.parts.length} readings in one file:{' '}
            {preview.parts.map((p) => p.measurementCondition ?? 'unstated').join(', ')}; all are kept
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
          <ul className="list-outside list-disc pl-4">
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
  );
}

/** Figures of colour the file alone would give; the rest wants other readings. */
function PreviewFigures({ preview }: { preview: ReadingPreview }) {
  const told = MEASURES.filter((m) => !('observe' in m) && preview.figures[m.key]?.shape !== 'missing');
  return (
    <table className={`w-full ${preview.source === 'profile' ? 'italic' : ''}`}>
      <tbody>
        {told.map((m) => {
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
