import { useEffect, useMemo, useRef, useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab } from '@rakuen/core/colour/types';
import { formatNumber } from '@rakuen/core/measurement/show';
import { holds, inPart, inPicture, moved, nearer, withMargin, type Part } from '@rakuen/core/proof/part';
import { applyLocal, hasLocal, type LocalBase } from '@rakuen/core/proof/local-contrast';
import { EDGES } from '@rakuen/core/layout/borders';
import { aimed, aimOf, movesAll } from '@rakuen/core/proof/aim';
import { applyRecipe } from '@rakuen/core/proof/recipe';
import { aroundOf, holdingBoth, NOTHING_AROUND, onPicture, surroundOf, type Around } from '@rakuen/core/proof/surround';
import { LAB_UNITS, labImage, localBaseOf, type LabImage } from '../pictures/lab-image.ts';
import { latticeOf } from '../pictures/picture-api.ts';
import { Captions } from './captions.tsx';
import { PlainProof } from './plain-proof.ts';
import { ProofCanvas, type ProofDrawer, type ProofView, type SheetSurface } from './proof-canvas.ts';

/** Name under which the browser keeps how long a drawing took. */
const PROOF_DRAWN = 'proof drawn';

/** A step of the dividing line by key. */
export const SPLIT_STEP = 0.04;

export interface Sheet {
  readonly nodes: number;
  readonly white: Lab;
  readonly blackL: number;
  readonly lab: string;
}

/**
 * The canvas, the dividing line, and the numbers under the pointer. A wheel with the key for it held, or two fingers,
 * brings it nearer; a drag moves it.
 */
