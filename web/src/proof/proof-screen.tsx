import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { GLASSES } from '@rakuen/core/light/glass';
import { MAPS } from '@rakuen/core/proof/drawn';
import { SURFACE_LIGHTS } from '@rakuen/core/surface/sheen';
import { questionOf } from '../app/steps.ts';
import { useLight } from '../compare/use-light.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { labImage, type LabImage } from '../pictures/lab-image.ts';
import { useLaidQuery } from '../pictures/picture-api.ts';
import { useTable } from '../table/use-table.ts';
import { AllSheets } from './all-sheets.tsx';
import { CopyDialog } from './copy-dialog.tsx';
import { besideOf, EyeLine, useScreenWhite, type Eye } from './eye-line.tsx';
import { pairOf } from './in-hand.ts';
import { Laid } from './laid.tsx';
import { LineChoice } from './line-choice.tsx';
import type { ProofView, SurfaceView } from './proof-canvas.ts';
import { ProofTools } from './proof-tools.tsx';
import { PairNames, RestsOn } from './proof-words.tsx';
import { RecipeNote } from './recipe-note.tsx';
import { RoomLine, useRoom } from './room-line.tsx';
import { SizeLine, useShownSize } from './screen-scale.tsx';
import { StripsDialog } from './strips-dialog.tsx';
import { HANGING, SurfaceLine, useSurface, type Held } from './surface-line.tsx';
import { useProofView, type Turned } from './use-proof-view.ts';
import { useRecipe } from './use-recipe.ts';

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

/** A picture as Lab, fetched; and why it could not be. */
function useLabImage(pictureId: string): { image?: LabImage; fault?: string } {
  const [fetched, setFetched] = useState<{ image?: LabImage; fault?: string }>({});
  useEffect(() => {
    let gone = false;
    labImage(pictureId).then(
      (image) => !gone && setFetched({ image }),
      (error: Error) => !gone && setFetched({ fault: error.message }),
    );
    return () => {
      gone = true;
    };
  }, [pictureId]);
  return fetched;
}

/** The pair in hand: each sheet with its recipe, its surface, and what it shows of the picture where it hangs. */
function usePair(
  picture: PictureView,
  [left, right]: readonly [ConditionHead, ConditionHead],
  where: { light: string; glass: string },
  held: Held,
) {
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
  // While another light is laid the old one stays in place, dimmed and without numbers: it is not taken for the new.
  const [first, second] = hands.map((h) => h.currentData ?? h.data);
  return {
    pair,
    recipes,
    surfaces,
    laid: first && second && ([first, second] as const),
    changing: hands.some((h) => !h.currentData),
    error: hands[0].error ?? hands[1].error,
    /** Both hands hold one and the same. */
    same: pair[0].name === pair[1].name,
    before,
    turnBefore: () => setBefore(!before),
    notes: { before, against, onBefore: setBefore, onAgainst: setAgainst },
  };
}

/** How it is shown: as it was turned, for the eye, the room and the lamp over it. */
function useView(
  turned: Turned,
  {
    eye,
    white,
    light,
    dim: roomDim,
    held,
    picture,
  }: {
    eye: Eye;
    white: { x: number; y: number } | undefined;
    light: Parameters<typeof besideOf>[2];
    dim: number;
    held: Held;
    picture: PictureView;
  },
): Omit<ProofView, 'recipes'> {
  const x = white?.x;
  const y = white?.y;
  return useMemo(() => {
    const beside = besideOf(eye, x === undefined || y === undefined ? undefined : { x, y }, light);
    const dim = Math.min(roomDim, beside?.fit ?? 1);
    return { ...turned, settled: eye === 'paper', toScreen: beside?.matrix, surface: surfaceOf(held, picture), dim };
  }, [turned, eye, x, y, light, roomDim, held, picture]);
}

