import type { Hanging } from '@rakuen/core/proof/hung';
import { useMemo } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Part } from '@rakuen/core/proof/part';
import { PLAIN } from '@rakuen/core/proof/recipe';
import { QuietButton } from '../parts/button.tsx';
import { conditionLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import type { LabImage } from '../pictures/lab-image.ts';
import { useLaidQuery, type Where } from '../pictures/picture-api.ts';
import { Laid } from './laid.tsx';
import type { ProofView } from './proof-canvas.ts';
import { useSurface } from './surface-line.tsx';
import { useRecipe } from './use-recipe.ts';

interface Props {
  picture: PictureView;
  image: LabImage;
  where: Where;
  view: Omit<ProofView, 'recipes'>;
  before: boolean;
  surround: Hanging;
  onPart: (part: Part) => void;
  onTake: (id: string, name: string) => void;
}

/** The picture on every sheet that lies on the table, nearer and aside together. */
export function AllSheets({ sheets, ...props }: Props & { sheets: readonly ConditionHead[] }) {
  return (
    <ul
      className={`grid gap-4 ${sheets.length > 4 ? 'grid-cols-3' : 'grid-cols-2'}`}
      aria-label="On every sheet on the table"
    >
      {sheets.map((condition, i) => (
        <li key={condition.id} className="min-w-0">
          <OneSheet condition={condition} letter={MARKS[i].letter} {...props} />
        </li>
      ))}
    </ul>
  );
}

function OneSheet({
  condition,
  letter,
  where,
  before,
  view,
  onTake,
  ...props
}: Props & { condition: ConditionHead; letter: string }) {
  const { paper } = condition;
  const { recipe } = useRecipe(props.picture.id, condition.id);
  const { rendering } = before ? PLAIN : recipe;
  const laid = useLaidQuery({ conditionId: condition.id, rendering, ...where });
  const sheet = (laid.currentData ?? laid.data)?.seen;
  const { surface } = useSurface(condition, view.surface !== undefined);
  const shown = useMemo<ProofView>(
    () => ({
      ...view,
      split: 1,
      beside: false,
      // With the pair gone there is nothing between two.
      map: view.map === 'between the two' ? 'none' : view.map,
      recipes: before ? [PLAIN, PLAIN] : [recipe, recipe],
    }),
    [view, before, recipe],
  );
  return (
    <section aria-label={`On ${paper.name}, ${conditionLine(condition)}`}>
      <p className="flex items-baseline gap-2">
        <b className="font-serif">{letter}</b>
        <span className="min-w-0 truncate">
          <span className="font-serif text-[1.05rem]">{paper.name}</span>{' '}
          <span className="text-[13px] text-quiet">{conditionLine(condition)}</span>
        </span>
        <QuietButton
          className="ml-auto shrink-0"
          aria-label={`Take ${paper.name}, ${conditionLine(condition)}, in the left hand`}
          onClick={() => onTake(condition.id, paper.name)}
        >
          In the left hand
        </QuietButton>
      </p>
      <ErrorNote error={laid.error} />
      {!sheet && !laid.error && <Waiting what={`Laying it on ${paper.name}`} />}
      {sheet && (
        <Laid
          {...props}
          sheets={[sheet, sheet]}
          names={[paper.name, paper.name]}
          surfaces={[surface, surface]}
          changing={!laid.currentData}
          view={shown}
          small
        />
      )}
    </section>
  );
}
