import { useEffect, useRef, useState } from 'react';
import { Slider } from 'radix-ui';
import type { ObservationView } from '@rakuen/contract/observations';
import {
  bronzing,
  blockedRings,
  hairlines,
  rubAfterADay,
  rubAfterMinutes,
} from '@rakuen/core/measurement/measures/graded';
import { bulk, thickness, weight } from '@rakuen/core/measurement/measures/body';
import { gloss20, gloss60, gloss85, glossDifferential } from '@rakuen/core/measurement/measures/gloss';
import { opacity } from '@rakuen/core/measurement/measures/opacity';
import { textureAmplitude, textureWavelength } from '@rakuen/core/measurement/measures/texture';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Claimed, Measured } from '../parts/figure.tsx';
import { claimOf } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { screenColour } from '../parts/screen-colour.ts';
import type { CompareProps } from './compare-props.ts';
import type { Relief } from '@rakuen/core/surface/relief';
import { heightsOf, relit } from './relief.ts';
import type { LitCondition } from './use-light.ts';

const ROWS: readonly Measure[] = [
  gloss20,
  gloss60,
  gloss85,
  glossDifferential,
  bronzing,
  rubAfterMinutes,
  rubAfterADay,
  blockedRings,
  hairlines,
  textureWavelength,
  textureAmplitude,
  weight,
  thickness,
  bulk,
  opacity,
];

/**
 * Sheets from the side at true relative thickness, their surface under a lamp that can be moved, and what was measured
 * and judged of both.
 */
