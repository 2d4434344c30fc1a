import type { CostView } from '@rakuen/contract/costs';
import type { BoxView } from '@rakuen/contract/stock';
import { partly } from '../../test/partly.ts';
import {
  costExplained,
  eachExplained,
  leftExplained,
  longestIdle,
  rateExplained,
  worthExplained,
} from './explanations.ts';

const box = (over: object = {}): BoxView =>
  partly({
    id: 'b',
    kind: 'sheet',
    label: 'A3',
    sheets: 25,
    heightMm: 420,
    boughtOn: '2026-02-03',
    price: 110,
    currency: 'EUR',
    left: 20,
    ...over,
  });

test('what is left is explained by what it is counted from', () => {
  expect(leftExplained(box())).toBe('25 sheets when it was bought, less what prints and misprints took from it since.');
  expect(leftExplained(box({ counted: 12, countedAt: '2026-05-04T10:00:00Z' }))).toMatch(
    /^12 sheets when it was counted on /,
  );
  expect(leftExplained(box({ kind: 'roll', heightMm: 15_000 }))).toMatch(/^15.0 m when it was bought/);
});

test('prices and rates name what they are made of', () => {
  expect(eachExplained(box())).toMatch(/^110.00 EUR for 25 sheets, bought /);
  expect(eachExplained(box({ price: undefined }))).toBeUndefined();
  expect(worthExplained([box({ worth: 88 }), box()])).toContain('one box');
  expect(rateExplained({ spoilt: 2, of: 7, share: 2 / 7, low: 0.08, high: 0.64 })).toContain('2 of 7 sheets');
});

test('what lies longest is what nothing was taken from for longest; an empty box lies not', () => {
  const boxes = [
    box({ id: 'used', boughtOn: '2020-01-01', touchedOn: '2026-11-01' }),
    box({ id: 'old', boughtOn: '2025-01-01' }),
    box({ id: 'empty', boughtOn: '2019-01-01', left: 0 }),
  ];
  expect(longestIdle(boxes)?.id).toBe('old');
  expect(longestIdle([])).toBeUndefined();
});

test('each line of a cost says how it comes about', () => {
  const cost: CostView = partly({
    currency: 'EUR',
    paperFrom: 'a sheet of the box A3',
    inkMl: 3.5,
    minutes: 14,
    spoilage: { spoilt: 1, of: 4, share: 0.25, low: 0.05, high: 0.7 },
  });
  expect(costExplained('ink', cost, 30, 0.5)).toBe('3.50 ml at 0.50 EUR a millilitre.');
  expect(costExplained('minutes', cost, 30, 0.5)).toContain('14 minutes at 30.00 EUR an hour');
  expect(costExplained('spoilage', cost, 30, 0.5)).toContain('1 of 4 sheets');
  expect(costExplained('paper', cost, 30, 0.5)).toBe('By a sheet of the box A3.');
});
