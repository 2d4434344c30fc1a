import { useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { markName, type Mark } from '@rakuen/core/picture/marks';

const STEP = 0.01;

/** Where a key moves a mark, as a share of the picture; and keys that remove it. */
const WAYS: Readonly<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
const REMOVES: readonly string[] = ['Delete', 'Backspace'];

/** The picture as a print of its shape on a sheet, with numbered pencil marks where it will be decided. */
export function PicturePrint({
  picture,
  marks,
  chosen,
  onChoose,
  onMove,
  onRemove,
  children,
}: {
  picture: PictureView;
  marks: readonly Mark[];
  chosen?: number;
  onChoose: (mark: number) => void;
  /** A mark was laid down elsewhere. */
  onMove: (mark: number, x: number, y: number) => void;
  onRemove: (mark: number) => void;
  /** Maps laid over it. */
  children?: ReactNode;
}) {
  const frame = useRef<HTMLDivElement>(null);
  const [dragged, setDragged] = useState<{ mark: number; x: number; y: number }>();
  const placeOf = (event: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    const within = (v: number) => Math.min(1, Math.max(0, v));
    return { x: within((event.clientX - box.left) / box.width), y: within((event.clientY - box.top) / box.height) };
  };
  const onKey = (event: KeyboardEvent, i: number) => {
    const by = WAYS[event.key];
    const removes = REMOVES.includes(event.key);
    if (!by && !removes) return;
    event.preventDefault();
    event.stopPropagation();
    if (!by) return onRemove(i);
    const { x, y } = marks[i];
    onMove(i, Math.min(1, Math.max(0, x + by[0])), Math.min(1, Math.max(0, y + by[1])));
  };
  return (
    <div className="bg-[#e6e6e6] p-[clamp(14px,3.2%,34px)] shadow-[0_1px_3px_#0006]">
      <div ref={frame} className="relative" style={{ aspectRatio: `${picture.widthPx} / ${picture.heightPx}` }}>
        <img
          src={`/api/pictures/${picture.id}/preview`}
          alt={picture.title}
          draggable={false}
          className="size-full object-fill"
        />
        {children}
        {marks.map((mark, i) => {
          const at = dragged?.mark === i ? dragged : mark;
          return (
            <button
              key={i}
              type="button"
              aria-label={`Mark ${i + 1}: ${markName(mark)}. Arrow keys move it, Delete removes it.`}
              aria-pressed={chosen === i}
              style={{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }}
              className={`absolute grid size-7 -translate-1/2 cursor-grab touch-none place-items-center rounded-full border font-serif text-[13px] font-semibold ${chosen === i ? 'border-[#000] bg-[#fff] text-[#000]' : 'border-[#fff] bg-[#000a] text-[#fff]'}`}
              onFocus={() => onChoose(i)}
              onKeyDown={(e) => onKey(e, i)}
              onPointerDown={(e) => {
                e.currentTarget.setPointerCapture(e.pointerId);
                onChoose(i);
                setDragged({ mark: i, ...placeOf(e) });
              }}
              onPointerMove={(e) => dragged?.mark === i && setDragged({ mark: i, ...placeOf(e) })}
              onPointerUp={() => {
                // A click that hardly moved is a click.
                if (dragged?.mark === i && Math.hypot(dragged.x - mark.x, dragged.y - mark.y) > 0.006)
                  onMove(i, dragged.x, dragged.y);
                setDragged(undefined);
              }}
            >
              {i + 1}
            </button>
          );
        })}
      </div>
    </div>
  );
}
