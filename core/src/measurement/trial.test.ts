import type { Figure } from './figure.ts';
import { rankTrial } from './trial.ts';

const scalar = (value: number, sd = 0.01): Figure => ({ shape: 'scalar', value, sd });
const tried = (id: string, dmax: number, linearity: number, neutrality = 1) => ({
  id,
  figures: { dmax: scalar(dmax), linearity: scalar(linearity, 0.1), neutrality: scalar(neutrality, 0.1) },
});

describe('a media-setting trial', () => {
  it('ranks by the mean of places: a deep, straight, neutral setting first', () => {
    const ranks = rankTrial([tried('starved', 2.2, 3), tried('right', 2.5, 0.4), tried('flooded', 2.5, 6, 3)]);
    expect(ranks.map((r) => r.conditionId)).toEqual(['right', 'starved', 'flooded']);
    expect(ranks[0].places).toEqual({ dmax: 1, linearity: 1, neutrality: 1 });
  });

  it('what lies within the noise shares a place', () => {
    const [a, b] = rankTrial([tried('a', 2.5, 1), tried('b', 2.51, 1.1)]);
    expect(a.places.dmax).toBe(1);
    expect(b.places.dmax).toBe(1);
  });

  it('criteria nobody measured are left out, and a setting that was not measured comes last', () => {
    const ranks = rankTrial([{ id: 'blank', figures: {} }, tried('a', 2.5, 1), tried('b', 2.3, 1)]);
    expect(ranks.map((r) => r.conditionId)).toEqual(['a', 'b', 'blank']);
    expect(ranks[0].places.blockedRings).toBeUndefined();
  });
});
