import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { GLASSES } from '@rakuen/core/light/glass';
import { formatNumber } from '@rakuen/core/measurement/show';
import { MAPS, type MapName } from '@rakuen/core/proof/drawn';
import { moved, nearer, WHOLE, zoomOf, type Part } from '@rakuen/core/proof/part';
import { SURFACE_LIGHTS } from '@rakuen/core/surface/sheen';
import { questionOf } from '../app/steps.ts';
import { useLight } from '../compare/use-light.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { labImage, type LabImage } from '../pictures/lab-image.ts';
import { useLaidQuery } from '../pictures/picture-api.ts';
import { useTable } from '../table/use-table.ts';
import { CopyDialog } from './copy-dialog.tsx';
import { AllSheets } from './all-sheets.tsx';
import { Laid, SPLIT_STEP } from './laid.tsx';
import { screenSpace, type ProofView, type SurfaceView } from './proof-canvas.ts';
import { RoomLine, useRoom } from './room-line.tsx';
import { BeyondLine, SAMPLED } from './beyond-line.tsx';
import { besideOf, EyeLine, useScreenWhite, type Eye } from './eye-line.tsx';
import { RecipeNote } from './recipe-note.tsx';
import { HANGING, SurfaceLine, useSurface, type Held } from './surface-line.tsx';
import { StripsDialog } from './strips-dialog.tsx';
import { pairOf } from './in-hand.ts';
import { useRecipe } from './use-recipe.ts';
import { SizeLine, useShownSize } from './screen-scale.tsx';

