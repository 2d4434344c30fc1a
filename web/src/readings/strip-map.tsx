import { useRef } from 'react';
import type { Lab } from '@rakuen/core/colour/types';
import type { SessionStrip, SessionView } from '@rakuen/contract/sessions';
import { screenColour } from '../parts/screen-colour.ts';

const CELL = { width: 22, height: 12 };
/** Width of the ring of what was expected. */
const RING = 3;

/** How a strip stands: a word for the ear and a sign for the eye. */
export function standing(strip: SessionStrip, at: number, session: SessionView): { sign: string; word: string } {
  if (session.questioned?.strip === at) return { sign: '?', word: 'in question' };
  const kept = strip.passes.filter((p) => p.state === 'kept').length;
  if (session.next?.strip === at) return { sign: '▸', word: kept === 0 ? 'next' : `next, read ${times(kept)}` };
  return kept === 0 ? { sign: '', word: 'not read' } : { sign: String(kept), word: `read ${times(kept)}` };
}
const times = (n: number) => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);

/** The chart under the instrument: a column a strip; each patch as the last pass read it, in a ring of what was expected. */
export function StripMap({
  session,
  chosen,
  onChoose,
}: {
  session: SessionView;
  chosen: number;
  onChoose: (strip: number) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const choose = (at: number) => {
    const next = Math.max(0, Math.min(session.strips.length - 1, at));
    onChoose(next);
    box.current?.querySelector<HTMLElement>(`[data-strip="${next}"]`)?.focus();
  };
  return (
    <figure>
      <div
        ref={box}
        role="radiogroup"
        aria-label="Strips of the chart"
        className="scroll-quiet flex gap-[3px] overflow-x-auto pb-1"
        onKeyDown={(e) => {
          const by = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0;
          if (by === 0) return;
          e.preventDefault();
          choose(chosen + by);
        }}
      >
        {session.strips.map((strip, at) => {
          const { sign, word } = standing(strip, at, session);
          return (
            <button
              key={strip.label}
              type="button"
              role="radio"
              data-strip={at}
              aria-checked={at === chosen}
              aria-label={`Strip ${strip.label}, ${word}`}
              tabIndex={at === chosen ? 0 : -1}
              onClick={() => onChoose(at)}
              className={`shrink-0 border-2 px-px pb-px text-center text-[11px] leading-4 ${at === chosen ? 'border-ink' : 'border-transparent hover:border-edge'}`}
              style={{ minWidth: CELL.width + 6 }}
            >
              <span className="block font-semibold">{strip.label}</span>
              <Patches strip={strip} questioned={session.questioned?.strip === at} />
              <span className="block h-4 font-semibold">{sign}</span>
            </button>
          );
        })}
      </div>
      <figcaption className="text-[13px] text-quiet">
        The ring of each patch is what a printer of this kind should give, its middle what was read: an island is a
        patch that reads otherwise. Under each strip how often it was read; ▸ is next, ? is in question.
      </figcaption>
    </figure>
  );
}

function Patches({ strip, questioned }: { strip: SessionStrip; questioned: boolean }) {
  const read = strip.passes.at(-1)?.labs;
  return (
    <svg
      aria-hidden
      width={CELL.width}
      height={CELL.height * strip.expected.length}
      className="mx-auto block"
      shapeRendering="crispEdges"
    >
      {strip.expected.map((lab, i) => (
        <g key={strip.patchIds[i]}>
          <rect x={0} y={i * CELL.height} width={CELL.width} height={CELL.height - 1} fill={css(lab)} />
          <rect
            x={RING}
            y={i * CELL.height + RING}
            width={CELL.width - 2 * RING}
            height={CELL.height - 1 - 2 * RING}
            fill={read ? css(read[i]) : 'var(--ground)'}
          />
        </g>
      ))}
      {questioned && (
        <rect
          x={0.5}
          y={0.5}
          width={CELL.width - 1}
          height={CELL.height * strip.expected.length - 2}
          fill="none"
          stroke="var(--ink)"
          strokeDasharray="3 2"
        />
      )}
    </svg>
  );
}

const css = (lab: Lab) => screenColour(lab).css;
