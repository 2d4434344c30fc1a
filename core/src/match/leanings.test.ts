import fc from 'fast-check';
import { COATING_CLASSES, type CoatingClass, type Surface } from '../paper.ts';
import { PICTURE_FIGURES, STRUCTURE } from '../../test/picture-figures.ts';
import type { PictureFigures } from '../picture/tally.ts';
import { USUAL_COMMISSION, VETOES, type Commission, type Veto } from './commission.ts';
import type { Said, Weighed } from './leanings/leaning.ts';
import { LEANINGS } from './leanings/registry.ts';
import type { MatchFigures } from './on-sheet.ts';
import type { SheetQualities } from './sheet.ts';
import { refusedBy } from './vetoes.ts';

const FIGURES: MatchFigures = {
  outsideShare: 0,
  outsideMeanDeltaE: 0,
  outside95DeltaE: 0,
  colourLostDeltaE: 0,
  darkerThanBlackShare: 0,
  lostFamilies: [],
  chromaKept: 1,
  colourPaledDeltaE: 0,
  paledFamilies: [],
  chromaByTone: [],
  shadowShare: 0.2,
  shadowStepsKept: 0.8,
  shadowWedge: Array.from({ length: 13 }, (_, i) => 5 + 1.6 * i),
  greysDeviation: 0.6,
  stepsKept: 0.9,
  slopeByTone: [0.6, 0.7, 0.8, 0.9, 0.95, 1, 1, 1, 1],
  toneError: { meanL: 0.3, worstL: 0.6, atL: 40 },
  blackL: 4,
  contrastRatio: 90,
  highlightShare: 0.1,
  whiteLab: [96, 0, 1],
  whiteSeen: [96, 0, 1],
  meanDeltaE: 1,
  marks: [],
};

interface Over {
  readonly picture?: Partial<PictureFigures>;
  readonly structure?: Partial<NonNullable<PictureFigures['structure']>>;
  readonly hints?: Weighed['hints'];
  readonly commission?: Partial<Commission>;
  readonly sheet?: Partial<SheetQualities>;
  readonly match?: Partial<MatchFigures>;
  readonly field?: Weighed['field'];
  readonly aspect?: number;
}
const weighed = (over: Over = {}): Weighed => ({
  picture: { ...PICTURE_FIGURES, structure: { ...STRUCTURE, ...over.structure }, ...over.picture },
  hints: over.hints ?? [],
  commission: { ...USUAL_COMMISSION, ...over.commission },
  sheet: { id: 's', paperId: 'p', coating: 'baryta', ...over.sheet },
  match: { ...FIGURES, ...over.match },
  field: over.field ?? {},
  aspect: over.aspect,
});
const says = (key: string, over: Over = {}): Said | undefined =>
  LEANINGS.find((l) => l.key === key)!.judge(weighed(over));
const cost = (key: string, over: Over = {}): number => says(key, over)?.cost ?? 0;

