import { brightenerDisagreement } from './claims.ts';
import type { ScalarFigure } from './figure.ts';

const deltaB = (value: number): ScalarFigure => ({ shape: 'scalar', value, sd: 0.1 });

describe('claimed against measured brightener', () => {
  it('says so when they are two classes or more apart', () => {
    expect(brightenerDisagreement('none', deltaB(9.4))).toBe('Claimed and measured disagree: the maker says no brightener, measured it is moderate (ΔB 9.4 %).');
    expect(brightenerDisagreement('high', deltaB(0.1))).toBe('Claimed and measured disagree: the maker says much brightener, measured it is none (ΔB 0.1 %).');
  });

  it.each([
    ['none', 0.1],
    ['none', 2],
    ['moderate', 7],
    ['high', 9.4],
  ] as const)('%s and ΔB %d go together', (claim, value) => expect(brightenerDisagreement(claim, deltaB(value))).toBeUndefined());

  it('is silent where either is not known', () => {
    expect(brightenerDisagreement('not stated', deltaB(12))).toBeUndefined();
    expect(brightenerDisagreement('none', { shape: 'missing', why: 'A reading without UV (M2) is missing.' })).toBeUndefined();
    expect(brightenerDisagreement('none', undefined)).toBeUndefined();
  });
});
