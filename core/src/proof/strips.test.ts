import { PLAIN } from './recipe.ts';
import { planStrips, type StripsAsked } from './strips.ts';

const asked: StripsAsked = {
  places: [
    { name: 'deepest shadow', x: 0.5, y: 0.5 },
    { name: 'corner', x: 1, y: 0 },
  ],
  ladder: { key: 'liftStops', values: [0, 0.25, 0.5] },
  recipe: { ...PLAIN, saturation: 0.1 },
  cropMm: { width: 50, height: 40 },
  printMm: { width: 420, height: 280 },
  sheet: { widthMm: 210, heightMm: 148 },
};

it('every place has all its steps side by side, on as few sheets as hold them, and each says what it is', () => {
  const { sheets, lacking } = planStrips(asked);
  expect(lacking).toEqual([]);
  expect(sheets).toHaveLength(1);
  const strips = sheets[0].placed;
  expect(strips.map((s) => s.crops.map((c) => c.recipe.liftStops))).toEqual([
    [0, 0.25, 0.5],
    [0, 0.25, 0.5],
  ]);
  expect(strips.flatMap((s) => s.crops).every((c) => c.recipe.saturation === 0.1)).toBe(true);
  expect(strips.find((s) => s.key === '0')!.crops[1].words).toBe('1  lift ¼ stop');
});

it('a crop lies within the print, whatever place was marked', () => {
  const corner = planStrips(asked).sheets[0].placed.find((s) => s.key === '1')!.crops[0].fromMm;
  expect(corner).toEqual({ x: 370, y: 0, width: 50, height: 40 });
});

it('a ladder wider than the sheet is said to find no room', () => {
  const { sheets, lacking } = planStrips({ ...asked, cropMm: { width: 90, height: 40 } });
  expect(sheets).toEqual([]);
  expect(lacking).toHaveLength(2);
});
