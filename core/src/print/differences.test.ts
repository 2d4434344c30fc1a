import { differences, type Earlier } from './differences.ts';
import { numberText, proofsOf } from './edition.ts';
import { pathOf } from './feed.ts';
import { SETTING_KEYS, written } from './settings.ts';

const baryta = {
  printer: 'P10',
  inkSet: 'ten inks',
  blackInk: 'photo black',
  mediaSetting: 'Heavy gloss fibre',
  intent: 'relative colorimetric',
  liftStops: 0.25,
  sharpening: 'light',
};
const rag: Earlier = {
  printedOn: '2026-10-01',
  on: 'Salt at noon on Chalk Rag',
  settings: { ...baryta, blackInk: 'matt black', mediaSetting: 'Fine art matt', liftStops: 0 },
};

describe('what differs', () => {
  it('from the last sheet through the printer: what must be done there is said with what it takes', () => {
    const found = differences(baryta, { atPrinter: rag });
    expect(found.map((d) => [d.key, d.is, d.was])).toEqual([
      ['blackInk', 'photo black', 'matt black'],
      ['mediaSetting', 'Heavy gloss fibre', 'Fine art matt'],
    ]);
    expect(found[0].sentence).toContain('4 minutes and 3 ml (practice)');
    expect(found[1].sentence).toContain('Salt at noon on Chalk Rag');
  });

  it('from the setting that was stamped, even where the last sheet had the same wrong one', () => {
    const wrong = { ...baryta, mediaSetting: 'Plain photo' };
    const found = differences(wrong, {
      atPrinter: { ...rag, settings: wrong },
      standing: { mediaSetting: 'Heavy gloss fibre', stampedAt: '2026-09-20T10:00:00Z', reason: 'Blacker.' },
    });
    expect(found).toHaveLength(1);
    expect(found[0].sentence).toMatch(/is Heavy gloss fibre, stamped 2026-09-20: “Blacker\.”$/);
    expect(found[0]).toMatchObject({ key: 'mediaSetting', from: 'standing', was: 'Heavy gloss fibre' });
  });

  it('lift and sharpening go with the picture: its own last print counts, another picture’s does not', () => {
    expect(differences(baryta, { atPrinter: rag }).some((d) => d.key === 'liftStops')).toBe(false);
    const found = differences(baryta, { ofPicture: { ...rag, settings: { ...baryta, liftStops: 0 } } });
    expect(found.map((d) => [d.key, d.from])).toEqual([['liftStops', 'picture']]);
  });

  it('an alike print differs in nothing; what an earlier one does not say is not told to differ', () => {
    expect(differences(baryta, { ofPicture: { ...rag, settings: baryta } })).toEqual([]);
    expect(differences({ ...baryta, suction: 'low' }, { ofPicture: { ...rag, settings: baryta } })).toEqual([]);
  });
});

it('every setting has a word for its value, and for none', () => {
  for (const key of SETTING_KEYS) expect(written(key, undefined)).toBe('not said');
  expect(written('dryingMinutes', 30)).toBe('30 min');
  expect(written('blackOvercoat', false)).toBe('no');
});

it('numbers are written as under a print; proofs are a tenth (practice)', () => {
  const sizes = { edition: 12, ...proofsOf(12) };
  expect(numberText('edition', 3, sizes)).toBe('3/12');
  expect(numberText('artist', 1, sizes)).toBe('AP 1/1');
  expect(numberText('edition', 41, { ...sizes, edition: null })).toBe('41');
  expect(proofsOf(40)).toEqual({ artist: 4, printer: 0, good: 1 });
});

it('the way in is known by its words', () => {
  expect(pathOf('Front straight path, one by one')).toBe('front');
  expect(pathOf('carrier')).toBeUndefined();
});
