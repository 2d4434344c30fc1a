import { useState } from 'react';
import { useRemembered } from '../parts/remembered.ts';
import { QuietButton } from '../parts/button.tsx';

/** A bank card is as wide as this everywhere (ISO/IEC 7810, ID-1). */
const CARD_MM = 85.6;
/** What a screen is taken for until somebody lays a card on it: 96 px an inch. */
const USUAL = 25.4 / 96;

export interface Scale {
  readonly mmPerPx: number;
  readonly known: boolean;
  readonly set: (mmPerPx: number) => void;
}

/** How large a pixel of this screen is: set once, by laying a card on it. */
export function useScreenScale(): Scale {
  const [value, set] = useRemembered('mm-per-px', '');
  const mmPerPx = Number(value) || USUAL;
  return { mmPerPx, known: value !== '', set: (mm) => set(String(mm)) };
}

export function ScreenScale({ scale }: { scale: Scale }) {
  const [laying, setLaying] = useState(false);
  if (!laying)
    return (
      <QuietButton onClick={() => setLaying(true)}>
        {scale.known ? 'Set the screen’s scale again' : 'Not true to size yet: lay a card on the screen'}
      </QuietButton>
    );
  return (
    <div className="w-full border border-edge p-3">
      <label className="block">
        Lay a bank card on the screen and draw the frame as wide as it is.
        <input
          type="range"
          min={150}
          max={700}
          value={Math.round(CARD_MM / scale.mmPerPx)}
          onChange={(e) => scale.set(CARD_MM / Number(e.target.value))}
          className="block w-full accent-ink"
        />
      </label>
      <div className="mt-2 h-24 border-2 border-ink" style={{ width: CARD_MM / scale.mmPerPx }} />
      <QuietButton className="-ml-1.5" onClick={() => setLaying(false)}>
        That is it
      </QuietButton>
    </div>
  );
}
