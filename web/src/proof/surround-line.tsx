import { RENDERING_NAMES, type RenderingKey } from '@rakuen/core/characterisation/renderings';
import { BORDER_STYLES, type BorderStyle } from '@rakuen/core/layout/borders';
import { MOST_BORDER_MM, type Recipe } from '@rakuen/core/proof/recipe';
import { CaptionField } from '../prints/caption-field.tsx';
import { ChoiceField, TickField } from '../parts/form.tsx';
import { Typed } from '../parts/typed.tsx';
import { decimal } from '../parts/decimal.ts';

/** How the picture is brought onto its sheet, and what lies around it there: parts of the recipe like any other. */
export function SurroundLine({
  pictureId,
  recipe,
  onSet,
}: {
  pictureId: string;
  recipe: Recipe;
  onSet: (next: Recipe) => void;
}) {
  const set = (over: Partial<Recipe>) => onSet({ ...recipe, ...over });
  return (
    <div className="mt-2 grid grid-cols-[minmax(0,15rem)_minmax(0,6rem)_minmax(0,11rem)_minmax(0,1fr)_auto] items-start gap-x-4 gap-y-1 max-xl:grid-cols-3">
      <ChoiceField
        label="Rendering"
        value={recipe.rendering}
        options={Object.entries(RENDERING_NAMES)}
        onChange={(e) => set({ rendering: e.target.value as RenderingKey })}
      />
      <Typed
        label="Border"
        unit="mm"
        value={String(recipe.borderMm)}
        wrong={(text) => {
          const mm = decimal(text);
          return mm >= 0 && mm <= MOST_BORDER_MM ? undefined : `From 0 to ${MOST_BORDER_MM} mm.`;
        }}
        onTyped={(text) => set({ borderMm: decimal(text) })}
      />
      <ChoiceField
        label="Border is"
        value={recipe.borders}
        options={Object.entries(BORDER_STYLES)}
        onChange={(e) => set({ borders: e.target.value as BorderStyle })}
      />
      <CaptionField pictureId={pictureId} value={recipe.caption} onChange={(caption) => set({ caption })} whenLeft />
      <TickField
        className="mt-5.5"
        label="marks to trim by"
        checked={recipe.trimMarks}
        onChange={(e) => set({ trimMarks: e.target.checked })}
      />
    </div>
  );
}
