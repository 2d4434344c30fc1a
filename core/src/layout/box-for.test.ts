import { boxFor, boxRefusal, type BoxAtHand } from './box-for.ts';

const sheet = (id: string, widthMm: number, heightMm: number, left: number, boughtOn = '2026-01-01'): BoxAtHand => ({
  id,
  kind: 'sheet',
  widthMm,
  heightMm,
  left,
  boughtOn,
});
const roll = (id: string, widthMm: number, left: number): BoxAtHand => ({
  id,
  kind: 'roll',
  widthMm,
  heightMm: 15_000,
  left,
  boughtOn: '2025-01-01',
});
const print = { widthMm: 300, heightMm: 200 };

test('a box too small, too empty, or a roll at its end is refused, with what the print takes', () => {
  expect(boxRefusal(sheet('A4', 210, 297, 9), print, 1)).toEqual({ why: 'too small' });
  expect(boxRefusal(sheet('A3', 297, 420, 2), print, 3)).toEqual({ why: 'too little left', takes: 3 });
  expect(boxRefusal(sheet('A3', 297, 420, 3), print, 3)).toBeUndefined();
  // Turned, 200 mm of a roll of 432 mm for each copy.
  expect(boxRefusal(roll('roll', 432, 599), print, 3)).toEqual({ why: 'too little left', takes: 600 });
  expect(boxRefusal(roll('roll', 432, 600), print, 3)).toBeUndefined();
  expect(boxRefusal(sheet('owed', 297, 420, -3), print, 1)).toEqual({ why: 'too little left', takes: 1 });
});

test('the smallest sheet that fits is proposed, of those the oldest box, a roll last', () => {
  const boxes = [
    roll('roll', 610, 9000),
    sheet('A2', 420, 594, 9),
    sheet('new', 297, 420, 9),
    sheet('old', 297, 420, 5, '2024-05-05'),
  ];
  expect(boxFor(boxes, print, 1)?.id).toBe('old');
  expect(boxFor(boxes, print, 6)?.id).toBe('new');
  expect(boxFor(boxes, { widthMm: 600, heightMm: 800 }, 1)?.id).toBe('roll');
  expect(boxFor([sheet('A4', 210, 297, 9)], print, 1)).toBeUndefined();
});
