import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { GLASSES } from '@rakuen/core/light/glass';
import { questionOf } from '../app/steps.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { type LabImage } from '../pictures/lab-image.ts';
import { useTable } from '../table/use-table.ts';
import { AllSheets } from './all-sheets.tsx';
import { PrintFileDialog } from './print-file-dialog.tsx';
import { HangsIn, ProofLines } from './proof-lines.tsx';
import { useProofDesk, type ProofDesk } from './use-proof-desk.ts';
import { Laid } from './laid.tsx';
import { MarkCrops } from './mark-crops.tsx';
import { useRecipesQuery } from './recipe-api.ts';
import { ProofTools } from './proof-tools.tsx';
import { PairNames, RestsOn } from './proof-words.tsx';
import { RecipeNote } from './recipe-note.tsx';
import { StripsDialog } from './strips-dialog.tsx';

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

interface Given {
  picture: PictureView;
  left: ConditionHead;
  right: ConditionHead;
}

function Proof({ picture, left, right, question }: Given & { question: string }) {
  const desk = useProofDesk(picture, left, right);
  const { inHand, lab } = desk;
  return (
    <>
      <ScreenHead title="Proof" question={question}>
        <HangsIn desk={desk} />
      </ScreenHead>
      <ErrorNote error={inHand.error} />
      {lab.fault && (
        <ErrorNote error={{ message: lab.fault, remedy: 'Reload the page, or look at another picture.' }} />
      )}
      {(!lab.image || !inHand.laid) && !inHand.error && !lab.fault && (
        <Waiting what="Laying the picture on the sheets" />
      )}
      {lab.image && inHand.laid && (
        <OnTheDesk {...{ picture, left, right, desk }} image={lab.image} laid={inHand.laid} />
      )}
    </>
  );
}

/** The sheets with the picture on them, what is done to it on each, and what that rests on. */
function OnTheDesk({ picture, left, right, desk, image, laid }: Given & OnSheets) {
  const table = useTable();
  const { inHand, at, surround, oneSheet } = desk;
  const { pair, recipes, same, before } = inHand;
  const [wantsAll, setAll] = useState(false);
  // Two sheets are the pair in hand.
  const all = wantsAll && table.laid.length > 2;
  useKeys({ o: inHand.turnBefore, a: () => table.laid.length > 2 && setAll(!all) });
  const glass = GLASSES.find((g) => g.key === desk.where.glass);
  return (
    <>
      {all ? (
        <AllSheets
          {...{ picture, image, before, surround }}
          where={desk.where}
          view={desk.view}
          sheets={table.laid}
          onPart={at.toPart}
          onTake={(id, name) => {
            table.take('left', id, name);
            setAll(false);
          }}
        />
      ) : (
        <PairOnTheDesk {...{ desk, image, laid }} />
      )}
      {!all && <RecipeNote pictureId={picture.id} condition={left} at={recipes[0]} {...inHand.notes} />}
      {!oneSheet && !all && <RecipeNote pictureId={picture.id} condition={right} at={recipes[1]} {...inHand.notes} />}
      <ProofLines desk={desk} />
      <Taking {...{ desk, picture, left, all }} onAll={() => setAll(!all)} />
      <RestsOn
        {...{ pair, laid, image, same }}
        view={desk.view}
        where={`${desk.light?.name ?? 'a lamp that is gone'}, ${glass?.name}`}
        drawsSurface={desk.held.choice !== 'off'}
      />
    </>
  );
}

interface OnSheets {
  desk: ProofDesk;
  image: LabImage;
  laid: NonNullable<ProofDesk['inHand']['laid']>;
}

/** The two in hand, one above the other or side by side. */
function PairOnTheDesk({ desk, image, laid }: OnSheets) {
  const { picture, surround, inHand, shown, at } = desk;
  const { pair, same, surfaces } = inHand;
  return (
    // What is turned below is seen meanwhile.
    <div className="sticky top-0 z-10 bg-ground pt-1" data-in-sight>
      <PairNames pair={pair} same={same} />
      <Laid
        {...{ picture, image, surround }}
        sheets={[laid[0].seen, laid[1].seen]}
        names={[pair[0].name, pair[1].name]}
        changing={inHand.changing}
        view={same ? { ...shown, split: 1, beside: false } : shown}
        surfaces={[surfaces[0].surface, surfaces[1].surface]}
        widthPx={desk.size.widthPx}
        onSplit={(split) => at.change({ split })}
        onPart={at.toPart}
      />
    </div>
  );
}

/** The tools under the sheets, and what is taken away from here: strips, and a copy. */
function Taking({
  desk,
  picture,
  left,
  all,
  onAll,
}: {
  desk: ProofDesk;
  picture: PictureView;
  left: ConditionHead;
  all: boolean;
  onAll: () => void;
}) {
  const table = useTable();
  const [copying, setCopying] = useState<ConditionHead>();
  const [stripping, setStripping] = useState(false);
  const [cropping, setCropping] = useState(false);
  const { data: recipes = [] } = useRecipesQuery(picture.id);
  const read = table.laid.filter((c) => c.facts?.readingId);
  useKeys({ m: () => setCropping(true) });
  return (
    <>
      <ProofTools
        {...{ all, onAll }}
        at={desk.at}
        same={desk.inHand.same}
        sheets={table.laid.length}
        onSwap={desk.oneSheet ? undefined : table.swapHands}
        onCrops={() => setCropping(true)}
        onStrips={() => setStripping(true)}
        onCopy={() => setCopying(left)}
        copied={left.paper.name}
      />
      {stripping && <StripsDialog picture={picture} conditions={read} onClose={() => setStripping(false)} />}
      {cropping && (
        <MarkCrops
          picture={picture}
          where={desk.where}
          sheets={read.map(({ id, paper }) => ({
            key: id,
            conditionId: id,
            name: paper.name,
            // As it is worked on here.
            recipe: recipes.find((r) => r.conditionId === id && r.name === ''),
          }))}
          onClose={() => setCropping(false)}
        />
      )}
      {copying && (
        <PrintFileDialog
          picture={picture}
          condition={copying}
          recipe={desk.inHand.recipes[0]}
          onClose={() => setCopying(undefined)}
        />
      )}
    </>
  );
}
