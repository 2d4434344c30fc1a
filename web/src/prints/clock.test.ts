import { presenceOf } from './clock.ts';

const at = (hours: number, minutes: number) => new Date(2026, 11, 2, hours, minutes);

test('times of the clock become minutes from now', () => {
  const times = [
    { from: '09:00', to: '12:00' },
    { from: '14:30', to: '18:00' },
  ];
  expect(presenceOf(times, at(8, 30))).toEqual([
    { fromMin: 30, toMin: 210 },
    { fromMin: 360, toMin: 570 },
  ]);
  // It has begun: it begins now. It is over: it is tomorrow's.
  expect(presenceOf(times, at(10, 0))[0]).toEqual({ fromMin: 0, toMin: 120 });
  expect(presenceOf(times, at(13, 0))[0]).toEqual({ fromMin: 1200, toMin: 1380 });
});

test('over midnight, and half typed', () => {
  expect(presenceOf([{ from: '22:00', to: '01:00' }], at(21, 0))).toEqual([{ fromMin: 60, toMin: 240 }]);
  expect(
    presenceOf(
      [
        { from: '22:00', to: '' },
        { from: 'x', to: '10:00' },
      ],
      at(21, 0),
    ),
  ).toEqual([]);
});
