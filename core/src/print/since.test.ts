import { since, type SinceAsked } from './since.ts';

const THEN = {
  printer: 'Test Press',
  inkSet: 'ten inks',
  blackInk: 'photo black',
  mediaSetting: 'Coated',
  resolution: '1440 dpi',
  profile: 'press.icc',
} as const;
const asked = (over: Partial<SinceAsked> = {}): SinceAsked => ({
  printedOn: '2026-03-02T10:00:00Z',
  then: THEN,
  now: THEN,
  laterBoxes: [],
  ...over,
});

describe('what changed since a print was made', () => {
  it('nothing, where nothing did', () => expect(since(asked())).toEqual([]));

  it.each([
    ['printer', 'Other Press', 'printer'],
    ['inkSet', 'four inks', 'ink'],
    ['blackInk', 'matt black', 'ink'],
    ['mediaSetting', 'Heavy', 'setting'],
    ['resolution', '720 dpi', 'setting'],
    ['profile', 'press 2.icc', 'profile'],
  ] as const)('%s: what it was that day, and what it is', (key, now, what) => {
    const found = since(asked({ now: { ...THEN, [key]: now } }));
    expect(found).toHaveLength(1);
    expect(found[0].what).toBe(what);
    expect(found[0].sentence).toContain('on 2026-03-02');
    expect(found[0].sentence).toContain(now);
    expect(found[0].sentence).toContain(THEN[key]);
  });

  it('what the print did not say is not called changed', () => {
    const { profile: _, ...then } = THEN;
    expect(since(asked({ then }))).toEqual([]);
  });

  it('a later box: how far its white and its black lie, and that it is asked which box the sheet comes from', () => {
    const box = { batch: 'autumn', readOn: '2026-09-01T08:00:00Z', apart: { white: 1.234, black: 2.06 } };
    expect(since(asked({ laterBoxes: [box] }))).toEqual([
      {
        what: 'formulation',
        sentence:
          'A later box (autumn) was read on 2026-09-01: its white lies 1.2 ΔE00 and its black 2.1 from what this was printed on. Say which box the sheet comes from.',
      },
    ]);
  });

  it('a black that is not known is not told; boxes that are unlike are not held against each other, and why is said', () => {
    const [white, unlike] = since(
      asked({
        laterBoxes: [
          { batch: '', readOn: '2026-09-01', apart: { white: 1 } },
          { batch: 'b', readOn: '2026-10-01', apart: { why: 'one read before it had dried' } },
        ],
      }),
    );
    expect(white.sentence).not.toContain('black');
    expect(white.sentence).toContain('(of another formulation)');
    expect(unlike.sentence).toContain('it is not held against the first: one read before it had dried.');
    expect(unlike.sentence).not.toContain('ΔE00');
  });

  it('a profile made anew after that day; one made before it, or on it, is the one it was printed through', () => {
    expect(since(asked({ profileMadeOn: '2026-03-03T00:00:00Z' })).map((s) => s.what)).toEqual(['profile']);
    for (const profileMadeOn of ['2026-03-02T23:00:00Z', '2026-01-01T00:00:00Z'])
      expect(since(asked({ profileMadeOn }))).toEqual([]);
  });
});
