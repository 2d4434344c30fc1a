import { asThree } from '../colour/three.ts';
import { compensated, RENDERINGS } from '../characterisation/renderings.ts';
import { CONTROL_STRIP } from '../characterisation/control-strip.ts';
import { inverter } from '../characterisation/inverse.ts';
import { labAt } from '../characterisation/lattice.ts';
import { printModel } from '../characterisation/print-model.ts';
import { relativePrint } from '../characterisation/relative-print.ts';
import { rgbToLab, SRGB } from '../colour/rgb-space.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { seededNormal } from '../random.ts';
import { readChart } from '../simulation/instrument.ts';
import { ownSheet } from '../simulation/stand-in.ts';
import type { PressModel } from '../simulation/printer.ts';
import { scatteredChart, SHEETS, truth } from '../../test/sheets.ts';
import { offInWords, recognise, whileWet, type Hypothesis, type Mistake } from './mistakes.ts';

const right = SHEETS.baryta;
const otherSetting: PressModel = { ...right, inkLoad: 0.75 };
/** The same name on the box, another sheet in it. */
const otherBox: PressModel = { ...right, sheet: ownSheet(right.sheet, 'Slow fibre', 'new label') };
const learned = (press: PressModel, seed: number) => printModel([readChart(press, scatteredChart(300), 'M1', seed)]);

const model = learned(right, 3);
const setting = learned(otherSetting, 4);
const box = learned(otherBox, 5);
const print = relativePrint(model.labs);
const send = inverter(print.lattice, print.reach);
const aims = CONTROL_STRIP.map((c) => c.lab);
const sentBy = (key: 'relative' | 'perceptual'): Rgb[] => {
  const aim = RENDERINGS.find((r) => r.key === key)!.aim(print, 0);
  return aims.map((lab) => send(aim(lab)).device);
};
const intended = sentBy('relative');
const perceptual = sentBy('perceptual');
/** The driver takes the values for sRGB and sends them through the profile again. */
const doubled = intended.map((rgb) => send(compensated(0, print.blackL)(rgbToLab(SRGB, rgb))).device);

const seen = (m: ReturnType<typeof learned>, devices: readonly Rgb[]): Lab[] => devices.map((d) => labAt(m.labs, d));
const white = labAt(model.labs, [1, 1, 1]);
const hypotheses: Hypothesis[] = [
  { mistake: 'as intended', labs: seen(model, intended) },
  { mistake: 'media setting', which: 'Plain photo', labs: seen(setting, intended) },
  { mistake: 'doubled', labs: seen(model, doubled) },
  { mistake: 'rendering', which: 'perceptual', labs: seen(model, perceptual) },
  { mistake: 'wet', labs: whileWet(seen(model, intended), white) },
  { mistake: 'batch', which: 'new label', labs: seen(box, intended) },
];

/** What an instrument reads of a print: the printer itself, not its model, with noise. */
const readOf = (press: PressModel, devices: readonly Rgb[], seed: number): Lab[] => {
  const normal = seededNormal(seed);
  const at = truth(press);
  return devices.map((d) => asThree(at(d).map((v) => v + normal() * 0.15)));
};

const CASES: readonly (readonly [Mistake, (seed: number) => Lab[]])[] = [
  ['as intended', (seed) => readOf(right, intended, seed)],
  ['media setting', (seed) => readOf(otherSetting, intended, seed)],
  ['doubled', (seed) => readOf(right, doubled, seed)],
  ['rendering', (seed) => readOf(right, perceptual, seed)],
  ['batch', (seed) => readOf(otherBox, intended, seed)],
  ['wet', (seed) => whileWet(readOf(right, intended, seed), truth(right)([1, 1, 1]))],
];

it.each(CASES)(
  '%s is recognised nine times in ten or more on simulated prints, by models that never saw them',
  (mistake, read) => {
    const told = Array.from({ length: 10 }, (_, i) => recognise(read(i + 1), hypotheses));
    expect(told.filter((t) => t.causes[0].mistake === mistake).length).toBeGreaterThanOrEqual(9);
    expect(told.filter((t) => t.clear).length).toBeGreaterThanOrEqual(9);
  },
);

it('what nothing known explains is said to be so; two that read alike are not told apart', () => {
  const strange = readOf(SHEETS.uncoated, intended, 1);
  expect(recognise(strange, hypotheses.slice(0, 3)).sentence).toContain('Nothing that is known here explains it');
  const twice = recognise(readOf(right, intended, 2), [hypotheses[0], { ...hypotheses[0], mistake: 'batch' }]);
  expect(twice.clear).toBe(false);
  expect(twice.sentence).toContain('can’t be told');
  expect(() => recognise([], hypotheses)).toThrow(RangeError);
});

it('says of kinds of colours how they came out, the worst first, and nothing of what is alike', () => {
  const labs: Lab[] = [
    [50, 0, 0],
    [60, 0, 0],
    [70, 0, 0],
    [40, -40, 30],
    [50, -40, 30],
    [60, -40, 30],
  ];
  expect(offInWords(labs, labs)).toEqual([]);
  const dark = labs.map(([l, a, b], i): Lab => (i > 2 ? [l - 5, a, b] : [l, a - 1, b]));
  const words = offInWords(dark, labs);
  expect(words[0]).toMatch(/^greens \d\.\d ΔE00 off, too dark$/);
  expect(words[1]).toMatch(/^greys 1\.0 C\* towards /);
});
