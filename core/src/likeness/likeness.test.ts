import fc from 'fast-check';
import type { Figure } from '../measurement/figure.ts';
import { EVEN_WEIGHTS, findLikes, profileDonors, TRAITS, type LikeCandidate } from './likeness.ts';

const sheet = (
  id: string,
  white: [number, number, number],
  dmax: number,
  over: Partial<LikeCandidate> = {},
): LikeCandidate => ({
  id,
  figures: {
    white: { shape: 'colour', lab: white, sd: 0.1 },
    dmax: { shape: 'scalar', value: dmax, sd: 0.01 },
  } as Record<string, Figure>,
  coating: 'cotton',
  weightGsm: 310,
  thicknessUm: 490,
  profile: 'some.icc',
  printer: 'one',
  inkSet: 'pigment',
  printMode: 'colour through a profile',
  ...over,
});
const missed = sheet('missed', [97, 0, 2], 1.65);
const warm = sheet('warm', [96, 1, 6], 1.66);
const near = sheet('near', [97, 0, 2.4], 1.6);
const shallow = sheet('shallow', [97, 0, 2], 1.3);

describe('a like', () => {
  it('is the nearest in what was measured, with what will change said in its unit', () => {
    const [first, ...others] = findLikes(missed, [warm, near, shallow, missed]);
    expect(first.id).toBe('near');
    expect(others).toHaveLength(2);
    expect(first.changes.find((c) => c.key === 'dmax')!.change).toBeCloseTo(-0.05, 9);
    expect(first.changes.find((c) => c.key === 'gloss60')!.change).toBeUndefined();
  });

  it('weights change what is near: who looks at white alone takes the sheet of the same white', () => {
    expect(findLikes(missed, [warm, near, shallow], { ...EVEN_WEIGHTS, dmax: 0, weight: 0 })[0].id).toBe('shallow');
    expect(findLikes(missed, [warm, shallow], { ...EVEN_WEIGHTS, white: 0, weight: 0 })[0].id).toBe('warm');
  });

  it('a trait nobody measured makes it further, not nearer', () => {
    const bare = sheet('bare', [97, 0, 2.4], 1.6, { figures: { white: near.figures.white } });
    expect(findLikes(missed, [bare, near]).map((l) => l.id)).toEqual(['near', 'bare']);
  });

  it('no sheet comes before another for what was not measured of it, however far that one is (property)', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            L: fc.double({ min: 80, max: 98, noNaN: true }),
            d: fc.double({ min: 0.9, max: 2.6, noNaN: true }),
          }),
          {
            minLength: 1,
            maxLength: 6,
          },
        ),
        (list) => {
          const known = list.map(({ L, d }, i) => sheet(`k${i}`, [L, 0, 2], d));
          const unread = known.map((k) => sheet(`u${k.id}`, [97, 0, 2], 0, { figures: { white: k.figures.white } }));
          const likes = findLikes(missed, [...known, ...unread]);
          const at = (id: string) => likes.find((l) => l.id === id)!.distance;
          for (const k of known) expect(at(`u${k.id}`)).toBeGreaterThanOrEqual(at(k.id) - 1e-9);
        },
      ),
    );
  });

  it('the distance is the weighted mean of the steps that are shown', () => {
    const [like] = findLikes(missed, [near], { white: 2, dmax: 1 });
    const steps = (key: string) => like.changes.find((c) => c.key === key)!.steps;
    expect(like.distance).toBeCloseTo((2 * steps('white') + steps('dmax')) / 3, 9);
    const { trait } = TRAITS.find((t) => t.key === 'dmax')!;
    expect(steps('dmax')).toBeCloseTo(0.05 / trait.one, 6);
  });

  it('a driver’s black-and-white is no substitute for colour; another printer is said', () => {
    const grey = sheet('grey', [97, 0, 2], 1.65, { printMode: 'driver black-and-white' });
    const elsewhere = sheet('elsewhere', [97, 0, 2.4], 1.6, { printer: 'another' });
    const likes = findLikes(missed, [grey, elsewhere, near]);
    expect(likes.map((l) => l.id).sort()).toEqual(['elsewhere', 'near']);
    expect(likes.find((l) => l.id === 'elsewhere')?.otherPress).toBe('another');
    expect(likes.find((l) => l.id === 'near')?.otherPress).toBeUndefined();
  });

  it('with nothing to compare comes last', () => {
    const blank = sheet('blank', [97, 0, 2], 1.6, { figures: {} });
    const likes = findLikes(missed, [blank, near], { ...EVEN_WEIGHTS, weight: 0 });
    expect(likes.at(-1)).toMatchObject({ id: 'blank', distance: Infinity });
  });
});

describe('a profile for an uncoated sheet', () => {
  it('is looked for among coated matt conditions that have one, the nearest white first (practice)', () => {
    const washi = sheet('washi', [93, 0.5, 8], 1.1, {
      coating: 'uncoated',
      profile: '',
      printMode: 'colour by the driver',
    });
    const donors = profileDonors(washi, [
      near,
      warm,
      sheet('gloss', [93, 0.5, 8], 2.4, { coating: 'gloss' }),
      sheet('other washi', [93, 0.5, 8], 1.1, { coating: 'uncoated' }),
      sheet('no profile', [93, 0.5, 8], 1.6, { profile: '' }),
    ]);
    expect(donors.map((d) => d.id)).toEqual(['warm', 'near']);
    expect(donors[0].changes.find((c) => c.key === 'dmax')!.change).toBeGreaterThan(0.4);
  });
});

describe('what a search goes by', () => {
  it('stands in the measures: each with a name, a step and what it counts for', () => {
    expect(TRAITS.map((t) => t.trait.name).sort()).toEqual([
      'Black',
      'Brightener',
      'Gamut',
      'Gloss at 60°',
      'Texture',
      'Weight',
      'White',
    ]);
    for (const { trait } of TRAITS) expect(Math.min(trait.one, trait.weight)).toBeGreaterThan(0);
  });

  const scalar = (value: number): Figure => ({ shape: 'scalar', value, sd: 1 });
  const weighed = (id: string, figures: Record<string, Figure>, weightGsm?: number) =>
    sheet(id, [97, 0, 2], 1.65, { figures, weightGsm });
  const changeOf = (key: string, of: LikeCandidate, than: LikeCandidate) =>
    findLikes(than, [of])[0].changes.find((c) => c.key === key)!.change;

  it('weighed is held against weighed, else claimed against claimed, and never one against the other', () => {
    const both = weighed('both', { weight: scalar(290) }, 310);
    expect(changeOf('weight', weighed('a', { weight: scalar(300) }, 250), both)).toBe(10);
    expect(changeOf('weight', weighed('a', {}, 250), both)).toBe(-60);
    expect(changeOf('weight', weighed('a', { weight: scalar(300) }), weighed('b', {}, 310))).toBeUndefined();
  });

  it('a gamut changes in percent of the one that is missed; a white has no direction', () => {
    const [small, large] = [weighed('s', { gamutVolume: scalar(400) }), weighed('l', { gamutVolume: scalar(500) })];
    expect(changeOf('gamutVolume', large, small)).toBe(25);
    expect(changeOf('gamutVolume', small, large)).toBe(-20);
    const [p, q] = [sheet('p', [97, 0, 2], 1.6), sheet('q', [95, 0, 4], 1.6)];
    expect(changeOf('white', p, q)).toBeCloseTo(changeOf('white', q, p)!, 6);
  });
});
