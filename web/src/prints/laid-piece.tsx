import { useState } from 'react';
import type { PieceInput } from '@rakuen/contract/layouts';
import { BORDER_STYLES, type BorderStyle } from '@rakuen/core/layout/borders';
import { GRAINS, type Grain } from '@rakuen/core/layout/lie';
import { QuietButton } from '../parts/button.tsx';
import { decimal } from '../parts/decimal.ts';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { CaptionField } from './caption-field.tsx';

/** A piece that is laid: its size, its border, its caption, and how it may lie. */
export function LaidPiece({
  piece: p,
  onChange,
  onAway,
}: {
  piece: PieceInput;
  onChange: (what: Partial<PieceInput>) => void;
  onAway: () => void;
}) {
  const number = (name: Dimension, label: string, unit?: string) => (
    <Dimensioned key={name} {...{ name, label, unit, piece: p, onChange }} />
  );
  return (
    <li className="border-b border-line py-2">
      <p className="flex items-baseline justify-between">
        <span className="font-serif">{p.name}</span>
        <QuietButton onClick={onAway} aria-label={`Take ${p.name} off`}>
          Take off
        </QuietButton>
      </p>
      <div className="flex flex-wrap items-start gap-2">
        {number('widthMm', 'Width', 'mm')}
        {number('heightMm', 'Height', 'mm')}
        {number('copies', 'Copies')}
        {number('borderMm', 'Border', 'mm')}
        <ChoiceField
          label="Border is"
          value={p.border}
          onChange={(e) => onChange({ border: e.target.value as BorderStyle })}
          options={Object.entries(BORDER_STYLES)}
        />
        <ChoiceField
          label="Fibres run"
          value={p.grain ?? ''}
          onChange={(e) => onChange({ grain: (e.target.value || undefined) as Grain | undefined })}
          options={[['', 'either way'], ...Object.entries(GRAINS)]}
        />
        <TickField
          label="may lie turned"
          className="mt-6"
          checked={p.mayTurn}
          onChange={(e) => onChange({ mayTurn: e.target.checked })}
        />
        <CaptionField
          pictureId={p.pictureId}
          value={p.caption ?? ''}
          onChange={(caption) => onChange({ caption: caption || undefined })}
          className="min-w-[22ch] flex-1"
        />
      </div>
    </li>
  );
}

type Dimension = 'widthMm' | 'heightMm' | 'copies' | 'borderMm';

/** A number of a piece: what can't be laid is told, and the drawing stays as it was. */
function Dimensioned({
  name,
  label,
  unit,
  piece,
  onChange,
}: {
  name: Dimension;
  label: string;
  unit?: string;
  piece: PieceInput;
  onChange: (what: Partial<PieceInput>) => void;
}) {
  const [wrong, setWrong] = useState(false);
  const least = name === 'borderMm' ? 0 : 1;
  return (
    <TextField
      label={label}
      unit={unit}
      inputMode="decimal"
      defaultValue={piece[name]}
      error={wrong ? `From ${least}` : undefined}
      onBlur={(e) => {
        const value = decimal(e.target.value);
        const fits = e.target.value.trim() !== '' && value >= least;
        setWrong(!fits);
        if (fits) onChange({ [name]: name === 'copies' ? Math.round(value) : value });
      }}
      className="w-20"
    />
  );
}
