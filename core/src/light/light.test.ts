import { asThree } from '../colour/three.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { xyzToLab } from '../colour/lab.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import { GLASSES } from './glass.ts';
import { TABLE_LIGHTS } from './table-lights.ts';
import { surfaceChart } from '../simulation/chart.ts';
import { readChart } from '../simulation/instrument.ts';
import { standIn, type StandInFacts } from '../simulation/stand-in.ts';
import type { ColourFigure, ScalarFigure } from '../measurement/figure.ts';
import { lighting, litLabs, litXyz, type SheetSpectra } from './lit-sheet.ts';
import { litPrint } from './lit-print.ts';
import { turns, unsteadiness } from './turns.ts';
import { computeFigures } from '../measurement/measures/registry.ts';
import { readingFacts } from '../measurement/reading-facts.ts';
import { printSpectra, type PrintSpectra } from './print-spectra.ts';
import { screenMatch, MONITOR_WHITES } from './screen-match.ts';

const facts: StandInFacts = {
  coating: 'matt',
  surface: 'smooth',
  brightenerClaim: 'high',
  weightGsm: 230,
  thicknessUm: 300,
  blackInk: 'matt black',
  mediaSetting: 'Fine art matt',
  printMode: 'colour through a profile',
  blackOvercoat: false,
};
const chart = surfaceChart(3, 17, 2);
function bench(over: Partial<StandInFacts>) {
  const model = standIn({ ...facts, ...over });
  const [m1, m0, m2] = (['M1', 'M0', 'M2'] as const).map((light) => readChart(model, chart, light, 4));
  const read = readingFacts(m1, [m0, m2]);
  return { m1, m0, m2, figures: computeFigures(read), sheet: printSpectra(read)! };
}
const bright = bench({});
const plain = bench({
  brightenerClaim: 'none',
  coating: 'baryta',
  blackInk: 'photo black',
  mediaSetting: 'Fibre gloss',
});
const light = (key: string) => TABLE_LIGHTS.find((l) => l.key === key)!;
const [bare, plainGlass, uvGlass, museumGlass] = GLASSES;
const under = (sheet: PrintSpectra, key: string, glass = bare) => lighting(light(key).power, glass, sheet);
const whiteIn = ({ sheet, figures }: typeof bright, key: string, glass = bare) =>
  (litPrint(sheet, figures, under(sheet, key, glass)).figures.white as ColourFigure).lab;

describe('a print under a light', () => {
  it('under D50 with its UV every figure is the one that was measured', () => {
    for (const { sheet, figures } of [bright, plain]) {
      const lit = litPrint(sheet, figures, under(sheet, 'D50')).figures;
      for (const [key, figure] of Object.entries(lit)) {
        const was = figures[key];
        if (figure.shape === 'colour') expect(deltaE2000(figure.lab, (was as ColourFigure).lab)).toBeLessThan(0.02);
        else
          expect((figure as ScalarFigure).value).toBeCloseTo(
            (was as ScalarFigure).value,
            key === 'gamutVolume' ? -3 : 1,
          );
      }
      expect(Object.keys(lit)).toEqual(
        expect.arrayContaining(['white', 'dmax', 'gamutVolume', 'neutrality', 'linearity', 'contrastRatio']),
      );
    }
  });

  it('without UV a brightened white is the one read without UV, and the other stays where it was', () => {
    expect(deltaE2000(whiteIn(bright, 'D50-no-uv'), (bright.figures.whiteM2 as ColourFigure).lab)).toBeLessThan(0.6);
    expect(whiteIn(bright, 'D50-no-uv')[2] - whiteIn(bright, 'D50')[2]).toBeGreaterThan(3);
    expect(deltaE2000(whiteIn(plain, 'D50-no-uv'), whiteIn(plain, 'D50'))).toBeLessThan(0.3);
  });

  it('under tungsten its luminescence is what an instrument with a tungsten lamp found (M0)', () => {
    const { sheet, m0 } = bright;
    const white = m0.patches.find((p) => p.device!.every((v) => v === 1))!;
    const truth = spectrumToXyz({ startNm: 380, stepNm: 10, values: white.reflectance! }, ILLUMINANTS.A);
    const xyz = litXyz(sheet, under(sheet, 'A'));
    const ours = asThree([0, 1, 2].map((c) => xyz[sheet.white * 3 + c]));
    const A = illuminantWhite(ILLUMINANTS.A);
    expect(deltaE2000(xyzToLab(ours, A), xyzToLab(truth, A))).toBeLessThan(0.5);
  });

  it('lamps without UV leave the brightener asleep', () => {
    for (const key of ['led-warm', 'led-cool', 'museum']) {
      const { luminous: _, ...dull } = bright.sheet;
      const [with_, without] = [bright.sheet, dull].map(
        (s) => litLabs(litXyz(s, under(bright.sheet, key)), under(bright.sheet, key))[bright.sheet.white],
      );
      expect(deltaE2000(with_, without)).toBeLessThan(0.4);
    }
  });

  it('the perfect diffuser is white under every light', () => {
    const diffuser: SheetSpectra = { startNm: 380, stepNm: 10, bands: 36, reflected: new Float32Array(36).fill(1) };
    for (const { power } of TABLE_LIGHTS) {
      const l = lighting(power, bare, diffuser);
      const [lab] = litLabs(litXyz(diffuser, l), l);
      expect(lab[0]).toBeCloseTo(100, 3);
      expect(Math.hypot(lab[1], lab[2])).toBeLessThan(0.01);
    }
  });
});

