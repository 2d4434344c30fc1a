import { halton } from '../halton.ts';
import type { Rgb } from '../colour/types.ts';
import { toRgb16, type Rgb16 } from './device16.ts';
import { CHART_PURPOSES, type AskedPatch, type ChartPurpose, type PatchRole } from './purposes.ts';

/** Fewest places along an edge of the cube that still make a gamut surface worth measuring, and most that pay. */
const LEVELS = { least: 5, most: 17 } as const;
const FEWEST_GREYS = 21;

/** Patches of a net of levels × levels on all six faces, edges shared. */
const surfaceCount = (levels: number) => 6 * levels ** 2 - 12 * levels + 8;

export interface DistinctPatch {
  readonly rgb16: Rgb16;
  readonly role: PatchRole;
}

/**
 * The distinct colours a chart holds for its purpose: never fewer than the purpose needs, then up to `wanted`, first by a denser surface,
 * then inside the cube (Halton's sequence, so that any count is spread evenly). White and black are among them.
 */
export function askedPatches(
  purpose: ChartPurpose,
  wanted: number,
): { patches: DistinctPatch[]; surfaceLevels: number } {
  const { greys, extras, surfaceShare } = CHART_PURPOSES[purpose];
  // A control chart is no chart for figures: white, black and its most telling patches, and no net of the cube.
  if (purpose === 'control') return { patches: distinct(Math.max(2, wanted), extras()), surfaceLevels: 0 };
  const greyCount = Math.max(FEWEST_GREYS, greys);
  const basics = greyCount + extras().length;
  const room = wanted - basics - surfaceCount(LEVELS.least);
  let levels: number = LEVELS.least;
  while (levels < LEVELS.most && surfaceCount(levels + 1) - surfaceCount(LEVELS.least) <= room * surfaceShare) levels++;

  const asked: AskedPatch[] = [];
  const add = (patch: AskedPatch) => void asked.push(patch);
  const edge = Array.from({ length: levels }, (_, i) => i / (levels - 1));
  for (const r of edge)
    for (const g of edge)
      for (const b of edge) if ([r, g, b].some((v) => v === 0 || v === 1)) add({ rgb: [r, g, b], role: 'surface' });
  for (let i = 0; i < greyCount; i++)
    add({ rgb: [i / (greyCount - 1), i / (greyCount - 1), i / (greyCount - 1)], role: 'grey' });
  extras().forEach(add);
  return { patches: distinct(wanted, asked, Infinity), surfaceLevels: levels };
}

/** White, black and what is asked for, each once, filled up inside the cube. @param most of what is asked for, at most so many */
function distinct(wanted: number, asked: readonly AskedPatch[], most = wanted): DistinctPatch[] {
  const patches = new Map<string, DistinctPatch>();
  const add = ({ rgb, role }: AskedPatch) => {
    const rgb16 = toRgb16(rgb);
    if (patches.size < most && !patches.has(rgb16.join())) patches.set(rgb16.join(), { rgb16, role });
  };
  add({ rgb: [1, 1, 1], role: 'white' });
  add({ rgb: [0, 0, 0], role: 'black' });
  asked.forEach(add);
  for (let i = 1; patches.size < wanted; i++)
    add({ rgb: [halton(i, 2), halton(i, 3), halton(i, 5)] satisfies Rgb, role: 'inner' });
  return [...patches.values()];
}