export function SurfacePlace({ laid }: CompareProps) {
  return (
    <div className="space-y-8">
      <SideView laid={laid} />
      <Textures laid={laid} />
      <section aria-label="Surface and body, figures">
        <div
          className="scroll-quiet overflow-x-auto"
          tabIndex={0}
          role="region"
          aria-label="Figures of surface and body"
        >
          <table className="w-full border-t border-edge whitespace-nowrap">
            <thead>
              <tr className="text-left">
                <th scope="col" className="sr-only">
                  Measure
                </th>
                {laid.map((c, i) => (
                  <th key={c.id} scope="col" className="py-1 pr-4 font-serif font-normal">
                    <b>{MARKS[i].letter}</b> {c.paper.name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {ROWS.map((m) => (
                <tr key={m.key} className="border-t border-line">
                  <th scope="row" className="py-1 pr-4 text-left font-normal" title={m.definition}>
                    {m.name}
                  </th>
                  {laid.map((c) => (
                    <td key={c.id} className="py-1 pr-4">
                      <Measured measure={m} condition={c} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </section>
    </div>
  );
}

/** Pixels a µm: a heavy sheet stands as high as a finger. */
const PX_PER_UM = 0.12;

function SideView({ laid }: { laid: LitCondition[] }) {
  return (
    <section aria-label="From the side">
      <h3 className="text-[1.1rem]">From the side</h3>
      <p className="mb-2 text-[13px] text-quiet">
        Each edge {formatNumber(PX_PER_UM * 1000, 0)} px to the millimetre: as thick as the others make it look. The
        micrometer’s word where there is one, else the maker’s.
      </p>
      <ul className="grid grid-cols-[auto_1fr] items-end gap-x-5 gap-y-2">
        {laid.map((c, i) => {
          const measured = c.facts?.figures.thickness;
          const um = measured?.shape === 'scalar' ? measured.value : c.paper.thicknessUm;
          const white = c.facts?.figures.white;
          return (
            <li key={c.id} className="contents">
              <p>
                <b className="font-serif">{MARKS[i].letter}</b> <span className="font-serif">{c.paper.name}</span>
              </p>
              <div className="flex items-end gap-4">
                <span
                  aria-hidden
                  className="block w-full max-w-[440px] border-x border-edge"
                  style={{
                    height: Math.max(2, (um ?? 0) * PX_PER_UM),
                    background: white?.shape === 'colour' ? screenColour(white.lab).css : 'var(--field)',
                    borderTop: '1px solid var(--ink)',
                    borderBottom: '1px solid var(--ink)',
                  }}
                />
                <span className="text-[13px] whitespace-nowrap">
                  {measured?.shape === 'scalar' ? (
                    <Measured measure={thickness} condition={c} />
                  ) : (
                    <Claimed>{claimOf(thickness, c.paper)}</Claimed>
                  )}
                  {', '}
                  {c.facts?.figures.weight?.shape === 'scalar' ? (
                    <Measured measure={weight} condition={c} />
                  ) : (
                    <Claimed>{claimOf(weight, c.paper)}</Claimed>
                  )}
                  {', '}
                  {c.facts?.figures.bulk?.shape === 'scalar' ? (
                    <Measured measure={bulk} condition={c} />
                  ) : (
                    <Claimed>{claimOf(bulk, c.paper)}</Claimed>
                  )}
                </span>
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const LAMP = { start: 0, height: 15 };
const SHOWN_MM = 12;
const SHOWN_PX = 220;

const scanOf = (c: LitCondition): ObservationView | undefined => [...c.observations].reverse().find((o) => o.scanHash);

/** Scans side by side at one scale, relit from a height guessed from each. */
function Textures({ laid }: { laid: LitCondition[] }) {
  const [lamp, setLamp] = useState(LAMP.start);
  const scanned = laid.flatMap((c, i) => {
    const scan = scanOf(c);
    return scan ? [{ condition: c, scan, letter: MARKS[i].letter }] : [];
  });
  return (
    <section aria-label="Texture under a lamp">
      <h3 className="text-[1.1rem]">Texture under a lamp</h3>
      {scanned.length === 0 ? (
        <p className="text-quiet">
          None of these sheets was scanned. At the bench, a scan under a raking lamp is brought or made.
        </p>
      ) : (
        <>
          <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
            {SHOWN_MM} mm of each sheet at one scale and one contrast, relit from a height estimated from its scan (a
            slope towards the lamp is lighter; one lamp tells slopes along its own direction alone, so this is an
            estimate).
          </p>
          <div className="mb-3 flex items-center gap-4">
            <span id="lamp" className="whitespace-nowrap">
              Lamp from {formatNumber(lamp, 0)}°
            </span>
            <Slider.Root
              className="relative flex h-6 w-72 touch-none items-center"
              min={0}
              max={355}
              step={5}
              value={[lamp]}
              onValueChange={([v]) => setLamp(v)}
            >
              <Slider.Track className="relative h-1 w-full bg-edge">
                <Slider.Range className="absolute h-full bg-ink" />
              </Slider.Track>
              <Slider.Thumb aria-labelledby="lamp" className="block size-5 rounded-full border-2 border-ink bg-field" />
            </Slider.Root>
          </div>
          <ul className="flex flex-wrap gap-5">
            {scanned.map(({ condition, scan, letter }) => (
              <li key={condition.id}>
                <Relit scan={scan} lampDeg={lamp} name={condition.paper.name} />
                <p className="mt-1">
                  <b className="font-serif">{letter}</b> <span className="font-serif">{condition.paper.name}</span>
                </p>
                <p className="text-[12.5px] text-quiet">
                  <Measured measure={textureWavelength} condition={condition} />,{' '}
                  <Measured measure={textureAmplitude} condition={condition} />
                </p>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Relit({ scan, lampDeg, name }: { scan: ObservationView; lampDeg: number; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [relief, setRelief] = useState<Relief>();
  const ppi = (scan.value as { ppi?: number }).ppi ?? 300;
  useEffect(() => {
    let live = true;
    const image = new Image();
    image.onload = () => live && setRelief(heightsOf(image, ppi, SHOWN_MM));
    image.src = `/api/observations/${scan.id}/scan`;
    return () => void (live = false);
  }, [scan.id, ppi]);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (context && relief) context.putImageData(relit(relief, lampDeg), 0, 0);
  }, [relief, lampDeg]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={`${name}, ${SHOWN_MM} mm of its surface lit from ${lampDeg}°`}
      width={relief?.size ?? 64}
      height={relief?.size ?? 64}
      style={{ width: SHOWN_PX, height: SHOWN_PX }}
      className="border border-line"
    />
  );
}
