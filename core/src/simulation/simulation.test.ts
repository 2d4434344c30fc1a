import { visualDensity } from '../colour/density.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { spectrumToXyz } from '../colour/spectrum.ts';
import type { ScalarFigure } from '../measurement/figure.ts';
import { computeFigures } from '../measurement/measures/registry.ts';
import { readingFacts } from '../measurement/reading-facts.ts';
import { luminescence, lightOf } from './brightener.ts';
import { surfaceChart } from './chart.ts';
import { PIGMENT_INKS, inkDensity } from './inks.ts';
import { readChart } from './instrument.ts';
import { press, type PressModel } from './printer.ts';
import { BENCH_GRID, type SheetModel } from './sheet.ts';

const baryta: SheetModel = { reflectance: 0.945, warmth: 0.022, brightener: 0, surfaceReflection: 0.0016, yuleNielsen: 1.6, inkHold: 1, inkLimit: 12 };
const matt: SheetModel = { reflectance: 0.935, warmth: 0.035, brightener: 0, surfaceReflection: 0.0135, yuleNielsen: 1.9, inkHold: 0.74, inkLimit: 5 };
const onBaryta: PressModel = { sheet: baryta, inks: PIGMENT_INKS, blackInk: 'photo', inkLoad: 1 };
const onMatt: PressModel = { sheet: matt, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 };
const chart = surfaceChart();
const figuresOf = (model: PressModel, seed = 1) => computeFigures(readingFacts(readChart(model, chart, 'M1', seed), readChart(model, chart, 'M2', seed + 1)));

describe('plausibility (practice)', () => {
  it('baryta: Dmax 2.3–2.6, 800 000–1 000 000 cubic Lab units', () => {
    const f = figuresOf(onBaryta);
    expect((f.dmax as ScalarFigure).value).toBeGreaterThan(2.3);
    expect((f.dmax as ScalarFigure).value).toBeLessThan(2.6);
    expect((f.gamutVolume as ScalarFigure).value).toBeGreaterThan(800_000);
    expect((f.gamutVolume as ScalarFigure).value).toBeLessThan(1_000_000);
  });

  it('matt cotton: Dmax 1.5–1.8 and a much smaller gamut', () => {
    const f = figuresOf(onMatt);
    expect((f.dmax as ScalarFigure).value).toBeGreaterThan(1.5);
    expect((f.dmax as ScalarFigure).value).toBeLessThan(1.8);
    expect((f.gamutVolume as ScalarFigure).value).toBeLessThan(700_000);
  });

  it('brightener-free moves less than 0.3 in b* between M1 and M2, a brightened white 2–12', () => {
    expect(Math.abs((figuresOf(onBaryta).brightenerShift as ScalarFigure).value)).toBeLessThan(0.3);
    const bright = figuresOf({ ...onBaryta, sheet: { ...baryta, brightener: 0.5 } }).brightenerShift as ScalarFigure;
    expect(bright.value).toBeGreaterThan(2);
    expect(bright.value).toBeLessThan(12);
  });

  it('under-inking costs black', () => {
    expect((figuresOf({ ...onBaryta, inkLoad: 0.6 }).dmax as ScalarFigure).value).toBeLessThan((figuresOf(onBaryta).dmax as ScalarFigure).value - 0.3);
  });
});

describe('the model', () => {
  it('the bare sheet is the sheet: base and surface, nothing else', () => {
    const print = press(onBaryta, 'M2');
    print([1, 1, 1]).forEach((r) => expect(r).toBeLessThanOrEqual(1));
    const s = baryta.surfaceReflection;
    const red = print([1, 1, 1])[BENCH_GRID.count - 1];
    expect(red).toBeCloseTo(s + (1 - s) * baryta.reflectance, 3);
  });

  it('full black is the black ink on the sheet, exactly (Neugebauer corner)', () => {
    const print = press(onBaryta, 'M2')([0, 0, 0]);
    const white = press({ ...onBaryta, sheet: { ...baryta, surfaceReflection: 0 } }, 'M2')([1, 1, 1]);
    const density = inkDensity(PIGMENT_INKS.photoBlack);
    const s = baryta.surfaceReflection;
    print.forEach((r, i) => expect(r).toBeCloseTo(s + (1 - s) * white[i] * 10 ** -density[i], 9));
  });

  it('equal steps of grey are equal steps of L*, within 1', () => {
    const { ramp } = readingFacts(readChart(onMatt, chart, 'M1', 3));
    const [first, last] = [ramp![0], ramp![ramp!.length - 1]];
    for (const s of ramp!) expect(Math.abs(s.lab[0] - (first.lab[0] + (last.lab[0] - first.lab[0]) * s.step))).toBeLessThan(1);
  });

  it('without UV there is no luminescence, and tungsten wakes less than daylight', () => {
    expect(luminescence(0.5, lightOf('M2'), 440)).toBe(0);
    expect(luminescence(0, ILLUMINANTS.D50, 440)).toBe(0);
    expect(luminescence(0.5, ILLUMINANTS.A, 440)).toBeLessThan(luminescence(0.5, ILLUMINANTS.D65, 440));
  });

  it('the instrument repeats as its noise says and the same seed gives the same reading', () => {
    const many = readChart(onMatt, Array.from({ length: 200 }, (_, i) => ({ id: String(i), rgb: [1, 1, 1] as const })), 'M1', 5);
    const { repeatability } = readingFacts(many);
    expect(repeatability.lab[0]).toBeGreaterThan(0.01);
    expect(repeatability.lab[0]).toBeLessThan(0.1);
    expect(readChart(onMatt, chart.slice(0, 3), 'M1', 5)).toEqual(readChart(onMatt, chart.slice(0, 3), 'M1', 5));
  });

  it('a hand-made spectrum: 0.1 everywhere is density 1', () => {
    expect(visualDensity(spectrumToXyz({ startNm: 380, stepNm: 10, values: new Array(36).fill(0.1) })[1])).toBeCloseTo(1, 9);
  });
});
