import type { Lab, Rgb } from '../colour/types.ts';
import type { GamutMesh } from './mesh.ts';

/** The six faces of the device cube: which channel is fixed, at which value. */
const FACES: readonly (readonly [fixed: 0 | 1 | 2, value: 0 | 1])[] = [
  [0, 0],
  [0, 1],
  [1, 0],
  [1, 1],
  [2, 0],
  [2, 1],
];

/**
 * Boundary from the device cube: each face is a net of levels × levels patches, and the gamut surface is the image of the nets.
 * It is the truest boundary there is for a device that is driven by RGB.
 *
 * @param levels device values 0–1 along an edge, ascending, with 0 and 1 among them
 * @param colourOf Lab printed for a device RGB; undefined where no patch was read
 * @returns undefined when a patch of the surface is missing
 */
export function deviceSurface(
  levels: readonly number[],
  colourOf: (rgb: Rgb) => Lab | undefined,
): GamutMesh | undefined {
  const vertices: Lab[] = [];
  const numbers = new Map<string, number>();
  const n = levels.length;

  const vertex = (rgb: Rgb): number | undefined => {
    const key = rgb.join();
    const known = numbers.get(key);
    if (known !== undefined) return known;
    const lab = colourOf(rgb);
    if (!lab) return undefined;
    const number = vertices.push(lab) - 1;
    numbers.set(key, number);
    return number;
  };

  const triangles: [number, number, number][] = [];
  for (const [fixed, value] of FACES) {
    const u = ((fixed + 1) % 3) as 0 | 1 | 2;
    const v = ((fixed + 2) % 3) as 0 | 1 | 2;
    const at = (i: number, j: number) => {
      const rgb: [number, number, number] = [0, 0, 0];
      rgb[fixed] = value;
      rgb[u] = levels[i]!;
      rgb[v] = levels[j]!;
      return vertex(rgb);
    };
    for (let i = 0; i + 1 < n; i++) {
      for (let j = 0; j + 1 < n; j++) {
        const [a, b, c, d] = [at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j + 1)];
        if (a === undefined || b === undefined || c === undefined || d === undefined) return undefined;
        // Opposite faces are wound the other way round, so that all normals point the same way (outwards).
        if (value === 1) triangles.push([a, b, c], [a, c, d]);
        else triangles.push([a, c, b], [a, d, c]);
      }
    }
  }
  return { vertices, triangles };
}
