import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { decimal } from '../parts/decimal.ts';
import { Typed } from '../parts/typed.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { QuietButton } from '../parts/button.tsx';
import { LineChoice, optionsOf } from './line-choice.tsx';

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

/** How large a print is drawn. */
const SIZES = { fits: 'as large as fits', print: 'at print size', hanging: 'as large as it will look' } as const;
type Size = keyof typeof SIZES;
/** How far an eye is from a screen on a desk, mm (practice). */
const EYE_TO_SCREEN_MM = '600';

export interface ShownSize {
  readonly choice: Size;
  readonly scale: Scale;
  readonly eyeMm: string;
  /** Width of the picture on the screen, CSS pixels; nothing where it is to fit. */
  readonly widthPx?: number;
  readonly choose: (size: Size) => void;
  readonly setEyeMm: (mm: string) => void;
}

/** The size a print is drawn in: its own, or so that it fills as much of the eye as it will where it hangs. */
export function useShownSize({ commission, widthPx, heightPx }: PictureView): ShownSize {
  const [choice, choose] = useState<Size>('fits');
  const [eyeMm, setEyeMm] = useRemembered('eye-to-screen-mm', EYE_TO_SCREEN_MM);
  const scale = useScreenScale();
  const { longSideMm, viewingMm } = commission;
  const printMm = longSideMm * Math.min(1, widthPx / heightPx);
  const nearer = choice === 'hanging' ? Number(eyeMm) / viewingMm : 1;
  return {
    choice,
    scale,
    eyeMm,
    widthPx: choice === 'fits' ? undefined : (printMm / scale.mmPerPx) * nearer,
    choose,
    setEyeMm,
  };
}

export function SizeLine({ size, viewingMm }: { size: ShownSize; viewingMm: number }) {
  return (
    <>
      <LineChoice
        word="Size"
        label="How large it is drawn"
        value={size.choice}
        options={optionsOf(SIZES)}
        onChoose={size.choose}
      />
      {size.choice === 'hanging' && (
        <>
          <Typed
            label="Your eye to the screen"
            unit="mm"
            inputMode="numeric"
            className="w-44"
            value={size.eyeMm}
            wrong={(text) => (decimal(text) >= 100 && decimal(text) <= 5000 ? undefined : 'From 100 to 5000 mm.')}
            onTyped={(text) => size.setEyeMm(String(decimal(text)))}
          />
          <p className="text-[13px] text-quiet">It hangs {viewingMm} mm from the eye.</p>
        </>
      )}
      {size.choice !== 'fits' && <ScreenScale scale={size.scale} />}
    </>
  );
}
