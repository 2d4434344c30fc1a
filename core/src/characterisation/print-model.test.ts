import { readFileSync } from 'node:fs';
import { scatteredChart, SHEETS, truth } from '../../test/sheets.ts';
import { deltaE2000 } from '../colour/difference.ts';
import type { Rgb } from '../colour/types.ts';
import { readingsFromFile } from '../formats/reading-formats.ts';
import { GLASSES } from '../light/glass.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import type { Reading } from '../measurement/reading.ts';
import { seededRandom } from '../random.ts';
import { readChart } from '../simulation/instrument.ts';
import { labAt } from './lattice.ts';
import { litModel } from './lit-model.ts';
import { summarise } from './model-error.ts';
import { ModelFault, printModel } from './print-model.ts';

const random = seededRandom(41);
const HELD_OUT = Array.from({ length: 400 }, (): Rgb => [random(), random(), random()]);
const offTruth = (sheet: keyof typeof SHEETS, model: ReturnType<typeof printModel>) => {
  const real = truth(SHEETS[sheet]);
  return summarise(HELD_OUT.map((rgb) => deltaE2000(real(rgb), labAt(model.labs, rgb))));
};
const M1 = (sheet: keyof typeof SHEETS, count: number, seed = 7) =>
  readChart(SHEETS[sheet], scatteredChart(count), 'M1', seed);

describe('a model foretells colours that were not read', () => {
  it.each(['baryta', 'cotton', 'uncoated'] as const)('%s from 460 patches: mean 0.6, 95 %% within 1.5', (sheet) => {
    const found = offTruth(sheet, printModel([M1(sheet, 460)]));
    expect(found.mean).toBeLessThan(0.6);
    expect(found.p95).toBeLessThan(1.5);
  });

  it('and from 900: mean 0.4, 95 % within 1.0; it states an error within 0.7 and 1.5 of the true one', () => {
    const model = printModel([M1('baryta', 900)]);
    const found = offTruth('baryta', model);
    expect(found.mean).toBeLessThan(0.4);
    expect(found.p95).toBeLessThan(1.0);
    expect(model.error.stated.all.mean / found.mean).toBeGreaterThan(0.7);
    expect(model.error.stated.all.mean / found.mean).toBeLessThan(1.5);
    expect(model.error.noise).toBeGreaterThan(0.005);
    expect(model.error.noise).toBeLessThan(0.1);
  });

  it('a chart of greys and few colours does not flatter itself', () => {
    const net = [0, 0.5, 1];
    const chart = [
      ...net.flatMap((r) => net.flatMap((g) => net.map((b): Rgb => [r, g, b]))),
      ...Array.from({ length: 63 }, (_, i): Rgb => [(i + 1) / 64, (i + 1) / 64, (i + 1) / 64]),
    ].map((rgb, i) => ({ id: `P${i}`, rgb }));
    const model = printModel([readChart(SHEETS.baryta, chart, 'M1', 5)]);
    const real = truth(SHEETS.baryta);
    const off = summarise(HELD_OUT.map((rgb) => deltaE2000(real(rgb), labAt(model.labs, rgb))));
    expect(model.error.crossValidated.max).toBeGreaterThan(off.mean);
  });

  it('questions a misread patch by its place and keeps it; a repeat that contradicts it takes it out', () => {
    const good = M1('cotton', 460);
    const wrong = good.patches.findIndex((p) => p.device!.every((v) => v > 0.2 && v < 0.8));
    const other = good.patches.findIndex((p) => p.device![0] === 1 && p.device![1] === 0 && p.device![2] === 0);
    const { id, device } = good.patches[wrong]!;
    const mixed: Reading = {
      ...good,
      patches: good.patches.map((p, i) => (i === wrong ? { ...good.patches[other]!, id, device } : p)),
    };
    const { error } = printModel([mixed]);
    expect(error.questioned.map((q) => q.patch)).toEqual([id]);
    expect(error.questioned[0]!.deltaE00).toBeGreaterThan(20);
    expect([error.patches, error.contradicted]).toEqual([printModel([good]).error.patches, []]);
    // The patch is read again, in a file of its own, with a few others.
    const again = { ...good, patches: [...good.patches.slice(0, 12), good.patches[wrong]!] };
    const settled = printModel([mixed, again]);
    expect(settled.error.contradicted).toHaveLength(1);
    expect(settled.error.contradicted[0]).toMatchObject({ patch: id, lab: good.patches[other]!.lab });
    expect(settled.error.questioned).toEqual([]);
    expect(offTruth('cotton', settled).max).toBeLessThan(2);
  });

  it('a model of M1 and M2 under another light is as good as a new reading there, brightened or not', () => {
    const chart = scatteredChart(460);
    const model = printModel([readChart(SHEETS.baryta, chart, 'M1', 3), readChart(SHEETS.baryta, chart, 'M2', 4)]);
    expect(model.spectra!.luminous).toBeDefined();
    // D50 without its UV is M2: the same sheet, read again without UV.
    const lit = litModel(model, TABLE_LIGHTS.find((l) => l.key === 'D50-no-uv')!.power, GLASSES[0]);
    const again = truth(SHEETS.baryta, 'M2');
    const off = summarise(HELD_OUT.map((rgb) => deltaE2000(again(rgb), labAt(lit, rgb))));
    const own = offTruth('baryta', model);
    expect(off.mean).toBeLessThan(own.mean + 0.3);
    const plain = litModel(model, TABLE_LIGHTS[0].power, GLASSES[0]);
    expect(summarise(HELD_OUT.map((rgb) => deltaE2000(labAt(model.labs, rgb), labAt(plain, rgb)))).max).toBeLessThan(
      0.05,
    );
  });

  it('greys never get lighter as less is asked for', () => {
    const model = printModel([M1('uncoated', 60)]);
    const L = Array.from({ length: 256 }, (_, i) => labAt(model.labs, [i / 255, i / 255, i / 255])[0]);
    expect(L.slice(1).every((v, i) => v >= L[i])).toBe(true);
  });
});

