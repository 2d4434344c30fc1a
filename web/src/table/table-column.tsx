import { useDroppable } from '@dnd-kit/core';
import { ArrowLeftRight, X } from 'lucide-react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { TABLE_SIZE } from '@rakuen/contract/vocabulary';
import { conditionLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { Strip } from '../parts/strip.tsx';
import { focusedRow, moveFocus, useKeys } from '../parts/use-keys.ts';
import { type Table, useTable } from './use-table.ts';

/** The table: the few papers and pictures under consideration. Always there; every screen works on what lies here. */
export function TableColumn() {
  const table = useTable();
  const { setNodeRef, isOver, active } = useDroppable({ id: 'table' });
  useKeys({
    l: () => withFocused(table, (c) => table.take('left', c.id, c.paper.name)),
    r: () => withFocused(table, (c) => table.take('right', c.id, c.paper.name)),
    t: () => layFocused(table),
  });

  return (
    <aside
      ref={setNodeRef}
      aria-label="The table"
      className={`scroll-quiet flex min-h-0 flex-col overflow-y-auto border-l bg-sheet px-4 py-5 ${isOver ? 'border-ink outline-2 -outline-offset-4 outline-ink' : active ? 'border-ink' : 'border-edge'}`}
    >
      <div className="mb-3 flex items-baseline justify-between">
        <h2>The table</h2>
        <span className="text-quiet">
          {table.laid.length} of {TABLE_SIZE}
        </span>
      </div>
      {table.laid.length === 0 && (
        <p className="text-quiet">Lay papers here: drag them over, or press t on a paper in a list.</p>
      )}
      <ul className="space-y-1" onKeyDown={moveFocus}>
        {table.laid.map((condition, i) => (
          <LaidPaper key={condition.id} condition={condition} index={i} table={table} />
        ))}
      </ul>
      {table.laid.length > 1 && (
        <button
          type="button"
          onClick={table.swapHands}
          className="mt-2 flex min-h-8 items-center gap-2 self-start rounded-[3px] text-[13px] underline decoration-line underline-offset-3 hover:decoration-ink"
        >
          <ArrowLeftRight size={15} aria-hidden /> Swap hands
        </button>
      )}
      <div className="mt-5 mb-2 flex items-baseline justify-between border-t border-line pt-4">
        <h3 className="text-[1.05rem]">Pictures</h3>
        <span className="text-quiet">{table.laidPictures.length || ''}</span>
      </div>
      {table.laidPictures.length === 0 && <p className="text-quiet">No picture lies here.</p>}
      <ul className="space-y-1.5" onKeyDown={moveFocus}>
        {table.laidPictures.map((p) => (
          <LaidPicture key={p.id} picture={p} table={table} />
        ))}
      </ul>
    </aside>
  );
}

function LaidPaper({ condition, index, table }: { condition: ConditionHead; index: number; table: Table }) {
  const { paper } = condition;
  const inLeft = table.left?.id === condition.id;
  const inRight = table.right?.id === condition.id;
  return (
    <li className={`group relative py-1.5 pl-6 ${inLeft || inRight ? 'bg-field' : ''}`}>
      <span aria-hidden className="absolute top-1.5 left-1.5 font-serif font-semibold">
        {MARKS[index].letter}
      </span>
      <div
        tabIndex={0}
        data-row
        data-kind="paper"
        data-id={condition.id}
        data-name={paper.name}
        role="group"
        aria-label={`${MARKS[index].letter}: ${paper.name}, ${conditionLine(condition)}${inLeft ? ', in the left hand' : inRight ? ', in the right hand' : ''}`}
      >
        <Strip paper={paper} facts={condition.facts} size="small" />
        <p className="mt-0.5 mr-9 truncate font-serif leading-tight" title={`${paper.maker} ${paper.name}`}>
          {paper.name}
        </p>
        <p className="truncate text-[12px] leading-tight text-quiet" title={conditionLine(condition)}>
          {conditionLine(condition)}
        </p>
      </div>
      <div className="absolute top-1 right-1 flex flex-col items-center">
        <Hand side="left" on={inLeft} name={paper.name} onClick={() => table.take('left', condition.id, paper.name)} />
        <Hand
          side="right"
          on={inRight}
          name={paper.name}
          onClick={() => table.take('right', condition.id, paper.name)}
        />
      </div>
      <div className="absolute right-8 bottom-1 opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
        <PutBack name={paper.name} onClick={() => table.togglePaper(condition.id, paper.name)} />
      </div>
    </li>
  );
}

function LaidPicture({ picture: p, table }: { picture: Table['laidPictures'][number]; table: Table }) {
  const held = p.id === table.picture?.id;
  return (
    <li className="group flex items-center gap-2.5">
      <button
        type="button"
        data-row
        data-kind="picture"
        data-id={p.id}
        data-name={p.title}
        aria-pressed={held}
        onClick={() => table.holdPicture(p.id, p.title)}
        className="flex min-w-0 flex-1 items-center gap-2.5 text-left"
      >
        <img
          src={`/api/pictures/${p.id}/preview`}
          alt=""
          className={`h-9 w-13 object-cover ${held ? 'outline-2 outline-offset-2 outline-ink' : ''}`}
        />
        <span className={`line-clamp-2 min-w-0 font-serif leading-tight ${held ? 'font-semibold' : ''}`}>
          {p.title}
          {held && <span className="sr-only"> (in hand)</span>}
        </span>
      </button>
      <PutBack name={p.title} onClick={() => table.togglePicture(p.id, p.title)} />
    </li>
  );
}

function Hand({ side, on, name, onClick }: { side: 'left' | 'right'; on: boolean; name: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-label={`${name} in the ${side} hand`}
      title={`In the ${side} hand`}
      onClick={onClick}
      className={`grid size-[26px] place-items-center rounded-full border text-[11px] ${on ? 'border-ink bg-ink font-semibold text-ground' : 'border-transparent text-quiet hover:border-edge'}`}
    >
      {side === 'left' ? 'L' : 'R'}
    </button>
  );
}

function PutBack({ name, onClick }: { name: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Put ${name} back`}
      title="Put back"
      onClick={onClick}
      className="grid size-[26px] place-items-center rounded-full bg-sheet hover:bg-ground"
    >
      <X size={14} aria-hidden />
    </button>
  );
}

/** Lays the paper or the picture in focus on the table, or puts it back. */
function layFocused(table: Table): void {
  const row = document.activeElement?.closest<HTMLElement>('[data-row][data-id]');
  const { id, kind, name = '' } = row?.dataset ?? {};
  if (!id) return;
  if (kind === 'paper') table.togglePaper(id, name);
  if (kind === 'picture') table.togglePicture(id, name);
}

function withFocused(table: Table, act: (condition: ConditionHead) => void): void {
  const id = focusedRow('paper');
  const condition = table.laid.find((c) => c.id === id);
  if (condition) act(condition);
}
