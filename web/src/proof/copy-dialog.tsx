import { useState } from 'react';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { BORDER_STYLES, type BorderStyle } from '@rakuen/core/layout/borders';
import { recipeLine } from '@rakuen/core/proof/recipe';
import { formatNumber } from '@rakuen/core/measurement/show';
import { decimal } from '../parts/decimal.ts';
import { Dialog } from '../parts/dialog.tsx';
import { FileLink } from '../parts/file-link.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { CaptionField } from '../prints/caption-field.tsx';
import type { RecipeAtHand } from './use-recipe.ts';
import { QuietButton } from '../parts/button.tsx';

const PPI = ['300', '360', '720'] as const;

/** The print copy: what is sent to the printer, in device values of the condition's own profile. */
export function CopyDialog({
  picture,
  condition,
  rendering,
  recipe: at,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionHead;
  rendering: string;
  recipe: RecipeAtHand;
  onClose: () => void;
}) {
  const [ppi, setPpi] = useState<string>('360');
  const [border, setBorder] = useState('0');
  const [borders, setBorders] = useState<BorderStyle>('equal');
  const [caption, setCaption] = useState('');
  const [trim, setTrim] = useState(false);
  const { longSideMm } = picture.commission;
  const query = new URLSearchParams({
    conditionId: condition.id,
    rendering,
    ppi,
    ...(at.current && { recipe: at.current.id }),
    ...(decimal(border) > 0 && { border: String(Math.round(decimal(border))), borders }),
    ...(caption.trim() && { caption: caption.trim() }),
    ...(trim && { trim: 'yes' }),
  }).toString();
  return (
    <Dialog
      open
      onClose={onClose}
      title="The print copy"
      description={`${picture.title} for ${condition.paper.name}, ${formatNumber(longSideMm, 0)} mm on its longer side`}
    >
      <div className="space-y-3">
        <ChoiceField
          label="The printer’s resolution"
          unit="ppi"
          options={PPI.map((p) => [p, p] as const)}
          value={ppi}
          onChange={(e) => setPpi(e.target.value)}
        />
        <div className="grid grid-cols-3 gap-3">
          <TextField
            label="Border"
            unit="mm"
            inputMode="numeric"
            value={border}
            onChange={(e) => setBorder(e.target.value)}
          />
          <ChoiceField
            label="Border is"
            value={borders}
            onChange={(e) => setBorders(e.target.value as BorderStyle)}
            options={Object.entries(BORDER_STYLES)}
          />
          <TickField
            className="mt-5"
            label="marks to trim by"
            checked={trim}
            onChange={(e) => setTrim(e.target.checked)}
          />
          <CaptionField className="col-span-3" pictureId={picture.id} value={caption} onChange={setCaption} />
        </div>
        <p>
          A 16-bit TIFF in device values of the profile this condition uses, which is embedded; {rendering} rendering ;{' '}
          {recipeLine(at.recipe)}; resampled once; the file’s own words are kept. Nothing is changed in the picture
          itself.
        </p>
        <p className="font-semibold">Print it with the colour management of the driver off.</p>
        <p className="flex items-center gap-3">
          <FileLink href={`/api/pictures/${picture.id}/copy?${query}`} label="Write the print copy and save it">
            Write it and save it
          </FileLink>
          <QuietButton onClick={onClose}>Leave it</QuietButton>
        </p>
      </div>
    </Dialog>
  );
}
