import type { Lab } from '../colour/types.ts';
import type { GamutMesh } from './mesh.ts';

/** A gamut made ready for questions: is this colour inside, and if not, which colour of the surface is nearest? */
export interface MeshIndex {
  contains(lab: Lab): boolean;
  /** Nearest colour of the surface by ΔE*ab, and that distance. */
  nearest(lab: Lab): { readonly lab: Lab; readonly distance: number };
}

interface Node {
  readonly low: Lab;
  readonly high: Lab;
  readonly triangles?: readonly number[];
  readonly left?: Node;
  readonly right?: Node;
}

const LEAF_SIZE = 6;

/** Builds a bounding-volume tree over the triangles; both questions then look at few of them. */
export function indexMesh(mesh: GamutMesh): MeshIndex {
  const { vertices, triangles } = mesh;
  const middles = triangles.map(([i, j, k]): Lab => {
    const [p, q, r] = [vertices[i]!, vertices[j]!, vertices[k]!];
    return [(p[0] + q[0] + r[0]) / 3, (p[1] + q[1] + r[1]) / 3, (p[2] + q[2] + r[2]) / 3];
  });

  const build = (list: number[]): Node => {
    const low: [number, number, number] = [Infinity, Infinity, Infinity];
    const high: [number, number, number] = [-Infinity, -Infinity, -Infinity];
    for (const t of list) {
      for (const v of triangles[t]!) {
        for (let c = 0; c < 3; c++) {
          if (vertices[v]![c]! < low[c]!) low[c] = vertices[v]![c]!;
          if (vertices[v]![c]! > high[c]!) high[c] = vertices[v]![c]!;
        }
      }
    }
    if (list.length <= LEAF_SIZE) return { low, high, triangles: list };
    const extent = high.map((h, c) => h - low[c]!);
    const axis = extent.indexOf(Math.max(...extent));
    list.sort((s, t) => middles[s]![axis]! - middles[t]![axis]!);
    const half = list.length >> 1;
    return { low, high, left: build(list.slice(0, half)), right: build(list.slice(half)) };
  };
  const root = build(triangles.map((_, t) => t));

  return {
    contains: (lab) => crossings(root, mesh, lab) % 2 === 1,
    nearest(lab) {
      let best: Lab = vertices[0]!;
      let bestSquared = Infinity;
      const visit = (node: Node): void => {
        if (boxDistanceSquared(node, lab) >= bestSquared) return;
        if (node.triangles) {
          for (const t of node.triangles) {
            const [i, j, k] = triangles[t]!;
            const point = nearestOnTriangle(lab, vertices[i]!, vertices[j]!, vertices[k]!);
            const d = squared(lab, point);
            if (d < bestSquared) {
              bestSquared = d;
              best = point;
            }
          }
          return;
        }
        const [near, far] =
          boxDistanceSquared(node.left!, lab) <= boxDistanceSquared(node.right!, lab)
            ? [node.left!, node.right!]
            : [node.right!, node.left!];
        visit(near);
        visit(far);
      };
      visit(root);
      return { lab: best, distance: Math.sqrt(bestSquared) };
    },
  };
}

/** Direction of the counting ray: no multiple of any axis, so that it does not run along the edges of a grid. */
const RAY: Lab = [0.6180339, 0.5257311, 0.5846012];

function crossings(root: Node, mesh: GamutMesh, p: Lab): number {
  let count = 0;
  const visit = (node: Node): void => {
    if (!rayMeetsBox(node, p)) return;
    if (node.triangles) {
      for (const t of node.triangles) {
        const [i, j, k] = mesh.triangles[t]!;
        if (rayMeetsTriangle(p, mesh.vertices[i]!, mesh.vertices[j]!, mesh.vertices[k]!)) count++;
      }
      return;
    }
    visit(node.left!);
    visit(node.right!);
  };
  visit(root);
  return count;
}

function rayMeetsBox(node: Node, p: Lab): boolean {
  let from = 0;
  let to = Infinity;
  for (let c = 0; c < 3; c++) {
    // All components of RAY are positive, so low comes before high.
    from = Math.max(from, (node.low[c]! - p[c]!) / RAY[c]!);
    to = Math.min(to, (node.high[c]! - p[c]!) / RAY[c]!);
  }
  return from <= to;
}

/** Möller & Trumbore (1997). */
function rayMeetsTriangle(p: Lab, a: Lab, b: Lab, c: Lab): boolean {
  const e1 = minus(b, a);
  const e2 = minus(c, a);
  const h = cross(RAY, e2);
  const det = dot(e1, h);
  if (Math.abs(det) < 1e-12) return false;
  const s = minus(p, a);
  const u = dot(s, h) / det;
  if (u < 0 || u > 1) return false;
  const q = cross(s, e1);
  const v = dot(RAY, q) / det;
  if (v < 0 || u + v > 1) return false;
  return dot(e2, q) / det > 0;
}

/** Ericson, "Real-Time Collision Detection" (2005), 5.1.5. */
function nearestOnTriangle(p: Lab, a: Lab, b: Lab, c: Lab): Lab {
  const ab = minus(b, a);
  const ac = minus(c, a);
  const ap = minus(p, a);
  const d1 = dot(ab, ap);
  const d2 = dot(ac, ap);
  if (d1 <= 0 && d2 <= 0) return a;
  const bp = minus(p, b);
  const d3 = dot(ab, bp);
  const d4 = dot(ac, bp);
  if (d3 >= 0 && d4 <= d3) return b;
  const vc = d1 * d4 - d3 * d2;
  if (vc <= 0 && d1 >= 0 && d3 <= 0) return along(a, ab, d1 / (d1 - d3));
  const cp = minus(p, c);
  const d5 = dot(ab, cp);
  const d6 = dot(ac, cp);
  if (d6 >= 0 && d5 <= d6) return c;
  const vb = d5 * d2 - d1 * d6;
  if (vb <= 0 && d2 >= 0 && d6 <= 0) return along(a, ac, d2 / (d2 - d6));
  const va = d3 * d6 - d5 * d4;
  if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) return along(b, minus(c, b), (d4 - d3) / (d4 - d3 + (d5 - d6)));
  const denominator = 1 / (va + vb + vc);
  return along(along(a, ab, vb * denominator), ac, vc * denominator);
}

const minus = (p: Lab, q: Lab): Lab => [p[0] - q[0], p[1] - q[1], p[2] - q[2]];
const dot = (p: Lab, q: Lab): number => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
const cross = (p: Lab, q: Lab): Lab => [
  p[1] * q[2] - p[2] * q[1],
  p[2] * q[0] - p[0] * q[2],
  p[0] * q[1] - p[1] * q[0],
];
const along = (p: Lab, d: Lab, t: number): Lab => [p[0] + d[0] * t, p[1] + d[1] * t, p[2] + d[2] * t];
const squared = (p: Lab, q: Lab): number => (p[0] - q[0]) ** 2 + (p[1] - q[1]) ** 2 + (p[2] - q[2]) ** 2;

function boxDistanceSquared(node: Node, p: Lab): number {
  let d = 0;
  for (let c = 0; c < 3; c++) {
    const outside = Math.max(node.low[c]! - p[c]!, 0, p[c]! - node.high[c]!);
    d += outside * outside;
  }
  return d;
}
