import { minutesEach, type TimedPrint } from './minutes.ts';

const timed = (minutes: number | null, copies: number, feed: string, areaM2: number): TimedPrint => ({
  minutes,
  copies,
  feed,
  areaM2,
});

test('of the same feed and size the mean of a copy', () => {
  const prints = [timed(38, 10, 'auto feeder', 0.1), timed(null, 1, 'auto feeder', 0.1), timed(5.8, 1, '', 0.105)];
  expect(minutesEach(prints, 'auto feeder', 0.1)).toEqual({ each: (3.8 + 5.8) / 2, from: 'timed' });
});

test('three copies from the feeder in a fifth of the size are not planned as the straight path of the large one', () => {
  // 0.3 m² by hand: 7 + 13.5 = 20.5 min estimated, 11 timed: this sheet takes 11/20.5 of the estimate.
  const large = timed(11, 1, 'front straight path', 0.3);
  const { each, from } = minutesEach([large], 'auto feeder', 0.06);
  expect(from).toBe('scaled');
  expect(each).toBeCloseTo((11 / 20.5) * (0.5 + 2.7), 9);
  // What the feeder itself took before counts before the other path.
  const own = timed(4, 1, 'auto feeder', 0.12);
  expect(minutesEach([large, own], 'auto feeder', 0.06).each).toBeCloseTo((4 / 5.9) * 3.2, 9);
});

test('where nothing was timed, by feed and area', () => {
  expect(minutesEach([], 'front straight path', 0.1)).toEqual({ each: 7 + 4.5, from: 'estimated' });
});
