import { bulk, thickness, weight } from '@rakuen/core/measurement/measures/body';
import { asClaimed } from '@rakuen/core/measurement/measures/claimed-amount';
import { textureAmplitude } from '@rakuen/core/measurement/measures/texture';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PaperHead } from '@rakuen/contract/papers';
import fc from 'fast-check';
import { differing, theirsOf } from './conflict.tsx';
import { asNumber, asNumberOrNone, decimal } from './decimal.ts';
import { asStated, bodyClaims, claimOf, conditionLine, dried, NOT_CLAIMED, settingLine } from './label.ts';
import { MARKS } from './marks.ts';
import { screenColour } from './screen-colour.ts';

describe('a number as a hand writes it', () => {
  it.each([
    ['310,5', 310.5],
    [' 310.5 ', 310.5],
    ['0', 0],
    ['-3,25', -3.25],
    ['1e3', 1000],
  ])('%j is %d', (text, value) => expect(decimal(text)).toBe(value));

  it.each(['', 'x', '1,2,3', '12 g', '1.2.3'])('%j is none, and is not taken for nought', (text) =>
    expect([asNumber.setValueAs(text), asNumber.setValueAs(undefined)]).toEqual([NaN, NaN]),
  );

  it('comma and point are one to it, whatever the number (fast-check)', () =>
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (drawn) => {
        // There is no nought with a sign on paper.
        const v = drawn + 0;
        expect(decimal(String(v).replace('.', ','))).toBe(v);
        expect(asNumber.setValueAs(v)).toBe(v);
      }),
    ));

  it('what may be left open is open where nothing stands, and not where something wrong does', () => {
    expect(asNumberOrNone.setValueAs('  ')).toBeUndefined();
    expect(asNumberOrNone.setValueAs(null)).toBeUndefined();
    expect(asNumberOrNone.setValueAs('12,5')).toBe(12.5);
    expect(asNumberOrNone.setValueAs('thick')).toBeNaN();
  });
});

const HOW = {
  printer: 'Test Press',
  mediaSetting: 'Coated',
  printMode: 'colour through a profile',
  blackOvercoat: false,
} as ConditionHead;

describe('how a print condition is called', () => {
  it('by printer and media setting; what is usual is not said', () => {
    expect(conditionLine(HOW)).toBe('Test Press · Coated');
    expect(settingLine(HOW)).toBe('Coated');
  });

  it('with whatever parts it from the usual and from its like', () =>
    expect(
      conditionLine({ ...HOW, printMode: 'driver colour', blackOvercoat: true, apart: 'six inks' } as ConditionHead),
    ).toBe('Test Press · Coated · driver colour · black overcoat · six inks'));
});

describe('what a maker claims', () => {
  const paper = { weightGsm: 310.5, thicknessUm: 480, surface: 'smooth', brightenerClaim: 'none' } as PaperHead;
  const open = { brightenerClaim: 'not stated' } as PaperHead;

  it('stands with its unit, and with as many digits as were given', () => {
    expect(claimOf(weight, paper)).toBe('310.5 g/m²');
    expect(claimOf(thickness, paper)).toBe('480 µm');
    expect(claimOf(bulk, paper)).toBe('1.55 cm³/g');
    expect([asClaimed(300), asClaimed(300.04)]).toEqual(['300', '300.0']);
  });

  it('where it claims nothing that is said: no nought, no unit of nothing', () => {
    for (const measure of [weight, thickness, bulk, textureAmplitude]) expect(claimOf(measure, open)).toBe(NOT_CLAIMED);
    expect(claimOf(bulk, { ...open, weightGsm: 300 })).toBe(NOT_CLAIMED);
    expect(bodyClaims(open)).toEqual([]);
    expect(bodyClaims(paper)).toEqual(['310.5 g/m²', '480 µm', 'smooth']);
  });
});

describe('dates and hours', () => {
  it('a date of a file that is not understood stands as it was written', () =>
    expect(asStated('im Frühjahr')).toBe('im Frühjahr'));
  it('one that is understood is told in the reader’s own order', () =>
    expect(asStated('2026-03-02T10:00:00Z')).toMatch(/2026/));
  it('a date as some instrument writes it is shown as a day', () =>
    expect(asStated('May 30, 2006 10:12')).toMatch(/2006/));
  it.each([
    [0.25, '15 min'],
    [1, '1 h'],
    [47.4, '47 h'],
    [72, '3 days'],
  ])('dried for %d hours is %s', (hours, words) => expect(dried(hours)).toBe(words));
});

describe('two versions of a thing', () => {
  it('what another window made of it is told from any other refusal', () => {
    const current = { revision: 3 };
    expect(theirsOf({ statusCode: 412, message: '', current })).toBe(current);
    expect(theirsOf({ statusCode: 409, message: '', current })).toBeUndefined();
    expect(theirsOf(undefined)).toBeUndefined();
  });

  it('only fields that differ are shown, nothing as nothing, and nothing that one of them lacks', () =>
    expect(
      differing(
        { name: 'Rag', notes: '', weightGsm: 300, sizes: [1], own: 'x', same: null },
        { name: 'Rag', notes: 'thin', weightGsm: null, sizes: [1, 2], same: '' },
      ),
    ).toEqual([
      { field: 'notes', mine: '—', theirs: 'thin' },
      { field: 'weightGsm', mine: '300', theirs: '—' },
      { field: 'sizes', mine: '[1]', theirs: '[1,2]' },
    ]));
});

describe('told apart without colour', () => {
  it('every paper on the table has a letter and a line of its own', () => {
    expect(new Set(MARKS.map((m) => m.letter)).size).toBe(MARKS.length);
    expect(new Set(MARKS.map((m) => m.dash)).size).toBe(MARKS.length);
  });
});

describe('a colour on the screen', () => {
  it('greys have no tint; white is white, black is black', () => {
    expect(screenColour([100, 0, 0])).toEqual({ css: 'rgb(255 255 255)', outside: false });
    expect(screenColour([0, 0, 0])).toEqual({ css: 'rgb(0 0 0)', outside: false });
    for (let L = 5; L < 100; L += 5) {
      const [r, g, b] = screenColour([L, 0, 0]).css.match(/\d+/g)!.map(Number);
      expect(Math.max(r, g, b) - Math.min(r, g, b)).toBeLessThanOrEqual(1);
    }
  });

  it('what the screen can’t show is cut and said, never wrapped round (fast-check)', () =>
    fc.assert(
      fc.property(
        fc.tuple(
          fc.double({ min: 0, max: 100, noNaN: true }),
          fc.double({ min: -120, max: 120, noNaN: true }),
          fc.double({ min: -120, max: 120, noNaN: true }),
        ),
        (lab) => {
          const { css, outside } = screenColour(lab);
          const codes = css
            .match(/^rgb\((\d+) (\d+) (\d+)\)$/)!
            .slice(1)
            .map(Number);
          expect(codes.every((v) => v >= 0 && v <= 255)).toBe(true);
          if (outside) expect(codes.some((v) => v === 0 || v === 255)).toBe(true);
        },
      ),
    ));
});
