import type { Lab } from '../colour/types.ts';

/** A closed surface in CIELAB: vertices and triangles of vertex numbers, wound so that normals point outwards. */
export interface GamutMesh {
  readonly vertices: readonly Lab[];
  readonly triangles: readonly (readonly [number, number, number])[];
}

/**
 * Volume enclosed by a closed mesh, cubic CIELAB units: the sum of signed tetrahedra to an inner point. Always positive.
 */
export function meshVolume(mesh: GamutMesh): number {
  const o = centreOf(mesh.vertices);
  let six = 0;
  for (const [i, j, k] of mesh.triangles) {
    const p = mesh.vertices[i]!;
    const q = mesh.vertices[j]!;
    const r = mesh.vertices[k]!;
    const px = p[0] - o[0];
    const py = p[1] - o[1];
    const pz = p[2] - o[2];
    const qx = q[0] - o[0];
    const qy = q[1] - o[1];
    const qz = q[2] - o[2];
    const rx = r[0] - o[0];
    const ry = r[1] - o[1];
    const rz = r[2] - o[2];
    six += px * (qy * rz - qz * ry) - py * (qx * rz - qz * rx) + pz * (qx * ry - qy * rx);
  }
  return Math.abs(six) / 6;
}

/** Middle of the bounding box; inside any gamut worth the name. */
export function centreOf(points: readonly Lab[]): Lab {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (const p of points) {
    for (let c = 0; c < 3; c++) {
      low[c] = Math.min(low[c]!, p[c]!);
      high[c] = Math.max(high[c]!, p[c]!);
    }
  }
  return [(low[0]! + high[0]!) / 2, (low[1]! + high[1]!) / 2, (low[2]! + high[2]!) / 2];
}

/** The mesh with its vertices moved by `move`, for instance to media-relative Lab. */
export function mapMesh(mesh: GamutMesh, move: (lab: Lab) => Lab): GamutMesh {
  return { vertices: mesh.vertices.map(move), triangles: mesh.triangles };
}