/** What is turned by hand and key over the picture itself. */
type Turned = Pick<ProofView, 'split' | 'beside' | 'map' | 'part'>;
/** So much nearer by a key, and so much of what is seen aside. */
const NEARER = 1.5;
const PAN = 0.15;
const SELECT = 'min-h-8 max-w-[22ch] rounded-[3px] border border-edge bg-field px-2';

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
  const [turned, setView] = useState<Turned>({ split: 0.5, beside: false, map: 'none', part: WHOLE });
  const [eye, setEye] = useState<Eye>('light');
  const screenWhite = useScreenWhite();
  const [held, setHeld] = useState<Held>(HANGING);
  const [wantsAll, setAll] = useState(false);
  // Two sheets are the pair in hand.
  const all = wantsAll && table.laid.length > 2;
  const recipes = [useRecipe(picture.id, left.id), useRecipe(picture.id, right.id)] as const;
  const [before, setBefore] = useState(false);
  const [against, setAgainst] = useState<string>();
  const pair = pairOf([left, right], recipes, against, before);
  const surfaces = [
    useSurface(pair[0].condition, held.choice !== 'off'),
    useSurface(pair[1].condition, held.choice !== 'off'),
  ] as const;
  const hands = [
    useLaidQuery({ conditionId: pair[0].condition.id, rendering: pair[0].recipe.rendering, ...where }),
    useLaidQuery({ conditionId: pair[1].condition.id, rendering: pair[1].recipe.rendering, ...where }),
  ];
  const [surround, setSurround] = useState<'wall' | 'mount'>('wall');
  const [copying, setCopying] = useState<ConditionHead>();
  const [stripping, setStripping] = useState(false);
  const size = useShownSize(picture);
  const room = useRoom(picture.commission.lux);
  const [image, setImage] = useState<LabImage>();
  const [fault, setFault] = useState<string>();
  // While another light is laid the old one stays in place, dimmed and without numbers: it is not taken for the new.
  const [first, second] = hands.map((h) => h.currentData ?? h.data);
  const changing = hands.some((h) => !h.currentData);
  const change = (over: Partial<Turned>) => setView((v) => ({ ...v, ...over }));
  const light = lights.find((l) => l.key === where.light);
  const x = screenWhite.white?.x;
  const y = screenWhite.white?.y;
  const view = useMemo<Omit<ProofView, 'recipes'>>(() => {
    const beside = besideOf(eye, x === undefined || y === undefined ? undefined : { x, y }, light);
    const dim = Math.min(room.dim, beside?.fit ?? 1);
    const surface = surfaceOf(held, picture);
    return { ...turned, settled: eye === 'paper', toScreen: beside?.matrix, surface, dim };
  }, [turned, eye, x, y, light, room.dim, held, picture]);
  const toPart = (part: Part) => change({ part });
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
    a: () => table.laid.length > 2 && setAll(!all),
    '+': () => toPart(nearer(view.part, NEARER)),
    '=': () => toPart(nearer(view.part, NEARER)),
    '-': () => toPart(nearer(view.part, 1 / NEARER)),
    '0': () => toPart(WHOLE),
    // Of the whole there is nothing aside: the arrows scroll the page.
    ...(view.part.width < 1 && {
      ArrowLeft: () => toPart(moved(view.part, -PAN, 0)),
      ArrowRight: () => toPart(moved(view.part, PAN, 0)),
      ArrowUp: () => toPart(moved(view.part, 0, -PAN)),
      ArrowDown: () => toPart(moved(view.part, 0, PAN)),
    }),
  });

  const [ofLeft, ofRight] = [pair[0].recipe, pair[1].recipe];
  const shown = useMemo<ProofView>(() => ({ ...view, recipes: [ofLeft, ofRight] }), [view, ofLeft, ofRight]);
  const same = pair[0].name === pair[1].name;
  const oneSheet = left.id === right.id;
  const seen = { onBefore: setBefore, onAgainst: setAgainst };
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
      </ScreenHead>
      <ErrorNote error={hands[0].error ?? hands[1].error} />
      {fault && <ErrorNote error={{ message: fault, remedy: 'Reload the page, or look at another picture.' }} />}
      {(!image || !first || !second) && !hands[0].error && !hands[1].error && !fault && (
        <Waiting what="Laying the picture on the sheets" />
      )}
      {image && first && second && (
        <>
          {all ? (
            <AllSheets
              picture={picture}
              image={image}
              sheets={table.laid}
              where={where}
              view={view}
              before={before}
              surround={surround}
              onPart={toPart}
              onTake={(id, name) => {
                table.take('left', id, name);
                setAll(false);
              }}
            />
          ) : (
            <>
              <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-6">
                <p>
                  <span className="font-serif text-[1.1rem]">{pair[0].name}</span>{' '}
                  <span className="text-[13px] text-quiet">{conditionLine(pair[0].condition)}, in the left hand</span>
                </p>
                {!same && (
                  <p>
                    <span className="text-[13px] text-quiet">
                      in the right hand
                      {pair[1].condition.id === pair[0].condition.id ? '' : `, ${conditionLine(pair[1].condition)}`}
                    </span>{' '}
                    <span className="font-serif text-[1.1rem]">{pair[1].name}</span>
                  </p>
                )}
              </div>
              <Laid
                picture={picture}
                image={image}
                sheets={[first.seen, second.seen]}
                names={[pair[0].name, pair[1].name]}
                changing={changing}
                view={same ? { ...shown, split: 1, beside: false } : shown}
                surfaces={[surfaces[0].surface, surfaces[1].surface]}
                surround={surround}
                widthPx={size.widthPx}
                onSplit={(split) => change({ split })}
                onPart={toPart}
              />
            </>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-x-5 gap-y-1">
            <EyeLine eye={eye} onEye={setEye} screen={screenWhite} light={light} />
            <SurfaceLine
              held={held}
              onHeld={setHeld}
              sheets={(same ? surfaces.slice(0, 1) : surfaces).flatMap(({ whole }) => whole ?? [])}
            />
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
            <SizeLine size={size} viewingMm={picture.commission.viewingMm} />
            <RoomLine
              room={room}
              whites={[first.seen.white, second.seen.white]}
              names={[pair[0].condition.paper.name, pair[1].condition.paper.name]}
            />
          </div>
          <p className="mt-1 -ml-1.5">
            {table.laid.length > 2 && (
              <QuietButton aria-pressed={all} onClick={() => setAll(!all)}>
                {all ? 'The two in hand' : `On all ${table.laid.length} sheets`}
              </QuietButton>
            )}
            <QuietButton onClick={() => toPart(nearer(view.part, NEARER))}>Nearer</QuietButton>
            <QuietButton disabled={view.part.width === 1} onClick={() => toPart(nearer(view.part, 1 / NEARER))}>
              Further
            </QuietButton>
            {view.part.width < 1 && (
              <QuietButton onClick={() => toPart(WHOLE)}>
                The whole picture, now {formatNumber(zoomOf(view.part), 1)} × nearer
              </QuietButton>
            )}
            {!same && !all && (
              <>
                <QuietButton onClick={flip}>Flip</QuietButton>
                <QuietButton aria-pressed={view.beside} onClick={() => change({ beside: !view.beside })}>
                  {view.beside ? 'One above the other' : 'Beside each other'}
                </QuietButton>
                {!oneSheet && <QuietButton onClick={table.swapHands}>Swap hands</QuietButton>}
              </>
            )}
            <QuietButton onClick={() => setStripping(true)}>Strips on paper</QuietButton>
            <QuietButton onClick={() => setCopying(left)}>Write the print copy for {left.paper.name}</QuietButton>
          </p>
          {!all && (
            <RecipeNote pictureId={picture.id} condition={left} at={recipes[0]} {...{ before, against }} {...seen} />
          )}
          {!oneSheet && !all && (
            <RecipeNote pictureId={picture.id} condition={right} at={recipes[1]} {...{ before, against }} {...seen} />
          )}
          <p className="mt-1 max-w-[96ch] text-[12.5px] text-quiet">
            From the models of the two print conditions ({modelWords(pair[0].condition.paper.name, first.modelError)}
            {oneSheet ? '' : `; ${modelWords(pair[1].condition.paper.name, second.modelError)}`}), in{' '}
            {light?.name ?? 'a lamp that is gone'}, {GLASSES.find((g) => g.key === where.glass)?.name}. Your screen is
            taken as {screenSpace().name}; beyond it lies{' '}
            <BeyondLine image={image} sheet={first.seen} recipe={ofLeft} view={view} name={pair[0].name} />
            {!same && (
              <>
                {' '}
                and <BeyondLine image={image} sheet={second.seen} recipe={ofRight} view={view} name={pair[1].name} />
              </>
            )}
            , of some {Math.min(SAMPLED, image.widthPx * image.heightPx)} pixels looked at; drawn from {image.widthPx} ×{' '}
            {image.heightPx} of the file’s pixels.
            {held.choice === 'off' ? ' Texture and sheen are not drawn.' : ''} A proof on a screen is no print: judge
            the last step on a strip, dry, in the light of the place.
          </p>
        </>
      )}
      {stripping && (
        <StripsDialog
          picture={picture}
          conditions={table.laid.filter((c) => c.facts)}
          onClose={() => setStripping(false)}
        />
      )}
      {copying && (
        <CopyDialog picture={picture} condition={copying} recipe={recipes[0]} onClose={() => setCopying(undefined)} />
      )}
    </>
  );
}

/** A lamp over the print at its size, looked at from where it will be. */
function surfaceOf({ choice, lampDeg, tiltDeg }: Held, picture: PictureView): SurfaceView | undefined {
  if (choice === 'off') return undefined;
  const { longSideMm, viewingMm: eyeMm } = picture.commission;
  const perPx = longSideMm / Math.max(picture.widthPx, picture.heightPx);
  const sheetMm = [picture.widthPx * perPx, picture.heightPx * perPx] as const;
  return { heightDeg: SURFACE_LIGHTS[choice].heightDeg, lampDeg, tiltDeg, eyeMm, sheetMm };
}

const modelWords = (name: string, error: number | undefined): string =>
  error === undefined ? `${name}: by the solid of its colours alone` : `${name}: ± ${formatNumber(error, 1)} ΔE00`;