describe('glass', () => {
  const dmax = (glass: typeof bare) =>
    (litPrint(plain.sheet, plain.figures, under(plain.sheet, 'D50', glass)).figures.dmax as ScalarFigure).value;

  it('plain glass costs black in a lit room, coated museum glass hardly any', () => {
    expect(dmax(bare) - dmax(plainGlass)).toBeGreaterThan(0.5);
    expect(dmax(bare) - dmax(museumGlass)).toBeLessThan(0.35);
    expect(dmax(museumGlass)).toBeGreaterThan(dmax(plainGlass));
  });

  it('UV-blocking glass puts the brightener to sleep in daylight', () => {
    const [, , open] = whiteIn(bright, 'window');
    const [, , blocked] = whiteIn(bright, 'window', uvGlass);
    expect(blocked - open).toBeGreaterThan(2);
    expect(Math.abs(whiteIn(plain, 'window')[2] - whiteIn(plain, 'window', uvGlass)[2])).toBeLessThan(0.6);
  });
});

describe('holding its colour', () => {
  const flat = (reflects: readonly number[], luminous?: number): PrintSpectra => ({
    startNm: 380,
    stepNm: 10,
    bands: 36,
    reflected: new Float32Array(36 * reflects.length).map((_, i) => reflects[Math.floor(i / 36)]!),
    luminous: luminous === undefined ? undefined : new Float32Array(36 * reflects.length).fill(luminous),
    white: 0,
    black: reflects.length - 1,
    greys: reflects.map((_, patch) => ({ step: 1 - patch / (reflects.length - 1), patch })),
    corners: [],
    triangles: [],
  });

  it('flat greys turn under none', () => {
    const list = turns(flat([0.9, 0.5, 0.2, 0.1, 0.02], 0));
    for (const { white, greys } of list) expect(white! + greys!).toBeLessThan(0.02);
    expect(unsteadiness(list)).toBeLessThan(0.01);
  });

  it('of a sheet read without UV alone the white’s turn is not told, and nothing over all', () => {
    const list = turns(printSpectra(readingFacts(bright.m2))!);
    for (const { white, whiteBetween, greys } of list)
      expect([white, whiteBetween, greys]).toEqual([undefined, undefined, expect.any(Number)]);
    expect(unsteadiness(list)).toBeUndefined();
  });

  it('of a sheet read with UV alone it is estimated, and lies between what is said', () => {
    for (const { white, whiteBetween } of turns(printSpectra(readingFacts(bright.m1))!)) {
      expect(white).toBeGreaterThanOrEqual(whiteBetween![0]);
      expect(white).toBeLessThanOrEqual(whiteBetween![1]);
    }
    expect(turns(bright.sheet).every((t) => t.white !== undefined && t.whiteBetween === undefined)).toBe(true);
  });

  it('without greys there is no turn of them, and not one of nothing', () => {
    const list = turns(flat([0.9, 0.02], 0));
    for (const { white, greys } of list) expect([white, greys]).toEqual([expect.any(Number), undefined]);
    expect(unsteadiness(list)).toBeUndefined();
  });

  it('a flat ink on a brightened sheet turns with nothing: it takes its share of what the paper gives back', () => {
    const patch = (share: number) => ({ reflected: 0.85 * share, luminous: 0.12 * share });
    const shares = [1, 0.7, 0.4, 0.2, 0.05].map(patch);
    const bands = 36;
    const fill = (of: (p: (typeof shares)[number]) => number) =>
      Float32Array.from(shares.flatMap((p) => new Array<number>(bands).fill(of(p))));
    const sheet: PrintSpectra = {
      startNm: 380,
      stepNm: 10,
      bands,
      reflected: fill((p) => p.reflected),
      luminous: fill((p) => p.luminous),
      white: 0,
      black: 4,
      greys: shares.map((_, patch) => ({ step: 1 - patch / 4, patch })),
      corners: [],
      triangles: [],
    };
    for (const t of turns(sheet)) expect(t.greys).toBeLessThan(0.005);
    expect(Math.max(...turns(sheet).map((t) => t.white!))).toBeGreaterThan(1);
  });

  it('Compare and Light give one number', () => {
    for (const { figures, sheet } of [bright, plain])
      expect((figures.metamerism as ScalarFigure).value).toBe(Math.max(...turns(sheet).map((t) => t.greys!)));
  });

  it('a brightened sheet holds it less than one without', () =>
    expect(unsteadiness(turns(bright.sheet))).toBeGreaterThan(unsteadiness(turns(plain.sheet))!));
});

