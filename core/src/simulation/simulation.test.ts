import { visualDensity } from '../colour/density.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { spectrumToXyz } from '../colour/spectrum.ts';
import type { ScalarFigure } from '../measurement/figure.ts';
import { computeFigures } from '../measurement/measures/registry.ts';
import { readingFacts } from '../measurement/reading-facts.ts';
import { noiseAt } from '../measurement/repeats.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { meshVolume } from '../gamut/mesh.ts';
import type { ColourFigure, Figure } from '../measurement/figure.ts';
import { textureOf } from '../measurement/texture.ts';
import { fresnel, GLOSS_ANGLES, glossUnits, readGloss } from './gloss-meter.ts';
import { measureStack, readBacking, weigh } from './scale.ts';
import { scanTexture } from './scanner.ts';
import { luminescence, lightOf } from './brightener.ts';
import { surfaceChart } from './chart.ts';
import { DYE_INKS, PIGMENT_INKS, REFILL_PIGMENT_INKS, inkDensity } from './inks.ts';
import { BENCH_CONDITIONS, benchPrints, FAULTS, faultOf, readChart, readStrip, type StripPass } from './instrument.ts';
import { press, type PressModel } from './printer.ts';
import { BENCH_GRID, type SheetModel } from './sheet.ts';
import { CLASS_SHEETS, RELIEFS, ownSheet, standIn, type StandInFacts } from './stand-in.ts';

const stock = { brightener: 0, relief: RELIEFS.smooth, weightGsm: 300, thicknessUm: 400 };
const baryta: SheetModel = { ...CLASS_SHEETS.baryta, ...stock };
const matt: SheetModel = { ...CLASS_SHEETS.cotton, ...stock };
const onBaryta: PressModel = { sheet: baryta, inks: PIGMENT_INKS, blackInk: 'photo', inkLoad: 1 };
const onMatt: PressModel = { sheet: matt, inks: PIGMENT_INKS, blackInk: 'matt', inkLoad: 1 };
const chart = surfaceChart();
const value = (figure: Figure) => (figure as ScalarFigure).value;
const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length;
const figuresOf = (model: PressModel, seed = 1) =>
  computeFigures(readingFacts(readChart(model, chart, 'M1', seed), [readChart(model, chart, 'M2', seed + 1)]));

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
    expect((figuresOf({ ...onBaryta, inkLoad: 0.6 }).dmax as ScalarFigure).value).toBeLessThan(
      (figuresOf(onBaryta).dmax as ScalarFigure).value - 0.3,
    );
  });
});

