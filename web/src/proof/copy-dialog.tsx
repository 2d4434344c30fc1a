import { useState } from 'react';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Dialog } from '../parts/dialog.tsx';
import { FileLink } from '../parts/file-link.tsx';
import { ChoiceField } from '../parts/form.tsx';
import { QuietButton } from '../parts/button.tsx';

const PPI = ['300', '360', '720'] as const;

/** The print copy: what is sent to the printer, in device values of the condition's own profile. */
export function CopyDialog({
  picture,
  condition,
  rendering,
  liftStops,
  onClose,
}: {
  picture: PictureView;
  condition: ConditionView;
  rendering: string;
  liftStops: number;
  onClose: () => void;
}) {
  const [ppi, setPpi] = useState<string>('360');
  const { longSideMm } = picture.commission;
  const query = new URLSearchParams({
    conditionId: condition.id,
    rendering,
    ppi,
    lift: String(Math.round(liftStops * 100)),
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
        <p>
          A 16-bit TIFF in device values of the profile this condition uses, which is embedded; {rendering} rendering
          {liftStops > 0 ? `, lifted by ${liftStops} stop` : ''}; resampled once; the file’s own words are kept. Nothing
          is changed in the picture itself.
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
