import { useId } from 'react';
import type { FactsHead } from '@rakuen/contract/conditions';
import type { PaperHead } from '@rakuen/contract/papers';
import type { Lab } from '@rakuen/core/colour/types';
import { greyAt, type Grey } from '@rakuen/core/measurement/neutral-ramp';
import { COATING_CLASSES } from '@rakuen/core/paper';
import { screenColour } from './screen-colour.ts';

const SIZES = { small: [120, 24], middle: [200, 34], large: [340, 52] } as const;

/** What a strip is drawn from. */
type StripFacts = Pick<FactsHead, 'greys'> & {
  ramp?: readonly Grey[];
  figures: Pick<FactsHead['figures'], 'white' | 'black' | 'brightenerShift'>;
};

/** Greatest values the drawing has room for. */
const FULL_THICKNESS_UM = 600;
const FULL_FRINGE_DELTA_B = 12;
const RAMP_STEPS = 24;

/**
 * A paper at a glance. Along a sheet of its true white runs the neutral ramp from measured white to measured black. Below it the
 * sheet's edge: its height is the thickness, its line the texture. A band along the top is the gloss; a fringe under the white is the
 * brightener. Nothing measured yet: empty and hatched.
 */
export function Strip({
  paper,
  facts,
  size = 'middle',
}: {
  paper: PaperHead;
  facts?: StripFacts;
  size?: keyof typeof SIZES;
}) {
  const [width, height] = SIZES[size];
  const sheetHeight = Math.round(height * 0.6);
  // A sheet nobody said the thickness of is drawn as a hairline.
  const edge = Math.max(1, (height * 0.22 * Math.min(paper.thicknessUm ?? 0, FULL_THICKNESS_UM)) / FULL_THICKNESS_UM);
  const whiteWidth = Math.round(width * 0.22);
  const { white, black, brightenerShift } = facts?.figures ?? {};
  const measured = white?.shape === 'colour' && black?.shape === 'colour';
  const shift = brightenerShift?.shape === 'scalar' ? Math.max(0, brightenerShift.value) : 0;
  const estimated = brightenerShift?.shape === 'scalar' && brightenerShift.between !== undefined;
  const fringe = Math.min(1, shift / FULL_FRINGE_DELTA_B) * (height - sheetHeight - edge - 1);
  const sheen = paper.coating ? COATING_CLASSES[paper.coating].sheen : 0;
  const colours = measured ? rampColours(facts!, white.lab, black.lab) : [];
  const words = measured
    ? wordsOf(paper, white.lab, black.lab, shift, estimated)
    : `${paper.name}: nothing measured yet`;
  const stepWidth = (width - whiteWidth) / colours.length;

  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={words}
      className={`block overflow-visible ${size === 'large' ? 'h-auto max-w-full' : 'shrink-0'}`}
    >
      <title>{words}</title>
      {measured ? (
        <>
          <rect width={width} height={sheetHeight} fill={screenColour(white.lab).css} />
          {colours.map((css, i) => (
            // Half a pixel of overlap, or the surround shines through between the steps.
            <rect key={i} x={whiteWidth + i * stepWidth} width={stepWidth + 0.5} height={sheetHeight} fill={css} />
          ))}
          {sheen > 0 && (
            <rect y={1} width={width} height={sheetHeight * 0.3 * sheen} fill="#fff" opacity={0.16 + 0.3 * sheen} />
          )}
        </>
      ) : (
        <Unread width={width} height={sheetHeight} />
      )}
      <path d={edgePath(paper.surface, width, sheetHeight, edge)} fill="#131313" />
      {fringe > 0.5 && (
        <path
          d={Array.from(
            { length: Math.floor(whiteWidth / 3) },
            (_, i) => `M${i * 3 + 1.5} ${sheetHeight + edge + 1}v${fringe.toFixed(1)}`,
          ).join('')}
          stroke="#131313"
          strokeWidth={1}
          // What is only estimated is drawn broken.
          strokeDasharray={estimated ? '1.5 1.5' : undefined}
        />
      )}
    </svg>
  );
}

function wordsOf(paper: PaperHead, white: Lab, black: Lab, shift: number, estimated: boolean): string {
  const said = [
    `white L* ${white[0].toFixed(0)}`,
    `black L* ${black[0].toFixed(0)}`,
    paper.thicknessUm && `${paper.thicknessUm} µm`,
    paper.surface,
    shift >= 0.5 && `brightener ${estimated ? 'about ' : ''}${shift.toFixed(1)} Δb*${estimated ? ', estimated' : ''}`,
  ];
  return `${paper.name}: ${said.filter(Boolean).join(', ')}`;
}

/** Empty and hatched. */
function Unread({ width, height }: { width: number; height: number }) {
  const hatch = useId();
  return (
    <>
      <defs>
        <pattern id={hatch} width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1={0} x2={0} y1={0} y2={6} stroke="var(--edge)" strokeWidth={1} />
        </pattern>
      </defs>
      <rect x={0.5} y={0.5} width={width - 1} height={height - 1} fill={`url(#${hatch})`} stroke="var(--edge)" />
    </>
  );
}

function rampColours(
  facts: StripFacts,
  white: readonly [number, number, number],
  black: readonly [number, number, number],
): string[] {
  const greys = facts.ramp ?? facts.greys?.map((lab, i, all): Grey => ({ step: i / (all.length - 1), lab }));
  const ramp = greys && greys.length > 4 ? greys : undefined;
  return Array.from({ length: RAMP_STEPS }, (_, i) => {
    const t = i / (RAMP_STEPS - 1);
    // Without a ramp of readings the drawing runs straight from white to black.
    if (!ramp)
      return screenColour([
        white[0] + (black[0] - white[0]) * t,
        white[1] + (black[1] - white[1]) * t,
        white[2] + (black[2] - white[2]) * t,
      ]).css;
    return screenColour(greyAt(ramp, 1 - t)).css;
  });
}

/** The sheet's edge: still for a smooth surface, finely or roughly broken for a toothed one. */
function edgePath(surface: PaperHead['surface'] = 'smooth', width: number, y: number, thickness: number): string {
  const bottom = y + thickness;
  const wave = { 'ultra smooth': 0, smooth: 0, 'fine tooth': 0.7, textured: 1.2, rough: 1.9 }[surface];
  const pitch = { 'ultra smooth': 1, smooth: 1, 'fine tooth': 2.5, textured: 4, rough: 6 }[surface];
  if (wave === 0) return `M0 ${y}H${width}V${bottom}H0Z`;
  let path = `M0 ${y}H${width}V${bottom}`;
  for (let x = width, i = 0; x > 0; x -= pitch, i++)
    path += `L${Math.max(0, x - pitch / 2).toFixed(1)} ${(bottom + (i % 2 ? wave : 0)).toFixed(1)}`;
  return `${path}L0 ${bottom}Z`;
}

/** What the drawing says, for the legend. */
export const STRIP_LEGEND: readonly (readonly [part: string, meaning: string])[] = [
  ['The sheet, left', 'the paper’s white as measured'],
  ['Towards the right', 'its neutral ramp, down to its measured black'],
  ['A light band along the top', 'gloss, by coating class as claimed'],
  ['The dark edge below', 'thickness in proportion, as claimed; still for smooth, broken for toothed'],
  ['The fringe under the white', 'brightener: its length is Δb* between M1 and M2'],
  ['Hatched', 'nothing measured yet'],
];
