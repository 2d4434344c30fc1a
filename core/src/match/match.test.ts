import { converter } from 'culori';
import fc from 'fast-check';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import type { Lab } from '../colour/types.ts';
import { deviceSurface } from '../gamut/device-surface.ts';
import { mapMesh } from '../gamut/mesh.ts';
import type { Hint } from '../picture/hints.ts';
import type { OccupiedCells } from '../picture/cells.ts';
import { PictureTally } from '../picture/tally.ts';
import { USUAL_COMMISSION, type Commission } from './commission.ts';
import { LEANINGS } from './leanings/registry.ts';
import { judgeSheets, type Question } from './judge.ts';
import { laySolid } from './lay.ts';
import { onSheet } from './on-sheet.ts';
import { paletteOf } from './palette.ts';
import { rankSheets, scoreOf, TIE, type Ranking } from './rank.ts';
import { readySheet } from './ready-sheet.ts';
import { SCHOOLS, type Weights } from './schools.ts';
import { otherLives, turnByGlass, turnsByCommission } from './turns-by-commission.ts';
import type { LaidSheet, PrintedSheet, SheetQualities } from './sheet.ts';

const levels = Array.from({ length: 5 }, (_, i) => i / 4);
const cube = deviceSurface(levels, (rgb) => rgbToLab(SRGB, rgb))!;

interface MadeUp {
  readonly sheet: SheetQualities;
  readonly laid: LaidSheet;
}

const known = new Map<string, PrintedSheet>();
/** A made-up sheet: sRGB's solid with its chroma scaled and its black lifted. */
function made(
  id: string,
  {
    chroma = 1,
    blackL = 0,
    white = [100, 0, 0],
    ...rest
  }: Partial<SheetQualities> & { chroma?: number; blackL?: number; white?: Lab } = {},
): MadeUp {
  const lift = ([L, a, b]: Lab): Lab => [
    ((blackL + (L * (100 - blackL)) / 100) * white[0]) / 100,
    a * chroma + (white[1] * L) / 100,
    b * chroma + (white[2] * L) / 100,
  ];
  const key = [chroma, blackL, ...white].join();
  const bare = known.get(key) ?? laySolid(mapMesh(cube, lift), white, [(blackL * white[0]) / 100, 0, 0], 17);
  known.set(key, bare);
  return {
    sheet: { id, paperId: id, coating: blackL > 10 ? 'cotton' : 'baryta', ...rest },
    laid: { bare, seen: bare },
  };
}

function picture(colours: Lab[]) {
  const tally = new PictureTally();
  tally.add(Float32Array.from(colours.flat()));
  return tally.finish();
}
const greys = (from: number, to: number, n = 200) =>
  Array.from({ length: n }, (_, i): Lab => [from + ((to - from) * i) / (n - 1), 0, 0]);
const layOn = (cells: OccupiedCells, { laid }: MadeUp) => {
  const ready = readySheet(laid);
  return onSheet(paletteOf(cells, ready.nodes), [], ready);
};
const figuresOf = (colours: Lab[], sheet: MadeUp) => layOn(picture(colours).cells, sheet);

function rank(
  colours: Lab[],
  sheets: MadeUp[],
  over: { commission?: Partial<Commission>; weights?: Weights; hints?: Hint[] } = {},
): Ranking {
  const p = picture(colours);
  return rankSheets(
    {
      picture: p.figures,
      hints: over.hints ?? [],
      commission: { ...USUAL_COMMISSION, ...over.commission },
      weights: over.weights,
    },
    sheets.map((s) => ({ sheet: s.sheet, figures: layOn(p.cells, s) })),
  );
}

const whole = made('a');
const gloss = made('gloss', { blackL: 3, pricePerM2: 20, currency: 'EUR' });
const rag = made('rag', { blackL: 18, pricePerM2: 20, currency: 'EUR', white: [97, 0, 2] });

