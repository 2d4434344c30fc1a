import { useEffect, useRef, useState, type RefObject } from 'react';
import type { LocalBase } from '@rakuen/core/proof/local-contrast';
import type { Around } from '@rakuen/core/proof/surround';
import type { LabImage } from '../pictures/lab-image.ts';
import type { Sheet } from './laid.tsx';
import { PlainProof } from './plain-proof.ts';
import { ProofCanvas, type ProofDrawer, type ProofView, type SheetSurface } from './proof-canvas.ts';
import type { Detail } from './use-detail.ts';

/** Name under which the browser keeps how long a drawing took. */
const PROOF_DRAWN = 'proof drawn';

/** What is drawn on the two sheets. */
interface Drawn {
  readonly image: LabImage;
  readonly base?: LocalBase;
  readonly detail?: Detail;
  readonly sheets: readonly [Sheet, Sheet];
  readonly surfaces?: readonly [SheetSurface, SheetSurface];
  readonly view: ProofView;
  readonly around: readonly [Around, Around];
  readonly beyond: Around;
}

/**
 * Draws what is asked for on a canvas as large as its frame, by the graphics where there are any.
 * @returns the canvas; its size on the screen; whether the processor draws
 */
export function useDrawn(
  frame: RefObject<HTMLDivElement | null>,
  { image, base, detail, sheets, surfaces, view, around, beyond }: Drawn,
) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawer = useRef<ProofDrawer>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [plain, setPlain] = useState(false);
  useEffect(() => {
    try {
      drawer.current = new ProofCanvas(canvas.current!);
    } catch {
      drawer.current = new PlainProof(canvas.current!);
      setPlain(true);
    }
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      setSize({ width: Math.round(width), height: Math.round(height) });
    });
    watch.observe(frame.current!);
    return () => {
      watch.disconnect();
      drawer.current?.clear();
      drawer.current = null;
    };
  }, [frame]);
  useEffect(() => drawer.current?.picture(image), [image]);
  useEffect(() => drawer.current?.base(base), [base]);
  const [leftSurface, rightSurface] = surfaces ?? [];
  useEffect(() => leftSurface && drawer.current?.surface(0, leftSurface), [leftSurface]);
  useEffect(() => rightSurface && drawer.current?.surface(1, rightSurface), [rightSurface]);
  useEffect(() => drawer.current?.detail(detail?.part, detail?.image), [detail]);
  useEffect(() => {
    if (!drawer.current || size.width === 0) return;
    const start = performance.now();
    drawer.current.sheet(0, sheets[0]);
    drawer.current.sheet(1, sheets[1]);
    const dense = Math.min(2, window.devicePixelRatio || 1);
    drawer.current.draw({ ...view, around, beyond }, size.width * dense, size.height * dense);
    // What a change of sheet takes of this thread; the bench reads it.
    performance.measure(PROOF_DRAWN, { start });
  }, [sheets, view, around, beyond, size, image, detail, base, leftSurface, rightSurface]);
  return { canvas, size, plain };
}
