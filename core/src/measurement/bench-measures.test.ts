import type { Lab, Xyz } from '../colour/types.ts';
import { labToXyz } from '../colour/lab.ts';
import type { MissingFigure, ScalarFigure } from './figure.ts';
import { computeFigures, MEASURES } from './measures/registry.ts';
import type { Observation } from './observations.ts';
import { OBSERVATION_KINDS } from './observations.ts';
import { readingFacts } from './reading-facts.ts';
import type { Reading } from './reading.ts';
import { formatFigure } from './show.ts';

const of = (...observations: Observation[]) => computeFigures(undefined, observations);
const scalar = (figures: ReturnType<typeof of>, key: string) => figures[key] as ScalarFigure;

describe('figures from the bench beside the spectrophotometer', () => {
  it('weight: 19.65 g of an A4 sheet are 315 g/m² (ISO 536)', () => {
    const f = scalar(of({ kind: 'weight', grams: [19.6, 19.7, 19.65], widthMm: 210, heightMm: 297 }), 'weight');
    expect(f.value).toBeCloseTo(19.65 / 0.06237, 9);
    expect(f.sd).toBeCloseTo(0.05 / Math.sqrt(3) / 0.06237, 9);
  });

  it('thickness and bulk: 340 g/m² at 400 µm is 1.18 cm³/g, 310 at 305 is 0.98 (practice)', () => {
    const body = (gsm: number, um: number) =>
      of(
        { kind: 'weight', grams: [gsm / 16, gsm / 16], widthMm: 250, heightMm: 250 },
        { kind: 'thickness', stackUm: [um * 10, um * 10], sheets: 10 },
      );
    expect(scalar(body(340, 400), 'bulk').value).toBeCloseTo(1.176, 3);
    expect(scalar(body(310, 305), 'bulk').value).toBeCloseTo(0.984, 3);
    expect(scalar(body(340, 400), 'thickness').value).toBe(400);
  });

  it('opacity: 80 over black, 84 over a stack is 95.2 % (ISO 2471)', () => {
    expect(scalar(of({ kind: 'opacity', overBlack: [80], overStack: [84] }), 'opacity').value).toBeCloseTo(95.238, 3);
  });

  it('gloss at three angles, and black less white at 60° (ISO 2813)', () => {
    const f = of(
      { kind: 'gloss', angleDeg: 20, white: [8], black: [12] },
      { kind: 'gloss', angleDeg: 60, white: [30, 32], black: [41, 43] },
      { kind: 'gloss', angleDeg: 85, white: [70], black: [72] },
    );
    expect(['gloss20', 'gloss60', 'gloss85', 'glossDifferential'].map((k) => scalar(f, k).value)).toEqual([
      8, 31, 70, 11,
    ]);
    expect(scalar(f, 'gloss60').sd).toBeCloseTo(1, 9);
  });

  it('the last observation of a kind counts', () => {
    expect(scalar(of({ kind: 'bronzing', grade: 3 }, { kind: 'bronzing', grade: 1 }), 'bronzing').value).toBe(1);
  });

  it('a rub after ten minutes is not a rub after a day; both are judged', () => {
    const f = of({ kind: 'rub', minutesAfterPrinting: 10, grade: 3 });
    expect(scalar(f, 'rubAfterMinutes')).toMatchObject({ value: 3, note: 'clear' });
    expect((f.rubAfterADay as MissingFigure).why).toMatch(/a day after printing/);
    expect(MEASURES.filter((m) => m.judged).map((m) => m.key)).toEqual([
      'blockedRings',
      'bronzing',
      'hairlines',
      'rubAfterMinutes',
      'rubAfterADay',
    ]);
    for (const kind of ['bronzing', 'rub', 'rings', 'hairlines'] as const)
      expect(OBSERVATION_KINDS[kind].figure).toBe('judged');
  });

  it('what was not observed says what is missing, in words of its own', () => {
    const why = MEASURES.filter((m) => 'observe' in m).map((m) => (of()[m.key] as MissingFigure).why);
    for (const w of why) expect(w.length).toBeGreaterThan(15);
    expect(of().white).toMatchObject({ shape: 'missing', why: expect.stringMatching(/chart/) });
    expect(formatFigure(MEASURES[0], of().white)).toBe('—');
  });
});

describe('whites and greys', () => {
  const patch = (id: string, device: readonly number[], lab: Lab) => ({ id, device, lab, xyz: labToXyz(lab) as Xyz });
  /** A ramp of greys whose a* swings by `swing` once from black to paper. */
  const ramp = (swing: number, condition: 'M0' | 'M1' | 'M2' = 'M1', white: Lab = [95, 0, 0]): Reading => ({
    colourFrom: 'Lab',
    deviceSpace: 'RGB',
    condition,
    patches: Array.from({ length: 21 }, (_, i) => {
      const s = i / 20;
      const lab: Lab = s === 1 ? white : [5 + 90 * s, swing * Math.sin(2 * Math.PI * s), 0];
      return patch(`g${i}`, [s, s, s], lab);
    }),
  });

  it('greys that swing once from red to green cross over once, and where is said', () => {
    const f = computeFigures(readingFacts(ramp(3)));
    expect(f.crossovers).toMatchObject({ value: 1, note: expect.stringMatching(/a\* at (50|55|60) %/) });
    expect((computeFigures(readingFacts(ramp(0.3))).crossovers as ScalarFigure).value).toBe(0);
  });

  it('the noise of a ramp figure is found by reading the ramp again and again', () => {
    const f = computeFigures(readingFacts(ramp(3)));
    for (const key of ['neutrality', 'linearity'] as const) {
      expect((f[key] as ScalarFigure).sd).toBeGreaterThan(0.01);
      expect((f[key] as ScalarFigure).sd).toBeLessThan(0.3);
    }
  });

  it('whites of companion readings stand under their own measurement condition', () => {
    const facts = readingFacts(ramp(0), [ramp(0, 'M0', [95, 0, 1]), ramp(0, 'M2', [94.5, 0, 4])]);
    const f = computeFigures(facts);
    expect(f.whiteM0).toMatchObject({ lab: [95, 0, 1] });
    expect(f.whiteM2).toMatchObject({ lab: [94.5, 0, 4] });
    expect(f.brightenerShift).toMatchObject({ value: 4 });
    expect(computeFigures(readingFacts(ramp(0))).whiteM0).toMatchObject({
      shape: 'missing',
      why: 'A reading in M0 is missing.',
    });
    expect(computeFigures(readingFacts(ramp(0, 'M2', [90, 1, 1]))).whiteM2).toMatchObject({ lab: [90, 1, 1] });
  });
});
