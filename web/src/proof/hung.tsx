import { allAround, hungMm, insetsOf, widened, type Hanging, type Insets } from '@rakuen/core/proof/hung';
import type { Around } from '@rakuen/core/proof/surround';
import type { ProofView } from './proof-canvas.ts';

/** Reflectance of a white mount board (judged), and of a black frame (judged). */
const BOARD = 0.87;
const WOOD = 0.012;

const inset = ({ top, right, bottom, left }: Insets): string => `${top}% ${right}% ${bottom}% ${left}%`;
/** A grey of the screen for a reflectance, as dim as the room is shown. */
const grey = (reflectance: number, dim: number): string => {
  const level = Math.round(255 * (reflectance * dim) ** (1 / 2.2));
  return `rgb(${level} ${level} ${level})`;
};

/** Mount and frame behind the prints, each in its own hand. */
export function Hung({
  hanging,
  view: { split, beside, dim },
  bare,
  whole,
  mm: { width, height },
}: {
  hanging: Hanging;
  view: ProofView;
  /** Paper beside the picture in each hand. */
  bare: readonly [Around, Around];
  /** All that is drawn around the picture. */
  whole: Around;
  /** Size of the picture. */
  mm: { width: number; height: number };
}) {
  const { mountMm, frameMm } = hungMm(hanging, Math.max(width, height));
  if (mountMm === 0) return null;
  const clips = beside ? ['', ''] : [`inset(0 ${100 - split * 100}% 0 0)`, `inset(0 0 0 ${split * 100}%)`];
  return bare.map((paper, hand) => {
    const board = widened(paper, allAround(mountMm, width, height));
    const wood = widened(board, allAround(frameMm, width, height));
    return (
      <div
        key={hand}
        aria-hidden
        data-testid={`hung-${hand}`}
        className="pointer-events-none absolute inset-y-0"
        style={{ left: beside ? `${hand * 50}%` : 0, width: beside ? '50%' : '100%', clipPath: clips[hand] }}
      >
        {frameMm > 0 && (
          <div
            className="absolute shadow-[0_2px_6px_#000a]"
            style={{ inset: inset(insetsOf(whole, wood)), background: grey(WOOD, dim) }}
          />
        )}
        <div className="absolute" style={{ inset: inset(insetsOf(whole, board)), background: grey(BOARD, dim) }} />
        {/* The bevel of the window, as it catches the light. */}
        <div className="absolute shadow-[0_0_0_1px_#0005]" style={{ inset: inset(insetsOf(whole, paper)) }} />
      </div>
    );
  });
}
