import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { RECIPE_PARTS, type RecipeKey } from '@rakuen/core/proof/recipe';
import { formatNumber } from '@rakuen/core/measurement/show';
import { QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { FileLink } from '../parts/file-link.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { useStripsQuery } from './recipe-api.ts';
import type { RecipeAtHand } from './use-recipe.ts';

const LADDERS: Readonly<Record<RecipeKey, string>> = {
  liftStops: '0, 0.25, 0.5',
  contrast: '-0.2, 0, 0.2',
  shadows: '0, 0.3, 0.6',
  saturation: '-0.1, 0, 0.1',
  sharpening: '0, 0.5, 1',
};

/** Strips of the marked places on small sheets; what the eye finds best goes into the recipe. */
export function StripsDialog({
  picture,
  condition,
  recipe: at,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionHead;
  recipe: RecipeAtHand;
  onClose: () => void;
}) {
  const [part, setPart] = useState<RecipeKey>('liftStops');
  const [steps, setSteps] = useState(LADDERS.liftStops);
  const [crop, setCrop] = useState('48');
  const params = { conditionId: condition.id, part, steps, cropWidth: crop, cropHeight: crop };
  const { data, error } = useStripsQuery({ pictureId: picture.id, ...params });
  const query = new URLSearchParams(params).toString();
  const values = steps.split(',').map((v) => Number(v.trim()));
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Strips on paper"
      description={`Crops of ${picture.title} at the size of its print, from its marked places, on ${condition.paper.name}`}
    >
      <div className="grid grid-cols-3 gap-3">
        <ChoiceField
          label="What climbs"
          value={part}
          onChange={(e) => {
            const next = e.target.value as RecipeKey;
            setPart(next);
            setSteps(LADDERS[next]);
          }}
          options={(Object.keys(RECIPE_PARTS) as RecipeKey[])
            .filter((key) => key !== 'sharpening')
            .map((key) => [key, RECIPE_PARTS[key].name] as const)}
        />
        <TextField label="Steps" unit="commas between" value={steps} onChange={(e) => setSteps(e.target.value)} />
        <TextField label="Crop" unit="mm" inputMode="numeric" value={crop} onChange={(e) => setCrop(e.target.value)} />
      </div>
      <ErrorNote error={error} />
      {data && !error && (
        <>
          <p className="mt-3">
            {data.sheets === 1 ? 'One small sheet' : `${data.sheets} small sheets`} of 210 × 148 mm
            {data.used.length > 0 &&
              `, ${formatNumber((data.used.reduce((a, b) => a + b, 0) / data.used.length) * 100, 0)} % of them printed on`}
            .
          </p>
          <ul className="mt-1">
            {data.on.map((s, i) => (
              <li key={i}>
                <FileLink
                  href={`/api/pictures/${picture.id}/strips.tif?${query}&page=${i}`}
                  label={`Write sheet ${i + 1} of the strips`}
                >
                  Write sheet {i + 1}
                </FileLink>
                <span className="text-[13px] text-quiet"> {s.places.join(', ')}</span>
              </li>
            ))}
          </ul>
          {data.lacking.length > 0 && (
            <p role="alert" className="font-semibold">
              Too wide for the sheet: {data.lacking.join(', ')}. Fewer steps, or a smaller crop.
            </p>
          )}
          <p className="mt-2 text-[13px] text-quiet">
            Not sharpened. 16-bit TIFF with the condition’s own profile. Print with the driver’s colour management off,
            let it dry, and look at it in the light of the place.
          </p>
          <p className="mt-3">What was best, judged by eye:</p>
          <p className="-ml-1.5">
            {values
              .filter((v) => Number.isFinite(v))
              .map((v) => (
                <QuietButton
                  key={v}
                  aria-pressed={at.recipe[part] === v}
                  onClick={() => at.set({ ...at.recipe, [part]: v })}
                >
                  {RECIPE_PARTS[part].name} {RECIPE_PARTS[part].written(v)}
                </QuietButton>
              ))}
          </p>
        </>
      )}
    </Dialog>
  );
}
