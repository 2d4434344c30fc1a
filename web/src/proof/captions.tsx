import { CAPTION_LINE_MM } from '@rakuen/core/layout/borders';
import type { Around } from '@rakuen/core/proof/surround';
import type { ProofView } from './proof-canvas.ts';

/** Lines under the picture, of the size they are printed in; the two sheets’ own where they differ. */
export function Captions({
  view: { recipes, split, beside },
  whole: { top, right, bottom, left },
  mm: { width: widthMm, height: heightMm },
  framePx,
}: {
  view: ProofView;
  /** All that is drawn around the picture. */
  whole: Around;
  /** Size of the picture. */
  mm: { width: number; height: number };
  framePx: number;
}) {
  const [wide, high] = [1 + left + right, 1 + top + bottom];
  const pxPerMm = framePx / (beside ? 2 : 1) / (widthMm * wide);
  // Of two sheets over each other each shows its line on its own side of the dividing line.
  const clips = beside ? ['', ''] : [`inset(0 ${100 - split * 100}% 0 0)`, `inset(0 0 0 ${split * 100}%)`];
  return recipes.map(({ caption }, hand) => {
    const place = beside ? hand * 50 : 0;
    const across = beside ? 50 : 100;
    return (
      caption && (
        <div key={hand} aria-hidden className="pointer-events-none absolute inset-0" style={{ clipPath: clips[hand] }}>
          <p
            className="absolute -translate-x-1/2 font-sans leading-none whitespace-nowrap text-[#1c1c1c]"
            style={{
              left: `${place + (across * (left + 0.5)) / wide}%`,
              top: `${(100 * (top + 1 + (CAPTION_LINE_MM.below - CAPTION_LINE_MM.size) / heightMm)) / high}%`,
              fontSize: CAPTION_LINE_MM.size * pxPerMm,
            }}
          >
            {caption}
          </p>
        </div>
      )
    );
  });
}
