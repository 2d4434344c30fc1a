import fc from 'fast-check';
import { type Basis, DRY_HOURS, isWet, whyUnlike } from './alike.ts';
import { MEASURES } from './measures/registry.ts';

const measure = (key: string) => MEASURES.find((m) => m.key === key)!;
const [white, black, dmax, weight] = ['white', 'black', 'dmax', 'weight'].map(measure);

describe('whether a print had dried', () => {
  const printed = '2026-03-02T08:00:00Z';
  const after = (hours: number) => new Date(Date.parse(printed) + hours * 3_600_000).toISOString();

  it('is told from both times, and from one of them not at all', () => {
    expect(isWet(printed, after(0.2))).toBe(true);
    expect(isWet(printed, after(DRY_HOURS))).toBe(false);
    expect(isWet(printed, undefined)).toBeUndefined();
    expect(isWet(undefined, after(1))).toBeUndefined();
  });

  it('a print read before it was printed, or on a day nobody can read, is not called wet', () => {
    expect(isWet(printed, after(-1))).toBeUndefined();
    expect(isWet(printed, 'last spring')).toBeUndefined();
  });
});

const basis: fc.Arbitrary<Basis> = fc.record(
  {
    condition: fc.constantFrom(...(['M0', 'M1', 'M2', 'M3'] as const)),
    wet: fc.boolean(),
    told: fc.boolean(),
    recomputed: fc.boolean(),
    brightenerUnknown: fc.boolean(),
  },
  { requiredKeys: [] },
);

describe('figures that are held against each other', () => {
  it('are alike both ways or neither, and each is like itself unless it was not recomputed, or not wholly (fast-check)', () =>
    fc.assert(
      fc.property(fc.constantFrom(...MEASURES), basis, basis, (m, p, q) => {
        expect(whyUnlike(m, p, q) === undefined).toBe(whyUnlike(m, q, p) === undefined);
        if (p.recomputed !== false && !p.brightenerUnknown) expect(whyUnlike(m, p, p)).toBeUndefined();
      }),
    ));

  it('one wet and one dry, one told and one measured, one recomputed and one not: each for its own reason', () => {
    expect(whyUnlike(white, { wet: true }, {})).toBe('one read before it had dried');
    expect(whyUnlike(white, { told: true }, {})).toBe('one measured, one told by a profile');
    expect(whyUnlike(white, { recomputed: false }, { recomputed: true })).toBe('not recomputed for this light');
    expect(whyUnlike(white, { recomputed: false }, { recomputed: false })).toBe('not recomputed for this light');
  });

  it('under a light of which one’s brightener is not known, all but what ink hides', () => {
    const [known, unknown] = [{ recomputed: true }, { recomputed: true, brightenerUnknown: true }];
    expect(whyUnlike(white, known, known)).toBeUndefined();
    for (const [p, q] of [
      [known, unknown],
      [unknown, unknown],
    ])
      expect(whyUnlike(white, p, q)).toBe('what brightener does in this light is known of one at most');
    for (const m of [black, dmax]) expect(whyUnlike(m, known, unknown)).toBeUndefined();
  });

  it('another measurement condition parts whites; the blacks only where a filter turns them', () => {
    expect(whyUnlike(white, { condition: 'M0' }, { condition: 'M1' })).toBe('read in M0 and M1');
    for (const m of [black, dmax]) {
      expect(whyUnlike(m, { condition: 'M0' }, { condition: 'M1' })).toBeUndefined();
      expect(whyUnlike(m, { condition: 'M3' }, { condition: 'M1' })).toBe('read in M3 and M1');
    }
  });

  it('a measure that names its own condition asks for no other', () => {
    for (const key of ['whiteM0', 'whiteM2'])
      expect(whyUnlike(measure(key), { condition: 'M0' }, { condition: 'M1' })).toBeUndefined();
  });

  it('what is weighed is like whatever the readings were', () =>
    expect(whyUnlike(weight, { wet: true, told: true, condition: 'M0' }, { condition: 'M3' })).toBeUndefined());

  it('a file that does not say its condition is taken for like', () =>
    expect(whyUnlike(white, {}, { condition: 'M1' })).toBeUndefined());
});
