import { skipToken } from '@reduxjs/toolkit/query/react';
import { useEffect, useMemo, useState } from 'react';
import type { ConditionHead, ConditionView } from '@rakuen/contract/conditions';
import { SRGB } from '@rakuen/core/colour/rgb-space';
import { formatNumber } from '@rakuen/core/measurement/show';
import { slopesOf, type Slopes } from '@rakuen/core/surface/relief';
import { MOST_TILT_DEG, mirrorTilt, SURFACE_LIGHTS, type SurfaceLight } from '@rakuen/core/surface/sheen';
import { useConditionQuery } from '../api/api.ts';
import { squareOf } from '../parts/scan-square.ts';
import type { SheetSurface } from './proof-canvas.ts';
import { LineChoice } from './line-choice.tsx';

export type SurfaceChoice = 'off' | SurfaceLight;

/** How the sheets are held under which lamp. */
export interface Held {
  readonly choice: SurfaceChoice;
  readonly lampDeg: number;
  readonly tiltDeg: number;
}
export const HANGING: Held = { choice: 'off', lampDeg: 90, tiltDeg: 0 };

/** A square of the sheet that is repeated, mm. */
const SQUARE_MM = 24;
const NOTHING: SheetSurface = { metallic: false };
/** Light of each byte of a scan, which is kept in sRGB's tone curve. */
const LIGHT_OF_BYTE = Float32Array.from({ length: 256 }, (_, i) => SRGB.decode(i / 255));

const gu = (condition: ConditionView, key: string): number | undefined => {
  const figure = condition.facts?.figures[key];
  return figure?.shape === 'scalar' ? figure.value : undefined;
};

/** What is known of the surface of a sheet, fetched once it is drawn. */
export function useSurface({ id }: ConditionHead, drawn: boolean): { surface: SheetSurface; whole?: ConditionView } {
  const { data: whole } = useConditionQuery(drawn ? id : skipToken);
  const scan = whole && [...whole.observations].reverse().find((o) => o.scanHash);
  const { ppi = 300 }: { ppi?: number } = scan?.value ?? {};
  const [slopes, setSlopes] = useState<{ of: string; slopes: Slopes }>();
  const scanId = scan?.id;
  useEffect(() => {
    if (!scanId) return;
    let live = true;
    const image = new Image();
    image.onload = () => {
      const { size, codes } = squareOf(image, ppi, SQUARE_MM);
      if (live)
        setSlopes({
          of: scanId,
          slopes: slopesOf(
            Float32Array.from(codes, (v) => LIGHT_OF_BYTE[v]),
            size,
            ppi,
          ),
        });
    };
    image.src = `/api/observations/${scanId}/scan`;
    return () => void (live = false);
  }, [scanId, ppi]);
  const surface = useMemo<SheetSurface>(() => {
    if (!whole) return NOTHING;
    const [white, black] = [gu(whole, 'gloss60'), gu(whole, 'glossBlack')];
    return {
      slopes: slopes?.of === scanId ? slopes?.slopes : undefined,
      gloss: white === undefined ? undefined : { white, black: black ?? white },
      metallic: whole.paper.coating === 'metallic',
    };
  }, [whole, slopes, scanId]);
  return { surface, whole };
}

/** What of a sheet's surface is drawn, what is not, and why. */
function wordsOf(condition: ConditionView): string {
  const [white, black, bronzing] = ['gloss60', 'glossBlack', 'bronzing'].map((key) => gu(condition, key));
  const scanned = condition.observations.some((o) => o.scanHash);
  return [
    scanned ? 'texture from its scan' : 'no texture, it was not scanned',
    white === undefined
      ? 'no sheen, its gloss was not read'
      : `sheen from ${formatNumber(white, 1)} GU at 60°${black === undefined ? ', black not read and taken alike' : `, black ${formatNumber(black, 1)} GU`} (measured)`,
    condition.paper.coating === 'metallic' ? 'its flake, an estimate of ours' : undefined,
    bronzing === undefined || bronzing === 0
      ? undefined
      : `bronzing was judged ${formatNumber(bronzing, 0)} of 4 and is not drawn`,
  ]
    .filter(Boolean)
    .join(', ');
}

/** The sheets' own surface: off, in natural or raking light; the lamp is moved about them, and they are tilted towards it. */
/** In which light the sheets' own surface is drawn. */
const SURFACES: readonly (readonly [SurfaceChoice, string])[] = [
  ['off', 'not drawn'],
  ...(Object.keys(SURFACE_LIGHTS) as SurfaceLight[]).map(
    (key) => [key, `in ${SURFACE_LIGHTS[key].name} light`] as const,
  ),
];

export function SurfaceLine({
  held,
  onHeld,
  sheets,
}: {
  held: Held;
  onHeld: (held: Held) => void;
  sheets: readonly ConditionView[];
}) {
  const { choice, lampDeg, tiltDeg } = held;
  return (
    <>
      <LineChoice
        word="Surface"
        label="Surface of the sheets"
        value={choice}
        options={SURFACES}
        onChoose={(next) => onHeld({ ...held, choice: next })}
      />
      {choice !== 'off' && (
        <>
          <div className="flex basis-full flex-wrap items-center gap-x-6">
            <Turned
              name="Lamp from"
              value={lampDeg}
              least={0}
              most={355}
              step={5}
              onTurn={(v) => onHeld({ ...held, lampDeg: v })}
            />
            <Turned
              name="Tilted to it"
              value={tiltDeg}
              least={-MOST_TILT_DEG}
              most={MOST_TILT_DEG}
              step={1}
              onTurn={(v) => onHeld({ ...held, tiltDeg: v })}
            />
          </div>
          <p role="status" className="basis-full text-[13px]">
            {sheets.map((s) => `${s.paper.name}: ${wordsOf(s)}`).join('; ')}. Tilted {mirrorTilt(choice)}° the lamp is
            mirrored into the eye. One lamp and one gloss angle tell no whole surface: this is an estimate.
          </p>
        </>
      )}
    </>
  );
}

function Turned({
  name,
  value,
  least,
  most,
  step,
  onTurn,
}: {
  name: string;
  value: number;
  least: number;
  most: number;
  step: number;
  onTurn: (value: number) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <span className="min-w-[13ch] whitespace-nowrap tabular-nums">
        {name} {formatNumber(value, 0)}°
      </span>
      <input
        type="range"
        className="w-40 accent-ink"
        aria-label={`${name}, degrees`}
        min={least}
        max={most}
        step={step}
        value={value}
        onChange={(e) => onTurn(Number(e.target.value))}
      />
    </label>
  );
}
