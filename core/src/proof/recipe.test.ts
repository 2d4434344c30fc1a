import fc from 'fast-check';
import {
  applyRecipe,
  isPlain,
  PLAIN,
  RECIPE_PARTS,
  recipeLine,
  toneOf,
  toneTable,
  turned,
  type Recipe,
  type RecipeKey,
} from './recipe.ts';
import { suggest } from './suggest.ts';

const part = (key: RecipeKey) => {
  const { least, most } = RECIPE_PARTS[key];
  return fc.double({ min: least, max: most, noNaN: true });
};
const recipes = fc.record({
  liftStops: part('liftStops'),
  contrast: part('contrast'),
  shadows: part('shadows'),
  lights: part('lights'),
  localFine: part('localFine'),
  localBroad: part('localBroad'),
  saturation: part('saturation'),
  sharpening: part('sharpening'),
  radiusMm: fc.constant(0.1),
  rendering: fc.constant(PLAIN.rendering),
  borderMm: fc.constant(0),
  borders: fc.constant(PLAIN.borders),
  caption: fc.constant(''),
  trimMarks: fc.constant(false),
});
const after = (recipe: Recipe, ...lab: [number, number, number]) => {
  const labs = Float32Array.from(lab);
  applyRecipe(labs, recipe);
  return [...labs];
};

it('every recipe rises everywhere and leaves black and white where they are (fast-check)', () => {
  fc.assert(
    fc.property(recipes, (recipe) => {
      expect(toneOf(recipe, 0)).toBeCloseTo(0, 6);
      expect(toneOf(recipe, 100)).toBeCloseTo(100, 6);
      for (let l = 0; l < 100; l += 0.5) expect(toneOf(recipe, l + 0.5)).toBeGreaterThan(toneOf(recipe, l));
    }),
    { numRuns: 200 },
  );
});

it('the table is the tone: neutral colours come out as `toneOf` says, to a hundredth of L* (fast-check)', () => {
  fc.assert(
    fc.property(recipes, fc.double({ min: 1, max: 100, noNaN: true }), (recipe, l) => {
      expect(after(recipe, l, 0, 0)[0]).toBeCloseTo(toneOf(recipe, l), 1);
    }),
  );
});

it('nothing done is nothing changed, to the last bit', () => {
  expect(after(PLAIN, 43, 20, -31)).toEqual([43, 20, -31]);
  expect(isPlain({ ...PLAIN, sharpening: 1 })).toBe(true);
  expect(Math.max(...toneTable(PLAIN).map((f) => Math.abs(f - 1)))).toBeLessThan(1e-6);
});

it('a quarter stop is a quarter stop in the darks: light times 2 to the quarter (practice)', () => {
  // L* 10: Y = 1.126 %; times 1.189, over the shoulder 1 + 0.189 Y: 1.336 %, which is L* 11.6.
  expect(after({ ...PLAIN, liftStops: 0.25 }, 10, 0, 0)[0]).toBeCloseTo(11.57, 1);
});

it('opened shadows leave all from L* 35 on alone; saturation leaves greys alone and goes with chroma', () => {
  const open = { ...PLAIN, shadows: 0.6 };
  expect(toneOf(open, 35)).toBeCloseTo(35, 6);
  expect(toneOf(open, 60)).toBeCloseTo(60, 6);
  expect(toneOf(open, 8)).toBeGreaterThan(9);
  expect(after({ ...PLAIN, saturation: -0.2 }, 50, 0, 0)).toEqual([expect.closeTo(50, 4), 0, 0]);
  expect(after({ ...PLAIN, saturation: -0.2 }, 50, 40, -30)).toEqual([
    expect.closeTo(50, 3),
    expect.closeTo(32, 2),
    expect.closeTo(-24, 2),
  ]);
});

it('a hand turns in steps and stops at the bounds; the line says what is done and nothing else', () => {
  expect(turned(PLAIN, 'liftStops', 1).liftStops).toBe(0.25);
  expect(turned({ ...PLAIN, liftStops: 2 }, 'liftStops', 1).liftStops).toBe(2);
  expect(turned({ ...PLAIN, saturation: 0.1 }, 'saturation', -1).saturation).toBe(0.05);
  expect(recipeLine(PLAIN)).toBe('nothing done');
  expect(recipeLine({ ...PLAIN, liftStops: 0.25, saturation: -0.1 })).toBe('lift ¼ stop, saturation −10 %');
});

describe('what is suggested', () => {
  const asked = (over: object = {}) => suggest({ coating: 'baryta', lux: 500, viewingMm: 600, ppi: 360, ...over });
  const keys = (list: { key: string }[]) => list.map((s) => s.key);

  it('in a bright room nothing but sharpening', () => {
    expect(keys(asked())).toEqual(['sharpening']);
  });

  it('a lift where the room is dim; none where it is bright', () => {
    const dim = asked({ lux: 50 }).find((s) => s.key === 'liftStops')!;
    expect(dim.value).toBeGreaterThanOrEqual(0.25);
    expect(dim.value % 0.25).toBe(0);
    expect(dim.sentence).toContain('14 cd/m²');
  });

  it('grain is not sharpened with the picture, and a texture takes from what was sharpened', () => {
    const of = (over: object) => asked(over).find((s) => s.key === 'sharpening')!;
    expect(of({ noiseL: 3 }).value).toBeLessThan(of({}).value);
    expect(of({ noiseL: 3 }).sentence).toContain('grain of 3.0 L*');
    expect(of({ textureL: 5 }).value).toBeGreaterThan(of({}).value);
    expect(of({ textureL: 5 }).sentence).toContain('5.0 L*');
    expect(of({ noiseL: 0.4, textureL: 0.5 }).value).toBe(of({}).value);
  });

  it('matt is sharpened more than gloss (practice), with a radius that grows with the distance', () => {
    const of = (over: object) => asked(over).find((s) => s.key === 'sharpening')!;
    expect(of({ coating: 'cotton' }).value).toBeGreaterThan(of({}).value);
    expect(of({ viewingMm: 2000 }).radiusMm!).toBeGreaterThan(of({ viewingMm: 300 }).radiusMm!);
  });
});

it('a line says what lies around the picture and how it is brought onto its sheet, where it was turned', () => {
  expect(recipeLine(PLAIN)).toBe('nothing done');
  expect(
    recipeLine({
      ...PLAIN,
      liftStops: 0.25,
      rendering: 'perceptual',
      borderMm: 12.5,
      caption: '3/12',
      trimMarks: true,
    }),
  ).toBe('lift ¼ stop, perceptual, border 12.5 mm, equal all round, caption “3/12”, marks to trim by');
});
