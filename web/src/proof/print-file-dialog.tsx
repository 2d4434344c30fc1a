import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import { FILE_PATTERN, FILE_WORDS } from '@rakuen/core/print/file-name';
import { RENDERING_NAMES } from '@rakuen/core/characterisation/renderings';
import { recipeLine, type Recipe } from '@rakuen/core/proof/recipe';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Dialog } from '../parts/dialog.tsx';
import { Download } from '../parts/download.tsx';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { useRemembered } from '../parts/remembered.ts';
import type { RecipeAtHand } from './use-recipe.ts';
import { QuietButton } from '../parts/button.tsx';

const PPI = ['300', '360', '720'] as const;

/** The print file: what is sent to the printer, in device values of the condition's own profile; and the sheet that goes to a lab with it. */
export function PrintFileDialog({
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
  const [ppi, setPpi] = useState<string>('360');
  const [space, setSpace] = useState<WorkingSpace | ''>('');
  const [as, setAs] = useState<'tif' | 'jpeg'>('tif');
  const [pattern, setPattern] = useRemembered('copy-name', FILE_PATTERN);
  const { longSideMm } = picture.commission;
  const asked = {
    conditionId: condition.id,
    ppi: Number(ppi),
    ...(at.current && { recipe: at.current.id }),
    ...(space && { space }),
    ...(as === 'jpeg' && { as }),
    ...(pattern.trim() && pattern !== FILE_PATTERN && { name: pattern }),
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Print file"
      description={`${picture.title} for ${condition.paper.name}, ${formatNumber(longSideMm, 0)} mm on its longer side`}
    >
      <div className="space-y-3">
        <div className="grid grid-cols-3 gap-3">
          <ChoiceField
            label="Colour space"
            value={space}
            onChange={(e) => setSpace(e.target.value as WorkingSpace)}
            options={[
              ['', condition.profile || 'the condition’s profile'],
              ...Object.entries(WORKING_SPACES).map(([key, s]) => [key, s.name] as const),
            ]}
          />
          <ChoiceField
            label="Format"
            value={as}
            onChange={(e) => setAs(e.target.value as 'tif')}
            options={[
              ['tif', 'TIFF, 16 bits'],
              ['jpeg', 'JPEG, 8 bits'],
            ]}
          />
          <ChoiceField
            label="Resolution"
            unit="ppi"
            options={PPI.map((p) => [p, p] as const)}
            value={ppi}
            onChange={(e) => setPpi(e.target.value)}
          />
        </div>
        <TextField
          label="File name"
          unit={`of ${FILE_WORDS.map((w) => `{${w}}`).join(' ')}`}
          maxLength={200}
          value={pattern}
          onChange={(e) => setPattern(e.target.value)}
        />
        <Written space={space} as={as} recipe={at.recipe} />
        <Saving {...{ picture, condition, asked, onClose }} />
      </div>
    </Dialog>
  );
}

/** What will be in the file, and what has to be known of it. */
function Written({ space, as, recipe }: { space: WorkingSpace | ''; as: 'tif' | 'jpeg'; recipe: Recipe }) {
  return (
    <>
      <p>
        {space
          ? `In ${WORKING_SPACES[space].name}, which is embedded, for a lab that asks for it; what the space does not hold is cut at its edge`
          : `In device values of the profile this condition uses, which is embedded; ${RENDERING_NAMES[recipe.rendering]}`}
        ; {recipeLine({ ...recipe, rendering: 'relative' })}; resampled once; the file’s own words are kept. Nothing is
        changed in the picture itself.
      </p>
      {as === 'jpeg' && (
        <p>
          A JPEG keeps 8 bits of each colour and leaves a little out of fine detail: smooth skies and deep shadows may
          step. For a lab that takes nothing else.
        </p>
      )}
      {!space && <p className="font-semibold">Print it with the colour management of the driver off.</p>}
    </>
  );
}

/** The print file, and the sheet that goes to a lab with it. */
function Saving({
  picture,
  condition,
  asked,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionHead;
  asked: Readonly<Record<string, string | number>>;
  onClose: () => void;
}) {
  const query = new URLSearchParams(Object.entries(asked).map(([key, value]) => [key, String(value)])).toString();
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Download
        as="main button"
        href={`/api/pictures/${picture.id}/print-files`}
        body={asked}
        mend={{ to: `/readings/${condition.id}/profile`, words: 'Choose or write a profile of this print condition' }}
      >
        Save the print file
      </Download>
      <Download as="button" href={`/api/pictures/${picture.id}/order.pdf?${query}`}>
        Save the order sheet for a lab
      </Download>
      <QuietButton onClick={onClose}>Cancel</QuietButton>
    </div>
  );
}
