import { useMemo, useRef, useState, type RefObject } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Lab } from '@rakuen/core/colour/types';
import { moved, type Part } from '@rakuen/core/proof/part';
import { hasLocal } from '@rakuen/core/proof/local-contrast';
import { EDGES } from '@rakuen/core/layout/borders';
import { allAround, hungMm, widened, type Hanging } from '@rakuen/core/proof/hung';
import { movesAll } from '@rakuen/core/proof/aim';
import { aroundOf, holdingBoth, NOTHING_AROUND, onPicture, surroundOf, type Around } from '@rakuen/core/proof/surround';
import { localBaseOf, type LabImage } from '../pictures/lab-image.ts';
import { Captions } from './captions.tsx';
import { Hung } from './hung.tsx';
import { inALine, numbersAt, onSheet, type Place } from './numbers-at.ts';
import { useDetail } from './use-detail.ts';
import { useDrawn } from './use-drawn.ts';
import { useNearer } from './use-nearer.ts';
import { type ProofView, type SheetSurface } from './proof-canvas.ts';

/** Wall that shows around what hangs, mm. */
const WALL_MM = 12;
/** A step of the dividing line by key. */
export const SPLIT_STEP = 0.04;

export interface Sheet {
  readonly nodes: number;
  readonly white: Lab;
  readonly blackL: number;
  readonly lab: string;
}

