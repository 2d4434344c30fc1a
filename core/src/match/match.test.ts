import fc from 'fast-check';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import type { Lab } from '../colour/types.ts';
import { deviceSurface } from '../gamut/device-surface.ts';
import { mapMesh } from '../gamut/mesh.ts';
import { seededNormal } from '../random.ts';
import { PictureTally } from '../picture/tally.ts';
import { LEANINGS } from './leanings/registry.ts';
import { matchFigures } from './match-figures.ts';
import { rankSheets, TIE_DELTA_E } from './rank.ts';
import { blackPointCompensation, readySheet, type SheetQualities } from './sheet.ts';

const levels = Array.from({ length: 9 }, (_, i) => i / 8);
const cube = deviceSurface(levels, (rgb) => rgbToLab(SRGB, rgb))!;

/** A made-up sheet: sRGB's solid with its chroma scaled and its black lifted. */
function sheet(id: string, over: Partial<SheetQualities> & { chroma?: number; blackL?: number } = {}): SheetQualities {
  const { chroma = 1, blackL = 0, ...rest } = over;
  const lift = ([L, a, b]: Lab): Lab => [blackL + (L * (100 - blackL)) / 100, a * chroma, b * chroma];
  return {
    id,
    paperId: id,
    white: [100, 0, 0],
    black: [blackL, 0, 0],
    gamut: mapMesh(cube, lift),
    coating: blackL > 10 ? 'cotton' : 'baryta',
    ...rest,
  };
}

function picture(colours: Lab[]) {
  const tally = new PictureTally();
  tally.add(Float32Array.from(colours.flat()));
  return tally.finish();
}
const greys = (from: number, to: number, n = 200) =>
  Array.from({ length: n }, (_, i): Lab => [from + ((to - from) * i) / (n - 1), 0, 0]);

describe('what a sheet does to a picture', () => {
  it('a sheet that holds everything changes nothing', () => {
    const figures = matchFigures(picture(greys(2, 98)).cells, readySheet(sheet('a')));
    expect(figures.outsideShare).toBe(0);
    expect(figures.meanDeltaE).toBeLessThan(0.05);
    expect(figures.shadowStepsKept).toBeCloseTo(1, 6);
  });

  it('half a picture 20 ΔE*ab beyond the gamut is half outside, and about that far', () => {
    const inside: Lab[] = Array.from({ length: 100 }, () => [50, 0, 0]);
    const beyond: Lab[] = Array.from({ length: 100 }, () => [53.2, 80 * 1.25, 67 * 1.25]);
    const figures = matchFigures(picture([...inside, ...beyond]).cells, readySheet(sheet('a')));
    expect(figures.outsideShare).toBeCloseTo(0.5, 6);
    expect(figures.outsideMeanDeltaE).toBeGreaterThan(2);
    expect(figures.outside95DeltaE).toBeCloseTo(figures.outsideMeanDeltaE, 6);
    expect(figures.lostFamilies[0].name).toBe('reds');
  });

  it('a grey black closes the tones below it and squeezes the rest', () => {
    const low = picture(greys(0, 40));
    const figures = matchFigures(low.cells, readySheet(sheet('matt', { blackL: 18 })));
    // 200 greys from 0 to 40: those below 18.
    expect(figures.darkerThanBlackShare).toBeCloseTo(90 / 200, 6);
    expect(figures.shadowStepsKept).toBeLessThan(0.6);
    expect(figures.meanDeltaE).toBeGreaterThan(3);
  });

  it('black point compensation lays black on black and white on white (ISO 18619)', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 30, noNaN: true }), (L) => {
        const move = blackPointCompensation([L, 0, 0]);
        expect(move([0, 0, 0])[0]).toBeCloseTo(L, 6);
        expect(move([100, 0, 0])[0]).toBeCloseTo(100, 6);
      }),
    );
  });

  it('a tint of the paper is not counted as colour lost: everything is relative to its white', () => {
    const warm = matchFigures(
      picture(greys(20, 98)).cells,
      readySheet(
        sheet('w', { white: [95, 0, 6], gamut: mapMesh(cube, ([L, a, b]) => [L * 0.95, a, b + (6 * L) / 100]) }),
      ),
    );
    expect(warm.outsideShare).toBeLessThan(0.05);
    expect(warm.whiteLab).toEqual([95, 0, 6]);
  });

  it('a smaller gamut never loses less', () => {
    const hue = fc.double({ min: 0, max: 360, noNaN: true });
    fc.assert(
      fc.property(hue, fc.double({ min: 20, max: 100, noNaN: true }), (h, C) => {
        const p = picture([[50, C * Math.cos((h * Math.PI) / 180), C * Math.sin((h * Math.PI) / 180)]]);
        const wide = matchFigures(p.cells, readySheet(sheet('wide')));
        const narrow = matchFigures(p.cells, readySheet(sheet('narrow', { chroma: 0.7 })));
        expect(narrow.outsideShare).toBeGreaterThanOrEqual(wide.outsideShare - 1e-9);
      }),
      { numRuns: 25 },
    );
  });
});

