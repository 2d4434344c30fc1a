import fc from 'fast-check';
import { readingSets, speakingSets, whenRead, type KeptReading } from './speaking.ts';

const read = (id: string, over: Partial<KeptReading> = {}): KeptReading => ({
  id,
  fileName: `${id}.txt`,
  contentHash: id,
  measurementCondition: 'M1',
  source: 'measured',
  batch: '',
  printedAt: null,
  measuredAt: null,
  importedAt: '2026-03-01T10:00:00.000Z',
  ...over,
});
const onDay = (day: number) => `2026-03-${String(day).padStart(2, '0')}T10:00:00.000Z`;
const told = (rows: readonly KeptReading[], chosen: string | null = null) =>
  speakingSets(rows, chosen).map((s) => s.primary.id);
/** Printed at nine, read at ten of that day: not dried. */
const wet = { printedAt: '2026-03-05T09:00:00.000Z', importedAt: onDay(5) };

describe('the sets that give a print condition its figures', () => {
  it('none of nothing', () => expect(speakingSets([], null)).toEqual([]));

  it('the newest speaks first, those before it after it', () =>
    expect(
      told([read('old'), read('new', { importedAt: onDay(9) }), read('middle', { importedAt: onDay(4) })]),
    ).toEqual(['new', 'middle', 'old']));

  it('daylight with its UV before tungsten, before what is not stated, before UV taken out; never two conditions', () => {
    const each = (['M2', null, 'M0', 'M1', 'M3'] as const).map((measurementCondition, i) =>
      read(`${measurementCondition}`, { measurementCondition, importedAt: onDay(1 + i) }),
    );
    for (const first of ['M1', 'M0', 'null', 'M2', 'M3']) {
      const left = each.slice(each.findIndex((r) => r.id === first));
      expect(told(each)[0]).toBe('M1');
      expect(told(left.filter((r) => r.id === first))).toEqual([first]);
    }
    expect(told(each.filter((r) => r.id !== 'M1'))).toEqual(['M0']);
    expect(told(each.filter((r) => !['M1', 'M0'].includes(r.id)))).toEqual(['null']);
  });

  it('what had dried before what was read wet, however new that is; wet ones where there is nothing else', () => {
    expect(told([read('dried'), read('wet', wet)])).toEqual(['dried', 'wet']);
    expect(told([read('wet', wet)])).toEqual(['wet']);
    // Dried without UV speaks before wet with it.
    expect(told([read('dry M2', { measurementCondition: 'M2' }), read('wet M1', wet)])[0]).toBe('dry M2');
  });

  it('the one a hand chose speaks alone, whatever it is', () =>
    expect(told([read('new', { importedAt: onDay(9) }), read('wet', wet), read('old')], 'wet')).toEqual(['wet']));

  it('a profile tells only where nothing was measured, and then the newest alone', () => {
    const profiles = [read('p', { source: 'profile' }), read('q', { source: 'profile', importedAt: onDay(8) })];
    expect(told(profiles)).toEqual(['q']);
    expect(told([...profiles, read('measured')])).toEqual(['measured']);
  });

  it('no more than four are asked', () =>
    expect(told(Array.from({ length: 7 }, (_, i) => read(String(i), { importedAt: onDay(1 + i) })))).toEqual([
      '6',
      '5',
      '4',
      '3',
    ]));
});

describe('what serves a set', () => {
  const m2 = (over: Partial<KeptReading> = {}) => read('M2', { measurementCondition: 'M2', ...over });
  const served = (primary: KeptReading, other: KeptReading) => speakingSets([primary, other], primary.id)[0]!;

  it('a reading of its own file, whenever it was kept', () => {
    const set = served(read('M1', { contentHash: 'f' }), m2({ contentHash: 'f', importedAt: onDay(20) }));
    expect(set.companions.map((c) => c.id)).toEqual(['M2']);
    expect(set.unserved).toEqual({});
  });

  it('else one of the same day, box and drying; of another it is said why not', () => {
    expect(served(read('M1'), m2()).companions).toHaveLength(1);
    for (const other of [{ importedAt: onDay(3) }, { batch: 'the second box' }]) {
      const set = served(read('M1'), m2(other));
      expect(set.companions).toEqual([]);
      expect(set.unserved.M2).toContain('M2.txt');
    }
    expect(served(read('M1', wet), m2({ importedAt: onDay(5) })).unserved.M2).toMatch(/state of drying/);
  });

  it('a profile never, and none under its own condition', () => {
    expect(served(read('M1'), m2({ source: 'profile' })).companions).toEqual([]);
    expect(served(read('M1'), read('again')).companions).toEqual([]);
  });

  it('when it was measured counts, where the file says it in a date that is understood', () => {
    expect(whenRead(read('x', { measuredAt: '2025-12-01T00:00:00Z' }))).toBe('2025-12-01T00:00:00.000Z');
    expect(whenRead(read('x', { measuredAt: 'im Frühjahr' }))).toBe(read('x').importedAt);
    // Kept on one day and measured on two.
    expect(served(read('M1', { measuredAt: onDay(1) }), m2({ measuredAt: onDay(4) })).companions).toEqual([]);
  });
});

describe('a print condition’s history', () => {
  it('is a set a file, from old to new; what only serves another is none of its own', () => {
    const rows = [
      read('new', { importedAt: onDay(9) }),
      read('M1', { contentHash: 'f' }),
      read('M2', { contentHash: 'f', measurementCondition: 'M2' }),
      read('lone M2', { measurementCondition: 'M2', importedAt: onDay(6) }),
    ];
    expect(readingSets(rows).map((s) => s.primary.id)).toEqual(['M1', 'lone M2', 'new']);
  });
});

const row = fc.record({
  contentHash: fc.constantFrom('f', 'g', 'h'),
  measurementCondition: fc.constantFrom('M0', 'M1', 'M2', 'M3', null),
  source: fc.constantFrom('measured', 'profile'),
  batch: fc.constantFrom('', 'second'),
  printedAt: fc.constantFrom(null, onDay(1), onDay(5)),
});
const rows = fc
  .array(row, { maxLength: 9 })
  .map((all) => all.map((r, i) => read(String(i), { ...r, importedAt: onDay(1 + i) })));
/** Files that were brought together, kept in the same instant. */
const atOnce = fc
  .array(row, { maxLength: 6 })
  .map((all) => all.map((r, i) => read(String(i), { ...r, contentHash: String(i) })));

describe('whatever was read', () => {
  it('who speaks does not hang on the order in which it is asked for', () =>
    fc.assert(
      fc.property(fc.oneof(rows, atOnce), (all) => {
        const ids = (some: readonly KeptReading[]) =>
          speakingSets(some, null).map((s) => [s.primary.id, ...s.companions.map((c) => c.id)]);
        expect(ids([...all].reverse())).toEqual(ids(all));
        const sets = (some: readonly KeptReading[]) => readingSets(some).map((s) => s.primary.id);
        expect(sets([...all].reverse())).toEqual(sets(all));
      }),
    ));

  it('sets that speak together share one condition, each serves with others, and none serves itself', () =>
    fc.assert(
      fc.property(rows, (all) => {
        const sets = speakingSets(all, null);
        expect(sets.length > 0).toBe(all.length > 0);
        expect(new Set(sets.map((s) => s.primary.measurementCondition)).size).toBeLessThanOrEqual(1);
        for (const { primary, companions } of sets) {
          const conditions = [primary, ...companions].map((r) => r.measurementCondition);
          expect(new Set(conditions).size).toBe(conditions.length);
          expect(companions.every((c) => c.source === 'measured')).toBe(true);
        }
      }),
    ));
});
