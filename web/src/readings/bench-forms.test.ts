import type { Observation } from '@rakuen/core/measurement/observations';
import fc from 'fast-check';
import { BENCH_FORMS, inWords, numbersIn, TypingError } from './bench-forms.ts';

const refused = (does: () => unknown): TypingError => {
  try {
    does();
  } catch (error) {
    if (error instanceof TypingError) return error;
    throw error;
  }
  throw new Error('It was taken.');
};

describe('readings as a hand writes them', () => {
  it.each([
    ['18,70 18.72  18,71', [18.7, 18.72, 18.71]],
    ['18,70; 18,72;18,71', [18.7, 18.72, 18.71]],
    ['18.7, 18.72, 18.71', [18.7, 18.72, 18.71]],
    ['300\n301\n302', [300, 301, 302]],
    ['   ', []],
  ])('%j', (text, numbers) => expect(numbersIn(text)).toEqual(numbers));

  it('numbers written with spaces between come back, with comma or point (fast-check)', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -99_999, max: 99_999 })),
        fc.constantFrom(' ', '\n', '; ', '  '),
        (hundredths, gap) => {
          const values = hundredths.map((v) => v / 100);
          expect(numbersIn(values.join(gap))).toEqual(values);
          expect(numbersIn(values.map((v) => String(v).replace('.', ',')).join(gap))).toEqual(values);
        },
      ),
    ));
});

describe('forms of the bench', () => {
  const { weight, thickness, gloss, opacity } = BENCH_FORMS;

  it('a sheet that is weighed', () =>
    expect(weight.toValues({ grams: '18,70 18,72', widthMm: '210', heightMm: '297' })).toEqual([
      { grams: [18.7, 18.72], widthMm: 210, heightMm: 297 },
    ]));

  it('nothing read, a word for a number, two numbers for one: each is told where it stands', () => {
    const typed = { grams: '18,7', widthMm: '210', heightMm: '297' };
    expect(refused(() => weight.toValues({ ...typed, grams: '' }))).toMatchObject({
      field: 'grams',
      message: expect.stringContaining('nothing was read yet'),
    });
    expect(refused(() => weight.toValues({ ...typed, grams: '18,7 heavy' }))).toMatchObject({
      field: 'grams',
      message: expect.stringContaining('“18,7 heavy” holds something that is no number'),
    });
    expect(refused(() => weight.toValues({ ...typed, widthMm: '210 297' }))).toMatchObject({
      field: 'widthMm',
      message: 'Width takes one number.',
    });
  });

  it('gloss: angles that were not read are left out; full black alone is no reading', () => {
    expect(gloss.toValues({ white60: '31,2 31,4', black60: '44' })).toEqual([
      { angleDeg: 60, white: [31.2, 31.4], black: [44] },
    ]);
    expect(gloss.toValues({ white20: '3', white85: '70' })).toEqual([
      { angleDeg: 20, white: [3], black: [] },
      { angleDeg: 85, white: [70], black: [] },
    ]);
    expect(refused(() => gloss.toValues({ black85: '12' }))).toMatchObject({ field: 'white85' });
    expect(refused(() => gloss.toValues({}))).toMatchObject({ field: 'white60' });
  });

  it('what an instrument filled in comes out as it was read', () => {
    const sheets = [{ grams: [18.71, 18.7], widthMm: 210, heightMm: 297 }];
    expect(weight.toValues(weight.fromValues(sheets))).toEqual(sheets);
    const stack = [{ stackUm: [4810, 4822], sheets: 10 }];
    expect(thickness.toValues(thickness.fromValues(stack))).toEqual(stack);
    const over = [{ overBlack: [88.12], overStack: [91.5] }];
    expect(opacity.toValues(opacity.fromValues(over))).toEqual(over);
    const shine = [
      { angleDeg: 20 as const, white: [3.1], black: [8.2, 8.3] },
      { angleDeg: 60 as const, white: [31.2], black: [] },
    ];
    expect(gloss.toValues(gloss.fromValues(shine))).toEqual(shine);
  });

  it('every box has a name of its own in its form', () => {
    for (const { fields } of Object.values(BENCH_FORMS)) {
      expect(new Set(fields.map((f) => f.key)).size).toBe(fields.length);
      expect(new Set(fields.map((f) => f.label)).size).toBe(fields.length);
    }
  });
});

describe('an observation in words', () => {
  it.each<[Observation, string]>([
    [{ kind: 'weight', grams: [18.7, 18.72], widthMm: 210, heightMm: 297 }, '18.71 g a sheet of 210 × 297 mm, 2 times'],
    [{ kind: 'thickness', stackUm: [4810], sheets: 10 }, '4810 µm for 10 sheets, once'],
    [{ kind: 'gloss', angleDeg: 60, white: [31.2], black: [44] }, '60°: bare sheet 31.2, full black 44.0 GU, once'],
    [{ kind: 'gloss', angleDeg: 20, white: [3, 5], black: [] }, '20°: bare sheet 4.0 GU, 2 times'],
    [{ kind: 'opacity', overBlack: [88.1], overStack: [91.5] }, 'Y 88.10 % over black, 91.50 % over a stack, once'],
  ])('%j', (observation, words) => expect(inWords(observation).replaceAll('\u2009', ' ')).toBe(words));

  it('rubbing tells how long after printing it was, in the unit one would say', () => {
    const rubbed = (minutesAfterPrinting: number) => inWords({ kind: 'rub', minutesAfterPrinting, grade: 0 });
    expect(rubbed(10)).toMatch(/10 minutes after printing$/);
    expect(rubbed(60 * 26)).toMatch(/26 hours after printing$/);
    expect(rubbed(60 * 72)).toMatch(/3 days after printing$/);
  });

  it('a way into the printer tells what was found, and nothing that was not', () => {
    const found = { kind: 'feeding', feed: 'front', takes: 'well', headHeight: '', suction: '', corners: 0 } as const;
    const words = inWords({ ...found, borderless: false, customSizes: false });
    expect(words).not.toMatch(/head height|suction|at once|roll/);
    expect(words).toMatch(/not to the edge$/);
  });
});