describe('what a printer does to a sheet', () => {
  it('a black overcoat adds 0.02–0.08 D (practice)', () => {
    for (const model of [onBaryta, onMatt]) {
      const gain = value(figuresOf({ ...model, overcoat: true }).dmax) - value(figuresOf(model).dmax);
      expect(gain).toBeGreaterThan(0.02);
      expect(gain).toBeLessThan(0.08);
    }
  });

  it('metallic: gamut near matt’s, black near lustre’s, white dull and a little warm (practice)', () => {
    const metallic = figuresOf({ ...onBaryta, sheet: { ...CLASS_SHEETS.metallic, ...stock } });
    const lustre = figuresOf({ ...onBaryta, sheet: { ...CLASS_SHEETS.lustre, ...stock } });
    const mattVolume = value(figuresOf(onMatt).gamutVolume);
    expect(Math.abs(value(metallic.gamutVolume) / mattVolume - 1)).toBeLessThan(0.25);
    expect(Math.abs(value(metallic.dmax) - value(lustre.dmax))).toBeLessThan(0.45);
    expect(value(metallic.dmax)).toBeGreaterThan(value(figuresOf(onMatt).dmax) + 0.2);
    const white = (metallic.white as ColourFigure).lab;
    expect(white[0]).toBeLessThan((lustre.white as ColourFigure).lab[0] - 3);
    expect(white[2]).toBeGreaterThan(1);
  });

  it('too much ink closes the shadows and turns the greys; too little costs black', () => {
    const [right, flooded, starved] = [1, 1.6, 0.7].map((inkLoad) => figuresOf({ ...onBaryta, inkLoad }));
    expect(value(flooded.shadowSeparation)).toBeGreaterThan(value(right.shadowSeparation) + 5);
    expect(value(flooded.linearity)).toBeGreaterThan(value(right.linearity) + 3);
    expect(value(flooded.neutrality)).toBeGreaterThan(value(right.neutrality) + 0.5);
    expect(value(flooded.dmax)).toBeLessThan(value(right.dmax));
    expect(value(starved.dmax)).toBeLessThan(value(right.dmax) - 0.2);
  });

  it('the driver’s own black-and-white is more neutral than a profile, and knows no colour', () => {
    const bw: PressModel = { ...onMatt, mode: 'black-and-white' };
    expect(value(figuresOf(bw).neutrality)).toBeLessThan(value(figuresOf(onMatt).neutrality));
    const print = press(bw, 'M2');
    const grey = 0.7152;
    expect(print([0, 1, 0])).toEqual(print([grey, grey, grey]));
  });

  it('another maker’s inks are near, and not equal', () => {
    const [own, other] = [onBaryta, { ...onBaryta, inks: REFILL_PIGMENT_INKS }].map((m) => figuresOf(m));
    expect(Math.abs(value(other.gamutVolume) / value(own.gamutVolume) - 1)).toBeLessThan(0.15);
    expect(value(other.dmax)).toBeLessThan(value(own.dmax) - 0.03);
    const mean = (a: PressModel, b: PressModel) => {
      const [p, q] = [readChart(a, chart, 'M1', 1), readChart(b, chart, 'M1', 1)];
      return p.patches.reduce((s, patch, i) => s + deltaE2000(patch.lab, q.patches[i].lab), 0) / chart.length;
    };
    const apart = mean(onBaryta, { ...onBaryta, inks: REFILL_PIGMENT_INKS });
    expect(apart).toBeGreaterThan(1);
    expect(apart).toBeLessThan(8);
  });

  it('the modified hull of scattered readings is within 3 % of the device-cube surface of the same printer', () => {
    for (const model of [onBaryta, onMatt, { ...onBaryta, inks: DYE_INKS }]) {
      const reading = readChart(model, surfaceChart(13), 'M2', 4);
      const [surface, hull] = [
        readingFacts(reading),
        readingFacts({
          ...reading,
          deviceSpace: undefined,
          patches: reading.patches.map((p) => ({ ...p, device: undefined })),
        }),
      ];
      expect([surface.gamut!.method, hull.gamut!.method]).toEqual(['device surface', 'modified hull']);
      expect(Math.abs(meshVolume(hull.gamut!.mesh) / meshVolume(surface.gamut!.mesh) - 1)).toBeLessThan(0.03);
    }
  });
});

