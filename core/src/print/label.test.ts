import fc from 'fast-check';
import { PLAIN } from '../proof/recipe.ts';
import { captionLine, LABEL_SHEETS, labelPlace, recipeOnLabel, settingsLine, type LabelSheet } from './label.ts';

const SHEETS = Object.keys(LABEL_SHEETS) as LabelSheet[];

describe('labels on a sheet', () => {
  it.each(SHEETS)('%s: all lie on it, and none over another', (sheet) => {
    const { columns, rows, widthMm, heightMm, pageMm } = LABEL_SHEETS[sheet];
    const places = Array.from({ length: columns * rows }, (_, i) => labelPlace(sheet, i));
    for (const { page, xMm, yMm } of places) {
      expect(page).toBe(0);
      expect(xMm).toBeGreaterThanOrEqual(0);
      expect(yMm).toBeGreaterThanOrEqual(0);
      expect(xMm + widthMm).toBeLessThanOrEqual(pageMm[0] + 1e-9);
      expect(yMm + heightMm).toBeLessThanOrEqual(pageMm[1] + 1e-9);
    }
    for (const [i, p] of places.entries())
      for (const q of places.slice(i + 1))
        expect(Math.abs(p.xMm - q.xMm) >= widthMm - 1e-9 || Math.abs(p.yMm - q.yMm) >= heightMm - 1e-9).toBe(true);
  });

  it('row by row, and on to the next page where one is full (fast-check)', () =>
    fc.assert(
      fc.property(fc.constantFrom(...SHEETS), fc.integer({ min: 0, max: 500 }), (sheet, at) => {
        const { columns, rows } = LABEL_SHEETS[sheet];
        const { page, xMm, yMm } = labelPlace(sheet, at);
        expect(page).toBe(Math.floor(at / (columns * rows)));
        expect(labelPlace(sheet, at + columns * rows)).toEqual({ page: page + 1, xMm, yMm });
        if (columns > 1 && at % columns === 0) expect(labelPlace(sheet, at + 1).yMm).toBe(yMm);
      }),
    ));
});

describe('what stands on a label', () => {
  it('a caption leaves out what it has not', () => {
    expect(captionLine({ number: '3/12', title: 'Low water', date: '2026-03-02' })).toBe('3/12 · Low water · 2026');
    expect(captionLine({ title: 'Low water', date: '2026-03-02' })).toBe('Low water · 2026');
    expect(captionLine({ title: '', date: '2026-03-02' })).toBe('2026');
  });

  it('a recipe has its name, its version and all that was done', () => {
    const values = { ...PLAIN, liftStops: 0.5, shadows: 0.2, rendering: 'perceptual', borderMm: 15 } as const;
    expect(recipeOnLabel({ name: 'dusk', version: 3, values })).toBe(
      'recipe “dusk” 3: lift ½ stop, shadows opened 2, perceptual, border 15 mm, equal all round',
    );
    expect(recipeOnLabel({ name: '', version: 1, values: PLAIN })).toBe('recipe 1: nothing done');
  });

  it('settings in the order in which they are looked at; what is not said, or is nought, is left out', () => {
    const line = settingsLine({
      feed: 'rear single',
      profile: 'press.icc',
      printer: 'Test Press',
      mediaSetting: '',
      sharpening: 'none',
      liftStops: 0,
      resolution: '1440 dpi',
    });
    expect(line).toMatch(/^Test Press · press\.icc · 1440 dpi · .*rear single$/);
    expect(line).not.toMatch(/none|lift|undefined| · {2}/);
    expect(settingsLine({ printer: 'P', liftStops: 0.5 })).toMatch(/^P · .*0\.5/);
    expect(settingsLine({})).toBe('');
  });
});
