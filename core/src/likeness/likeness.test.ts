import type { Figure } from '../measurement/figure.ts';
import { EVEN_WEIGHTS, findLikes, profileDonors, type LikeCandidate } from './likeness.ts';

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
