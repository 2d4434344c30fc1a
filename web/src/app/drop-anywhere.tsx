import { useEffect, useRef, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import {
  useAddLightMutation,
  useAtTableMutation,
  useConditionsQuery,
  usePapersQuery,
  usePicturesQuery,
  useTakePaperMutation,
} from '../api/api.ts';
import { bring, forgetLost, useBringing } from '../inbox/bringing.ts';
import { droppedFiles } from '../inbox/dropped-files.ts';
import type { Brought } from '../inbox/inbox-api.ts';
import { QuietButton } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { hand, putAway, useHanded } from './handed.ts';
import { said, useAppDispatch } from './store.ts';

/** What is dropped where nothing asks for it goes where it belongs: pictures, readings and profiles, a paper’s bundle, a lamp. */
export function DropAnywhere() {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const [atTable] = useAtTableMutation();
  const [takePaper, taking] = useTakePaperMutation();
  const [addLight, adding] = useAddLightMutation();
  const [strange, setStrange] = useState<string[]>([]);
  const { data: conditions } = useConditionsQuery();

  /** One file goes where it belongs by what it is; several, or a folder, wait in the inbox until each is placed. */
  const take = async (files: readonly Brought[]) => {
    const [one] = files;
    if (files.length > 1 || one?.path.includes('/')) {
      void navigate('/inbox');
      return bring(files, dispatch);
    }
    if (one) await takeOne(one.file);
  };
  const takeOne = async (file: File) => {
    // Its readers are fetched with the first file.
    const { fileKind, HEAD_BYTES } = await import('@rakuen/core/formats/file-kind');
    setStrange([]);
    taking.reset();
    adding.reset();
    const kind = fileKind(new Uint8Array(await file.slice(0, HEAD_BYTES).arrayBuffer()));
    if (kind === 'picture') {
      hand('pictures', [file]);
      void navigate('/pictures');
    } else if (kind === 'readings') {
      hand('readings', [file]);
      void navigate(conditions?.length ? '/readings' : '/papers');
    } else if (kind === 'bundle') {
      const { data } = await takePaper(file);
      if (data) dispatch(said(`${data.name} lies in the drawer, with everything known of it.`));
      void navigate('/papers');
    } else if (kind === 'lamp') {
      const { data } = await addLight({ file, name: file.name.replace(/\.[^.]+$/, '').slice(0, 80) });
      if (data) {
        void atTable({ deed: 'light', id: data.id });
        dispatch(said(`${data.name} is over the table.`));
      }
    } else setStrange([file.name]);
  };
  useDrops(take);

  return (
    <>
      <ErrorNote
        error={
          strange.length > 0
            ? {
                message: `${strange.join(', ')}: this is nothing that is read here.`,
                remedy:
                  'Drop pictures (JPEG, PNG, TIFF), readings (CGATS, CxF3, tables), ICC profiles, a paper’s bundle, or a lamp’s spectrum.',
              }
            : (taking.error ?? adding.error)
        }
      />
      <Coming />
      <Waits />
      <Bare />
    </>
  );
}

/** Hears what is dropped where nothing asks for it. */
function useDrops(take: (files: readonly Brought[]) => Promise<void>): void {
  const latest = useRef(take);
  latest.current = take;
  useEffect(() => {
    const ofFiles = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false;
    const over = (e: DragEvent) => ofFiles(e) && e.preventDefault();
    const drop = (e: DragEvent) => {
      // A place that asks for files has taken them; behind a dialog nothing is dropped.
      if (e.defaultPrevented || !ofFiles(e)) return;
      e.preventDefault();
      if (document.querySelector('[role="dialog"]')) return;
      // What was dropped is told while the drop is handled; afterwards it is gone.
      void droppedFiles(e.dataTransfer!).then((files) => latest.current(files));
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, []);
}

/** Files on their way into the inbox, and those that did not arrive. */
function Coming() {
  const { done, total, lost } = useBringing();
  return (
    <>
      {done < total && (
        <p role="status" className="mb-3 border border-edge bg-field px-3 py-1.5">
          Bringing files into the inbox: {done} of {total}.
        </p>
      )}
      {lost.map(({ name, error }) => (
        <ErrorNote key={name} error={{ ...error, file: name }} />
      ))}
      {lost.length > 0 && <QuietButton onClick={forgetLost}>Dismiss</QuietButton>}
    </>
  );
}

/** Where readings are laid down. */
const BENCH = /^\/readings(\/[0-9a-f-]{36})?$/;

/** Readings that were dropped and wait for the print condition they belong to. */
function Waits() {
  const [file] = useHanded('readings');
  const { pathname } = useLocation();
  const { data: conditions } = useConditionsQuery();
  if (!file || BENCH.test(pathname)) return null;
  return (
    <p role="status" className="mb-3 border border-edge bg-field px-3 py-1.5 break-words">
      {file.name} waits for its print condition.{' '}
      {conditions?.length ? (
        <Link className="underline" to="/readings">
          Lay it there
        </Link>
      ) : (
        'Add its paper, and say how it was printed.'
      )}{' '}
      <QuietButton onClick={() => putAway('readings', file)}>Put it away</QuietButton>
    </p>
  );
}

/** An empty studio says so once, on every screen. */
function Bare() {
  const { data: papers } = usePapersQuery();
  const { data: pictures } = usePicturesQuery();
  if (papers?.length !== 0 || pictures?.length !== 0) return null;
  return (
    <p className="mb-3 border-b border-line pb-2 text-quiet">
      This studio is empty. Drop readings, a profile, a picture or a paper’s bundle anywhere, or{' '}
      <Link className="underline" to="/papers">
        add a paper
      </Link>
      .
    </p>
  );
}