describe('ranking', () => {
  const gloss = sheet('gloss', { blackL: 3, pricePerM2: 20 });
  const rag = sheet('rag', { blackL: 18, pricePerM2: 30, white: [97, 0, 2] });
  const rank = (colours: Lab[], sheets: SheetQualities[]) => {
    const p = picture(colours);
    return rankSheets(
      p.figures,
      sheets.map((s) => ({ sheet: s, figures: matchFigures(p.cells, readySheet(s)) })),
    );
  };

  it('a low-key picture wants the deep black; a high-key one is content with the quiet sheet (practice)', () => {
    expect(rank(greys(0, 35), [rag, gloss])[0].id).toBe('gloss');
    const high = rank(greys(62, 99), [gloss, rag]);
    expect(high[0].id).toBe('rag');
    expect(high[0].reasons.some((r) => r.leaning === 'quietSheet')).toBe(true);
  });

  it('no reason without a figure behind it, and its sentence holds a figure', () => {
    for (const colours of [
      greys(0, 35),
      greys(62, 99),
      [
        [50, 90, 60],
        [30, 20, -80],
      ] as Lab[],
    ]) {
      for (const place of rank(colours, [gloss, rag, sheet('bright', { brightenerShift: 6 })])) {
        expect(place.reasons.length).toBeGreaterThan(1);
        for (const reason of place.reasons) {
          expect(reason.figures.length).toBeGreaterThan(0);
          for (const f of reason.figures) expect(Number.isFinite(f.value)).toBe(true);
          expect(reason.sentence).toMatch(/\d/);
          expect(reason.sentence).toMatch(/\.$/);
          expect(reason.sentence).not.toContain('!');
        }
      }
    }
  });

  it('the cost is what the reasons add up to', () => {
    for (const place of rank(greys(0, 90), [gloss, rag]))
      expect(place.cost).toBeCloseTo(
        place.reasons.reduce((s, r) => s + r.cost, 0),
        9,
      );
  });

  it('sheets nobody could tell apart share a place, the cheaper named first', () => {
    const dear = { ...gloss, id: 'dear', paperId: 'dear', pricePerM2: 45 };
    const places = rank(greys(10, 90), [dear, gloss, rag]);
    expect(places[0]).toMatchObject({ id: 'gloss', place: 1 });
    expect(places[1]).toMatchObject({ id: 'dear', place: 1 });
    expect(places[2].place).toBe(3);
    expect(Math.abs(places[0].cost - places[1].cost)).toBeLessThan(TIE_DELTA_E);
    expect(places[0].reasons.at(-1)!.leaning).toBe('price');
  });

  it('amounts in two currencies are not put in one order', () => {
    const yen = { ...gloss, id: 'yen', paperId: 'yen', pricePerM2: 3000, currency: 'JPY' };
    const euro = { ...gloss, id: 'euro', paperId: 'euro', pricePerM2: 60, currency: 'EUR' };
    for (const order of [
      [yen, euro],
      [euro, yen],
    ])
      for (const place of rank(greys(10, 90), order))
        expect(place.reasons.map((r) => r.leaning)).not.toContain('price');
  });

  it('one paper under two settings counts once among those that serve alike', () => {
    const twin = { ...gloss, id: 'twin' };
    const dear = { ...gloss, id: 'dear', paperId: 'dear', pricePerM2: 45 };
    const [first] = rank(greys(10, 90), [dear, gloss, twin]);
    expect(first.reasons.find((r) => r.leaning === 'price')?.sentence).toMatch(/^2 papers /);
    const [alone] = rank(greys(10, 90), [gloss, twin]);
    expect(alone.reasons.map((r) => r.leaning)).not.toContain('price');
  });

  it('nothing speaks for a matt sheet beside a night picture that lies below its black', () => {
    const night = [...greys(0, 12, 970), ...Array.from({ length: 30 }, (): Lab => [60, 30, 30])];
    const [place] = rank(night, [rag]);
    expect(place.figures.darkerThanBlackShare).toBeGreaterThan(0.9);
    const said = place.reasons.filter((r) => r.speaks === 'for').map((r) => r.sentence);
    expect(said.join()).not.toMatch(/holds/);
    expect(place.reasons.find((r) => r.leaning === 'lostColours')?.sentence).toMatch(/Uncompensated, 9\d.% is darker/);
  });

  it('what is outside, how far, and the whole are of one rendering', () => {
    const night = picture([...greys(0, 14, 900), ...greys(40, 60, 100)]);
    const f = matchFigures(night.cells, readySheet(sheet('matt', { blackL: 17 })));
    expect(f.outsideShare * f.outsideMeanDeltaE).toBeLessThanOrEqual(f.meanDeltaE + 1e-9);
  });

  it('of a toned picture it is said that tone is lost, not colours', () => {
    const toned = Array.from({ length: 400 }, (_, i): Lab => [5 + i * 0.22, 6, 16 + 6 * Math.sin(i / 60)]);
    const p = picture(toned);
    expect(p.figures.colour).toBe('toned');
    const [place] = rank(toned, [sheet('small', { chroma: 0.3 })]);
    expect(place.reasons.find((r) => r.leaning === 'lostColours')?.sentence).toMatch(/toning/);
  });

  it('a sheet told by a profile, or read wet, says so', () => {
    const [place] = rank(greys(10, 90), [{ ...gloss, told: true, wet: true }]);
    expect(place.reasons.find((r) => r.leaning === 'whatItRestsOn')?.sentence).toMatch(/profile.*dried/);
  });

  it('brightener is mentioned from 2 Δb* on', () => {
    const [bright] = rank(greys(10, 90), [sheet('b', { brightenerShift: 5.2 })]);
    expect(bright.reasons.find((r) => r.leaning === 'brightenerCaution')?.sentence).toContain('5.2');
    const [free] = rank(greys(10, 90), [sheet('b', { brightenerShift: 0.1 })]);
    expect(free.reasons.some((r) => r.leaning === 'brightenerCaution')).toBe(false);
  });

  it('every leaning says what it holds', () => {
    for (const l of LEANINGS) expect(l.holds.length).toBeGreaterThan(20);
    expect(new Set(LEANINGS.map((l) => l.key)).size).toBe(LEANINGS.length);
  });
});

