import { useRef, useState } from 'react';
import { Link } from 'react-router';
import type { InboxFile } from '@rakuen/contract/inbox';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { bring } from './bringing.ts';
import { pickedFiles } from './dropped-files.ts';
import {
  useClearInboxMutation,
  useImportCertainMutation,
  useImportFileMutation,
  useInboxQuery,
  usePutFileAwayMutation,
} from './inbox-api.ts';
import { PlaceDialog } from './place-dialog.tsx';
import { useSettled } from './use-settled.ts';

/** Files that came in: what each is, where it belongs, and what is unclear. */
export function InboxScreen() {
  const { data, error, isLoading } = useInboxQuery();
  const [importCertain, importing] = useImportCertainMutation();
  const [clear, clearing] = useClearInboxMutation();
  const dispatch = useAppDispatch();
  const files = data?.files ?? [];
  const certain = files.filter((f) => f.certain);
  const done = files.filter((f) => f.importedAt || f.fault);
  const importAll = async () => {
    const { data: after } = await importCertain();
    if (!after) return;
    const imported = after.files.filter((f) => f.importedAt).length - files.filter((f) => f.importedAt).length;
    dispatch(said(`${imported} ${imported === 1 ? 'file is' : 'files are'} imported.`));
  };
  return (
    <>
      <ScreenHead title="Inbox" question="What came in, and where does it belong?">
        <Pickers />
        {done.length > 0 && (
          <Button disabled={clearing.isLoading} onClick={() => void clear()}>
            Take what is done off the list
          </Button>
        )}
        {certain.length > 0 && (
          <Button main disabled={importing.isLoading} onClick={() => void importAll()}>
            Import all that are certain ({certain.length})
          </Button>
        )}
      </ScreenHead>
      <ErrorNote error={error ?? importing.error ?? clearing.error} />
      {isLoading && <Waiting what="Fetching what came in" />}
      {importing.isLoading && <Waiting what="Importing" />}
      {data && files.length === 0 && (
        <Empty title="Nothing waits">
          Drop any number of files or whole folders, here or on any screen: readings, profiles, pictures, papers’
          archives and lamps. They are kept until each is where it belongs.
        </Empty>
      )}
      <ul className="border-t border-edge" aria-label="Files that came in">
        {files.map((file) => (
          <Row key={file.id} file={file} />
        ))}
      </ul>
    </>
  );
}

function Pickers() {
  const files = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const dispatch = useAppDispatch();
  const take = (input: HTMLInputElement) => {
    const picked = pickedFiles(input.files);
    // The same file may be chosen again after it was mended.
    input.value = '';
    void bring(picked, dispatch);
  };
  return (
    <>
      <Button onClick={() => files.current?.click()}>Choose files</Button>
      <Button onClick={() => folder.current?.click()}>Choose a folder</Button>
      <input
        ref={files}
        type="file"
        multiple
        aria-label="Choose files"
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => take(e.target)}
      />
      <input
        ref={(input) => {
          folder.current = input;
          input?.setAttribute('webkitdirectory', '');
        }}
        type="file"
        multiple
        aria-label="Choose a folder"
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => take(e.target)}
      />
    </>
  );
}

const baseName = (path: string) => path.replace(/^.*\//, '');

function Row({ file }: { file: InboxFile }) {
  const { name, belongs, unclear } = file;
  return (
    <li className="grid grid-cols-[minmax(0,5fr)_minmax(0,7fr)] gap-x-5 gap-y-1 min-[1100px]:grid-cols-[minmax(0,5fr)_minmax(0,7fr)_13rem] border-b border-line py-2">
      <div className="min-w-0">
        <p className="font-semibold break-words">{baseName(name)}</p>
        {name !== baseName(name) && <p className="text-[13px] break-words text-quiet">{name}</p>}
        <p className="text-[13px]">{file.what}</p>
      </div>
      <div className="min-w-0 break-words">
        {file.importedAt ? (
          <p>
            Imported:{' '}
            {file.conditionId ? (
              <Link className="underline" to={`/readings/${file.conditionId}`}>
                {file.importedAs}
              </Link>
            ) : (
              file.importedAs
            )}
            .
          </p>
        ) : file.fault ? (
          <>
            <p className="font-semibold">Refused: {file.fault}</p>
            <p>{file.remedy}</p>
          </>
        ) : (
          <>
            <p>{belongs ? belongs.name : file.told ? newInWords(file) : 'Goes where it belongs by what it is.'}</p>
            {belongs && <p className="text-[13px] text-quiet">{belongs.why}</p>}
            {unclear.map((words) => (
              <p key={words} className="border-l-4 border-ink pl-2">
                {words}
              </p>
            ))}
          </>
        )}
      </div>
      <Actions file={file} />
    </li>
  );
}

/** What is proposed where no paper here fits. */
function newInWords({ told }: InboxFile): string {
  if (!told?.paper) return 'A paper that is not known here.';
  const { maker, paper, weightGsm, printer, inkSet, blackInk, mediaSetting } = told;
  const of = [[maker, paper].filter(Boolean).join(' '), weightGsm && `${weightGsm} g/m²`].filter(Boolean).join(', ');
  const printed = [printer, inkSet, blackInk, mediaSetting].filter(Boolean).join(', ');
  return `A new paper, ${of}${printed && `: ${printed}`}`;
}

function Actions({ file }: { file: InboxFile }) {
  const [importFile, importing] = useImportFileMutation();
  const [putAway, putting] = usePutFileAwayMutation();
  const [asking, setAsking] = useState(false);
  const { id, name, kind, belongs, certain } = file;
  const settled = useSettled([id, belongs?.conditionId, belongs?.paperId, certain, file.importedAt].join('/'));
  const called = baseName(name);
  const waits = !file.importedAt && !file.fault;
  /** Goes there as it is proposed, with nothing to be said. */
  const direct = kind !== 'readings' || file.unclear.length === 0;
  const off = !settled || importing.isLoading || putting.isLoading;
  return (
    <div className="col-span-2 flex flex-wrap items-center gap-1 min-[1100px]:col-span-1 min-[1100px]:flex-col min-[1100px]:items-end min-[1100px]:text-right">
      {waits && direct && (
        <Button
          disabled={off}
          title={`Import ${called}`}
          onClick={() => void importFile({ id, name, conditionId: belongs?.conditionId })}
        >
          <span className="max-w-48 truncate">Import {called}</span>
        </Button>
      )}
      {waits && kind === 'readings' && (
        <Button disabled={off} title={`Say where ${called} belongs`} onClick={() => setAsking(true)}>
          {direct ? 'Elsewhere…' : <span className="max-w-48 truncate">Place {called}…</span>}
        </Button>
      )}
      {!file.importedAt && (
        <QuietButton disabled={off} title={`Put ${called} away`} onClick={() => void putAway(id)}>
          Put away
        </QuietButton>
      )}
      {importing.error && <ErrorNote error={importing.error} />}
      {asking && <PlaceDialog file={file} onClose={() => setAsking(false)} />}
    </div>
  );
}