const share = fc.double({ min: 0, max: 1, noNaN: true });
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: undefined });
const anything: fc.Arbitrary<Over> = fc.record({
  picture: fc.record({
    nearBlackShare: share,
    contrast: fc.constantFrom('soft', 'normal', 'hard'),
    colour: fc.constantFrom('black and white', 'toned', 'split-toned', 'colour'),
  }),
  structure: fc.record({ smoothShare: share, busyShare: share, skinShare: share, shallowFocus: fc.boolean() }),
  hints: fc.subarray<Weighed['hints'][number]>(['skin', 'water', 'bark or stone', 'night']),
  commission: fc.record({
    glass: fc.constantFrom('none', 'plain'),
    handled: fc.boolean(),
    mustLast: fc.boolean(),
    copies: fc.integer({ min: 1, max: 60 }),
    editionOf: maybe(fc.integer({ min: 1, max: 50 })),
    viewingMm: fc.integer({ min: 200, max: 4000 }),
    lux: fc.integer({ min: 20, max: 2000 }),
  }),
  sheet: fc.record({
    coating: maybe(fc.constantFrom(...(Object.keys(COATING_CLASSES) as CoatingClass[]))),
    surface: maybe(fc.constantFrom<Surface>('smooth', 'fine tooth', 'textured', 'rough')),
    weightGsm: maybe(fc.integer({ min: 80, max: 500 })),
    textureL: maybe(fc.double({ min: 0, max: 9, noNaN: true })),
    gloss60: maybe(fc.double({ min: 0, max: 90, noNaN: true })),
    glossDifferential: maybe(fc.double({ min: -40, max: 40, noNaN: true })),
    bronzing: maybe(fc.integer({ min: 0, max: 4 })),
    greysOff: maybe(fc.double({ min: 0, max: 8, noNaN: true })),
    metamerism: maybe(fc.double({ min: 0, max: 6, noNaN: true })),
    brightenerShift: maybe(fc.double({ min: -1, max: 12, noNaN: true })),
    sizes: maybe(
      fc.array(
        fc.record({
          widthMm: fc.integer({ min: 100, max: 1200 }),
          heightMm: fc.integer({ min: 100, max: 12_000 }),
          roll: fc.boolean(),
        }),
        { maxLength: 4 },
      ),
    ),
    pricePerM2: maybe(fc.double({ min: 1, max: 200, noNaN: true })),
    currency: fc.constant('EUR'),
    minutesEach: maybe(fc.integer({ min: 1, max: 30 })),
    told: fc.boolean(),
    wet: fc.boolean(),
  }),
  match: fc.record({
    shadowShare: share,
    shadowStepsKept: share,
    stepsKept: share,
    highlightShare: share,
    darkerThanBlackShare: share,
    blackL: fc.double({ min: 0, max: 30, noNaN: true }),
  }),
  field: fc.constant({ cheapestPerM2: 1 }),
});

describe('whatever the picture, the sheet and the place', () => {
  it('only what no other sheet gives is credited, none says a figure that is none, and each speaks a whole sentence (fast-check)', () =>
    fc.assert(
      fc.property(anything, (over) => {
        for (const leaning of LEANINGS) {
          const said = leaning.judge(weighed(over));
          if (!said) continue;
          if (leaning.key !== 'loudSheet') expect(said.cost).toBeGreaterThanOrEqual(0);
          expect(Number.isFinite(said.cost)).toBe(true);
          for (const figure of said.figures) expect(Number.isFinite(figure.value)).toBe(true);
          expect(said.sentence).toMatch(/^[A-Z\d].*\.$/);
          expect(said.sentence).not.toMatch(/undefined|NaN|null|!/);
        }
      }),
      { numRuns: 400 },
    ));

  it('what speaks for a sheet takes little from it; what takes much speaks against it (fast-check)', () =>
    fc.assert(
      fc.property(anything, (over) => {
        for (const leaning of LEANINGS) {
          const said = leaning.judge(weighed(over));
          if (said?.speaks === 'for') expect([leaning.key, said.cost < 2]).toEqual([leaning.key, true]);
        }
      }),
      { numRuns: 400 },
    ));
});

/** A histogram with so much below L* 40 and so much above 92. */
const tones = (dark: number, bare: number): Over => ({
  picture: {
    lightness: Array.from({ length: 101 }, (_, L) =>
      L === 20 ? dark : L === 60 ? 1 - dark - bare : L === 96 ? bare : 0,
    ),
  },
});

