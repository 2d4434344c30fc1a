import type { BrightenerClaim } from '../paper.ts';
import { disagreements } from './claims.ts';
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
