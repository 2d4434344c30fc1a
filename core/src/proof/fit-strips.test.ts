import fc from 'fast-check';
import { fitStrips } from './fit-strips.ts';
import { PLAIN } from './recipe.ts';
import { EDGE_MM, MARK_BAND_MM, planStrips } from './strips.ts';

const A5 = { widthMm: 210, heightMm: 148 };
const plan = (places: number, steps: number, sheet = A5) => {
  const fit = fitStrips(places, steps, sheet);
  return {
    fit,
    ...planStrips({
      places: Array.from({ length: places }, (_, i) => ({ name: `${i}`, x: 0.5, y: 0.5 })),
      ladder: { key: 'liftStops', values: Array.from({ length: steps }, (_, i) => i / 4) },
      recipe: PLAIN,
      cropMm: fit.cropMm,
      printMm: { width: 420, height: 280 },
      sheet: fit.sheet,
    }),
  };
};

it('five places in three steps need one A5, and four fifths of what the printer reaches of it is printed on', () => {
  const { sheets, lacking, fit } = plan(5, 3);
  expect(lacking).toEqual([]);
  expect(sheets).toHaveLength(1);
  expect(Math.min(fit.cropMm.width, fit.cropMm.height)).toBeGreaterThanOrEqual(24);
  const [w, h] = [fit.sheet.widthMm, fit.sheet.heightMm].map((mm) => mm - 2 * EDGE_MM - MARK_BAND_MM);
  const printed = sheets[0].placed.reduce((sum, p) => sum + p.widthMm * p.heightMm, 0);
  expect(printed / (w * h)).toBeGreaterThan(0.8);
});

it('what is fitted finds room, on no more sheets than crops of 48 mm take (fast-check)', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 10 }),
      fc.integer({ min: 1, max: 5 }),
      fc.constantFrom(A5, { widthMm: 297, heightMm: 210 }, { widthMm: 152, heightMm: 102 }),
      (places, steps, sheet) => {
        const { sheets, lacking, fit } = plan(places, steps, sheet);
        if (lacking.length > 0)
          return expect(steps * 24).toBeGreaterThan(Math.min(fit.sheet.widthMm, fit.sheet.heightMm) / 2);
        const fixed = planStrips({
          places: Array.from({ length: places }, (_, i) => ({ name: `${i}`, x: 0.5, y: 0.5 })),
          ladder: { key: 'liftStops', values: Array.from({ length: steps }, (_, i) => i / 4) },
          recipe: PLAIN,
          cropMm: { width: 48, height: 48 },
          printMm: { width: 420, height: 280 },
          sheet,
        });
        if (fixed.lacking.length === 0) expect(sheets.length).toBeLessThanOrEqual(fixed.sheets.length);
      },
    ),
  );
});
