import { asThree } from '../colour/three.ts';
import { compensated, RENDERINGS } from '../characterisation/renderings.ts';
import { CONTROL_STRIP } from '../characterisation/control-strip.ts';
import { inverter } from '../characterisation/inverse.ts';
import { labAt } from '../characterisation/lattice.ts';
import { printModel } from '../characterisation/print-model.ts';
import { relativePrint } from '../characterisation/relative-print.ts';
import { relativeToWhite } from '../colour/relative.ts';
import { rgbToLab, SRGB, xyzToRgb } from '../colour/rgb-space.ts';
import { labToXyz } from '../colour/lab.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { seededNormal } from '../random.ts';
import { readChart } from '../simulation/instrument.ts';
import { ownSheet } from '../simulation/stand-in.ts';
import type { PressModel } from '../simulation/printer.ts';
import { scatteredChart, SHEETS, truth } from '../../test/sheets.ts';
import { mistakenDevices, mistakenOrder, withOtherBlack } from './strip-mistakes.ts';
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
const toRelative = relativeToWhite(print.white);
const aims = CONTROL_STRIP.map((c) => c.lab);
const sentBy = (key: 'relative' | 'perceptual'): Rgb[] => {
  const aim = RENDERINGS.find((r) => r.key === key)!.aim(print, 0);
  return aims.map((lab) => send(aim(lab)).device);
};
const intended = sentBy('relative');
const perceptual = sentBy('perceptual');
/** The driver takes the values for sRGB and sends them through the profile again. */
const doubled = intended.map((rgb) => send(compensated(0, print.blackL)(rgbToLab(SRGB, rgb))).device);

/** The file's colours as an sRGB picture holds them, sent to the printer as they stand. */
const unconverted: Rgb[] = aims.map(
  (lab) => xyzToRgb(SRGB, labToXyz(lab)).map((v) => Math.min(1, Math.max(0, v))) as unknown as Rgb,
);
/** The driver's own black-and-white, by the simulated press in that mode. */
const greyMode: PressModel = { ...right, mode: 'black-and-white' };
/** Photo black sinks into a matt coating: it keeps six tenths of the density that matt black has there (practice). */
const { inks } = SHEETS.cotton;
const photoOnMatt: PressModel = {
  ...SHEETS.cotton,
  inks: { ...inks, mattBlack: { ...inks.mattBlack, flat: 0.6 * inks.mattBlack.flat } },
};
const absolute: Rgb[] = aims.map((lab) => send(toRelative(compensated(0, print.blackL)(lab))).device);

const seen = (m: ReturnType<typeof learned>, devices: readonly Rgb[]): Lab[] => devices.map((d) => labAt(m.labs, d));
const white = labAt(model.labs, [1, 1, 1]);
const promised = seen(model, intended);
const hypotheses: Hypothesis[] = [
  { mistake: 'as intended', labs: seen(model, intended) },
  { mistake: 'media setting', which: 'Plain photo', labs: seen(setting, intended) },
  { mistake: 'doubled', labs: seen(model, doubled) },
  { mistake: 'rendering', which: 'perceptual', labs: seen(model, perceptual) },
  { mistake: 'wet', labs: whileWet(seen(model, intended), white) },
  { mistake: 'batch', which: 'new label', labs: seen(box, intended) },
  { mistake: 'rendering', which: 'absolute', labs: seen(model, absolute) },
  { mistake: 'no profile', labs: seen(model, unconverted) },
  ...mistakenDevices(intended).map(({ devices, ...m }): Hypothesis => ({ ...m, labs: seen(model, devices) })),
  { mistake: 'black ink', labs: withOtherBlack(promised, white) },
  ...mistakenOrder(promised, white),
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
  ['no profile', (seed) => readOf(right, unconverted, seed)],
  ['black and white', (seed) => readOf(greyMode, intended, seed)],
  [
    'missing ink',
    (seed) =>
      readOf(
        right,
        intended.map(([r, , b]): Rgb => [r, 1, b]),
        seed,
      ),
  ],
  ['rendering', (seed) => readOf(right, absolute, seed)],
  ['turned', (seed) => readOf(right, intended, seed).reverse()],
  ['shifted', (seed) => [...readOf(right, intended, seed).slice(1), truth(right)([1, 1, 1])]],
];

it.each(CASES)(
  '%s is recognised nine times in ten or more on simulated prints, by models that never saw them',
  (mistake, read) => {
    const told = Array.from({ length: 10 }, (_, i) => recognise(read(i + 1), hypotheses));
    expect(told.filter((t) => t.causes[0].mistake === mistake).length).toBeGreaterThanOrEqual(9);
    expect(told.filter((t) => t.clear).length).toBeGreaterThanOrEqual(9);
  },
);

it('the other black ink on a matt sheet is named first nine times in ten, by our estimate of it alone', () => {
  const matt = learned(SHEETS.cotton, 6);
  const paper = labAt(matt.labs, [1, 1, 1]);
  const relative = relativePrint(matt.labs);
  const find = inverter(relative.lattice, relative.reach);
  const sent = aims.map((lab) => find(compensated(0, relative.blackL)(lab)).device);
  const asMeant = seen(matt, sent);
  const supposed: Hypothesis[] = [
    { mistake: 'as intended', labs: asMeant },
    { mistake: 'wet', labs: whileWet(asMeant, paper) },
    ...mistakenDevices(sent).map(({ devices, ...m }): Hypothesis => ({ ...m, labs: seen(matt, devices) })),
    { mistake: 'black ink', labs: withOtherBlack(asMeant, paper) },
    ...mistakenOrder(asMeant, paper),
  ];
  const named = Array.from({ length: 10 }, (_, i) => recognise(readOf(photoOnMatt, sent, i + 1), supposed).causes[0]);
  expect(named.filter((c) => c.mistake === 'black ink').length).toBeGreaterThanOrEqual(9);
});

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
