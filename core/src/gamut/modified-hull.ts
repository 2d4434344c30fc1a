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
  const centre = centreOf(colours);
  const radius = (p: Lab) => Math.hypot(p[0] - centre[0], p[1] - centre[1], p[2] - centre[2]);
  const longest = colours.reduce((most, p) => Math.max(most, radius(p)), 0);
  const outside = colours.filter((p) => radius(p) > 1e-6);
  const moved = outside.map((p): Lab => {
    const r = radius(p);
    const scale = (longest * (r / longest) ** exponent) / r;
    return [centre[0] + (p[0] - centre[0]) * scale, centre[1] + (p[1] - centre[1]) * scale, centre[2] + (p[2] - centre[2]) * scale];
  });
  return compact({ vertices: outside, triangles: convexHull(moved).triangles });
}

/** Drops the vertices no triangle uses. */
function compact(mesh: GamutMesh): GamutMesh {
  const number = new Map<number, number>();
  const vertices: Lab[] = [];
  const keep = (i: number) => {
    let n = number.get(i);
    if (n === undefined) {
      n = vertices.push(mesh.vertices[i]) - 1;
      number.set(i, n);
    }
    return n;
  };
  return { triangles: mesh.triangles.map(([i, j, k]) => [keep(i), keep(j), keep(k)] as const), vertices };
}
