import { ILLUMINANTS } from '../colour/illuminant.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { illuminantWhite } from '../colour/spectrum.ts';
import type { Spectrum } from '../colour/types.ts';
import { surfaceChart } from '../simulation/chart.ts';
import { DYE_INKS, PIGMENT_INKS } from '../simulation/inks.ts';
import { readChart } from '../simulation/instrument.ts';
import type { PressModel } from '../simulation/printer.ts';
import { brightenerClass, r457 } from './brightness.ts';
import type { ScalarFigure } from './figure.ts';
import { computeFigures } from './measures/registry.ts';
import { readingFacts } from './reading-facts.ts';
import { cieWhiteness } from './whiteness.ts';
import { CLASS_SHEETS, RELIEFS } from '../simulation/stand-in.ts';

const flat = (r: number): Spectrum => ({ startNm: 380, stepNm: 10, values: new Array(36).fill(r) });

describe('white', () => {
  it('CIE whiteness of the perfect diffuser is 100, its tint 0 (CIE 15)', () => {
    const { whiteness, tint, valid } = cieWhiteness(flat(1));
    expect(whiteness).toBeCloseTo(100, 9);
    expect(tint).toBeCloseTo(0, 9);
    expect(valid).toBe(true);
  });

  it('a bluish white is whiter than its Y, a yellowish one less; a grey is outside the limits', () => {
    const sloped = (toBlue: number): Spectrum => ({
      startNm: 380,
      stepNm: 10,
      values: Array.from({ length: 36 }, (_, i) => 0.9 + toBlue * (1 - i / 35)),
    });
    expect(cieWhiteness(sloped(0.1)).whiteness).toBeGreaterThan(cieWhiteness(flat(0.9)).whiteness + 10);
    expect(cieWhiteness(sloped(-0.1)).whiteness).toBeLessThan(cieWhiteness(flat(0.9)).whiteness - 10);
    expect(cieWhiteness(flat(0.3)).valid).toBe(false);
  });

  it('R457 of a flat sheet is its reflectance; of a band, the band’s share of the weights (ISO 2470-1, (memory))', () => {
    expect(r457(flat(0.87))).toBeCloseTo(87, 9);
    const only460: Spectrum = {
      startNm: 380,
      stepNm: 10,
      values: Array.from({ length: 36 }, (_, i) => (380 + 10 * i === 460 ? 1 : 0)),
    };
    expect(r457(only460)).toBeCloseTo(10_000 / 468.5, 6);
  });

  it.each([
    [0, 'none'],
    [4, 'faint'],
    [4.1, 'low'],
    [8, 'low'],
    [8.1, 'moderate'],
    [14, 'moderate'],
    [14.1, 'high'],
  ] as const)('ΔB %d is %s (ISO 15397, (memory))', (deltaB, name) => expect(brightenerClass(deltaB)).toBe(name));
});

describe('greys under other lights', () => {
  it('at least five lights, each with a white of its own', () => {
    expect(TABLE_LIGHTS.length).toBeGreaterThan(5);
    for (const light of TABLE_LIGHTS) expect(illuminantWhite(light.power)[1]).toBeCloseTo(100, 9);
    const ratio = (key: string) => {
      const [X, , Z] = illuminantWhite(TABLE_LIGHTS.find((l) => l.key === key)!.power);
      return Z / X;
    };
    expect(ratio('led-warm')).toBeLessThan(ratio('led-cool'));
    expect(illuminantWhite(ILLUMINANTS.A)[2]).toBeLessThan(40);
  });

  it('a dye black that lets deep red through turns under tungsten more than a pigment one (practice)', () => {
    const sheet = { ...CLASS_SHEETS.lustre, brightener: 0, relief: RELIEFS.smooth, weightGsm: 260, thicknessUm: 270 };
    const figure = (press: PressModel) =>
      computeFigures(readingFacts(readChart(press, surfaceChart(), 'M1', 4))).metamerism as ScalarFigure;
    const pigment = figure({ sheet, inks: PIGMENT_INKS, blackInk: 'photo', inkLoad: 1 });
    const dye = figure({ sheet, inks: DYE_INKS, blackInk: 'photo', inkLoad: 1 });
    expect(dye.value).toBeGreaterThan(pigment.value + 0.3);
    expect(dye.note).toMatch(/^under /);
  });
});

describe('the ramp', () => {
  const sheet = { ...CLASS_SHEETS.cotton, brightener: 0, relief: RELIEFS.smooth, weightGsm: 310, thicknessUm: 490 };
  const read = (inkLoad: number) =>
    computeFigures(
      readingFacts(readChart({ sheet, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad }, surfaceChart(), 'M1', 4)),
    );
  it('a linearised printer is linear within 1 L*, with no step blocked', () => {
    const f = read(1);
    expect((f.linearity as ScalarFigure).value).toBeLessThan(1);
    expect(f.shadowSeparation).toMatchObject({ note: expect.stringMatching(/^no step blocked, /) });
    expect((f.highlightSeparation as ScalarFigure).value).toBeLessThan(7);
  });

  it('greys that are crushed are counted as blocked, and the curve is no longer linear', () => {
    const reading = readChart({ sheet, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 }, surfaceChart(), 'M1', 4);
    const crushed = {
      ...reading,
      patches: reading.patches.map((p) =>
        p.device![0] === p.device![1] && p.device![1] === p.device![2] && p.device![0] < 0.15
          ? { ...p, lab: [17.6, 0, 0] as const }
          : p,
      ),
    };
    const f = computeFigures(readingFacts(crushed));
    expect((f.linearity as ScalarFigure).value).toBeGreaterThan(6);
    expect((f.shadowSeparation as ScalarFigure).value).toBeGreaterThan(12.5);
    expect((f.shadowSeparation as ScalarFigure).note).toMatch(/[45] steps blocked/);
  });

  it('ΔB and Δb* agree on what is brightened', () => {
    const make = (brightener: number) => {
      const press: PressModel = { sheet: { ...sheet, brightener }, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 };
      return computeFigures(
        readingFacts(readChart(press, surfaceChart(), 'M1', 4), [readChart(press, surfaceChart(), 'M2', 5)]),
      );
    };
    expect(make(0).brightenerDeltaB).toMatchObject({ note: 'none' });
    const bright = make(0.6);
    expect((bright.brightenerDeltaB as ScalarFigure).value).toBeGreaterThan(4);
    expect((bright.brightenerShift as ScalarFigure).value).toBeGreaterThan(2);
    expect((bright.whiteness as ScalarFigure).value).toBeGreaterThan((make(0).whiteness as ScalarFigure).value + 15);
  });
});
