import type { Lab } from '../colour/types.ts';
import type { GamutMesh } from './mesh.ts';

/** A piece of the line along which a surface is cut, in the plane's own coordinates. */
export type Segment = readonly [x0: number, y0: number, x1: number, y1: number];

/** The cut through a solid at one lightness, in a*, b*. */
export function sliceAtLightness(mesh: GamutMesh, L: number): Segment[] {
  return cut(
    mesh,
    (p) => p[0] - L,
    (p) => [p[1], p[2]],
  );
}

/** The cut through a solid at one hue, in C*, L*: half a plane from the axis of greys outwards. */
export function sliceAtHue(mesh: GamutMesh, hueDegrees: number): Segment[] {
  const [cos, sin] = [Math.cos((hueDegrees * Math.PI) / 180), Math.sin((hueDegrees * Math.PI) / 180)];
  const whole = cut(
    mesh,
    (p) => p[2] * cos - p[1] * sin,
    (p) => [p[1] * cos + p[2] * sin, p[0]],
  );
  return whole.flatMap((s): Segment[] => {
    if (s[0] < 0 && s[2] < 0) return [];
    if (s[0] >= 0 && s[2] >= 0) return [s];
    // The other half of the plane is the opposite hue's.
    const t = s[0] / (s[0] - s[2]);
    const y = s[1] + (s[3] - s[1]) * t;
    return [s[0] >= 0 ? [s[0], s[1], 0, y] : [0, y, s[2], s[3]]];
  });
}

function cut(mesh: GamutMesh, height: (p: Lab) => number, flat: (p: Lab) => readonly [number, number]): Segment[] {
  // A vertex in the plane counts as above it: each triangle is then cut twice or not at all.
  const heights = mesh.vertices.map(height);
  return mesh.triangles.flatMap((corners): Segment[] => {
    const ends: (readonly [number, number])[] = [];
    for (let c = 0; c < 3; c++) {
      const [i, j] = [corners[c]!, corners[(c + 1) % 3]!];
      const [h, g] = [heights[i]!, heights[j]!];
      if (h >= 0 === g >= 0) continue;
      const t = h / (h - g);
      const [p, q] = [mesh.vertices[i]!, mesh.vertices[j]!];
      ends.push(flat([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t, p[2] + (q[2] - p[2]) * t]));
    }
    return ends.length === 2 ? [[...ends[0]!, ...ends[1]!]] : [];
  });
}