describe('reading a picture', () => {
  it('shares against a bound are those of the pixels, wherever the bound lies', () => {
    fc.assert(
      fc.property(fc.double({ min: 3, max: 40, noNaN: true }), fc.integer({ min: 1, max: 1e6 }), (bound, seed) => {
        const normal = seededNormal(seed);
        const pixels = Array.from({ length: 40_000 }, (_, i): Lab => [
          Math.min(100, Math.max(0, i % 3 === 0 ? 16 + 0.8 * normal() : 30 + 14 * normal())),
          normal(),
          normal(),
        ]);
        const { cells } = ((t) => (t.add(Float32Array.from(pixels.flat())), t.finish()))(new PictureTally(40_000));
        let below = 0;
        for (let i = 0; i < cells.count; i++) if (cells.data[i * 4] < bound) below += cells.data[i * 4 + 3];
        const truth = pixels.filter(([L]) => L < bound).length / pixels.length;
        expect(Math.abs(below - truth)).toBeLessThan(0.003);
      }),
      { numRuns: 12 },
    );
  });

  it('near black is below L* 10 and no other; the median is told to a tenth', () => {
    const { figures } = picture([
      [9.6, 0, 0],
      [9.99, 0, 0],
      [10.01, 0, 0],
      [91.04, 0, 0],
      [95.2, 0, 0],
    ]);
    expect(figures.nearBlackShare).toBeCloseTo(0.4, 9);
    expect(figures.nearWhiteShare).toBeCloseTo(0.2, 9);
    expect(figures.medianL).toBeCloseTo(10, 9);
    expect(picture([[91.04, 0, 0]]).figures.medianL).toBeCloseTo(91, 9);
  });

  it('one colour over and over is one cell', () => {
    const { cells } = picture(Array.from({ length: 5000 }, (): Lab => [50, 10, 10]));
    expect(cells.count).toBe(1);
  });

  it('key, contrast, near-black and near-white', () => {
    expect(picture(greys(0, 30)).figures).toMatchObject({ key: 'low key', colour: 'black and white' });
    expect(picture(greys(75, 99)).figures).toMatchObject({ key: 'high key', contrast: 'soft' });
    const hard = picture([...greys(0, 5), ...greys(97, 100)]).figures;
    expect(hard).toMatchObject({ key: expect.any(String), contrast: 'hard' });
    expect(hard.nearBlackShare).toBeCloseTo(0.5, 2);
    expect(hard.nearWhiteShare).toBeCloseTo(0.5, 2);
    expect(hard.lightness.reduce((s, v) => s + v, 0)).toBeCloseTo(1, 9);
  });

  it('tells black and white, toned and colour apart', () => {
    const toned = greys(5, 95).map(([L]): Lab => [L, 3, 12]);
    expect(picture(toned).figures.colour).toBe('toned');
    const colour = greys(5, 95).map(([L], i): Lab => [L, i % 2 ? 30 : -30, i % 3 ? 20 : -40]);
    expect(picture(colour).figures.colour).toBe('colour');
  });

  it('the cells hold all of the picture and its mean colour', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.float({ min: 0, max: 100, noNaN: true }),
            fc.float({ min: -100, max: 100, noNaN: true }),
            fc.float({ min: -100, max: 100, noNaN: true }),
          ),
          { minLength: 1, maxLength: 200 },
        ),
        (labs) => {
          const { cells } = picture(labs as unknown as Lab[]);
          let share = 0;
          let L = 0;
          for (let i = 0; i < cells.count; i++) {
            share += cells.data[i * 4 + 3];
            L += cells.data[i * 4] * cells.data[i * 4 + 3];
          }
          expect(share).toBeCloseTo(1, 4);
          expect(L).toBeCloseTo(labs.reduce((s, l) => s + l[0], 0) / labs.length, 2);
        },
      ),
    );
  });
});