describe('the bench', () => {
  const strips = Array.from({ length: 4 }, (_, s) => chart.slice(s * 12, s * 12 + 12).map((p) => p.rgb));
  const read = (over: Partial<StripPass> = {}) =>
    readStrip(benchPrints(onBaryta), { strips, strip: 1, seed: 5, sinceCalibration: 0, flake: 0, ...over }).M2;
  const apart = (p: number[], q: number[]) => Math.max(...p.map((v, i) => Math.abs(v - q[i])));

  it('a strip gives M0, M1 and M2 of every patch, 36 bands', () => {
    const all = readStrip(benchPrints(onBaryta), { strips, strip: 0, seed: 1, sinceCalibration: 0, flake: 0 });
    for (const condition of BENCH_CONDITIONS) {
      expect(all[condition]).toHaveLength(12);
      expect(all[condition].every((s) => s.length === 36)).toBe(true);
    }
  });

  it('a slipped strip is the strip one patch on, a doubled one is the one before, a turned one comes from the other end backwards', () => {
    const own = read();
    read({ fault: 'slipped' })
      .slice(0, -1)
      .forEach((s, i) => expect(apart(s, own[i + 1])).toBeLessThan(0.02));
    read({ fault: 'doubled' }).forEach((s, i) => expect(apart(s, read({ strip: 0 })[i])).toBeLessThan(0.02));
    const other = read({ strip: 2 });
    read({ fault: 'turned' }).forEach((s, i) => expect(apart(s, other[11 - i])).toBeLessThan(0.02));
  });

  it('a dirty patch is one patch', () => {
    const own = read();
    expect(read({ fault: 'dirty' }).filter((s, i) => apart(s, own[i]) > 0.02 * Math.max(...own[i]))).toHaveLength(1);
  });

  it('between calibrations it drifts, slowly', () => {
    const band = (spectra: number[][]) => spectra[0].reduce((s, v) => s + v, 0);
    expect(band(read({ sinceCalibration: 40 })) / band(read())).toBeCloseTo(1 - 0.016, 3);
  });

  it('faults come now and then, and the same ones for the same seed', () => {
    const faults = Array.from({ length: 800 }, (_, i) => faultOf(7, i, 0));
    const share = faults.filter(Boolean).length / 800;
    expect(share).toBeGreaterThan(0.03);
    expect(share).toBeLessThan(0.1);
    expect(new Set(faults.filter(Boolean)).size).toBe(FAULTS.length);
    expect(Array.from({ length: 800 }, (_, i) => faultOf(7, i, 0))).toEqual(faults);
  });

  it('gloss: the standard’s glass is 100 at every angle (ISO 2813), gloss is glossier than lustre, matt shines only at 85°', () => {
    for (const angle of GLOSS_ANGLES) expect(glossUnits(angle, 0, 1.567, 0)).toBeCloseTo(100, 9);
    expect(fresnel(0, 1.567)).toBeCloseTo(((1.567 - 1) / (1.567 + 1)) ** 2, 9);
    const at60 = (sheet: Parameters<typeof press>[0]['sheet']) => glossUnits(60, sheet.roughnessNm, 1.5, 0.9);
    expect(at60({ ...CLASS_SHEETS.gloss, ...stock })).toBeGreaterThan(at60({ ...CLASS_SHEETS.lustre, ...stock }) + 20);
    expect(at60(matt)).toBeLessThan(5);
    expect(glossUnits(85, matt.roughnessNm, 1.5, 0.9)).toBeGreaterThan(at60(matt));
  });

  it('pigment on gloss shows a gloss differential, dye hardly any', () => {
    const differential = (model: PressModel) => {
      const at60 = readGloss(model, 5, 3).find((g) => g.angle === 60)!;
      return mean(at60.black) - mean(at60.white);
    };
    const lustre = { ...onBaryta, sheet: { ...CLASS_SHEETS.lustre, ...stock } };
    expect(differential(lustre)).toBeGreaterThan(8);
    expect(Math.abs(differential({ ...lustre, inks: DYE_INKS }))).toBeLessThan(5);
  });

  it('scale and micrometer find the sheet', () => {
    expect((mean(weigh(matt, 210, 297, 10, 1)) * 1e6) / (210 * 297) / matt.weightGsm).toBeCloseTo(1, 1);
    expect(mean(measureStack(matt, 10, 5, 1)) / 10).toBeCloseTo(matt.thicknessUm, -1);
    const { overBlack, overStack } = readBacking(matt, 20, 2);
    expect((100 * mean(overBlack)) / mean(overStack)).toBeCloseTo(matt.opacity, 0);
  });

  it('the texture that was put in comes out: a pure wave exactly, a relief near its wavelength, a rougher sheet rougher', () => {
    const side = 512;
    const wave = Float32Array.from(
      { length: side * side },
      (_, i) => 60 + 2 * Math.SQRT2 * Math.sin((2 * Math.PI * (i % side)) / 16),
    );
    const pure = textureOf({ widthPx: side, heightPx: side, ppi: 400, lightness: wave });
    expect(pure.wavelengthMm).toBeCloseTo((16 / 400) * 25.4, 1);
    expect(pure.amplitudeL).toBeCloseTo(2, 1);
    // No bound between steps of the scale moves it: every wavelength is found within three percent.
    for (const mm of [0.7, 0.78, 0.83, 0.9, 1.1]) {
      const px = (mm / 25.4) * 400;
      const lightness = Float32Array.from(
        { length: side * side },
        (_, i) => 60 + Math.sin((2 * Math.PI * (i % side)) / px),
      );
      const found = textureOf({ widthPx: side, heightPx: side, ppi: 400, lightness }).wavelengthMm;
      expect(Math.abs(found / mm - 1)).toBeLessThan(0.03);
    }
    const found = (surface: keyof typeof RELIEFS) =>
      textureOf(scanTexture({ ...matt, relief: RELIEFS[surface] }, 300, 26, 9));
    const [textured, rough] = [found('textured'), found('rough')];
    expect(textured.wavelengthMm / RELIEFS.textured.wavelengthMm).toBeGreaterThan(0.7);
    expect(textured.wavelengthMm / RELIEFS.textured.wavelengthMm).toBeLessThan(1.4);
    expect(rough.amplitudeL).toBeGreaterThan(textured.amplitudeL);
    expect(rough.wavelengthMm).toBeGreaterThan(textured.wavelengthMm);
    expect(() => textureOf({ ...scanTexture(matt, 400, 10, 1) })).toThrow(/16 mm/);
    expect(() => textureOf(scanTexture(matt, 150, 30, 1))).toThrow(/150 ppi/);
  });

  it('a stand-in is made from what is claimed; the wrong media setting shows', () => {
    const facts: StandInFacts = {
      coating: 'cotton',
      surface: 'smooth',
      brightenerClaim: 'none',
      weightGsm: 300,
      thicknessUm: 400,
      blackInk: 'matt black',
      mediaSetting: 'Fine art matt',
      printMode: 'colour through a profile',
      blackOvercoat: false,
    };
    expect(standIn(facts).inkLoad).toBe(1);
    expect(standIn({ ...facts, mediaSetting: 'Glossy photo' }).inkLoad).toBeGreaterThan(1);
    expect(standIn({ ...facts, mediaSetting: 'Glossy photo' }, true).inkLoad).toBe(1);
    expect(standIn({ ...facts, coating: 'baryta', mediaSetting: 'Plain paper' }).inkLoad).toBeLessThan(1);
    expect(standIn({ ...facts, printMode: 'driver black-and-white', blackInk: 'dye black' })).toMatchObject({
      mode: 'black-and-white',
      inks: DYE_INKS,
    });
    expect(standIn({ ...facts, inkSet: 'Refill pigment, ten bottles' }).inks).toBe(REFILL_PIGMENT_INKS);
    expect(standIn({ ...facts, inkSet: 'Refill pigment, ten bottles' }, true).inks).not.toBe(REFILL_PIGMENT_INKS);
  });

  it('no two sheets of a kind are quite alike: the same name gives the same sheet, boxes of it lie nearer than mills', () => {
    const typical = standIn({
      coating: 'cotton',
      surface: 'smooth',
      brightenerClaim: 'low',
      weightGsm: 300,
      thicknessUm: 400,
      blackInk: 'matt black',
      mediaSetting: 'Fine art matt',
      printMode: 'colour through a profile',
      blackOvercoat: false,
    }).sheet;
    expect(ownSheet(typical, 'Testmill Proof')).toEqual(ownSheet(typical, 'Testmill Proof'));
    const apart = (a: SheetModel, b: SheetModel) =>
      Math.abs(a.warmth / b.warmth - 1) + Math.abs(a.brightener / b.brightener - 1);
    const mean = (of: (i: number) => number) =>
      Array.from({ length: 60 }, (_, i) => of(i)).reduce((s, v) => s + v, 0) / 60;
    const mills = mean((i) => apart(ownSheet(typical, `Mill ${i}`), ownSheet(typical, `Mill ${i + 1}`)));
    const boxes = mean((i) =>
      apart(ownSheet(typical, `Mill ${i}`, 'second box'), ownSheet(typical, `Mill ${i}`, 'third box')),
    );
    expect(boxes).toBeGreaterThan(0);
    expect(boxes).toBeLessThan(0.7 * mills);
    for (let i = 0; i < 60; i++) expect(ownSheet(typical, `Mill ${i}`).reflectance).toBeLessThanOrEqual(0.97);
    expect(ownSheet({ ...typical, brightener: 0 }, 'Testmill Proof').brightener).toBe(0);
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
    for (const s of ramp!)
      expect(Math.abs(s.lab[0] - (first.lab[0] + (last.lab[0] - first.lab[0]) * s.step))).toBeLessThan(1);
  });

  it('without UV there is no luminescence, and tungsten wakes less than daylight', () => {
    expect(luminescence(0.5, lightOf('M2'), 440)).toBe(0);
    expect(luminescence(0, ILLUMINANTS.D50, 440)).toBe(0);
    expect(luminescence(0.5, ILLUMINANTS.A, 440)).toBeLessThan(luminescence(0.5, ILLUMINANTS.D65, 440));
  });

  it('the instrument repeats as its noise says and the same seed gives the same reading', () => {
    const many = readChart(
      onMatt,
      Array.from({ length: 200 }, (_, i) => ({ id: String(i), rgb: [1, 1, 1] as const })),
      'M1',
      5,
    );
    const { repeatability } = readingFacts(many);
    expect(noiseAt(repeatability, 50)[0]).toBeGreaterThan(0.01);
    expect(noiseAt(repeatability, 50)[0]).toBeLessThan(0.1);
    expect(readChart(onMatt, chart.slice(0, 3), 'M1', 5)).toEqual(readChart(onMatt, chart.slice(0, 3), 'M1', 5));
  });

  it('a hand-made spectrum: 0.1 everywhere is density 1', () => {
    expect(visualDensity(spectrumToXyz({ startNm: 380, stepNm: 10, values: new Array(36).fill(0.1) })[1])).toBeCloseTo(
      1,
      9,
    );
  });
});