describe('sets of others', () => {
  it('FOGRA39L (four inks, icc-profiles-free): cross-validated mean within 0.8', () => {
    const bytes = readFileSync(new URL('../../test/fixtures/fogra39l.cgats.txt', import.meta.url));
    const model = printModel(readingsFromFile(bytes).map((r) => r.reading));
    expect(model.deviceSpace).toBe('CMYK');
    expect(model.error.crossValidated.mean).toBeLessThan(0.8);
    const paper = labAt(model.labs, [0, 0, 0, 0]);
    expect(paper[0]).toBeGreaterThan(94);
  });
});

describe('what no model can be made from', () => {
  const few = M1('cotton', 60);
  it.each([
    [
      'too few patches',
      { ...few, patches: few.patches.slice(0, 20) },
      /\d+ different patches; a model needs at least 24/,
    ],
    [
      'no device values',
      { ...few, deviceSpace: undefined, patches: few.patches.map((p) => ({ ...p, device: undefined })) },
      /no device values/,
    ],
    ['no bare paper', { ...few, patches: few.patches.filter((p) => p.device!.some((v) => v < 1)) }, /no bare paper/],
  ] as const)('%s is said', (_, reading, words) => {
    expect(() => printModel([reading as Reading])).toThrow(ModelFault);
    expect(() => printModel([reading as Reading])).toThrow(words);
  });

  it('and a light is not told from colours alone', () => {
    const model = printModel([
      { ...few, spectralGrid: undefined, patches: few.patches.map(({ reflectance: _, ...p }) => p) },
    ]);
    expect(() => litModel(model, TABLE_LIGHTS[3].power, GLASSES[0])).toThrow(/no spectra/);
  });
});
