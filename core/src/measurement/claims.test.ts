import type { BrightenerClaim } from '../paper.ts';
import { CLAIMS, disagreements } from './claims.ts';
import type { Figure, ScalarFigure } from './figure.ts';

const brightenerDisagreement = (brightenerClaim: BrightenerClaim, brightenerDeltaB: Figure | undefined) =>
  disagreements({ brightenerClaim, weightGsm: 300, thicknessUm: 400 }, brightenerDeltaB ? { brightenerDeltaB } : {})[0];
const deltaB = (value: number): ScalarFigure => ({ shape: 'scalar', value, sd: 0.1 });

describe('claimed against measured brightener', () => {
  it('says so when they are two classes or more apart', () => {
    expect(brightenerDisagreement('none', deltaB(9.4))).toBe(
      'Claimed and measured disagree: the maker says no brightener, measured it is moderate (ΔB 9.4 %).',
    );
    expect(brightenerDisagreement('high', deltaB(0.1))).toBe(
      'Claimed and measured disagree: the maker says much brightener, measured it is none (ΔB 0.1 %).',
    );
  });

  it.each([
    ['none', 0.1],
    ['none', 2],
    ['moderate', 7],
    ['high', 9.4],
  ] as const)('%s and ΔB %d go together', (claim, value) =>
    expect(brightenerDisagreement(claim, deltaB(value))).toBeUndefined(),
  );

  it('is silent where either is not known', () => {
    expect(brightenerDisagreement('not stated', deltaB(12))).toBeUndefined();
    expect(
      brightenerDisagreement('none', { shape: 'missing', why: 'A reading without UV (M2) is missing.' }),
    ).toBeUndefined();
    expect(brightenerDisagreement('none', undefined)).toBeUndefined();
  });
});

describe('claimed against measured weight and thickness', () => {
  const found = (weight: number, sd = 0.5) =>
    disagreements(
      { brightenerClaim: 'none', weightGsm: 230, thicknessUm: 300 },
      { weight: { shape: 'scalar', value: weight, sd }, thickness: { shape: 'scalar', value: 301, sd: 1 } },
    );
  it('says so beyond five percent and beyond the noise', () => {
    expect(found(216)).toEqual([
      'Claimed and measured disagree: the maker says 230 g/m², measured it is 216: 6 % lighter.',
    ]);
    expect(found(245)[0]).toMatch(/7 % heavier/);
    expect(found(222)).toEqual([]);
    expect(found(216, 10)).toEqual([]);
  });
});

describe('what a maker claims stands in the measure that can bear it out', () => {
  const open = { brightenerClaim: 'not stated' } as const;
  const full = { brightenerClaim: 'low', surface: 'smooth', weightGsm: 310.5, thicknessUm: 480 } as const;

  it('each has a name of its own, and words only where something is claimed', () => {
    expect(new Set(CLAIMS.map((c) => c.claim.name)).size).toBe(CLAIMS.length);
    expect(CLAIMS.map(({ claim }) => `${claim.name}: ${claim.says(full)}`).sort()).toEqual([
      'Brightener: low',
      'Bulk: 1.55 cm³/g',
      'Surface: smooth',
      'Thickness: 480 µm',
      'Weight: 310.5 g/m²',
    ]);
    expect(CLAIMS.flatMap(({ claim }) => claim.says(open) ?? [])).toEqual(['not stated']);
  });

  it('a weight that is off by more than a mill may be, and more than the noise, is a quarrel; a missing one is none', () => {
    const weighed = (value: number, sd = 1) => disagreements(full, { weight: { shape: 'scalar', value, sd } });
    expect(weighed(311)).toEqual([]);
    expect(weighed(280, 40)).toEqual([]);
    expect(weighed(280)).toEqual([
      'Claimed and measured disagree: the maker says 310.5 g/m², measured it is 280: 10 % lighter.',
    ]);
    expect(disagreements(full, { weight: { shape: 'missing', why: '' } })).toEqual([]);
    expect(disagreements(open, { weight: { shape: 'scalar', value: 280, sd: 1 } })).toEqual([]);
  });
});
