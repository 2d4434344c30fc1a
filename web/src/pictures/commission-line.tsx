import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { GLASSES } from '@rakuen/core/light/glass';
import { FORMATS, VETOES } from '@rakuen/core/match/commission';
import { aspectOf } from '@rakuen/core/picture/aspect';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useLight } from '../compare/use-light.ts';
import { QuietButton } from '../parts/button.tsx';
import { CommissionDialog } from './commission-dialog.tsx';

/** Where a picture will hang, in a line; a click changes it. */
export function CommissionLine({ picture }: { picture: PictureView }) {
  const { lights } = useLight();
  const [editing, setEditing] = useState(false);
  const c = picture.commission;
  const short = c.shortSideMm ?? c.longSideMm * aspectOf(picture);
  const parts = [
    `${formatNumber(c.longSideMm, 0)} × ${formatNumber(short, 0)} mm`,
    ...(c.format ? [FORMATS[c.format]] : []),
    c.editionOf ? `edition of ${c.editionOf}` : c.copies > 1 ? `${c.copies} copies, open` : 'open edition',
    c.handled ? 'handled' : 'on a wall',
    GLASSES.find((g) => g.key === c.glass)?.name ?? c.glass,
    `${lights.find((l) => l.key === c.light)?.name ?? 'a removed lamp'}, ${formatNumber(c.lux, 0)} lx`,
    `seen from ${formatNumber(c.viewingMm / 10, 0)} cm`,
    ...(c.priceClass && c.priceClass !== 'standard'
      ? [c.priceClass === 'best' ? 'price does not count' : 'economical']
      : []),
    ...(c.mustLast ? ['to last'] : []),
    ...c.vetoes.map((v) => VETOES[v]),
    ...(c.originalGround ? ['a reproduction'] : []),
    ...(c.signedOffBy ? [`${c.signedOffBy} signs it off`] : []),
    ...(c.deadline ? [`by ${c.deadline}`] : []),
  ];
  return (
    <p className="leading-snug">
      <span className="font-serif">Where it will hang</span>{' '}
      {!picture.commissioned && <em className="text-quiet">(not set; assumed)</em>} {parts.join(' · ')}{' '}
      <QuietButton onClick={() => setEditing(true)}>Change</QuietButton>
      {editing && <CommissionDialog picture={picture} onClose={() => setEditing(false)} />}
    </p>
  );
}
