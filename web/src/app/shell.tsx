import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { Inbox, Keyboard, Moon, SlidersHorizontal, Sun } from 'lucide-react';
import { Tooltip } from 'radix-ui';
import { Suspense, useEffect } from 'react';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useInboxQuery } from '../inbox/inbox-api.ts';
import { useKeys } from '../parts/use-keys.ts';
import { TableColumn } from '../table/table-column.tsx';
import { useTable } from '../table/use-table.ts';
import { DropAnywhere } from './drop-anywhere.tsx';
import { KeySheet } from './key-sheet.tsx';
import { SettingsDialog } from './settings-dialog.tsx';
import { STEPS } from './steps.ts';
import { keysShown, said, settingsShown, themeChanged, useAppDispatch, useAppSelector } from './store.ts';
import { applyTheme, type Theme } from './theme.ts';

/** The room: the steps at the left, the work in the middle, the table at the right. */
export function Shell() {
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const dispatch = useAppDispatch();
  const theme = useAppSelector((s) => s.view.theme);
  const words = useAppSelector((s) => s.view.said);
  const table = useTable();
  // A short way before a drag begins, so that a click stays a click.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const step = STEPS.find((s) => pathname.startsWith(s.path));

  useEffect(() => {
    document.title = step ? `${step.name} · Rakuen` : 'Rakuen';
  }, [step]);
  useEffect(() => {
    if (!words) return;
    const timer = setTimeout(() => dispatch(said('')), 4000);
    return () => clearTimeout(timer);
  }, [words, dispatch]);

  const turnLight = () => {
    const next = theme === 'day' ? 'proof' : 'day';
    applyTheme(next);
    dispatch(themeChanged(next));
  };
  useKeys({
    '?': () => dispatch(keysShown(true)),
    x: () => table.swapHands(),
    n: () => table.turnPicture(1),
    p: () => table.turnPicture(-1),
    d: turnLight,
    ...Object.fromEntries(STEPS.map((s, i) => [String(i + 1), () => void navigate(s.path)])),
  });

  return (
    <Tooltip.Provider delayDuration={300}>
      <DndContext sensors={sensors} onDragEnd={(drag) => layDown(drag, table)}>
        <a href="#work" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-field focus:p-2">
          To the work
        </a>
        <div className="grid h-screen grid-cols-[112px_minmax(0,1fr)_232px] min-[1600px]:grid-cols-[136px_minmax(0,1fr)_280px]">
          <Side theme={theme} onTurn={turnLight} />
          <main
            id="work"
            tabIndex={-1}
            className="scroll-quiet relative min-w-0 overflow-y-auto px-7 py-5 focus:outline-none"
          >
            <DropAnywhere />
            <Suspense>
              <Outlet />
            </Suspense>
          </main>
          <TableColumn />
        </div>
        <p
          role="status"
          aria-live="polite"
          className={`fixed bottom-4 left-1/2 z-30 -translate-x-1/2 border border-edge bg-field px-4 py-1.5 ${words ? '' : 'sr-only'}`}
        >
          {words}
        </p>
        <KeySheet />
        <SettingsDialog />
      </DndContext>
    </Tooltip.Provider>
  );
}

/** What is dropped on the table lies there. */
function layDown({ active, over }: DragEndEvent, table: ReturnType<typeof useTable>): void {
  if (over?.id !== 'table') return;
  const { kind, id, name } = active.data.current as { kind: 'paper' | 'picture'; id: string; name: string };
  if (table.has(id)) return;
  if (kind === 'paper') table.togglePaper(id, name);
  else table.togglePicture(id, name);
}

/** The steps of the work, and what belongs to the room. */
function Side({ theme, onTurn }: { theme: Theme; onTurn: () => void }) {
  const dispatch = useAppDispatch();
  return (
    <header className="flex flex-col border-r border-line py-5 pl-4">
      <p className="mb-7 font-serif text-[1.35rem] leading-none font-medium">Rakuen</p>
      <nav aria-label="Steps of the work">
        <ol className="ml-[3px] border-l border-edge">
          {STEPS.map((s) => (
            <li key={s.path}>
              <NavLink
                to={s.path}
                className={({ isActive }) =>
                  `relative block py-1.5 pl-4 text-[15px] before:absolute before:top-1/2 before:left-0 before:h-px before:bg-edge hover:underline ${isActive ? 'font-semibold before:h-[3px] before:w-3 before:-translate-y-1/2 before:bg-ink' : 'before:w-1.5'}`
                }
              >
                {s.name}
              </NavLink>
            </li>
          ))}
        </ol>
      </nav>
      <InboxLink />
      <div className="mt-auto -ml-1.5 flex flex-col items-start gap-0.5">
        <RoomButton label={theme === 'day' ? 'Darker surround' : 'Day surround'} onClick={onTurn}>
          {theme === 'day' ? <Moon size={16} aria-hidden /> : <Sun size={16} aria-hidden />}
        </RoomButton>
        <RoomButton label="Settings" onClick={() => dispatch(settingsShown(true))}>
          <SlidersHorizontal size={16} aria-hidden />
        </RoomButton>
        <RoomButton label="Keys" onClick={() => dispatch(keysShown(true))}>
          <Keyboard size={16} aria-hidden />
        </RoomButton>
      </div>
    </header>
  );
}

/** Where files wait that came in; how many it says. */
function InboxLink() {
  const { data } = useInboxQuery();
  const waiting = data?.files.filter((f) => !f.importedAt && !f.fault).length ?? 0;
  return (
    <NavLink
      to="/inbox"
      className={({ isActive }) =>
        `mt-5 -ml-1.5 flex min-h-8 items-center gap-2 px-1.5 text-[15px] hover:underline ${isActive ? 'font-semibold' : ''}`
      }
    >
      <Inbox size={16} aria-hidden />
      Inbox{waiting > 0 && ` (${waiting})`}
    </NavLink>
  );
}

function RoomButton({ label, onClick, children }: { label: string; onClick: () => void; children: React.ReactNode }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="flex min-h-8 items-center gap-2 rounded-[3px] px-1.5 text-left text-[13px] leading-tight text-quiet hover:text-ink hover:underline"
    >
      {children}
      {label}
    </button>
  );
}