describe('each leaning asks of a sheet what it says it asks', () => {
  it('contrast: what is left is said by size on paper, and weighed by the contrast the picture has there', () => {
    // All contrast at 4 mm, half of its variance in tones of which 0.6 is left, half in whole ones.
    const scales = [{ size: 0.01, sdL: 10, byTone: [0.5, 0, 0, 0, 0, 0, 0, 0.5, 0] }];
    const kept = Math.sqrt(0.5 * 0.36 + 0.5);
    const said = says('contrastLeft', {
      structure: { scales },
      commission: { longSideMm: 400 },
      sheet: { coating: 'gloss' },
    })!;
    expect(said.figures.find((f) => f.name.includes('4.0'))!.value).toBeCloseTo(100 * kept, 0);
    expect(said.cost).toBeCloseTo(2.6 * (1 - kept), 2);
    // A flat picture has no contrast to lose.
    expect(says('contrastLeft', { structure: { scales: [{ size: 0.01, sdL: 0.2 }] } })).toBeUndefined();
  });

  it('sharpness: an edge that spreads takes the fine detail, as the transfer of a Gaussian says; the loupe overrules the kind', () => {
    const scales = [{ size: 0.002, sdL: 12 }];
    const at = (sheet: Partial<SheetQualities>, viewingMm = 400) =>
      says('sharpness', { structure: { scales }, commission: { longSideMm: 400, viewingMm }, sheet });
    const transfer = (mm: number) => Math.exp(-2 * ((Math.PI * mm) / 0.8) ** 2);
    expect(at({ coating: 'uncoated' })!.figures[0].value).toBeCloseTo(100 * transfer(0.12), 6);
    expect(at({ coating: 'uncoated', hairlines: 0 })!.figures[0].value).toBeCloseTo(100 * transfer(0.02), 6);
    expect(at({ coating: 'uncoated', hairlines: 0 })!.sentence).toMatch(/test page, judged/);
    expect(at({ coating: 'uncoated' })!.cost).toBeCloseTo(3 * (1 - transfer(0.12)), 6);
    // From three metres nobody parts 0.4 mm.
    expect(at({ coating: 'uncoated' }, 3000)).toBeUndefined();
  });

  it('linearity: as printed for this picture; in the driver’s own mode as it was read', () => {
    const off = (meanL: number, worstL: number, atL: number) => ({ match: { toneError: { meanL, worstL, atL } } });
    expect(says('linearity', off(0.4, 0.7, 50))).toMatchObject({ cost: 0, speaks: 'neither' });
    expect(says('linearity', off(2, -4.2, 50))!.sentence).toMatch(/midtones print up to 4\.2 L\* too dark/);
    expect(cost('linearity', off(2, -4.2, 50))).toBeCloseTo(0.3 * 1.5, 9);
    const driver = { sheet: { monochrome: true, linearity: 6 }, ...off(0, 0, 0) };
    expect(says('linearity', driver)!.sentence).toMatch(/driver’s own .* 6\.0 L\*/);
    expect(cost('linearity', driver)).toBeCloseTo(0.3 * 2.5, 9);
  });

  it('grain: harsh on gloss where no true black carries it, and on matt never', () => {
    const grain = (noiseL: number, nearBlackShare: number, coating: CoatingClass) =>
      cost('grainOnGloss', { structure: { noiseL }, picture: { nearBlackShare }, sheet: { coating } });
    expect(grain(3, 0, 'gloss')).toBeCloseTo(1, 9);
    expect(grain(3, 0.025, 'gloss')).toBeCloseTo(0.5, 9);
    expect(grain(3, 0.1, 'gloss')).toBe(0);
    expect(grain(3, 0, 'cotton')).toBe(0);
    expect(grain(0.5, 0, 'gloss')).toBe(0);
  });

  it('long greys: soft, plain and without black they lie on matt; a drawing and a busy wood are none', () => {
    const long = (picture: Partial<PictureFigures>, over: Over = {}) =>
      cost('longGreys', {
        picture: { contrastSdL: 9, nearBlackShare: 0, saturatedShare: 0, ...picture },
        structure: { busyShare: 0 },
        sheet: { coating: 'gloss' },
        ...over,
      });
    expect(long({})).toBeCloseTo(1.1, 9);
    expect(long({ contrastSdL: 14 })).toBeCloseTo(0.55, 9);
    expect(long({ nearBlackShare: 0.05 })).toBe(0);
    expect(long({}, { sheet: { coating: 'cotton' } })).toBe(0);
    expect(long({}, { commission: { originalGround: [90, 0, 9] } })).toBe(0);
    expect(long({}, { structure: { busyShare: 0.5 } })).toBe(0);
  });

  it('brightener and money follow the number of an edition', () => {
    const bright = (editionOf?: number, mustLast = false) =>
      cost('brightener', { sheet: { brightenerShift: 7 }, commission: { editionOf, mustLast } });
    expect(bright(3)).toBeCloseTo(2 * bright(), 9);
    expect(bright(500)).toBeCloseTo(bright(), 9);
    expect(bright(30)).toBeLessThan(bright(3));
    expect(bright(500, true)).toBeCloseTo(3 * bright(), 9);
  });

  it('depth: a picture that stands on its black loses on a grey one, another does not', () => {
    const night = { nearBlackShare: 0.2 };
    expect(cost('depth', { picture: night, match: { blackL: 18 } })).toBeGreaterThan(
      cost('depth', { picture: night, match: { blackL: 4 } }) + 0.5,
    );
    expect(says('depth', { picture: { nearBlackShare: 0, contrast: 'soft' }, match: { blackL: 18 } })).toBeUndefined();
    expect(says('depth', { picture: { nearBlackShare: 0, contrast: 'hard' } })?.sentence).toContain('contrast is hard');
  });

  it('shadow steps: the more of the picture lies in the dark, the dearer each step that is lost', () => {
    const lost = (shadowShare: number) => cost('shadowSteps', { match: { shadowShare, shadowStepsKept: 0.5 } });
    expect(lost(0.6)).toBeGreaterThan(lost(0.2));
    expect(lost(0)).toBe(0);
    expect(says('shadowSteps', { match: { shadowShare: 0 } })?.sentence).toContain('hardly matters');
  });

  it('shadow steps: in less light an eye tells fewer of them apart', () => {
    const steps = (lux: number) =>
      Number(/an eye sees some (\d+) steps/.exec(says('shadowSteps', { commission: { lux } })!.sentence)![1]);
    expect(steps(50)).toBeLessThan(steps(500));
  });

  it('paper white: its tint counts by how much of the picture is paper', () => {
    const warm = { whiteSeen: [94, 0, 6] as const };
    expect(cost('paperWhite', { match: { ...warm, highlightShare: 0.4 } })).toBeGreaterThan(
      cost('paperWhite', { match: { ...warm, highlightShare: 0.05 } }),
    );
    expect(says('paperWhite', { match: warm })?.sentence).toContain('a warm white');
    expect(says('paperWhite', { match: { whiteSeen: [95, 0, -4] } })?.sentence).toContain('a cool white');
  });

  it('reflections: a plain picture is mirrored on gloss, a dark one gains by it; behind glass it is nobody’s business', () => {
    const plain = { structure: { smoothShare: 0.8 } };
    const gloss = { sheet: { gloss60: 70 }, ...plain };
    expect(cost('reflections', { ...gloss, match: { shadowShare: 0 } })).toBeGreaterThan(
      cost('reflections', { ...gloss, match: { shadowShare: 0.9 } }),
    );
    expect(cost('reflections', { ...plain, sheet: { coating: 'cotton' } })).toBeLessThan(cost('reflections', gloss));
    expect(says('reflections', { ...gloss, commission: { glass: 'plain' } })).toBeUndefined();
    // Of a sheet nobody described and nobody read, nothing is said.
    expect(says('reflections', { ...plain, sheet: { coating: undefined } })).toBeUndefined();
  });

  it('texture in plain areas: seen from near, not from across the room; least of all in skin', () => {
    const rough = { sheet: { textureL: 5 }, structure: { smoothShare: 0.6 } };
    expect(cost('plainAreas', { ...rough, commission: { viewingMm: 400 } })).toBeGreaterThan(
      cost('plainAreas', { ...rough, commission: { viewingMm: 3000 } }) * 3,
    );
    expect(cost('plainAreas', { ...rough, hints: ['skin'] })).toBeGreaterThan(cost('plainAreas', rough));
  });

  it('texture with busy detail: a tooth is welcome there, and a smooth sheet only lacks it', () => {
    const busy = { structure: { busyShare: 0.7, smoothShare: 0 }, commission: { viewingMm: 400 } };
    expect(cost('busyDetail', { ...busy, sheet: { textureL: 5 } })).toBeLessThan(
      cost('busyDetail', { ...busy, sheet: { textureL: 0 } }),
    );
    expect(says('busyDetail', { structure: { busyShare: 0.05 } })).toBeUndefined();
  });

  it('a metallic sheet: carried by polished surfaces, too loud for anything soft', () => {
    const scales = (sdL: number) => ({ structure: { scales: [{ size: 0.02, sdL }] } });
    const metal = { sheet: { coating: 'metallic' as const } };
    expect(cost('loudSheet', { ...metal, ...scales(1) })).toBeGreaterThan(
      cost('loudSheet', { ...metal, ...scales(9), hints: ['water'] }),
    );
    expect(says('loudSheet', { ...scales(1) })).toBeUndefined();
  });

  it('colours held: what goes with the black costs as it is seen, and is said by family, chroma to chroma', () => {
    const paled = {
      colourPaledDeltaE: 1.4,
      chromaKept: 0.64,
      paledFamilies: [{ name: 'deep blues', share: 0.7, fromC: 15, toC: 9.7, hueTurnDeg: -3 }],
      chromaByTone: [
        { fromL: 5, toL: 10, share: 0.5, fromC: 16, toC: 8 },
        { fromL: 10, toL: 15, share: 0.2, fromC: 20, toC: 10 },
      ],
    };
    const picture = { colour: 'colour' as const };
    expect(cost('colourHeld', { picture, match: paled }) - cost('colourHeld', { picture })).toBeCloseTo(1.4, 9);
    const said = says('colourHeld', { picture, match: paled })!;
    expect(said.speaks).toBe('against');
    expect(said.sentence).toMatch(
      /^Every colour is within its reach, but its black takes colour from the darks: the deep blues turn paler, chroma 15 to 10; most at L\* 5 to 10, chroma 16 to 8; 64\s% of the picture’s chroma is kept\.$/,
    );
    const turned = { ...paled, paledFamilies: [{ ...paled.paledFamilies[0], hueTurnDeg: -14.4 }] };
    expect(says('colourHeld', { picture, match: turned })!.sentence).toContain('chroma 15 to 10, their hue by −14°;');
    expect(says('colourHeld', { picture })!.speaks).toBe('for');
    // What says nothing of paling does not speak against the sheet for it.
    const hardly = says('colourHeld', { picture, match: { ...paled, chromaKept: 0.97 } })!;
    expect(hardly.sentence).not.toMatch(/paler/);
    expect(hardly.speaks).toBe('for');
  });

  it('neutral greys: only of a picture without colour, and only what was measured', () => {
    const grey = { picture: { colour: 'black and white' as const } };
    const off = (greysDeviation: number) => ({ ...grey, match: { greysDeviation } });
    // 0.22 for each C* beyond the half that nobody sees.
    expect(cost('neutralGreys', off(2.5)) - cost('neutralGreys', off(1.5))).toBeCloseTo(0.22, 9);
    expect(cost('neutralGreys', off(0.4))).toBe(0);
    expect(cost('neutralGreys', { ...grey, sheet: { metamerism: 3 } })).toBeCloseTo(0.22 * 0.1 + 0.18 * 2.5, 9);
    // The raw ramp is nobody's print: it counts in the driver's own mode alone.
    expect(cost('neutralGreys', { ...off(0.6), sheet: { greysOff: 4 } })).toBeCloseTo(0.022, 9);
    expect(cost('neutralGreys', { ...off(0.6), sheet: { greysOff: 4, monochrome: true } })).toBeCloseTo(0.22 * 3.5, 9);
    expect(says('neutralGreys', { ...grey, sheet: { monochrome: true } })).toBeUndefined();
    const toned = says('neutralGreys', { picture: { colour: 'toned' } })!.sentence;
    expect(toned).toMatch(/^The picture is toned: its greys print within 0\.6 C\* of neutral/);
    expect(toned).not.toMatch(/without colour|black and white/);
    expect(says('neutralGreys', { picture: { colour: 'colour' }, sheet: { greysOff: 4 } })).toBeUndefined();
  });

  it('two schools of black-and-white: what one wants the other does not', () => {
    for (const [sheet, wins, loses] of [
      ['cotton', 'quietGreys', 'darkroomGreys'],
      ['baryta', 'darkroomGreys', 'quietGreys'],
    ] as const) {
      const over = { picture: { colour: 'black and white' as const }, sheet: { coating: sheet } };
      expect([cost(wins, over), cost(loses, over) > 0]).toEqual([0, true]);
      expect([says(wins, over)!.speaks, says(loses, over)!.speaks]).toEqual(['for', 'against']);
    }
  });

  it('toning: on a neutral white without brightener it is seen best', () => {
    const toned = { picture: { colour: 'toned' as const } };
    const [neutral, warm] = [{ whiteSeen: [96, 0, 0.5] as const }, { whiteSeen: [95, 1, 7] as const }];
    expect(cost('tonedWhite', { ...toned, match: warm })).toBeGreaterThan(
      cost('tonedWhite', { ...toned, match: neutral }),
    );
    // What an instrument reads under D50 is seen by nobody in a lamp without UV.
    const asleep = { whiteSeen: [96, 0, 0.6], whiteLab: [96, 1, -3.6] } as const;
    expect(cost('tonedWhite', { ...toned, match: asleep, sheet: { brightenerShift: 6 } })).toBeCloseTo(0.12 * 0.6, 9);
    expect(says('tonedWhite', { match: warm })).toBeUndefined();
  });

  it('a reproduction: the nearer the white to the original’s ground, the better; who signs it off is named', () => {
    const ground = { originalGround: [92, 1, 8] as const };
    expect(cost('originalGround', { commission: ground, match: { whiteLab: [92, 1, 8] } })).toBe(0);
    expect(says('originalGround', { commission: ground })?.speaks).toBe('against');
    expect(says('originalGround', { commission: { ...ground, signedOffBy: 'Mara' } })?.sentence).toContain(
      'Mara signs',
    );
    expect(says('originalGround')).toBeUndefined();
  });

  it('bronzing: seen in the hand more than on a wall, and behind glass by nobody; each way of shining counts', () => {
    const bronzed = { sheet: { bronzing: 3 }, ...tones(0.4, 0.1) };
    expect(cost('bronzing', { ...bronzed, commission: { handled: true } })).toBeCloseTo(
      1.5 * cost('bronzing', bronzed),
    );
    expect(says('bronzing', { ...bronzed, commission: { glass: 'plain' } })).toBeUndefined();
    expect(cost('bronzing', { sheet: { glossDifferential: -30 }, ...tones(0.4, 0.1) })).toBe(
      cost('bronzing', { sheet: { glossDifferential: 30 }, ...tones(0.4, 0.1) }),
    );
    expect(says('bronzing', { sheet: { bronzing: 0 }, ...tones(0.4, 0.1) })).toBeUndefined();
  });

  it('bronzing counts where the picture has tones that bronze: none in snow, twice as much in twice as many darks', () => {
    const at = (dark: number, bare: number, sheet: Partial<SheetQualities>) =>
      cost('bronzing', { sheet, ...tones(dark, bare) });
    expect(at(0, 0.6, { bronzing: 3 })).toBe(0);
    expect(at(0.4, 0, { bronzing: 2 })).toBeCloseTo(2 * at(0.2, 0, { bronzing: 2 }), 9);
    expect(at(0.2, 0, { bronzing: 2 })).toBeCloseTo(0.5 * 2 * 0.4, 9);
    // Gloss differs where bare coating lies beside ink.
    expect(at(0.4, 0, { glossDifferential: 30 })).toBe(0);
    expect(at(0.4, 0.25, { glossDifferential: 30 })).toBeCloseTo(0.035 * 20 * 0.5, 9);
  });

  describe('size', () => {
    const a3 = { widthMm: 329, heightMm: 483, roll: false };
    const roll = { widthMm: 432, heightMm: 12_000, roll: true };
    const at = (sizes: (typeof a3)[], commission: Partial<Commission>, aspect?: number) =>
      says('size', { sheet: { sizes }, commission, aspect });
    it('a paper that is not sold so large makes another print, whichever way the sheet is turned', () => {
      expect(at([a3], { longSideMm: 483, shortSideMm: 329 })).toBeUndefined();
      expect(at([a3], { longSideMm: 484, shortSideMm: 100 })?.cost).toBe(3);
      // Both sides count: 400 × 350 does not lie on 483 × 329.
      expect(at([a3], { longSideMm: 400, shortSideMm: 350 })?.sentence).toBe(
        'The largest sheet it is sold in is 483 × 329 mm; the print is 400 × 350 mm.',
      );
      expect(says('size', { sheet: { sizes: undefined }, commission: { longSideMm: 9000 } })).toBeUndefined();
    });
    it('without the shorter side it follows from the picture', () => {
      expect(at([a3], { longSideMm: 400 }, 0.8)).toBeUndefined();
      expect(at([a3], { longSideMm: 400 }, 0.9)?.figures[0]?.value).toBe(483);
      expect(at([a3], { longSideMm: 400 })).toBeUndefined();
    });
    it('a roll takes a print either way across, and as long as it is', () => {
      expect(at([roll], { longSideMm: 2000, shortSideMm: 432 })).toBeUndefined();
      expect(at([roll], { longSideMm: 2000, shortSideMm: 433 })?.cost).toBe(3);
      expect(at([roll], { longSideMm: 430, shortSideMm: 420 })).toBeUndefined();
    });
    it('a format is asked for: no roll among sheets, no sheet among rolls, panoramas from both', () => {
      const small = { longSideMm: 300, shortSideMm: 100 } as const;
      expect(at([roll], { ...small, format: 'sheet' })?.sentence).toBe(
        'It is not sold in the format asked for: cut sheet.',
      );
      expect(at([a3], { ...small, format: 'roll' })?.cost).toBe(3);
      expect(at([a3], { ...small, format: 'panorama' })?.cost).toBe(3);
      expect(at([roll], { ...small, format: 'panorama' })).toBeUndefined();
      const long = { widthMm: 210, heightMm: 594, roll: false };
      expect(at([long], { ...small, format: 'panorama' })).toBeUndefined();
    });
  });

  it('price class: for an economical print each doubling costs 0.8 whatever the edition, for the best nothing', () => {
    const at = (commission: Partial<Commission>) =>
      says('money', { sheet: { pricePerM2: 40, currency: 'EUR' }, field: { cheapestPerM2: 10 }, commission });
    expect(at({ priceClass: 'economical', editionOf: 3 })?.cost).toBeCloseTo(1.6, 9);
    expect(at({ priceClass: 'economical' })?.sentence).toContain('this is an economical print');
    expect(at({ priceClass: 'best' })).toBeUndefined();
    expect(at({ priceClass: 'standard', editionOf: 3 })?.cost).toBeCloseTo(0.06, 9);
  });

  it('money: twice the price takes as much whatever the price; a numbered edition hardly asks', () => {
    const at = (pricePerM2: number, commission: Partial<Commission> = {}, cheapestPerM2 = 10) =>
      cost('money', { sheet: { pricePerM2, currency: 'EUR' }, field: { cheapestPerM2 }, commission });
    expect(at(10)).toBe(0);
    expect(at(40) - at(20)).toBeCloseTo(at(20) - at(10), 9);
    expect(at(80, {}, 20)).toBeCloseTo(at(40), 9);
    expect(at(40, { editionOf: 5 })).toBeLessThan(at(40) / 5);
    expect(at(40, { glass: 'plain' })).toBeGreaterThan(at(40));
    expect(says('money', { sheet: { pricePerM2: 10, currency: 'EUR' }, field: {} })).toBeUndefined();
  });

  it('what the figures rest on costs nothing and is always said', () => {
    for (const sheet of [{ told: true }, { wet: true }, { brightenerUnknown: true }])
      expect(says('whatItRestsOn', { sheet })?.cost).toBe(0);
    expect(
      says('whatItRestsOn', { sheet: { measurementCondition: 'M0' }, field: { conditions: ['M0', 'M1'] } })?.sentence,
    ).toBe('Mind that it was read under M0, others under M1.');
    expect(says('whatItRestsOn', { sheet: { measurementCondition: 'M1' } })).toBeUndefined();
  });

  it('colours held: a picture without colour loses none; where much is outside, what and how far is named', () => {
    expect(says('colourHeld', { picture: { colour: 'black and white' } })).toBeUndefined();
    const outside: Over = {
      match: {
        outsideShare: 0.3,
        outsideMeanDeltaE: 6,
        colourLostDeltaE: 2,
        lostFamilies: [{ name: 'reds', share: 0.3, meanDeltaE: 6 }],
      },
    };
    expect(says('colourHeld', outside)).toMatchObject({ speaks: 'against' });
    expect(says('colourHeld', outside)!.sentence.replaceAll(/[\u2009\u202f\u00a0]/g, ' ')).toBe(
      'The reds lie 6.0 ΔE00 outside this sheet, 30 % of the picture.',
    );
  });

  it('colours held: nothing speaks for a sheet on which much lies below its black', () => {
    expect(says('colourHeld')!.speaks).toBe('for');
    const closing = says('colourHeld', { match: { darkerThanBlackShare: 0.4 } })!;
    expect(closing.speaks).toBe('neither');
    expect(closing.sentence).toMatch(/Uncompensated, 40.% is darker than its black/);
  });
});

