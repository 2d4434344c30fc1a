import { useEffect, useMemo, useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Hanging } from '@rakuen/core/proof/hung';
import type { EstimatedWhite } from '@rakuen/core/characterisation/packed';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { SURFACE_LIGHTS } from '@rakuen/core/surface/sheen';
import { useLight } from '../compare/use-light.ts';
import { labImage, type LabImage } from '../pictures/lab-image.ts';
import { useLaidQuery } from '../pictures/picture-api.ts';
import { besideOf, useScreenWhite, type Eye } from './eye-line.tsx';
import { useConditionsQuery } from '../api/api.ts';
import { day } from '../parts/label.ts';
import { usePrintsQuery } from '../prints/print-api.ts';
import { fileSheet } from './file-sheet.ts';
import { pairOf, type Holdable } from './in-hand.ts';
import type { ProofView, SeenSheet, SurfaceView } from './proof-canvas.ts';
import { useRoom } from './room-line.tsx';
import { useShownSize } from './screen-scale.tsx';
import { HANGING, useSurface, type Held } from './surface-line.tsx';
import { useProofView, type Turned } from './use-proof-view.ts';
import { useRecipe } from './use-recipe.ts';

/** Id of the file among what can be held. */
const FILE_ID = 'file';

/** A proof as it lies: the picture, the sheets in hand, the light they hang in, and how they are looked at. */
export function useProofDesk(picture: PictureView, left: ConditionHead, right: ConditionHead) {
  const { lights } = useLight();
  const [where, setWhere] = useState({ light: picture.commission.light, glass: picture.commission.glass });
  const light = lights.find((l) => l.key === where.light);
  const [eye, setEye] = useState<Eye>('light');
  const screen = useScreenWhite();
  const [held, setHeld] = useState<Held>(HANGING);
  const [surround, setSurround] = useState<Hanging>('wall');
  const size = useShownSize(picture);
  const room = useRoom(picture.commission.lux);
  const lab = useLabImage(picture.id);
  const inHand = usePair(picture, [left, right], where, held);
  const at = useProofView();
  const view = useView(at.turned, { eye, white: screen.white, light, dim: room.dim, held, picture });
  const [ofLeft, ofRight] = inHand.pair.map((hand) => hand.recipe);
  const shown = useMemo<ProofView>(() => ({ ...view, recipes: [ofLeft, ofRight] }), [view, ofLeft, ofRight]);
  return {
    picture,
    lights,
    where,
    setWhere,
    light,
    eye,
    setEye,
    screen,
    held,
    setHeld,
    surround,
    setSurround,
    size,
    room,
    lab,
    inHand,
    at,
    view,
    /** The same with both recipes. */
    shown,
    oneSheet: left.id === right.id,
    rightName: left.id === right.id ? 'nothing' : right.paper.name,
  };
}
export type ProofDesk = ReturnType<typeof useProofDesk>;

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
  const holdable = useHoldable(picture, left);
  const pair = pairOf([left, right], recipes, against, before, holdable);
  const surfaces = [
    useSurface(pair[0].condition, held.choice !== 'off'),
    useSurface(pair[1].condition, held.choice !== 'off'),
  ] as const;
  const hands = [
    useLaidQuery({ conditionId: pair[0].condition.id, rendering: pair[0].recipe.rendering, ...where }),
    useLaidQuery(
      { conditionId: pair[1].condition.id, rendering: pair[1].recipe.rendering, ...where },
      { skip: pair[1].file },
    ),
  ];
  // While another light is laid the old one stays in place, dimmed and without numbers: it is not taken for the new.
  const [first, ofRight] = hands.map((h) => h.currentData ?? h.data);
  const second: Seen | undefined = pair[1].file ? ofFile() : ofRight;
  return {
    pair,
    recipes,
    surfaces,
    laid: first && second && ([first, second] as const),
    changing: hands.some((h, i) => !h.currentData && !pair[i].file),
    holdable,
    error: hands[0].error ?? hands[1].error,
    /** Both hands hold one and the same. */
    same: pair[0].name === pair[1].name,
    before,
    turnBefore: () => setBefore(!before),
    notes: { before, against, onBefore: setBefore, onAgainst: setAgainst },
  };
}

/** A sheet in a hand as it is seen, with what is known of its model; of the file itself there is none. */
interface Seen {
  readonly seen: SeenSheet;
  readonly modelError?: number;
  readonly brightenerUnknown?: boolean;
  readonly estimatedWhite?: EstimatedWhite;
}

const FILE: { held?: Seen } = {};
/** One and the same each time: what is drawn does not change. */
const ofFile = (): Seen => (FILE.held ??= { seen: fileSheet() });

/** The file as it is, and the prints of a picture whose recipe was recorded, the newest first. */
function useHoldable(picture: PictureView, left: ConditionHead): readonly Holdable[] {
  const { data: prints } = usePrintsQuery('printed');
  const { data: conditions } = useConditionsQuery();
  return useMemo(() => {
    const file: Holdable = { id: FILE_ID, name: 'the file as it is', condition: left, recipe: PLAIN, file: true };
    const made = (prints ?? []).flatMap((p): Holdable[] => {
      const condition = conditions?.find((c) => c.id === p.conditionId);
      if (p.pictureId !== picture.id || !p.recipe || !condition) return [];
      const name = `print of ${day(p.printedOn)} on ${condition.paper.name}, by its recipe`;
      return [{ id: p.id, name, condition, recipe: p.recipe.values }];
    });
    return [file, ...made];
  }, [picture.id, left, prints, conditions]);
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

/** A lamp over the print at its size, looked at from where it will be. */
function surfaceOf({ choice, lampDeg, tiltDeg }: Held, picture: PictureView): SurfaceView | undefined {
  if (choice === 'off') return undefined;
  const { longSideMm, viewingMm: eyeMm } = picture.commission;
  const perPx = longSideMm / Math.max(picture.widthPx, picture.heightPx);
  const sheetMm = [picture.widthPx * perPx, picture.heightPx * perPx] as const;
  return { heightDeg: SURFACE_LIGHTS[choice].heightDeg, lampDeg, tiltDeg, eyeMm, sheetMm };
}
