import { mapMesh, meshVolume } from '../../gamut/mesh.ts';
import { seededNormal } from '../../random.ts';
import { netError } from '../net-error.ts';
import { noiseAt } from '../repeats.ts';
import type { PatchMeasure } from './measure.ts';

const RESAMPLES = 24;

export const gamutVolume: PatchMeasure = {
  key: 'gamutVolume',
  name: 'Gamut volume',
  unit: 'cubic Lab units',
  definition:
    'Volume enclosed by the gamut surface in CIELAB: the device cube’s surface for RGB charts, a modified convex hull for scattered patches. Its spread holds the readings’ noise and what the net itself is too coarse to tell.',
  source: 'Balasubramanian & Dalal 1997; checked against Lindbloom’s table of working spaces',
  digits: 0,
  scale: 'percent',
  better: 'higher',
  words: ['larger in gamut', 'smaller in gamut'],
  likeness: {
    name: 'Gamut',
    unit: '%',
    digits: 0,
    one: 5,
    weight: 1,
    apart: (p, q) => (p.shape === 'scalar' && q.shape === 'scalar' ? (100 * (p.value - q.value)) / q.value : undefined),
  },
  needs: [],
  compute: ({ gamut, gamutFault, groups, repeatability: r }) => {
    if (!gamut) return { shape: 'missing', why: gamutFault ?? 'The readings hold no colours.' };
    const value = meshVolume(gamut.mesh);
    // No formula carries patch noise to a volume, so the readings are disturbed by their own noise and the volume taken again.
    const normal = seededNormal(1);
    let squares = 0;
    for (let i = 0; i < RESAMPLES; i++) {
      const disturbed = mapMesh(gamut.mesh, ([L, a, b]) => {
        const sd = noiseAt(r, L);
        return [L + sd[0] * normal(), a + sd[1] * normal(), b + sd[2] * normal()];
      });
      squares += (meshVolume(disturbed) - value) ** 2;
    }
    return { shape: 'scalar', value, sd: Math.hypot(Math.sqrt(squares / RESAMPLES), netError(gamut, groups)) };
  },
  underLight: ({ mesh }) => (mesh.triangles.length > 0 ? { value: meshVolume(mesh) } : undefined),
};
