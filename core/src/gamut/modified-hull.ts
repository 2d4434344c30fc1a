import type { Lab } from '../colour/types.ts';
import { convexHull, distinct } from './convex-hull.ts';
import { centreOf, type GamutMesh } from './mesh.ts';

/**
 * Exponent of the radial expansion. 1 is the plain convex hull; towards 0 every colour becomes a corner and readings inside the
 * gamut dent the surface. Chosen against the device-cube surface of the same simulated printers (see the test beside this file).
 */
export const HULL_EXPONENT = 0.2;

/**
 * Gamut boundary of scattered colours that keeps mild concavities: the modified convex hull of Balasubramanian & Dalal (1997),
 * "A method for quantifying the color gamut of an output device". Each colour is moved along its ray from the centre to
 * R·(r/R)^γ, the convex hull of the moved colours is taken, and its triangles are hung on the colours where they really are.
 * Directions are kept, so the surface is star-shaped about the centre and never crosses itself.
 *
 * @param points CIELAB of any number of readings; those inside the gamut do no harm
 * @throws GamutError when the colours enclose no volume
 */
export function modifiedHull(points: readonly Lab[], exponent: number = HULL_EXPONENT): GamutMesh {
  const colours = distinct(points);
  const [cL, ca, cb] = centreOf(colours);
  const radii = new Float64Array(colours.length);
  let longest = 0;
  colours.forEach((p, i) => {
    radii[i] = Math.sqrt((p[0] - cL) ** 2 + (p[1] - ca) ** 2 + (p[2] - cb) ** 2);
    if (radii[i] > longest) longest = radii[i];
  });
  const outside: Lab[] = [];
  const moved: Lab[] = [];
  for (let i = 0; i < colours.length; i++) {
    const r = radii[i]!;
    if (r <= 1e-6) continue;
    const p = colours[i]!;
    const scale = (longest * (r / longest) ** exponent) / r;
    outside.push(p);
    moved.push([cL + (p[0] - cL) * scale, ca + (p[1] - ca) * scale, cb + (p[2] - cb) * scale]);
  }
  return compact(outside, convexHull(moved).triangles);
}

/** Drops the vertices no triangle uses. */
function compact(vertices: readonly Lab[], triangles: GamutMesh['triangles']): GamutMesh {
  const number = new Int32Array(vertices.length).fill(-1);
  const kept: Lab[] = [];
  const keep = (i: number) => (number[i]! >= 0 ? number[i]! : (number[i] = kept.push(vertices[i]!) - 1));
  return { triangles: triangles.map(([i, j, k]) => [keep(i), keep(j), keep(k)] as const), vertices: kept };
}