describe('of a sheet nobody described', () => {
  const undescribed = { coating: undefined, surface: undefined, base: undefined, weightGsm: undefined };

  it('nothing is said that rests on what it is: no texture unseen, no polished surface that is ink', () => {
    const structure = { smoothShare: 0.8, busyShare: 0.8, scales: [{ size: 0.02, sdL: 12 }] };
    for (const key of ['plainAreas', 'busyDetail', 'loudSheet', 'reflections', 'inTheHand'])
      expect([
        key,
        says(key, { sheet: undescribed, structure, hints: ['water'], commission: { handled: true } }),
      ]).toEqual([key, undefined]);
  });

  it('a texture that was scanned is known, whatever its maker says', () =>
    expect(
      says('plainAreas', { sheet: { ...undescribed, textureL: 5 }, structure: { smoothShare: 0.8 } }),
    ).toBeDefined());

  it('a school of black-and-white goes by its black, and calls it nothing else', () => {
    const grey = { picture: { colour: 'black and white' as const }, sheet: undescribed };
    expect(says('quietGreys', { ...grey, match: { blackL: 18 } })!.sentence).toBe(
      'Black-and-white on a sheet with the black of a matt one; its black is L* 18.0.',
    );
    expect(says('quietGreys', { ...grey, match: { blackL: 4 } })!.sentence).toContain('the black of one with sheen');
  });
});

