import { placeAmong } from './place.ts';

describe('a place among others', () => {
  it.each([
    [
      [0.1, 0.1, 2.1, 2.6],
      [1, 1, 3, 4],
    ],
    // Ten comes after nine.
    [
      [9.9, 10.1],
      [1, 2],
    ],
    // A third taken thrice is one: what is equal but for its last digit is equal.
    [
      [1, 1 / 3 + 1 / 3 + 1 / 3, 1.5],
      [1, 1, 3],
    ],
    [
      [1, Infinity, Infinity],
      [1, 2, 2],
    ],
  ])('%j is %j', (values, places) => expect(values.map((v) => placeAmong(v, values))).toEqual(places));
});
