import type { Lab } from '../colour/types.ts';
import { GamutError } from './errors.ts';
import type { GamutMesh } from './mesh.ts';

/** Relative to the extent of the points: nearer to a face than this is on it. */
const TOLERANCE = 1e-10;

interface Face {
  /** Vertices, anticlockwise seen from outside. */
  readonly v: readonly [number, number, number];
  /** Neighbours across the edges v0v1, v1v2, v2v0. */
  readonly across: Face[];
  readonly nx: number;
  readonly ny: number;
  readonly nz: number;
  readonly offset: number;
  /** Points seen from this face, the furthest last. */
  outside: number[];
  furthest: number;
  alive: boolean;
}

/**
 * Convex hull of scattered colours: Quickhull (Barber, Dobkin & Huhdanpaa 1996).
 * @returns the given points and the triangles of the hull, wound so that normals point outwards
 * @throws GamutError when the points are fewer than four or lie in one plane
 */
export function convexHull(points: readonly Lab[]): GamutMesh {
  const n = points.length;
  if (n < 4) throw new GamutError(`A gamut needs at least four different colours; there are ${n}.`);
  const xs = new Float64Array(n);
  const ys = new Float64Array(n);
  const zs = new Float64Array(n);
  let extent = 0;
  for (let i = 0; i < n; i++) {
    [xs[i], ys[i], zs[i]] = points[i]!;
    extent = Math.max(extent, Math.abs(xs[i]!), Math.abs(ys[i]!), Math.abs(zs[i]!));
  }
  const epsilon = TOLERANCE * Math.max(extent, 1);

  const makeFace = (a: number, b: number, c: number): Face => {
    const ux = xs[b]! - xs[a]!;
    const uy = ys[b]! - ys[a]!;
    const uz = zs[b]! - zs[a]!;
    const wx = xs[c]! - xs[a]!;
    const wy = ys[c]! - ys[a]!;
    const wz = zs[c]! - zs[a]!;
    let nx = uy * wz - uz * wy;
    let ny = uz * wx - ux * wz;
    let nz = ux * wy - uy * wx;
    const length = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
    nx /= length;
    ny /= length;
    nz /= length;
    return {
      v: [a, b, c],
      across: [],
      nx,
      ny,
      nz,
      offset: nx * xs[a]! + ny * ys[a]! + nz * zs[a]!,
      outside: [],
      furthest: epsilon,
      alive: true,
    };
  };
  const height = (f: Face, i: number) => f.nx * xs[i]! + f.ny * ys[i]! + f.nz * zs[i]! - f.offset;
  const assign = (i: number, faces: readonly Face[]) => {
    for (const f of faces) {
      const h = height(f, i);
      if (h <= epsilon) continue;
      if (h > f.furthest) {
        f.furthest = h;
        f.outside.push(i);
      } else {
        // Keep the furthest last: put this one before it.
        const last = f.outside.length - 1;
        f.outside.push(f.outside[last]!);
        f.outside[last] = i;
      }
      return;
    }
  };

  const [a, b, c, d] = firstSimplex(xs, ys, zs, epsilon);
  const first = makeFace(a, b, c);
  const base: [number, number, number] = height(first, d) > 0 ? [a, c, b] : [a, b, c];
  const [p, q, r] = base;
  const bottom = makeFace(p, q, r);
  const [onPq, onQr, onRp] = [makeFace(q, p, d), makeFace(r, q, d), makeFace(p, r, d)];
  bottom.across.push(onPq, onQr, onRp);
  onPq.across.push(bottom, onRp, onQr);
  onQr.across.push(bottom, onPq, onRp);
  onRp.across.push(bottom, onQr, onPq);
  let faces = [bottom, onPq, onQr, onRp];
  for (let i = 0; i < n; i++) if (i !== a && i !== b && i !== c && i !== d) assign(i, faces);

  const waiting = faces.filter((f) => f.outside.length > 0);
  while (waiting.length > 0) {
    const seen = waiting.pop()!;
    if (!seen.alive || seen.outside.length === 0) continue;
    const eye = seen.outside[seen.outside.length - 1]!;

    // All faces the eye sees, and the edge where they end.
    const visible: Face[] = [seen];
    seen.alive = false;
    const horizon: { face: Face; edge: number; from: number; to: number }[] = [];
    for (let k = 0; k < visible.length; k++) {
      const f = visible[k]!;
      for (let e = 0; e < 3; e++) {
        const other = f.across[e]!;
        if (!other.alive) continue;
        if (height(other, eye) > epsilon) {
          other.alive = false;
          visible.push(other);
        }
      }
    }
    for (const f of visible) {
      for (let e = 0; e < 3; e++) {
        const other = f.across[e]!;
        if (other.alive)
          horizon.push({ face: other, edge: other.across.indexOf(f), from: f.v[e]!, to: f.v[(e + 1) % 3]! });
      }
    }

    const made: Face[] = [];
    const startsAt = new Map<number, Face>();
    for (const h of horizon) {
      const f = makeFace(h.from, h.to, eye);
      f.across[0] = h.face;
      h.face.across[h.edge] = f;
      startsAt.set(h.from, f);
      made.push(f);
    }
    for (const f of made) {
      const next = startsAt.get(f.v[1]);
      if (!next || startsAt.size !== made.length)
        throw new GamutError('The colours are too nearly alike to bound a gamut.');
      f.across[1] = next;
      next.across[2] = f;
    }
    for (const f of visible) for (const i of f.outside) if (i !== eye) assign(i, made);
    faces.push(...made);
    if (faces.length > 4096 && faces.length > 8 * made.length) faces = faces.filter((f) => f.alive);
    for (const f of made) if (f.outside.length > 0) waiting.push(f);
  }
  return { vertices: points, triangles: faces.filter((f) => f.alive).map((f) => f.v) };
}

