import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { unpackLab } from '@rakuen/core/characterisation/packed';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { compensated } from '@rakuen/core/characterisation/renderings';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab } from '@rakuen/core/colour/types';
import { GLASSES } from '@rakuen/core/light/glass';
import { formatNumber } from '@rakuen/core/measurement/show';
import { applyRecipe, PLAIN } from '@rakuen/core/proof/recipe';
import { questionOf } from '../app/steps.ts';
import { useLight } from '../compare/use-light.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { LAB_UNITS, labImage, type LabImage } from '../pictures/lab-image.ts';
import { latticeOf, useLaidQuery } from '../pictures/picture-api.ts';
import { useTable } from '../table/use-table.ts';
import { CopyDialog } from './copy-dialog.tsx';
import { MAPS, ProofCanvas, type MapName, type ProofView } from './proof-canvas.ts';
import { RecipeNote } from './recipe-note.tsx';
import { StripsDialog } from './strips-dialog.tsx';
import { useRecipe } from './use-recipe.ts';
import { ScreenScale, useScreenScale } from './screen-scale.tsx';

const RENDERING_WORDS = {
  relative: 'relative, black compensated',
  perceptual: 'perceptual',
  saturation: 'saturation',
  absolute: 'absolute',
} as const;
type RenderingKey = keyof typeof RENDERING_WORDS;
const SELECT = 'min-h-8 max-w-[22ch] rounded-[3px] border border-edge bg-field px-2';
const SPLIT_STEP = 0.04;

/** The picture on the sheets in hand, in the light where it will hang, before any sheet is spent. */
export function ProofScreen() {
  const table = useTable();
  const navigate = useNavigate();
  const { picture, left, right } = table;
  const question = questionOf('/proof');
  if (!picture || !left)
    return (
      <>
        <ScreenHead title="Proof" question={question} />
        <Empty
          title={picture ? 'No paper in hand' : 'No picture in hand'}
          action={
            <Button onClick={() => void navigate(picture ? '/papers' : '/pictures')}>
              {picture ? 'To the papers' : 'To the pictures'}
            </Button>
          }
        >
          Lay a picture and one or two measured papers on the table; here the picture is seen on them as it will hang.
        </Empty>
      </>
    );
  return <Proof key={picture.id} picture={picture} left={left} right={right ?? left} question={question} />;
}

