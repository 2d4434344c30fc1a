import fc from 'fast-check';
import { asPercent, doubtsOf } from './plausible.ts';

const A4 = { widthMm: 210, heightMm: 297 };
const of = (grams: number[], size = A4, claim: object = {}) => doubtsOf({ kind: 'weight', grams, ...size }, claim);

describe('what is typed at the bench is asked about where it can’t be', () => {
  it.each<[string, number[], typeof A4, object, RegExp, string]>([
    // 70 g / 0.06237 m² is 1122 g/m².
    ['the weight of a square metre as grams', [70], A4, {}, /1.?122 g\/m².*weight of a square metre/, 'grams'],
    ['kilograms', [0.0187], A4, {}, /0\.30 g\/m².*kilograms/, 'grams'],
    ['centimetres', [18.7], { widthMm: 21, heightMm: 29.7 }, {}, /29.?982 g\/m².*centimetres/, 'widthMm'],
    ['inches', [18.7], { widthMm: 8.27, heightMm: 11.69 }, {}, /inches/, 'widthMm'],
    ['ten to one', [18.7, 1.87], A4, {}, /1\.87 and 18\.7 g are too far apart/, 'grams'],
    ['another paper', [18.7], A4, { weightGsm: 190 }, /300 g\/m², where 190 g\/m² is claimed/, 'grams'],
  ])('%s', (_, grams, size, claim, message, field) => {
    const doubts = of(grams, size, claim);
    expect(doubts).toHaveLength(1);
    expect(doubts[0]).toEqual({ field, message: expect.stringMatching(message) });
  });

  it.each<[string, number[], number, object, RegExp, string]>([
    ['millimetres', [3.8], 10, { weightGsm: 310 }, /0\.38 µm a sheet.*millimetres/, 'stackUm'],
    ['one sheet for a stack', [380], 10, { weightGsm: 310 }, /38 µm a sheet.*one sheet measured/, 'sheets'],
    ['a bulk no baryta has', [9000], 10, { weightGsm: 310, coating: 'baryta' }, /bulk of 2\.90 cm³\/g/, 'stackUm'],
    ['ten to one', [3800, 380], 10, {}, /380.0 and 3.?800.0 µm are too far apart/, 'stackUm'],
  ])('a stack: %s', (_, stackUm, sheets, claim, message, field) => {
    const doubts = doubtsOf({ kind: 'thickness', stackUm, sheets }, claim);
    expect(doubts).toEqual([{ field, message: expect.stringMatching(message) }]);
  });

  it('opacity: backings swapped; a fraction is taken for one', () => {
    expect(doubtsOf({ kind: 'opacity', overBlack: [90], overStack: [84] }, {})[0]!.message).toMatch(/107 %.*swapped/);
    expect(asPercent([0.861, 0.858])).toEqual({ percent: [86.1, 85.8], wereFractions: true });
    expect(asPercent([86.1, 85.8])).toEqual({ percent: [86.1, 85.8], wereFractions: false });
    expect(asPercent([])).toEqual({ percent: [], wereFractions: false });
  });

  it('gloss: readings of a sheet with sheen that lie three to one; not those of a dull one', () => {
    const gloss = (white: number[]) => doubtsOf({ kind: 'gloss', angleDeg: 60, white, black: [] }, {});
    expect(gloss([60, 6])[0]).toEqual({ field: 'white60', message: expect.stringMatching(/6\.00 and 60\.0 GU/) });
    expect(gloss([1.2, 3.1, 0.8])).toEqual([]);
  });

  it('a sheet as papers are is never doubted, claimed or not (property)', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 45, max: 600, noNaN: true }),
        fc.double({ min: 0.95, max: 1.6, noNaN: true }),
        fc.double({ min: 0.93, max: 1.07, noNaN: true }),
        fc.boolean(),
        (gsm, bulk, off, claimed) => {
          const known = claimed ? { weightGsm: gsm * off, thicknessUm: gsm * bulk * off } : {};
          const grams = [1, 1.01, 0.99].map((by) => gsm * by * 0.21 * 0.297);
          const stackUm = [1, 1.02].map((by) => 10 * gsm * bulk * by);
          expect(of(grams, A4, known)).toEqual([]);
          if (gsm * bulk > 45 && gsm * bulk < 1150)
            expect(doubtsOf({ kind: 'thickness', stackUm, sheets: 10 }, known)).toEqual([]);
        },
      ),
    );
  });
});
