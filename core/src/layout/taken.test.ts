import { fitsOn, taken } from './taken.ts';

const roll = { kind: 'roll', widthMm: 432, heightMm: 12_000 } as const;
const a3plus = { kind: 'sheet', widthMm: 329, heightMm: 483 } as const;

it('of a roll a print takes its shorter side where the longer lies across, else the longer, else it has no room', () => {
  expect(taken(roll, { widthMm: 420, heightMm: 280 })).toBe(280);
  expect(taken(roll, { widthMm: 280, heightMm: 420 })).toBe(280);
  expect(taken(roll, { widthMm: 900, heightMm: 300 })).toBe(900);
  expect(taken(roll, { widthMm: 900, heightMm: 500 })).toBeUndefined();
});

it('of a box a print takes a sheet, turned or not, where it fits', () => {
  expect(taken(a3plus, { widthMm: 420, heightMm: 280 })).toBe(1);
  expect(taken(a3plus, { widthMm: 500, heightMm: 280 })).toBeUndefined();
  expect(fitsOn(a3plus, { widthMm: 300, heightMm: 480 })).toBe(true);
});