interface Props {
  picture: PictureView;
  image: LabImage;
  sheets: readonly [Sheet, Sheet];
  names: readonly [string, string];
  view: ProofView;
  /** Of both sheets, where it is drawn. */
  surfaces?: readonly [SheetSurface, SheetSurface];
  /** What is drawn is not yet what is asked for. */
  changing: boolean;
  surround: Hanging;
  widthPx?: number;
  onSplit?: (split: number) => void;
  onPart: (part: Part) => void;
  /** One of several: as wide as its place. */
  small?: boolean;
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
}: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<Place>();
  const { around, beyond, alike, frameOf, wide, ratio } = usePaperAround(picture, image, view, surround);
  const detail = useDetail(picture, image, view.part);
  const base = view.recipes.some(hasLocal) ? localBaseOf(image, picture.commission.longSideMm) : undefined;
  const { canvas, size, plain } = useDrawn(frame, { image, base, detail, sheets, surfaces, view, around, beyond });

  const placeOf = (event: React.PointerEvent) => placeUnder(event, frame.current!, frameOf, view);
  const said = saidAt(at, names, (place) => numbersAt(image, detail, base, sheets[place.hand], view, place));
  const { part } = view;
  useNearer(frame, part, view.beside, onPart);
  const pan = (event: React.PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    onPart(moved(part, (-event.movementX / box.width) * (view.beside ? 2 : 1), -event.movementY / box.height));
  };
  return (
    <div className={`overflow-auto bg-wall text-onwall ${small ? 'p-3' : 'p-4'} ${widthPx ? 'max-h-[62vh]' : ''}`}>
      {plain && !small && (
        <p className="mb-2 text-center text-[13px]">
          This browser has no WebGL 2: the processor draws the proof, which takes a moment; the surface of the sheets is
          not drawn.
        </p>
      )}
      <div
        ref={frame}
        className={`relative mx-auto ${alike && surround === 'wall' ? 'shadow-[0_1px_4px_#0008]' : ''}`}
        style={{
          aspectRatio: ratio,
          width: widthPx ? widthPx * wide : '100%',
          maxWidth: widthPx ? undefined : `calc(${small ? 38 : 46}vh * ${ratio})`,
        }}
        onPointerMove={(e) => {
          setAt(placeOf(e));
          if (e.buttons > 0 && part.width < 1 && e.target === canvas.current) pan(e);
        }}
        onPointerLeave={() => setAt(undefined)}
      >
        <Hung
          hanging={part.width < 1 ? 'wall' : surround}
          {...{ view }}
          bare={around}
          whole={frameOf}
          mm={printMm(picture)}
        />
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${picture.title} on ${names[0]}${names[0] === names[1] ? '' : ` and ${names[1]}`}`}
          aria-busy={changing}
          className={`absolute inset-0 size-full ${part.width < 1 ? 'cursor-grab active:cursor-grabbing' : ''} ${changing ? 'opacity-35' : ''}`}
        />
        <Captions view={view} whole={frameOf} mm={printMm(picture)} framePx={size.width} />
        {!view.beside && names[0] !== names[1] && <DividingLine split={view.split} frame={frame} onSplit={onSplit} />}
      </div>
      {view.map === 'out of reach' && view.recipes.some((r) => movesAll(r.rendering)) && <MovesAll />}
      <Numbers>
        {changing
          ? 'Laying it out in that light…'
          : (said ?? (small ? '' : 'Numbers stand here for the place under the pointer.'))}
      </Numbers>
    </div>
  );
}

/** What both sheets give of a place, the one under the pointer first; nothing beside the picture. */
function saidAt(
  at: Place | undefined,
  names: readonly [string, string],
  numbers: (place: Place) => ReturnType<typeof numbersAt>,
): string | undefined {
  if (!at || Math.min(at.x, at.y, 1 - at.x, 1 - at.y) < 0) return undefined;
  const other = at.hand === 0 ? 1 : 0;
  const here = inALine(numbers(at), names[at.hand]);
  return names[0] === names[1] ? here : `${here}\n${onSheet(numbers({ ...at, hand: other }), names[other])}`;
}

function MovesAll() {
  return (
    <p className="mt-2 text-center text-[13px]">
      Perceptual and saturation renderings move colours that are within reach too: there, what is moved is hatched.
    </p>
  );
}

/** The place of the picture under a pointer, and the sheet that lies there. */
function placeUnder(event: React.PointerEvent, frame: HTMLElement, frameOf: Around, view: ProofView): Place {
  const box = frame.getBoundingClientRect();
  const x = (event.clientX - box.left) / box.width;
  const y = (event.clientY - box.top) / box.height;
  if (view.beside) return { ...onPicture(frameOf, (x * 2) % 1, y), hand: x > 0.5 ? 1 : 0 };
  return { ...onPicture(frameOf, x, y), hand: x > view.split ? 1 : 0 };
}

function Numbers({ children }: { children: string }) {
  return (
    <p role="status" className="mt-2 min-h-10 text-center text-[13px] whitespace-pre-line">
      {children}
    </p>
  );
}

/** Bare paper, mount and frame are drawn around the whole picture; of a part nothing lies beside it. */
function usePaperAround(picture: PictureView, image: LabImage, view: ProofView, surround: Hanging) {
  const around = useMemo(() => aroundBoth(picture, view), [picture, view]);
  const isWhole = view.part.width === 1;
  const beyond = useMemo(() => {
    const { width, height } = printMm(picture);
    const { mountMm, frameMm } = hungMm(surround, Math.max(width, height));
    return isWhole && mountMm > 0 ? allAround(mountMm + frameMm + WALL_MM, width, height) : NOTHING_AROUND;
  }, [picture, isWhole, surround]);
  const frameOf = widened(holdingBoth(...around), beyond);
  const [wide, high] = [1 + frameOf.left + frameOf.right, 1 + frameOf.top + frameOf.bottom];
  return {
    around,
    beyond,
    frameOf,
    wide,
    // Where the sheets are not of one size their common frame is nothing that lies there.
    alike: EDGES.every((edge) => around[0][edge] === around[1][edge]),
    ratio: ((image.widthPx * wide) / (image.heightPx * high)) * (view.beside ? 2 : 1),
  };
}

function DividingLine({
  split,
  frame,
  onSplit,
}: {
  split: number;
  frame: RefObject<HTMLDivElement | null>;
  onSplit?: (split: number) => void;
}) {
  const to = (place: number) => onSplit?.(Math.min(1, Math.max(0, place)));
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label="Dividing line between the two sheets"
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(split * 100)}
      style={{ left: `${split * 100}%` }}
      className="absolute inset-y-0 -ml-3 w-6 cursor-ew-resize touch-none after:absolute after:inset-y-0 after:left-1/2 after:w-px after:bg-[#fff] after:shadow-[0_0_0_1px_#0008]"
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerMove={(e) => {
        const box = frame.current!.getBoundingClientRect();
        if (e.buttons > 0) to((e.clientX - box.left) / box.width);
      }}
      onKeyDown={(e) => {
        const place = { ArrowLeft: split - SPLIT_STEP, ArrowRight: split + SPLIT_STEP, Home: 0, End: 1 }[e.key];
        if (place === undefined) return;
        e.preventDefault();
        to(place);
      }}
    />
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