describe('what a sheet does to a picture', () => {
  it('a sheet that holds everything changes nothing', () => {
    const figures = figuresOf(greys(2, 98), whole);
    expect(figures.outsideShare).toBe(0);
    expect(figures.meanDeltaE).toBeLessThan(0.1);
    expect(figures.shadowStepsKept).toBeCloseTo(1, 2);
    expect(figures.stepsKept).toBeGreaterThan(0.98);
  });

  it('half a picture beyond the gamut is half outside', () => {
    const inside: Lab[] = Array.from({ length: 100 }, () => [50, 0, 0]);
    const beyond: Lab[] = Array.from({ length: 100 }, () => [53.2, 80 * 1.3, 67 * 1.3]);
    const figures = figuresOf([...inside, ...beyond], whole);
    expect(figures.outsideShare).toBeCloseTo(0.5, 6);
    expect(figures.outsideMeanDeltaE).toBeGreaterThan(2);
    // Told to a hundredth.
    expect(figures.outside95DeltaE).toBeCloseTo(figures.outsideMeanDeltaE, 1);
    expect(figures.colourLostDeltaE).toBeCloseTo(figures.outsideMeanDeltaE / 2, 6);
    expect(figures.lostFamilies[0].name).toBe('reds');
  });

  it('a grey black closes the tones below it and squeezes the rest, and none of it is called colour lost', () => {
    const figures = figuresOf(greys(0, 40), made('matt', { blackL: 18 }));
    // 200 greys from 0 to 40: those below 18.
    expect(figures.darkerThanBlackShare).toBeCloseTo(90 / 200, 1);
    expect(figures.shadowStepsKept).toBeLessThan(0.6);
    expect(figures.meanDeltaE).toBeGreaterThan(3);
    expect(figures.colourLostDeltaE).toBeLessThan(0.05);
  });

  it('the shadow steps are those of this picture: where its own shadows lie, not what the sheet does to all', () => {
    const matt = made('matt', { blackL: 18 });
    const [deep, open] = [figuresOf(greys(1, 8), matt), figuresOf(greys(18, 24), matt)];
    expect(deep.shadowShare).toBeCloseTo(1, 2);
    expect(open.shadowStepsKept).toBeGreaterThan(deep.shadowStepsKept + 0.1);
    // Black on black: L* 0 comes out at 18, L* 24 where luminance is scaled between that black and white.
    const [Y18, Y24] = [18, 24].map((L) => ((L + 16) / 116) ** 3);
    const L24 = 116 * Math.cbrt(Y18 + (1 - Y18) * Y24) - 16;
    expect(deep.shadowWedge).toHaveLength(13);
    expect(deep.shadowWedge[0]).toBeCloseTo(18, 0);
    expect(Math.abs(deep.shadowWedge[12] - L24)).toBeLessThan(0.6);
    // Without shadows the sheet speaks for all of them.
    const bright = figuresOf(greys(60, 90), matt).shadowStepsKept;
    expect(bright).toBeGreaterThan(deep.shadowStepsKept);
    expect(bright).toBeLessThan(open.shadowStepsKept);
  });

  it('greys are neutral where they are sent through the model, and their deviation is that of what is printed', () => {
    expect(figuresOf(greys(2, 98), made('even', { white: [95, 0, 6] })).greysDeviation).toBeLessThan(0.3);
  });

  it('colour that goes with the black is counted, though nothing is out of reach: a night sky on a matt black', () => {
    const sky: Lab = [15.7, 3, -14.7];
    const matt = made('matt', { blackL: 18.4 });
    const figures = figuresOf(
      Array.from({ length: 50 }, () => sky),
      matt,
    );
    expect(figures.outsideShare).toBe(0);
    // By another library: X, Y and Z scaled between the sheet's black and its white (ISO 18619).
    const xyz = converter('xyz50')({ mode: 'lab', l: sky[0], a: sky[1], b: sky[2] });
    const white = converter('xyz50')({ mode: 'lab', l: 100, a: 0, b: 0 });
    const black = converter('xyz50')({ mode: 'lab', l: 18.4, a: 0, b: 0 }).y;
    const lifted = converter('lab')({
      mode: 'xyz50',
      x: (1 - black) * xyz.x + black * white.x,
      y: (1 - black) * xyz.y + black * white.y,
      z: (1 - black) * xyz.z + black * white.z,
    });
    const [from, to] = [Math.hypot(sky[1], sky[2]), Math.hypot(lifted.a, lifted.b)];
    expect(to).toBeLessThan(11);
    // Between the nodes of the lattice chroma is a little more than along the line.
    expect(Math.abs(figures.chromaKept - to / from)).toBeLessThan(0.05);
    expect(Math.abs(figures.colourPaledDeltaE - (from - to) / (1 + 0.045 * from))).toBeLessThan(0.5);
    expect(figures.paledFamilies).toHaveLength(1);
    expect(figures.paledFamilies[0].fromC).toBeCloseTo(from, 0);
    expect(Math.abs(figures.paledFamilies[0].toC - to)).toBeLessThan(0.8);
    // Hue and tone of the one colour that the picture has.
    const turn = ((Math.atan2(lifted.b, lifted.a) - Math.atan2(sky[2], sky[1])) * 180) / Math.PI;
    expect(Math.abs(figures.paledFamilies[0].hueTurnDeg - turn)).toBeLessThan(3);
    expect(figures.chromaByTone).toEqual([
      expect.objectContaining({ fromL: 15, toL: 20, fromC: expect.closeTo(from, 0), share: expect.closeTo(1, 3) }),
    ]);
    expect(Math.abs(figures.chromaByTone[0].toC - to)).toBeLessThan(0.8);
    const deep = figuresOf(
      Array.from({ length: 50 }, () => sky),
      made('deep', { blackL: 2 }),
    );
    expect(deep.chromaKept).toBeGreaterThan(0.93);
    expect(figuresOf(greys(2, 98), matt)).toMatchObject({ chromaKept: 1, paledFamilies: [] });
  });

  it('a tint of the paper is not counted as colour lost: everything is relative to its white', () => {
    const figures = figuresOf(greys(20, 98), made('w', { white: [95, 0, 6] }));
    expect(figures.outsideShare).toBeLessThan(0.05);
    expect(figures.whiteLab).toEqual([95, 0, 6]);
  });

  it('a smaller gamut never loses less', () => {
    const [wide, narrow] = [made('wide'), made('narrow', { chroma: 0.7 })];
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: 20, max: 100, noNaN: true }),
        (h, C) => {
          const colours: Lab[] = [[50, C * Math.cos((h * Math.PI) / 180), C * Math.sin((h * Math.PI) / 180)]];
          expect(figuresOf(colours, narrow).colourLostDeltaE).toBeGreaterThanOrEqual(
            figuresOf(colours, wide).colourLostDeltaE - 0.3,
          );
        },
      ),
      { numRuns: 25 },
    );
  });

  it('what is out of reach, how far, and the whole are of one rendering', () => {
    const f = figuresOf([...greys(0, 14, 900), ...greys(40, 60, 100)], made('matt', { blackL: 17 }));
    expect(f.outsideShare * f.outsideMeanDeltaE).toBeLessThanOrEqual(f.meanDeltaE + 1e-9);
  });
});

