import { PLAIN } from '../proof/recipe.ts';
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
  profileHash: { then: '', now: '' },
  pictureHash: { then: '', now: '' },
  recipe: {},
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

  it('with the hashes of the profile known, days are not asked', () => {
    const [a, b] = ['a'.repeat(64), 'b'.repeat(64)];
    const profileMadeOn = '2026-08-01';
    expect(since(asked({ profileHash: { then: a, now: a }, profileMadeOn }))).toEqual([]);
    const [only, ...more] = since(asked({ profileHash: { then: a, now: b }, profileMadeOn }));
    expect(more).toEqual([]);
    expect(only.sentence).toContain('bbbbbbbb; that print was made with aaaaaaaa');
    expect(since(asked({ pictureHash: { then: a, now: b } })).map((s) => s.what)).toEqual(['picture']);
  });

  it('a recipe that was changed is said part by part, and that the print keeps the first', () => {
    const then = { values: { ...PLAIN, liftStops: 0.5 }, changedAt: '2026-03-01T08:00:00Z' };
    const values = { ...PLAIN, liftStops: 0.25, shadows: 0.3, borderMm: 20 };
    const recipe = { then, now: { values, changedAt: '2026-05-04T08:00:00Z' } };
    expect(since(asked({ recipe }))).toEqual([
      {
        what: 'recipe',
        sentence:
          'The recipe was changed on 2026-05-04: lift ¼ stop (was ½ stop), shadows opened 3 (was as they are), border 20 mm, equal all round (was no border). This print keeps the recipe of that print.',
      },
    ]);
    expect(since(asked({ recipe: { then, now: { ...then, changedAt: '2026-05-04' } } }))).toEqual([]);
    expect(since(asked({ recipe: { now: then } }))[0].sentence).toContain('was not recorded');
    expect(since(asked({ recipe: { then } }))).toEqual([]);
  });

  it('the box of that print is proposed, or it is said why it can’t be', () => {
    expect(since(asked({ box: { label: 'A3+' } }))).toEqual([]);
    expect(since(asked({ box: { label: 'A3+', why: 'too little left' } }))[0].sentence).toBe(
      'The box of that print, A3+, holds too little for this print.',
    );
  });
});