export function Laid({
  picture,
  image,
  sheets,
  names,
  view,
  surfaces,
  changing,
  surround,
  widthPx,
  onSplit,
  onPart,
  small = false,
}: {
  picture: PictureView;
  image: LabImage;
  sheets: readonly [Sheet, Sheet];
  names: readonly [string, string];
  view: ProofView;
  /** Of both sheets, where it is drawn. */
  surfaces?: readonly [SheetSurface, SheetSurface];
  /** What is drawn is not yet what is asked for. */
  changing: boolean;
  surround: 'wall' | 'mount';
  widthPx?: number;
  onSplit?: (split: number) => void;
  onPart: (part: Part) => void;
  /** One of several: as wide as its place. */
  small?: boolean;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawer = useRef<ProofDrawer>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [plain, setPlain] = useState(false);
  const [at, setAt] = useState<{ x: number; y: number; hand: 0 | 1 }>();
  // Bare paper is drawn around the whole picture; of a part nothing lies beside it.
  const around = useMemo(() => aroundBoth(picture, view), [picture, view]);
  const frameOf = holdingBoth(...around);
  // Where the sheets are not of one size their common frame is nothing that lies there.
  const alike = EDGES.every((edge) => around[0][edge] === around[1][edge]);
  const [wide, high] = [1 + frameOf.left + frameOf.right, 1 + frameOf.top + frameOf.bottom];
  const ratio = ((image.widthPx * wide) / (image.heightPx * high)) * (view.beside ? 2 : 1);

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
  }, []);
  useEffect(() => drawer.current?.picture(image), [image]);
  const { longSideMm } = picture.commission;
  const base = view.recipes.some(hasLocal) ? localBaseOf(image, longSideMm) : undefined;
  useEffect(() => drawer.current?.base(base), [base]);
  const [leftSurface, rightSurface] = surfaces ?? [];
  useEffect(() => leftSurface && drawer.current?.surface(0, leftSurface), [leftSurface]);
  useEffect(() => rightSurface && drawer.current?.surface(1, rightSurface), [rightSurface]);
  const detail = useDetail(picture, image, view.part);
  useEffect(() => drawer.current?.detail(detail?.part, detail?.image), [detail]);
  useEffect(() => {
    if (!drawer.current || size.width === 0) return;
    const start = performance.now();
    drawer.current.sheet(0, sheets[0]);
    drawer.current.sheet(1, sheets[1]);
    const dense = Math.min(2, window.devicePixelRatio || 1);
    drawer.current.draw({ ...view, around }, size.width * dense, size.height * dense);
    // What a change of sheet takes of this thread; the bench reads it.
    performance.measure(PROOF_DRAWN, { start });
  }, [sheets, view, around, size, image, detail, base, leftSurface, rightSurface]);

  const placeOf = (event: React.PointerEvent): { x: number; y: number; hand: 0 | 1 } => {
    const box = frame.current!.getBoundingClientRect();
    const x = (event.clientX - box.left) / box.width;
    const y = (event.clientY - box.top) / box.height;
    if (view.beside) return { ...onPicture(frameOf, (x * 2) % 1, y), hand: x > 0.5 ? 1 : 0 };
    return { ...onPicture(frameOf, x, y), hand: x > view.split ? 1 : 0 };
  };
  const onIt = at && Math.min(at.x, at.y, 1 - at.x, 1 - at.y) >= 0;
  const number = onIt && !changing && numbersAt(image, detail, base, sheets[at.hand], view, at);
  const { part } = view;
  useNearer(frame, part, view.beside, onPart);
  const pan = (event: React.PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    onPart(moved(part, (-event.movementX / box.width) * (view.beside ? 2 : 1), -event.movementY / box.height));
  };
  const drag = (event: React.PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    onSplit?.(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)));
  };
  return (
    <div className={`overflow-auto ${small ? 'p-3' : 'p-5'} ${surround === 'mount' ? 'bg-[#f2f2f2]' : 'bg-[#8f8f8f]'}`}>
      {plain && !small && (
        <p className="mb-2 text-center text-[13px] text-[#000]">
          This browser has no WebGL 2: the processor draws the proof, which takes a moment; the surface of the sheets is
          not drawn.
        </p>
      )}
      <div
        ref={frame}
        className={`relative mx-auto ${alike ? 'shadow-[0_1px_4px_#0008]' : ''}`}
        style={{
          aspectRatio: ratio,
          width: widthPx ? widthPx * wide : '100%',
          maxWidth: widthPx ? undefined : `calc(${small ? 38 : 58}vh * ${ratio})`,
        }}
        onPointerMove={(e) => {
          setAt(placeOf(e));
          if (e.buttons > 0 && part.width < 1 && e.target === canvas.current) pan(e);
        }}
        onPointerLeave={() => setAt(undefined)}
      >
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${picture.title} on ${names[0]}${names[0] === names[1] ? '' : ` and ${names[1]}`}`}
          aria-busy={changing}
          className={`absolute inset-0 size-full ${part.width < 1 ? 'cursor-grab active:cursor-grabbing' : ''} ${changing ? 'opacity-35' : ''}`}
        />
        <Captions view={view} around={around} mm={printMm(picture)} framePx={size.width} />
        {!view.beside && names[0] !== names[1] && (
          <div
            role="slider"
            tabIndex={0}
            aria-label="Dividing line between the two sheets"
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(view.split * 100)}
            style={{ left: `${view.split * 100}%` }}
            className="absolute inset-y-0 -ml-3 w-6 cursor-ew-resize touch-none after:absolute after:inset-y-0 after:left-1/2 after:w-px after:bg-[#fff] after:shadow-[0_0_0_1px_#0008]"
            onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
            onPointerMove={(e) => e.buttons > 0 && drag(e)}
            onKeyDown={(e) => {
              const to = {
                ArrowLeft: view.split - SPLIT_STEP,
                ArrowRight: view.split + SPLIT_STEP,
                Home: 0,
                End: 1,
              }[e.key];
              if (to === undefined) return;
              e.preventDefault();
              onSplit?.(Math.min(1, Math.max(0, to)));
            }}
          />
        )}
      </div>
      {view.map === 'out of reach' && view.recipes.some((r) => movesAll(r.rendering)) && (
        <p className="mt-2 text-center text-[13px] text-[#000]">
          Perceptual and saturation renderings move colours that are within reach too: there, what is moved is hatched.
        </p>
      )}
      <p
        role="status"
        className={`mt-2 min-h-5 text-center text-[13px] ${surround === 'mount' ? 'text-[#131313]' : 'text-[#000]'}`}
      >
        {number && at
          ? `File L* ${triple(number.file)} · on ${names[at.hand]} L* ${triple(number.seen)} · ${formatNumber(number.deltaE, 1)} ΔE00 ${number.from}${number.lost}`
          : changing
            ? 'Laying it out in that light…'
            : small
              ? ''
              : 'Numbers stand here for the place under the pointer.'}
      </p>
    </div>
  );
}

/** Size of the print without what lies around it, mm. */
function printMm({ commission: { longSideMm }, widthPx, heightPx }: PictureView) {
  const perPx = longSideMm / Math.max(widthPx, heightPx);
  return { width: widthPx * perPx, height: heightPx * perPx };
}

/** Bare paper around the whole picture on both sheets; of a part nothing lies beside it. */
function aroundBoth(picture: PictureView, { part, recipes: [left, right] }: ProofView): [Around, Around] {
  if (part.width < 1) return [NOTHING_AROUND, NOTHING_AROUND];
  const { width, height } = printMm(picture);
  return [aroundOf(surroundOf(left), width, height), aroundOf(surroundOf(right), width, height)];
}

const triple = (lab: Lab): string =>
  `${formatNumber(lab[0], 1)}, a* ${formatNumber(lab[1], 1)}, b* ${formatNumber(lab[2], 1)}`;

/** File, print and loss at a place: the same lattice, read by the processor. */
function numbersAt(
  whole: LabImage,
  detail: Detail | undefined,
  base: LocalBase | undefined,
  sheet: Sheet,
  view: ProofView,
  { x: atX, y: atY, hand }: { x: number; y: number; hand: 0 | 1 },
) {
  const spot = inPicture(view.part, atX, atY);
  const near = detail && inPart(detail.part, spot.x, spot.y);
  const { widthPx, heightPx, lab } = near ? detail.image : whole;
  const { x, y } = near ?? spot;
  const px = Math.min(widthPx - 1, Math.max(0, Math.floor(x * widthPx)));
  const py = Math.min(heightPx - 1, Math.max(0, Math.floor(y * heightPx)));
  const from = (py * widthPx + px) * 3;
  const file: Lab = [lab[from] / LAB_UNITS, lab[from + 1] / LAB_UNITS, lab[from + 2] / LAB_UNITS];
  const values = Float32Array.from(file);
  const here = { widthPx: 1, heightPx: 1, first: 0, part: { ...spot, width: 0, height: 0 } };
  if (base) applyLocal(values, view.recipes[hand], base, here);
  applyRecipe(values, view.recipes[hand]);
  const { rendering } = view.recipes[hand];
  const aim = aimed(aimOf(rendering, sheet), [values[0], values[1], values[2]]);
  throughPrinted(unpackLab(sheet.nodes, latticeOf(sheet)), values, values);
  const relative: Lab = [values[0], values[1], values[2]];
  const deltaE = deltaE2000(aim, relative);
  const [dL, dC] = [relative[0] - aim[0], Math.hypot(aim[1], aim[2]) - Math.hypot(relative[1], relative[2])];
  const lost =
    deltaE < 1 || movesAll(rendering)
      ? ''
      : Math.abs(dL) < dC / 2
        ? ', too saturated for it'
        : dL > 0
          ? ', too dark for it'
          : ', too light for it';
  const fromWords = movesAll(rendering) ? 'from the colour as it is, black compensated' : 'from its aim';
  return {
    file,
    seen: view.settled ? relative : absoluteOnWhite(sheet.white)(relative),
    deltaE,
    from: fromWords,
    lost,
  };
}

interface Detail {
  readonly part: Part;
  readonly image: LabImage;
}
/** Drawn about what is looked at, so that a small move needs nothing new. */
const MARGIN = 0.25;
const STILL_MS = 160;

/** The part that is looked at with the file’s own pixels, fetched once the hand is still; absent where the whole is as fine. */
function useDetail(picture: PictureView, whole: LabImage, part: Part): Detail | undefined {
  const [detail, setDetail] = useState<Detail>();
  const finer = picture.widthPx > whole.widthPx && part.width < 1;
  const there = detail !== undefined && holds(detail.part, part) && detail.part.width < part.width * (1 + 3 * MARGIN);
  useEffect(() => {
    if (!finer || there) return;
    let gone = false;
    const timer = setTimeout(() => {
      const wanted = withMargin(part, MARGIN);
      labImage(picture.id, wanted).then(
        (image) => !gone && setDetail({ part: wanted, image }),
        () => undefined,
      );
    }, STILL_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [finer, there, part, picture.id]);
  return finer ? detail : undefined;
}

/** A turn of the wheel with its key held, or two fingers drawn apart: nearer about the pointer. */
function useNearer(
  frame: React.RefObject<HTMLDivElement | null>,
  part: Part,
  beside: boolean,
  onPart: (part: Part) => void,
): void {
  const latest = useRef({ part, beside, onPart });
  latest.current = { part, beside, onPart };
  useEffect(() => {
    const element = frame.current!;
    const turn = (event: WheelEvent) => {
      if (!event.ctrlKey && !event.metaKey) return;
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const across = (event.clientX - box.left) / box.width;
      const { part: now, beside: two, onPart: to } = latest.current;
      const at = { x: two ? (across * 2) % 1 : across, y: (event.clientY - box.top) / box.height };
      to(nearer(now, Math.exp(-event.deltaY / 300), at));
    };
    // Not passive: the page itself must not grow.
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  }, [frame]);
}