describe('vetoes', () => {
  const refused = (veto: Veto, sheet: Partial<SheetQualities>) =>
    refusedBy({ id: 's', paperId: 'p', ...sheet }, { ...USUAL_COMMISSION, vetoes: [veto] }, 'colour');

  it.each<[Veto, Partial<SheetQualities>, Partial<SheetQualities>]>([
    ['brightener', { brightenerShift: 4 }, { brightenerShift: 0.5 }],
    ['reflections', { coating: 'baryta' }, { coating: 'cotton' }],
    ['texture', { surface: 'rough' }, { surface: 'smooth' }],
    ['plastic', { base: 'resin-coated' }, { base: 'cotton' }],
    ['metallic', { coating: 'metallic' }, { coating: 'baryta' }],
  ])('%s: refuses what breaks it, in words, and nothing else', (veto, breaks, keeps) => {
    expect(refused(veto, breaks)).toMatch(/^No .* was asked for, and .*\.$/);
    expect(refused(veto, keeps)).toBeUndefined();
    // What nobody said is not held against it.
    expect(refused(veto, {})).toBeUndefined();
  });

  it('a sheet of which nobody can tell whether it keeps a veto stays, and says so', () => {
    const commission = { vetoes: ['plastic', 'metallic'] as const };
    expect(says('whatItRestsOn', { commission, sheet: { coating: undefined } })).toMatchObject({
      cost: 0,
      sentence:
        'Mind that no resin coating was asked for, and nobody said what its base is, and no metallic sheet was asked for, and nobody said what kind of coating it has.',
    });
    expect(says('whatItRestsOn', { commission, sheet: { coating: 'cotton', base: 'cotton' } })).toBeUndefined();
    const measured = { commission: { vetoes: ['brightener'] as const }, sheet: { brightenerShift: 0.2 } };
    expect(says('whatItRestsOn', measured)).toBeUndefined();
  });

  it('every veto that can be chosen refuses something', () => expect(Object.keys(VETOES)).toHaveLength(5));

  it('a mode that prints no colour, and a sheet no way takes, are refused without being asked', () => {
    const sheet = { id: 's', paperId: 'p', monochrome: true };
    expect(refusedBy(sheet, USUAL_COMMISSION, 'colour')).toMatch(/prints no colour/);
    expect(refusedBy(sheet, USUAL_COMMISSION, 'black and white')).toBeUndefined();
    const stuck = { id: 's', paperId: 'p', feeding: { auto: 'not', rear: 'not' } as const };
    expect(
      refusedBy({ ...stuck, feeding: { ...stuck.feeding, rear: 'care' } }, USUAL_COMMISSION, 'colour'),
    ).toBeUndefined();
  });
});
