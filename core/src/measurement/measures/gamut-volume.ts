import { mapMesh, meshVolume } from '../../gamut/mesh.ts';
import { seededNormal } from '../../random.ts';
import type { PatchMeasure } from './measure.ts';

const RESAMPLES = 24;

export const gamutVolume: PatchMeasure = {
  key: 'gamutVolume',
  name: 'Gamut volume',
  unit: 'cubic Lab units',
  definition:
    'Volume enclosed by the gamut surface in CIELAB: the device cube’s surface for RGB charts, a modified convex hull for scattered patches.',
  source: 'Balasubramanian & Dalal 1997; checked against Lindbloom’s table of working spaces',
  digits: 0,
  scale: 'percent',
  better: 'higher',
  words: ['larger in gamut', 'smaller in gamut'],
  compute: ({ gamut, gamutFault, repeatability: r }) => {
    if (!gamut) return { shape: 'missing', why: gamutFault ?? 'The readings hold no colours.' };
    const value = meshVolume(gamut.mesh);
    // No formula carries patch noise to a volume, so the readings are disturbed by their own noise and the volume taken again.
    const normal = seededNormal(1);
    let squares = 0;
    for (let i = 0; i < RESAMPLES; i++) {
      const disturbed = mapMesh(gamut.mesh, ([L, a, b]) => [
        L + r.lab[0] * normal(),
        a + r.lab[1] * normal(),
        b + r.lab[2] * normal(),
      ]);
      squares += (meshVolume(disturbed) - value) ** 2;
    }
    return { shape: 'scalar', value, sd: Math.sqrt(squares / RESAMPLES) };
  },
};
