import { lit, scalar } from '../../test/lit-condition.ts';
import type { LitCondition } from './use-light.ts';
import { whyApart } from './why-apart.ts';

const volume = { gamutVolume: scalar(600_000) };
const keys = new Set(['gamutVolume']);
const why = (first: string, second: string, laid: readonly LitCondition[], plain = true) =>
  whyApart({ id: first }, { id: second }, { laid, lit: { plain } });

describe('solids that are drawn together', () => {
  it('are held against each other where they rest on what is alike', () =>
    expect(why('p', 'q', [lit('p', volume), lit('q', volume)])).toBeUndefined());

  it.each([
    ['read wet', { reading: { printedAt: '2026-10-31T23:50:00Z', measuredAt: '2026-11-01T00:00:00Z' } }, /dried/],
    ['read under another lamp', { reading: { measurementCondition: 'M0' } }, /M1 and M0/],
    ['told by a profile', { reading: { source: 'profile' } }, /told by a profile/],
    [
      'of a brightener nobody knows in this light',
      { lit: { under: 'A', keys, brightenerUnknown: true } },
      /brightener/,
    ],
  ])('are not, where one was %s', (_, over, reason) => {
    const laid = [lit('p', volume, 'lit' in over ? { lit: { under: 'A', keys } } : {}), lit('q', volume, over)];
    expect(why('p', 'q', laid)).toMatch(reason);
    expect(why('q', 'p', laid)).toMatch(/./);
  });

  it('a working space is what it is in any light; a profile tells D50 alone', () => {
    const laid = [lit('p', volume)];
    for (const plain of [true, false]) expect(why('p', 'srgb', laid, plain)).toBeUndefined();
    expect(why('p', 'a-profile', laid)).toBeUndefined();
    expect(why('p', 'a-profile', laid, false)).toMatch(/D50/);
    expect(why('a-profile', 'p', laid, false)).toMatch(/D50/);
    expect(why('a-profile', 'srgb', laid, false)).toBeUndefined();
  });
});