function Proof({
  picture,
  left,
  right,
  question,
}: {
  picture: PictureView;
  left: ConditionHead;
  right: ConditionHead;
  question: string;
}) {
  const table = useTable();
  const { lights } = useLight();
  const [where, setWhere] = useState({ light: picture.commission.light, glass: picture.commission.glass });
  const [rendering, setRendering] = useState<RenderingKey>('relative');
  const [view, setView] = useState<Omit<ProofView, 'recipes'>>({
    settled: false,
    split: 0.5,
    beside: false,
    map: 'none',
  });
  const recipes = [useRecipe(picture.id, left.id), useRecipe(picture.id, right.id)] as const;
  const [before, setBefore] = useState(false);
  const [surround, setSurround] = useState<'wall' | 'mount'>('wall');
  const [atSize, setAtSize] = useState(false);
  const [copying, setCopying] = useState<ConditionHead>();
  const [stripping, setStripping] = useState(false);
  const scale = useScreenScale();
  const [image, setImage] = useState<LabImage>();
  const [fault, setFault] = useState<string>();
  const hands = [
    useLaidQuery({ conditionId: left.id, rendering, ...where }),
    useLaidQuery({ conditionId: right.id, rendering, ...where }),
  ];
  // While another light is laid the old one stays in place, dimmed and without numbers: it is not taken for the new.
  const [first, second] = hands.map((h) => h.currentData ?? h.data);
  const changing = hands.some((h) => !h.currentData);
  const change = (over: Partial<Omit<ProofView, 'recipes'>>) => setView((v) => ({ ...v, ...over }));
  const flip = () => change({ split: view.split > 0.5 ? 0 : 1, beside: false });

  useEffect(() => {
    let gone = false;
    labImage(picture.id).then(
      (found) => !gone && setImage(found),
      (error: Error) => !gone && setFault(error.message),
    );
    return () => {
      gone = true;
    };
  }, [picture.id]);
  useKeys({
    v: flip,
    '[': () => change({ split: Math.max(0, view.split - SPLIT_STEP), beside: false }),
    ']': () => change({ split: Math.min(1, view.split + SPLIT_STEP), beside: false }),
    b: () => change({ beside: !view.beside }),
    o: () => setBefore(!before),
  });

  const [ofLeft, ofRight] = [recipes[0].recipe, recipes[1].recipe];
  const shown = useMemo<ProofView>(
    () => ({ ...view, recipes: before ? [PLAIN, PLAIN] : [ofLeft, ofRight] }),
    [view, before, ofLeft, ofRight],
  );
  const same = left.id === right.id;
  return (
    <>
      <ScreenHead title="Proof" question={question}>
        <label className="flex items-center gap-2">
          <span className="text-quiet">Light</span>
          <select
            aria-label="Light it hangs in"
            className={SELECT}
            value={where.light}
            onChange={(e) => setWhere({ ...where, light: e.target.value })}
          >
            {lights.map((l) => (
              <option key={l.key} value={l.key}>
                {l.name}
              </option>
            ))}
          </select>
        </label>
        <select
          aria-label="Glass before it"
          className={SELECT}
          value={where.glass}
          onChange={(e) => setWhere({ ...where, glass: e.target.value })}
        >
          {GLASSES.map((g) => (
            <option key={g.key} value={g.key}>
              {g.name}
            </option>
          ))}
        </select>
        <select
          aria-label="Rendering"
          className={SELECT}
          value={rendering}
          onChange={(e) => setRendering(e.target.value as RenderingKey)}
        >
          {Object.entries(RENDERING_WORDS).map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </ScreenHead>
      <ErrorNote error={hands[0].error ?? hands[1].error} />
      {fault && <ErrorNote error={{ message: fault, remedy: 'Reload the page, or look at another picture.' }} />}
      {(!image || !first || !second) && !hands[0].error && !hands[1].error && !fault && (
        <Waiting what="Laying the picture on the sheets" />
      )}
      {image && first && second && (
        <>
          <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-6">
            <p>
              <span className="font-serif text-[1.1rem]">{left.paper.name}</span>{' '}
              <span className="text-[13px] text-quiet">{conditionLine(left)}, in the left hand</span>
            </p>
            {!same && (
              <p>
                <span className="text-[13px] text-quiet">in the right hand, {conditionLine(right)}</span>{' '}
                <span className="font-serif text-[1.1rem]">{right.paper.name}</span>
              </p>
            )}
          </div>
          <Laid
            picture={picture}
            image={image}
            sheets={[first.seen, second.seen]}
            names={[left.paper.name, right.paper.name]}
            changing={changing}
            view={same ? { ...shown, split: 1, beside: false } : shown}
            surround={surround}
            widthPx={
              atSize
                ? (picture.commission.longSideMm / scale.mmPerPx) * Math.min(1, picture.widthPx / picture.heightPx)
                : undefined
            }
            onSplit={(split) => change({ split })}
          />
          <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1">
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={view.settled}
                onChange={(e) => change({ settled: e.target.checked })}
              />
              eye settled on the paper
            </label>
            <label className="flex items-center gap-2">
              <span className="text-quiet">Hatch</span>
              <select
                aria-label="Map over the proof"
                className={SELECT}
                value={view.map}
                onChange={(e) => change({ map: e.target.value as MapName })}
              >
                {MAPS.filter((m) => !same || m !== 'between the two').map((m) => (
                  <option key={m}>{m}</option>
                ))}
              </select>
            </label>
            <label className="flex items-center gap-2">
              <span className="text-quiet">On</span>
              <select
                aria-label="Surround"
                className={SELECT}
                value={surround}
                onChange={(e) => setSurround(e.target.value as 'wall')}
              >
                <option value="wall">a grey wall</option>
                <option value="mount">a white mount</option>
              </select>
            </label>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="size-4 accent-ink"
                checked={atSize}
                onChange={(e) => setAtSize(e.target.checked)}
              />
              at print size
            </label>
            {atSize && <ScreenScale scale={scale} />}
          </div>
          <p className="mt-1 -ml-1.5">
            {!same && (
              <>
                <QuietButton onClick={flip}>Flip</QuietButton>
                <QuietButton aria-pressed={view.beside} onClick={() => change({ beside: !view.beside })}>
                  {view.beside ? 'One above the other' : 'Beside each other'}
                </QuietButton>
                <QuietButton onClick={table.swapHands}>Swap hands</QuietButton>
              </>
            )}
            <QuietButton onClick={() => setStripping(true)}>Strips on paper</QuietButton>
            <QuietButton onClick={() => setCopying(left)}>Write the print copy for {left.paper.name}</QuietButton>
          </p>
          <RecipeNote pictureId={picture.id} condition={left} at={recipes[0]} before={before} onBefore={setBefore} />
          {!same && (
            <RecipeNote pictureId={picture.id} condition={right} at={recipes[1]} before={before} onBefore={setBefore} />
          )}
          <p className="mt-1 max-w-[96ch] text-[12.5px] text-quiet">
            From the models of the two print conditions ({modelWords(left.paper.name, first.modelError)}
            {same ? '' : `; ${modelWords(right.paper.name, second.modelError)}`}), in{' '}
            {lights.find((l) => l.key === where.light)?.name ?? 'a lamp that is gone'},{' '}
            {GLASSES.find((g) => g.key === where.glass)?.name}. Your screen is taken as sRGB; drawn from {image.widthPx}{' '}
            × {image.heightPx} of the file’s pixels. Texture and sheen are not drawn. A proof on a screen is no print:
            judge the last step on a strip, dry, in the light of the place.
          </p>
        </>
      )}
      {stripping && (
        <StripsDialog picture={picture} condition={left} recipe={recipes[0]} onClose={() => setStripping(false)} />
      )}
      {copying && (
        <CopyDialog
          picture={picture}
          condition={copying}
          rendering={rendering}
          recipe={recipes[0]}
          onClose={() => setCopying(undefined)}
        />
      )}
    </>
  );
}

const modelWords = (name: string, error: number | undefined): string =>
  error === undefined ? `${name}: by the solid of its colours alone` : `${name}: ± ${formatNumber(error, 1)} ΔE00`;

interface Sheet {
  readonly nodes: number;
  readonly white: Lab;
  readonly blackL: number;
  readonly lab: string;
}

/** The canvas, the dividing line, and the numbers under the pointer. */
function Laid({
  picture,
  image,
  sheets,
  names,
  view,
  changing,
  surround,
  widthPx,
  onSplit,
}: {
  picture: PictureView;
  image: LabImage;
  sheets: readonly [Sheet, Sheet];
  names: readonly [string, string];
  view: ProofView;
  /** What is drawn is not yet what is asked for. */
  changing: boolean;
  surround: 'wall' | 'mount';
  widthPx?: number;
  onSplit: (split: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawer = useRef<ProofCanvas>(null);
  const frame = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  const [broken, setBroken] = useState(false);
  const [at, setAt] = useState<{ x: number; y: number; hand: 0 | 1 }>();
  const ratio = (image.widthPx / image.heightPx) * (view.beside ? 2 : 1);

  useEffect(() => {
    try {
      drawer.current = new ProofCanvas(canvas.current!);
    } catch {
      setBroken(true);
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
  useEffect(() => {
    if (!drawer.current || size.width === 0) return;
    drawer.current.sheet(0, sheets[0]);
    drawer.current.sheet(1, sheets[1]);
    const dense = Math.min(2, window.devicePixelRatio || 1);
    drawer.current.draw(view, size.width * dense, size.height * dense);
  }, [sheets, view, size, image]);

  const placeOf = (event: React.PointerEvent): { x: number; y: number; hand: 0 | 1 } => {
    const box = frame.current!.getBoundingClientRect();
    const x = (event.clientX - box.left) / box.width;
    const y = (event.clientY - box.top) / box.height;
    if (view.beside) return { x: (x * 2) % 1, y, hand: x > 0.5 ? 1 : 0 };
    return { x, y, hand: x > view.split ? 1 : 0 };
  };
  const number = at && !changing && numbersAt(image, sheets[at.hand], view, at);
  const drag = (event: React.PointerEvent) => {
    const box = frame.current!.getBoundingClientRect();
    onSplit(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)));
  };
  return (
    <div className={`overflow-auto p-5 ${surround === 'mount' ? 'bg-[#f2f2f2]' : 'bg-[#8f8f8f]'}`}>
      {broken && (
        <p role="alert">
          This browser has no WebGL 2, so the proof can’t be drawn here. In Match each picture is drawn by the server.
        </p>
      )}
      <div
        ref={frame}
        className="relative mx-auto shadow-[0_1px_4px_#0008]"
        style={{
          aspectRatio: ratio,
          width: widthPx ?? '100%',
          maxWidth: widthPx ? undefined : `calc(58vh * ${ratio})`,
        }}
        onPointerMove={(e) => setAt(placeOf(e))}
        onPointerLeave={() => setAt(undefined)}
      >
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${picture.title} on ${names[0]}${names[0] === names[1] ? '' : ` and ${names[1]}`}`}
          aria-busy={changing}
          className={`absolute inset-0 size-full ${changing ? 'opacity-35' : ''}`}
        />
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
              onSplit(Math.min(1, Math.max(0, to)));
            }}
          />
        )}
      </div>
      <p
        role="status"
        className={`mt-2 min-h-5 text-center text-[13px] ${surround === 'mount' ? 'text-[#131313]' : 'text-[#000]'}`}
      >
        {number && at
          ? `File L* ${triple(number.file)} · on ${names[at.hand]} L* ${triple(number.seen)} · ${formatNumber(number.deltaE, 1)} ΔE00 from its aim${number.lost}`
          : changing
            ? 'Laying it out in that light…'
            : 'Numbers stand here for the place under the pointer.'}
      </p>
    </div>
  );
}

const triple = (lab: Lab): string =>
  `${formatNumber(lab[0], 1)}, a* ${formatNumber(lab[1], 1)}, b* ${formatNumber(lab[2], 1)}`;

/** File, print and loss at a place: the same lattice, read by the processor. */
function numbersAt(
  { widthPx, heightPx, lab }: LabImage,
  sheet: Sheet,
  view: ProofView,
  { x, y, hand }: { x: number; y: number; hand: 0 | 1 },
) {
  const px = Math.min(widthPx - 1, Math.max(0, Math.floor(x * widthPx)));
  const py = Math.min(heightPx - 1, Math.max(0, Math.floor(y * heightPx)));
  const from = (py * widthPx + px) * 3;
  const file: Lab = [lab[from] / LAB_UNITS, lab[from + 1] / LAB_UNITS, lab[from + 2] / LAB_UNITS];
  const values = Float32Array.from(file);
  applyRecipe(values, view.recipes[hand]);
  const aim = compensated(0, sheet.blackL)([values[0], values[1], values[2]]);
  throughPrinted(unpackLab(sheet.nodes, latticeOf(sheet)), values, values);
  const relative: Lab = [values[0], values[1], values[2]];
  const deltaE = deltaE2000(aim, relative);
  const [dL, dC] = [relative[0] - aim[0], Math.hypot(aim[1], aim[2]) - Math.hypot(relative[1], relative[2])];
  const lost =
    deltaE < 1
      ? ''
      : Math.abs(dL) < dC / 2
        ? ', too saturated for it'
        : dL > 0
          ? ', too dark for it'
          : ', too light for it';
  return { file, seen: view.settled ? relative : absoluteOnWhite(sheet.white)(relative), deltaE, lost };
}
