import { MEASURES } from './measures/registry.ts';
import {
  alikeMeasures,
  comparable,
  comparableFigures,
  unlike,
  unlikeByReason,
  unstated,
  type KnownReading,
  type ShownCondition,
} from './basis.ts';

const measure = (key: string) => MEASURES.find((m) => m.key === key)!;
const shown = (over: Partial<KnownReading> = {}, lit?: string[]): ShownCondition => ({
  facts: {
    readingId: 'r',
    figures: {
      dmax: { shape: 'scalar', value: 2, sd: 0.01 },
      gloss60: { shape: 'scalar', value: 30, sd: 1 },
      whiteM2: { shape: 'colour', lab: [95, 0, 1], sd: 0.1 },
    },
  },
  readings: [{ id: 'r', measurementCondition: 'M1', source: 'measured', importedAt: '2026-02-02T10:00:00Z', ...over }],
  lit: lit && { under: 'tungsten, behind plain glass', keys: new Set(lit) },
});

describe('what two figures rest on', () => {
  it('alike: they may be held against each other', () => {
    expect(unlike(measure('dmax'), shown(), shown())).toBeUndefined();
    expect(alikeMeasures(shown(), shown())).toEqual(MEASURES);
  });

  it('one behind glass, the other not recomputed for it: not compared, ranked or marked', () => {
    const [lit, unlit] = [shown({}, ['dmax']), shown({}, [])];
    expect(unlike(measure('dmax'), lit, unlit)).toBe('not recomputed for this light');
    expect(comparable(measure('dmax'), [lit, unlit, lit])).toEqual([lit, lit]);
    // What was weighed or held under a gloss meter speaks in any light.
    expect(unlike(measure('gloss60'), lit, unlit)).toBeUndefined();
  });

  it('a measure that keeps a light of its own does not speak under another', () =>
    expect(alikeMeasures(shown({}, ['dmax']), shown({}, ['dmax'])).map((m) => m.key)).not.toContain('brightenerShift'));

  it('dried against wet, M1 against M0, measured against a profile: none', () => {
    const wet = shown({ printedAt: '2026-02-02T09:50:00Z' });
    expect(unlike(measure('dmax'), wet, shown())).toMatch(/before it had dried/);
    expect(unlike(measure('dmax'), wet, wet)).toBeUndefined();
    expect(unlike(measure('white'), shown(), shown({ measurementCondition: 'M0' }))).toBe('read in M1 and M0');
    // Under black ink UV makes no difference; a polarising filter does.
    expect(unlike(measure('dmax'), shown(), shown({ measurementCondition: 'M0' }))).toBeUndefined();
    expect(unlike(measure('dmax'), shown(), shown({ measurementCondition: 'M3' }))).toBe('read in M1 and M3');
    expect(unlike(measure('white'), shown(), shown({ measurementCondition: undefined }))).toBeUndefined();
    expect(unstated([shown(), shown({ measurementCondition: undefined })])).toEqual([1]);
    expect(unstated([shown({ measurementCondition: undefined }), shown({ measurementCondition: undefined })])).toEqual(
      [],
    );
    expect(unlike(measure('dmax'), shown(), shown({ source: 'profile' }))).toMatch(/profile/);
    // The white in M2 is the white in M2, whichever set speaks.
    expect(unlike(measure('whiteM2'), shown(), shown({ measurementCondition: 'M0' }))).toBeUndefined();
    expect(comparable(measure('dmax'), [shown(), shown({ measurementCondition: 'M3' })])).toEqual([]);
  });

  it('of settings tried, one read wet is ranked by nothing that drying changes', () => {
    const wet = shown({ printedAt: '2026-02-02T09:50:00Z' });
    expect(comparableFigures([shown(), wet]).map((f) => Object.keys(f).sort())).toEqual([['gloss60'], ['gloss60']]);
    expect(Object.keys(comparableFigures([shown(), shown()])[0])).toContain('dmax');
  });

  it('reasons are told with the measures they keep apart', () =>
    expect(
      [...unlikeByReason(shown(), shown({ measurementCondition: 'M3' }))].map(([why, m]) => [why, m.length]),
    ).toEqual([['read in M1 and M3', 1]]));
});