const SURROUNDS = [
  ['wall', 'a grey wall'],
  ['mount', 'a white mount'],
] as const;

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
  const light = lights.find((l) => l.key === where.light);
  const glass = GLASSES.find((g) => g.key === where.glass);
  const [eye, setEye] = useState<Eye>('light');
  const screenWhite = useScreenWhite();
  const [held, setHeld] = useState<Held>(HANGING);
  const [wantsAll, setAll] = useState(false);
  // Two sheets are the pair in hand.
  const all = wantsAll && table.laid.length > 2;
  const [surround, setSurround] = useState<'wall' | 'mount'>('wall');
  const [copying, setCopying] = useState<ConditionHead>();
  const [stripping, setStripping] = useState(false);
  const size = useShownSize(picture);
  const room = useRoom(picture.commission.lux);
  const { image, fault } = useLabImage(picture.id);
  const inHand = usePair(picture, [left, right], where, held);
  const { pair, recipes, surfaces, laid, same, before } = inHand;
  const at = useProofView();
  const view = useView(at.turned, { eye, white: screenWhite.white, light, dim: room.dim, held, picture });
  const [ofLeft, ofRight] = [pair[0].recipe, pair[1].recipe];
  const shown = useMemo<ProofView>(() => ({ ...view, recipes: [ofLeft, ofRight] }), [view, ofLeft, ofRight]);
  const oneSheet = left.id === right.id;
  useKeys({ o: inHand.turnBefore, a: () => table.laid.length > 2 && setAll(!all) });
  return (
    <>
      <ScreenHead title="Proof" question={question}>
        <LineChoice
          word="Light"
          label="Light it hangs in"
          widthCh={22}
          value={where.light}
          options={lights.map((l) => [l.key, l.name])}
          onChoose={(key) => setWhere({ ...where, light: key })}
        />
        <LineChoice
          label="Glass before it"
          widthCh={22}
          value={where.glass}
          options={GLASSES.map((g) => [g.key, g.name])}
          onChoose={(key) => setWhere({ ...where, glass: key })}
        />
      </ScreenHead>
      <ErrorNote error={inHand.error} />
      {fault && <ErrorNote error={{ message: fault, remedy: 'Reload the page, or look at another picture.' }} />}
      {(!image || !laid) && !inHand.error && !fault && <Waiting what="Laying the picture on the sheets" />}
      {image && laid && (
        <>
          {all ? (
            <AllSheets
              {...{ picture, image, where, view, before, surround }}
              sheets={table.laid}
              onPart={at.toPart}
              onTake={(id, name) => {
                table.take('left', id, name);
                setAll(false);
              }}
            />
          ) : (
            <>
              <PairNames pair={pair} same={same} />
              <Laid
                {...{ picture, image, surround }}
                sheets={[laid[0].seen, laid[1].seen]}
                names={[pair[0].name, pair[1].name]}
                changing={inHand.changing}
                view={same ? { ...shown, split: 1, beside: false } : shown}
                surfaces={[surfaces[0].surface, surfaces[1].surface]}
                widthPx={size.widthPx}
                onSplit={(split) => at.change({ split })}
                onPart={at.toPart}
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
            <LineChoice
              word="Hatch"
              label="Map over the proof"
              widthCh={22}
              value={view.map}
              options={MAPS.filter((m) => !same || m !== 'between the two').map((m) => [m, m])}
              onChoose={(map) => at.change({ map })}
            />
            <LineChoice
              word="On"
              label="Surround"
              widthCh={22}
              value={surround}
              options={SURROUNDS}
              onChoose={setSurround}
            />
            <SizeLine size={size} viewingMm={picture.commission.viewingMm} />
            <RoomLine
              room={room}
              whites={[laid[0].seen.white, laid[1].seen.white]}
              names={[pair[0].condition.paper.name, pair[1].condition.paper.name]}
            />
          </div>
          <ProofTools
            {...{ at, all, same }}
            sheets={table.laid.length}
            onAll={() => setAll(!all)}
            onSwap={oneSheet ? undefined : table.swapHands}
            onStrips={() => setStripping(true)}
            onCopy={() => setCopying(left)}
            copied={left.paper.name}
          />
          {!all && <RecipeNote pictureId={picture.id} condition={left} at={recipes[0]} {...inHand.notes} />}
          {!oneSheet && !all && (
            <RecipeNote pictureId={picture.id} condition={right} at={recipes[1]} {...inHand.notes} />
          )}
          <RestsOn
            {...{ pair, laid, image, view, same }}
            where={`${light?.name ?? 'a lamp that is gone'}, ${glass?.name}`}
            drawsSurface={held.choice !== 'off'}
          />
        </>
      )}
      {stripping && (
        <StripsDialog
          picture={picture}
          conditions={table.laid.filter((c) => c.facts?.readingId)}
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