describe('a monitor beside the print', () => {
  const match = ({ sheet }: typeof bright) =>
    screenMatch(sheet, under(sheet, 'D50'), { ...MONITOR_WHITES.D65, relativeLuminance: 0.9 });

  it('without brightener the paper’s white matches all of it', () => {
    const { toPaperWhite, toInks } = match(plain);
    for (const left of [toPaperWhite.white, toPaperWhite.greys, toPaperWhite.colours, toInks!.colours])
      expect(left).toBeLessThan(0.5);
  });

  it('with it, bare paper and inks ask for two whites', () => {
    const { toPaperWhite, asItIs, lift } = match(bright);
    expect(toPaperWhite.white).toBeLessThan(0.001);
    // Brightener lifts the bare paper more than the inks: no one white is right for both.
    expect(toPaperWhite.colours).toBeGreaterThan(2 * match(plain).toPaperWhite.colours!);
    expect(lift!.white).toBeGreaterThan(1.5 * lift!.colours!);
    expect(asItIs.white).toBeGreaterThan(2);
  });

  it('set to the inks nothing suits the colours better', () => {
    for (const one of [bright, plain]) {
      const { toPaperWhite, toInks, asItIs } = match(one);
      expect(toInks!.colours).toBeLessThanOrEqual(toPaperWhite.colours!);
      expect(toInks!.colours).toBeLessThanOrEqual(asItIs.colours!);
    }
  });

  it('what is not known is not nothing: brightener without a reading without UV, colours where none were read', () => {
    const { luminous: _, ...unread } = bright.sheet;
    expect(match({ ...bright, sheet: unread })).toMatchObject({
      lift: undefined,
      toInks: undefined,
      toPaperWhite: { greys: undefined, colours: undefined },
      asItIs: { white: expect.any(Number), greys: undefined },
    });
    const greysAlone = match({ ...bright, sheet: { ...bright.sheet, corners: [], triangles: [] } });
    expect(greysAlone).toMatchObject({ toInks: undefined, toPaperWhite: { colours: undefined } });
    expect(greysAlone.lift).toEqual({ white: expect.any(Number), colours: undefined });
    expect(match({ ...bright, sheet: { ...bright.sheet, greys: [] } }).toPaperWhite.greys).toBeUndefined();
  });
});

describe('a reading readied for light', () => {
  it('without a reading without UV, luminescence is estimated and the sum stays what was read', () => {
    const sheet = printSpectra(readingFacts(bright.m1))!;
    expect(sheet.estimated).toBeDefined();
    expect(sheet.corners).toHaveLength(bright.sheet.corners.length);
    const sums = (s: typeof sheet) => Array.from(s.reflected, (v, i) => v + s.luminous![i]!);
    const [told, read] = [sums(sheet), sums(bright.sheet)];
    expect(Math.max(...told.map((v, i) => Math.abs(v - read[i]!)))).toBeLessThan(1e-6);
  });

  it('of a reading that does not hold bare paper nothing is estimated', () => {
    const patches = bright.m1.patches.filter((p) => p.device?.some((v) => v < 1));
    expect(printSpectra(readingFacts({ ...bright.m1, patches }))!.luminous).toBeUndefined();
  });

  it('without spectra there is none', () => {
    const { spectralGrid: _, ...rest } = bright.m1;
    expect(
      printSpectra(readingFacts({ ...rest, patches: rest.patches.map(({ reflectance: _r, ...p }) => p) })),
    ).toBeUndefined();
  });
});
