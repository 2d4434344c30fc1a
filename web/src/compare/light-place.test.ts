import { placeOf } from './light-place.tsx';

describe('which holds its colour', () => {
  it('papers that read alike share a place, and the next one counts them', () =>
    expect([0.11, 0.13, 2.06, 2.64].map((mean, _, all) => placeOf(mean, all))).toEqual([1, 1, 3, 4]));

  it('ten comes after nine', () => expect([9.9, 10.05].map((mean, _, all) => placeOf(mean, all))).toEqual([1, 2]));
});
