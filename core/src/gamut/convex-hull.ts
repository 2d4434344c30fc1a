import quickHull from 'quickhull3d';
import type { Lab } from '../colour/types.ts';
import { GamutError } from './errors.ts';
import type { GamutMesh } from './mesh.ts';

/**
 * Convex hull of scattered colours.
 * @throws GamutError when the points are fewer than four or lie in one plane
 */
export function convexHull(points: readonly Lab[]): GamutMesh {
  if (points.length < 4) throw new GamutError(`A gamut needs at least four different colours; there are ${points.length}.`);
  let faces: number[][];
  try {
    faces = quickHull(points as Lab[] as [number, number, number][]);
  } catch {
    throw new GamutError('The colours lie on one line or in one plane, so they enclose no gamut. Grey ramps alone are not enough.');
  }
  return { vertices: points, triangles: faces as unknown as [number, number, number][] };
}

/** The colours without repeats (to 0.001), so that repeated white patches don't trouble a hull. */
export function distinct(points: readonly Lab[]): Lab[] {
  const seen = new Map<string, Lab>();
  for (const p of points) {
    const key = `${Math.round(p[0] * 1000)},${Math.round(p[1] * 1000)},${Math.round(p[2] * 1000)}`;
    if (!seen.has(key)) seen.set(key, p);
  }
  return [...seen.values()];
}
