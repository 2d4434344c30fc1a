import type { Lab } from './types.ts';
import { chroma, hueDegrees } from './lab.ts';

/** Hue families by CIELAB hue angle, upper bound in degrees. The bounds are ours; the words are a printmaker's. */
const FAMILIES: readonly (readonly [upTo: number, name: string])[] = [
  [18, 'pinks'],
  [45, 'reds'],
  [72, 'oranges'],
  [102, 'yellows'],
  [130, 'yellow-greens'],
  [175, 'greens'],
  [215, 'blue-greens'],
  [250, 'sky blues'],
  // CIELAB bends blue towards violet: a pure screen blue lies at 301°.
  [310, 'blues'],
  [330, 'violets'],
  [352, 'magentas'],
  [361, 'pinks'],
];

/** A printmaker's word for a colour: "deep blues", "light yellows", "dark greys". */
export function colourWords(lab: Lab): string {
  const depth = lab[0] < 30 ? 'deep ' : lab[0] > 75 ? 'light ' : '';
  if (chroma(lab) < 8) return `${depth === 'deep ' ? 'dark ' : depth}greys`;
  return depth + hueFamily(lab);
}

/** The family of a colour's hue, whatever its depth. */
export function hueFamily(lab: Lab): string {
  const h = hueDegrees(lab);
  return FAMILIES.find(([upTo]) => h < upTo)![1];
}