/** Four points that span a volume: the furthest pair along an axis, the furthest from their line, the furthest from that plane. */
function firstSimplex(
  xs: Float64Array,
  ys: Float64Array,
  zs: Float64Array,
  epsilon: number,
): [number, number, number, number] {
  const flat = new GamutError(
    'The colours lie on one line or in one plane, so they enclose no gamut. Grey ramps alone are not enough.',
  );
  const n = xs.length;
  let a = 0;
  let b = 0;
  let most = 0;
  for (const axis of [xs, ys, zs]) {
    let low = 0;
    let high = 0;
    for (let i = 1; i < n; i++) {
      if (axis[i]! < axis[low]!) low = i;
      if (axis[i]! > axis[high]!) high = i;
    }
    if (axis[high]! - axis[low]! > most) {
      most = axis[high]! - axis[low]!;
      a = low;
      b = high;
    }
  }
  const furthest = (measure: (i: number) => number): [number, number] => {
    let best = -1;
    let at = 0;
    for (let i = 0; i < n; i++) {
      const m = measure(i);
      if (m > best) {
        best = m;
        at = i;
      }
    }
    return [at, best];
  };
  const dx = xs[b]! - xs[a]!;
  const dy = ys[b]! - ys[a]!;
  const dz = zs[b]! - zs[a]!;
  const length = Math.hypot(dx, dy, dz);
  const cross = (i: number): [number, number, number] => {
    const px = xs[i]! - xs[a]!;
    const py = ys[i]! - ys[a]!;
    const pz = zs[i]! - zs[a]!;
    return [dy * pz - dz * py, dz * px - dx * pz, dx * py - dy * px];
  };
  const [c, fromLine] = length > epsilon ? furthest((i) => Math.hypot(...cross(i)) / length) : [0, 0];
  if (fromLine <= epsilon * 100) throw flat;
  const [nx, ny, nz] = cross(c);
  const normal = Math.hypot(nx, ny, nz);
  const [d, fromPlane] = furthest(
    (i) => Math.abs(nx * (xs[i]! - xs[a]!) + ny * (ys[i]! - ys[a]!) + nz * (zs[i]! - zs[a]!)) / normal,
  );
  if (fromPlane <= epsilon * 100) throw flat;
  return [a, b, c, d];
}

/** Steps of 0.002 that a* and b* may take from −200 on, and L* from −20: three of them make one exact number. */
const FINE = 500;
const SPAN = 400 * FINE;

/** The colours without repeats (to 0.002), so that repeated white patches don't trouble a hull. */
export function distinct(points: readonly Lab[]): Lab[] {
  const seen = new Map<number, Lab>();
  for (const p of points) {
    const key =
      (Math.round((p[0] + 20) * FINE) * SPAN + Math.round((p[1] + 200) * FINE)) * SPAN +
      Math.round((p[2] + 200) * FINE);
    if (!seen.has(key)) seen.set(key, p);
  }
  return [...seen.values()];
}
