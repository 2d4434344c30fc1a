import type { GamutMesh } from './mesh.ts';

/** A point of the outline a gamut draws on the a*b* plane, all lightnesses together. */
export interface OutlinePoint {
  readonly hueDegrees: number;
  readonly a: number;
  readonly b: number;
  readonly chroma: number;
}

/**
 * The shadow a gamut throws on the a*b* plane: for each hue, the greatest chroma it reaches at any lightness.
 * @param steps how many hues, evenly spaced from 0°
 */
export function abOutline(mesh: GamutMesh, steps = 72): OutlinePoint[] {
  const count = mesh.vertices.length;
  const edges = new Set<number>();
  for (const t of mesh.triangles)
    for (let c = 0; c < 3; c++) {
      const [i, j] = [t[c]!, t[(c + 1) % 3]!];
      edges.add(Math.min(i, j) * count + Math.max(i, j));
    }
  const reach = new Float64Array(steps);
  const turn = (2 * Math.PI) / steps;
  const cosines = Float64Array.from(reach, (_, s) => Math.cos(s * turn));
  const sines = Float64Array.from(reach, (_, s) => Math.sin(s * turn));
  for (const edge of edges) {
    const [, a1, b1] = mesh.vertices[Math.floor(edge / count)]!;
    const [, a2, b2] = mesh.vertices[edge % count]!;
    for (let s = 0; s < steps; s++) {
      const [cos, sin] = [cosines[s]!, sines[s]!];
      // Heights of both ends over the ray; the edge crosses it where the height is 0.
      const h1 = b1 * cos - a1 * sin;
      const h2 = b2 * cos - a2 * sin;
      if (h1 * h2 > 0 || h1 === h2) continue;
      const t = h1 / (h1 - h2);
      const along = (a1 + (a2 - a1) * t) * cos + (b1 + (b2 - b1) * t) * sin;
      if (along > reach[s]!) reach[s] = along;
    }
  }
  return Array.from(reach, (chroma, s) => ({
    hueDegrees: (s * 360) / steps,
    a: chroma * cosines[s]!,
    b: chroma * sines[s]!,
    chroma,
  }));
}