describe('ranking', () => {
  it('a night goes to the deep black, and says why with figures', () => {
    const { places } = rank(greys(0, 30), [rag, gloss]);
    expect(places[0].id).toBe('gloss');
    expect(places[0].place).toBe(1);
    expect(places[1].place).toBe(2);
    expect(places[0].score).toBeGreaterThan(places[1].score);
    expect(places[0].parts[0].by).toBeGreaterThan(0);
    for (const { reasons } of places)
      for (const reason of reasons) {
        expect(reason.figures.every((f) => Number.isFinite(f.value))).toBe(true);
        expect(reason.sentence).toMatch(/\d/);
        expect(reason.sentence).toMatch(/\.$/);
        expect(reason.sentence).not.toContain('!');
      }
  });

  it('no cost is negative, the whole is their sum, and the score falls with it from 10', () => {
    for (const place of rank(greys(0, 90), [gloss, rag]).places) {
      for (const reason of place.reasons) expect(reason.cost).toBeGreaterThanOrEqual(0);
      expect(place.score).toBeCloseTo(scoreOf(place.cost), 9);
      expect(place.scoreSd).toBeGreaterThan(0);
    }
    expect(scoreOf(0)).toBe(10);
    expect(scoreOf(100)).toBeLessThan(0.01);
  });

  it('sheets nobody could tell apart share a place, and no lower score stands above a higher', () => {
    const dear = made('dear', { blackL: 3, pricePerM2: 21, currency: 'EUR' });
    const { places } = rank(greys(10, 90), [dear, gloss, rag]);
    expect(places[0]).toMatchObject({ id: 'gloss', place: 1, closeToNext: true });
    expect(places[1]).toMatchObject({ id: 'dear', place: 1 });
    expect(Math.abs(places[0].cost - places[1].cost)).toBeLessThan(TIE);
    // A cheaper sheet that serves a little worse stands behind, whatever it costs.
    const near = made('near', { blackL: 3.3, pricePerM2: 19, currency: 'EUR' });
    const tied = rank(greys(10, 90), [near, dear, gloss]).places;
    expect(tied.map((p) => p.score)).toEqual(tied.map((p) => p.score).sort((a, b) => b - a));
  });

  it('amounts in two currencies are not put in one order', () => {
    const yen = made('yen', { blackL: 3, pricePerM2: 3000, currency: 'JPY' });
    for (const { reasons } of rank(greys(10, 90), [yen, gloss]).places)
      expect(reasons.map((r) => r.leaning)).not.toContain('money');
  });

  it('a dear sheet falls behind in an open edition behind glass, and stays ahead in one of three', () => {
    const fine = made('fine', { blackL: 3, pricePerM2: 60, currency: 'EUR' });
    const plain = made('plain', { blackL: 7, pricePerM2: 15, currency: 'EUR' });
    const night = greys(0, 60);
    expect(rank(night, [fine, plain], { commission: { glass: 'plain' } }).places[0].id).toBe('plain');
    expect(rank(night, [fine, plain], { commission: { glass: 'plain', editionOf: 3 } }).places[0].id).toBe('fine');
  });

  it('weight counts in the hand and not behind glass', () => {
    const light = made('light', { blackL: 3, weightGsm: 120 });
    const costs = (commission: Partial<Commission>) =>
      rank(greys(10, 90), [light], { commission }).places[0].reasons.find((r) => r.leaning === 'inTheHand')?.cost;
    expect(costs({ handled: true })).toBeGreaterThan(0.3);
    expect(costs({ handled: true, glass: 'plain' })).toBeUndefined();
  });

  it('a veto refuses, whatever the weights; the refused are told with their reason', () => {
    const { places, refused } = rank(greys(10, 90), [gloss, rag], { commission: { vetoes: ['reflections'] } });
    expect(places.map((p) => p.id)).toEqual(['rag']);
    expect(refused).toEqual([{ id: 'gloss', why: 'No gloss was asked for, and it is a baryta sheet.' }]);
  });

  it('how a printer takes the sheet counts where it is known of all: by hand alone costs minutes, by no way it is refused', () => {
    const fed = (id: string, feeding: SheetQualities['feeding'], minutesEach?: number) =>
      made(id, { feeding, minutesEach });
    const commission = { copies: 30 };
    const { places } = rank(
      greys(10, 90),
      [fed('hand', { rear: 'well', auto: 'not' }), fed('feeder', { auto: 'well' })],
      {
        commission,
      },
    );
    expect(places[0].id).toBe('feeder');
    const said = places.find((p) => p.id === 'hand')!.reasons.find((r) => r.leaning === 'feeding')!;
    expect(said.sentence).toMatch(/by hand alone, 210 minutes of feeding for 30 prints \(practice\)/);
    const timed = rank(greys(10, 90), [fed('hand', { rear: 'well' }, 5), fed('feeder', { auto: 'well' }, 5)], {
      commission,
    });
    expect(timed.places.flatMap((p) => p.reasons).find((r) => r.leaning === 'feeding')!.sentence).toMatch(
      /150 minutes.*timed/,
    );
    // One was timed with its printing, the other is by practice: both are weighed by practice.
    const mixed = rank(greys(10, 90), [fed('timed', { rear: 'well' }, 40), fed('hand', { rear: 'well' })], {
      commission,
    });
    expect(new Set(mixed.places.map((p) => p.reasons.find((r) => r.leaning === 'feeding')!.unweighted)).size).toBe(1);
    expect(mixed.uncounted.map((u) => u.what)).toContain('minutes at the printer');
    // Of one nothing is known: it is held against neither, and said.
    const partly = rank(greys(10, 90), [fed('hand', { rear: 'well' }), whole], { commission });
    expect(partly.uncounted.map((u) => u.what)).toContain('feeding');
    const none = fed('none', { auto: 'not', rear: 'not', front: 'not' });
    expect(rank(greys(10, 90), [none, whole]).refused).toEqual([
      { id: 'none', why: 'Its printer takes it by no way: every one was tried.' },
    ]);
  });

  it('the driver’s black-and-white mode takes part for greys and is refused for colour', () => {
    const driver = made('driver', { blackL: 3, monochrome: true });
    expect(rank(greys(5, 95), [driver, rag]).places.map((p) => p.id)).toContain('driver');
    const colour = greys(5, 95).map(([L], i): Lab => [L, i % 2 ? 30 : -30, i % 3 ? 20 : -40]);
    expect(rank(colour, [driver, rag]).refused.map((r) => r.id)).toEqual(['driver']);
  });

  it('what is known of one sheet alone is said, and not held against it', () => {
    const known = made('known', { blackL: 3, bronzing: 3 });
    const { places, uncounted } = rank(greys(10, 90), [known, made('unknown', { blackL: 3 })]);
    const reason = places.find((p) => p.id === 'known')!.reasons.find((r) => r.leaning === 'bronzing')!;
    expect(reason.sentence).toContain('3');
    expect(reason.cost).toBe(0);
    expect(uncounted).toContainEqual({ what: 'bronzing', unknownOf: ['unknown'] });
    const both = rank(greys(10, 90), [known, made('free', { blackL: 3, bronzing: 0 })]).places;
    expect(both[0].id).toBe('free');
  });

  it('a light sheet does not lose to one whose weight nobody knows', () => {
    const light = made('light', { blackL: 3, weightGsm: 90 });
    const unsaid = made('unsaid', { blackL: 3, weightGsm: undefined });
    const { places, uncounted } = rank(greys(10, 90), [light, unsaid], { commission: { handled: true } });
    const costs = places.flatMap((p) => p.reasons.flatMap((r) => (r.leaning === 'inTheHand' ? [r.cost] : [])));
    expect(costs).toEqual([0]);
    expect(uncounted).toContainEqual({ what: 'weight', unknownOf: ['unsaid'] });
  });

  it('readings of two measurement conditions are said to be so', () => {
    const { places } = rank(greys(10, 90), [
      made('m0', { blackL: 3, measurementCondition: 'M0' }),
      made('m1', { blackL: 3, measurementCondition: 'M1' }),
    ]);
    expect(places.find((p) => p.id === 'm0')!.reasons.find((r) => r.leaning === 'whatItRestsOn')?.sentence).toMatch(
      /M0, others under M1/,
    );
  });

  it('a sheet told by a profile, or read wet, says so', () => {
    const [place] = rank(greys(10, 90), [made('told', { told: true, wet: true })]).places;
    expect(place.reasons.find((r) => r.leaning === 'whatItRestsOn')?.sentence).toMatch(/profile.*dried/);
  });

  it('a turn is a weight at which the two are level', () => {
    const night = greys(0, 60);
    const sheets = [
      made('fine', { blackL: 3, pricePerM2: 40, currency: 'EUR' }),
      made('plain', { blackL: 11, pricePerM2: 12, currency: 'EUR' }),
    ];
    const { places, turns } = rank(night, sheets);
    expect(turns.length).toBeGreaterThan(0);
    for (const turn of turns) {
      const [p, q] = rank(night, sheets, { weights: { [turn.leaning]: turn.weight } }).places;
      expect(Math.abs(p.cost - q.cost)).toBeLessThan(1e-6);
    }
    const [{ leaning, weight, from }] = turns;
    const beyond = Math.max(0, weight + (weight - from) * 0.5);
    const turned = rank(night, sheets, { weights: { [leaning]: beyond } }).places;
    expect(turned[0].id === places[0].id && !turned[0].closeToNext).toBe(false);
  });

  it('another life is told only where it puts another sheet clearly first', () => {
    const night = greys(0, 60);
    const sheets = [
      made('fine', { blackL: 3, pricePerM2: 60, currency: 'EUR' }),
      made('plain', { blackL: 7, pricePerM2: 15, currency: 'EUR' }),
    ];
    const p = picture(night);
    const asked = (over: Partial<Commission>) => ({
      picture: p.figures,
      hints: [],
      commission: { ...USUAL_COMMISSION, glass: 'plain', ...over },
    });
    const candidates = sheets.map((s) => ({ sheet: s.sheet, figures: layOn(p.cells, s) }));
    const turns = (question: Question) =>
      turnsByCommission(judgeSheets(question, candidates), otherLives(question, candidates), undefined);
    expect(turns(asked({}))).toContainEqual({ words: 'in an edition of three', first: 'fine' });
    expect(turns(asked({ editionOf: 3 }))).toContainEqual({
      words: 'as an open edition',
      first: 'plain',
    });
    // Another glass is asked among the sheets that are known both here and there: one that is not does not give its place away.
    const first = rankSheets(asked({}), candidates).places[0].id;
    const there = candidates.filter((c) => c.sheet.id !== first);
    const turn = turnByGlass(asked({}), candidates, 'plain', there);
    expect(turn.unknown).toEqual([first]);
    expect(turn.first).toBeUndefined();
  });

  it('nothing speaks for a matt sheet beside a night picture that lies below its black', () => {
    const night = [...greys(0, 12, 970), ...Array.from({ length: 30 }, (): Lab => [60, 30, 30])];
    const [place] = rank(night, [rag]).places;
    expect(place.figures.darkerThanBlackShare).toBeGreaterThan(0.9);
    const said = place.reasons.filter((r) => r.speaks === 'for').map((r) => r.sentence);
    expect(said.join()).not.toMatch(/holds/);
  });

  it('of a toned picture it is said that toning is lost, not colours', () => {
    const toned = Array.from({ length: 400 }, (_, i): Lab => [5 + i * 0.22, 6, 16 + 6 * Math.sin(i / 60)]);
    expect(picture(toned).figures.colour).toBe('toned');
    const [place] = rank(toned, [made('small', { chroma: 0.2 })]).places;
    expect(place.reasons.find((r) => r.leaning === 'colourHeld')?.sentence).toMatch(/toning/);
  });

  it('brightener is mentioned from 2 Δb* on, and weighs more where the print must last', () => {
    const of = (brightenerShift: number, mustLast = false) =>
      rank(greys(10, 90), [made('b', { brightenerShift })], { commission: { mustLast } }).places[0].reasons.find(
        (r) => r.leaning === 'brightener',
      );
    expect(of(5.2)?.sentence).toContain('5.2');
    expect(of(0.1)).toBeUndefined();
    expect(of(5.2, true)!.cost).toBeGreaterThan(of(5.2)!.cost * 2);
  });

  it('every leaning says what it holds and who would weigh it otherwise; every school weighs leanings there are', () => {
    for (const l of LEANINGS) expect(Math.min(l.holds.length, l.disagrees.length)).toBeGreaterThan(5);
    const keys = new Set(LEANINGS.map((l) => l.key));
    expect(keys.size).toBe(LEANINGS.length);
    for (const { weights } of SCHOOLS) for (const key of Object.keys(weights)) expect(keys).toContain(key);
  });
});
