import type { Rgb } from '../colour/types.ts';

/** One patch to print. */
export interface ChartPatch {
  readonly id: string;
  readonly rgb: Rgb;
}

/**
 * A chart for gamut and neutrals: the device cube's surface as a net of levels × levels, a grey ramp, a few inner colours, and
 * several whites and blacks for repeatability.
 */
export function surfaceChart(levels = 9, greys = 33, repeats = 8): ChartPatch[] {
  const edge = Array.from({ length: levels }, (_, i) => i / (levels - 1));
  const patches: Rgb[] = [];
  const seen = new Set<string>();
  const add = (rgb: Rgb, again = false) => {
    if (!again && seen.has(rgb.join())) return;
    seen.add(rgb.join());
    patches.push(rgb);
  };
  for (const r of edge)
    for (const g of edge) for (const b of edge) if ([r, g, b].some((v) => v === 0 || v === 1)) add([r, g, b]);
  for (let i = 0; i < greys; i++) add([i / (greys - 1), i / (greys - 1), i / (greys - 1)]);
  const inner = [0.25, 0.5, 0.75];
  for (const r of inner) for (const g of inner) for (const b of inner) add([r, g, b]);
  for (let i = 1; i < repeats; i++) {
    add([1, 1, 1], true);
    add([0, 0, 0], true);
    add([0.5, 0.5, 0.5], true);
  }
  return patches.map((rgb, i) => ({ id: `P${String(i + 1).padStart(4, '0')}`, rgb }));
}
