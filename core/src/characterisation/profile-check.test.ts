import type { Lab } from '../colour/types.ts';
import { checkInWords, checkProfile } from './profile-check.ts';

const white: Lab = [96, 0, 1];
const off = (by: number) =>
  checkProfile(
    Array.from({ length: 20 }, (_, i) => {
      const promised: Lab = [10 + i * 4, 0, 0];
      return { patch: `P${i}`, promised, read: [promised[0] + by, 0, 0] as Lab };
    }),
    white,
  );

describe('a profile held against what was printed through it', () => {
  it('passes where it lands, and says by how much it does not', () => {
    expect(off(0.3).verdict).toBe('passes');
    expect(off(9).verdict).toBe('visible');
    expect(checkInWords(off(9), { own: 0.4 })).toMatch(/^A profile of your own would be visible.*reach 0\.4/);
  });

  it('sends nobody to make a profile that would land no nearer', () => {
    expect(checkInWords(off(9), { own: 20 })).toMatch(/would land no nearer \(20\.0/);
  });

  it('of greys that were not read nothing is concluded, nor of all colours from a few', () => {
    const coloured = (count: number) =>
      checkProfile(
        Array.from({ length: count }, (_, i) => ({ patch: `P${i}`, promised: [50, 40, i], read: [50, 40.2, i] })),
        white,
      );
    expect(checkInWords(off(0.3))).toMatch(/^It passes: .*hardly be told from it\.$/);
    expect(checkInWords(coloured(30))).toMatch(/^It passes in its colours: .*Of its greys nothing is known/);
    expect(checkInWords(coloured(30))).not.toMatch(/hardly be told/);
    expect(checkInWords(coloured(4))).toMatch(/4 patches are too few to stand for all colours\.$/);
    expect(checkInWords(checkProfile([{ patch: 'A', promised: [50, 0, 0], read: [70, 0, 0] }], white))).toMatch(
      /One patch is too few/,
    );
  });

  it('hears a step of grey that falls back', () => {
    const fallen = checkProfile(
      [20, 40, 60, 80].map((L, i) => ({
        patch: `P${i}`,
        promised: [L, 0, 0] as Lab,
        read: [i === 2 ? 38 : L, 0, 0] as Lab,
      })),
      white,
    );
    expect(fallen.greys!.monotone).toBe(false);
  });
});
