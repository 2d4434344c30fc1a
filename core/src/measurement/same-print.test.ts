import fc from 'fast-check';
import { scatteredChart, SHEETS } from '../../test/sheets.ts';
import { asThree } from '../colour/three.ts';
import { samplesOf } from '../characterisation/print-samples.ts';
import { GLASSES } from '../light/glass.ts';
import { lighting } from '../light/lit-sheet.ts';
import { litPrint } from '../light/lit-print.ts';
import { printSpectra } from '../light/print-spectra.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { readChart } from '../simulation/instrument.ts';
import type { ScalarFigure } from './figure.ts';
import { computeFigures } from './measures/registry.ts';
import type { Reading } from './reading.ts';
import { readingFacts } from './reading-facts.ts';
import { commonPatches, differenceOf, whyNotJoined } from './same-print.ts';

const warmLed = TABLE_LIGHTS.find((l) => l.key === 'led-warm')!.power;
const plainGlass = GLASSES.find((g) => g.key === 'plain')!;
const chartA = scatteredChart(180);
/** Another chart of the same size: its patches carry the same numbers and other values. */
const scattered = scatteredChart(230);
const chartB = [...scattered.slice(100), ...scattered.slice(0, 100)].map(({ rgb }, i) => ({ id: `P${i + 1}`, rgb }));
const read = (sheet: keyof typeof SHEETS, chart: typeof chartA, condition: 'M0' | 'M1' | 'M2', seed: number) =>
  readChart(SHEETS[sheet], chart, condition, seed);
const withoutDevice = (r: Reading): Reading => ({
  ...r,
  deviceSpace: undefined,
  patches: r.patches.map(({ device: _, ...p }) => p),
});

/** Gamut volume and greys under a warm LED behind plain glass. */
function lit(primary: Reading, companions: readonly Reading[]) {
  const facts = readingFacts(primary, companions);
  const sheet = printSpectra(facts)!;
  const { figures } = litPrint(sheet, computeFigures(facts), lighting(warmLed, plainGlass, sheet));
  const value = (key: string) => (figures[key] as ScalarFigure).value;
  return {
    gamut: value('gamutVolume'),
    greys: value('neutrality'),
    apart: sheet.luminous !== undefined && !sheet.estimated,
  };
}

describe('readings are paired by what was sent, never by number where that is known', () => {
  const m1 = read('baryta', chartB, 'M1', 2);
  const alone = lit(m1, []);

  it('M2 of another chart of the same paper changes no figure', () => {
    const mixed = lit(m1, [read('baryta', chartA, 'M0', 3), read('baryta', chartA, 'M2', 4)]);
    expect(mixed.apart).toBe(false);
    expect(mixed.gamut).toBeCloseTo(alone.gamut, 6);
    expect(mixed.greys).toBeCloseTo(alone.greys, 9);
  });

  it('M2 of another paper is refused with the reason, whatever its chart', () => {
    const other = read('uncoated', chartB, 'M2', 4);
    const facts = readingFacts(m1, [other]);
    expect(facts.withoutUv).toBeUndefined();
    expect(facts.unserved.M2).toMatch(/in M2 is not joined: they differ by \d+\.\d ΔL\*/);
    expect(lit(m1, [other])).toEqual(alone);
  });

  it('joining changes no figure beyond its spread, over random charts, orders and subsets', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom('baryta' as const, 'cotton' as const),
        fc.integer({ min: 60, max: 140 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.boolean(),
        (seed, sheet, size, kept, sameChart) => {
          const chart = scatteredChart(size);
          const own = read(sheet, chart, 'M1', seed);
          const dark = read(sheet, sameChart ? chart : chartA, 'M2', seed + 1);
          const full = lit(own, [read(sheet, chart, 'M2', seed + 1)]);
          const without = lit(own, []);
          const order = [...dark.patches].sort((p, q) => hash(p.id, seed) - hash(q.id, seed));
          const part = { ...dark, patches: order.slice(0, Math.max(2, Math.round(kept * order.length))) };
          const found = lit(own, [part]);
          // Either brightener is separated at every patch, as with the whole chart, or at none.
          const expected = found.apart ? full : without;
          expect(found.gamut / expected.gamut).toBeCloseTo(1, 6);
          expect(Math.abs(found.greys - expected.greys)).toBeLessThan(1e-6);
        },
      ),
      { numRuns: 25 },
    );
  });

  it('without device values they are paired by order, only where as many were read and their colours agree', () => {
    const [p, q] = [withoutDevice(m1), withoutDevice(read('baryta', chartB, 'M2', 9))];
    expect(commonPatches(p, q)).toHaveLength(p.patches.length);
    expect(readingFacts(p, [q]).withoutUv).toBeDefined();
    // In another order the names still pair them; without names in common the order does, and their colours must agree.
    const turned = { ...q, patches: [...q.patches].reverse() };
    expect(readingFacts(p, [turned]).withoutUv).toBeDefined();
    const renamed = { ...turned, patches: turned.patches.map((patch, i) => ({ ...patch, id: `Z${i}` })) };
    expect(readingFacts(p, [renamed]).withoutUv).toBeUndefined();
    expect(commonPatches(p, { ...q, patches: q.patches.slice(1) })).toEqual([]);
    expect(commonPatches(m1, q)).toEqual([]);
  });
});

describe('sets are joined for a model only where they agree', () => {
  const first = read('cotton', scatteredChart(200), 'M1', 11);

  it('a second pass of one print agrees within noise, and both are used', () => {
    const again = read('cotton', scatteredChart(200), 'M1', 12);
    const d = differenceOf(first, again)!;
    expect(d.common).toBe(different(200));
    expect(d.mean).toBeLessThan(0.3);
    const { joined, leftOut, samples } = samplesOf([first, again]);
    expect([joined.length, leftOut.length]).toEqual([2, 0]);
    expect(samples).toHaveLength(different(200));
    expect(samples.every((s) => s.weight >= 2)).toBe(true);
  });

  it('another paper filed there is left out, and the primary one is what it would be alone', () => {
    const other = read('baryta', scatteredChart(300), 'M1', 13);
    const { joined, leftOut, samples } = samplesOf([first, other]);
    expect(joined).toEqual([first]);
    expect(leftOut).toHaveLength(1);
    expect(leftOut[0]!.reading).toBe(other);
    expect(leftOut[0]!.why).toMatch(/^they differ by \d+\.\d ΔE00 in the mean of \d+ common patches/);
    expect(samples).toEqual(samplesOf([first]).samples);
  });

  it('a chart that shares no patch is left out, since nothing can be compared', () => {
    const strange = {
      ...first,
      patches: first.patches.map((p) => ({ ...p, device: asThree(p.device!.map((v) => v * 0.9 + 0.03)) })),
    };
    expect(whyNotJoined(first, strange)).toMatch(/no patch is common/);
  });

  it('a further chart in M1 alone costs nothing of what M1 and M2 of one chart show', () => {
    const pair = [read('baryta', scatteredChart(300), 'M1', 21), read('baryta', scatteredChart(300), 'M2', 22)];
    const more = read('baryta', scatteredChart(340), 'M1', 23);
    const { samples, leftOut } = samplesOf([...pair, more]);
    expect(samples.every((s) => s.luminous)).toBe(true);
    expect(samples).toHaveLength(different(300));
    expect(leftOut.map((l) => l.why).join()).toMatch(
      new RegExp(`40 of its ${different(340)} different patches were not read without UV`),
    );
  });
});

const different = (count: number) => new Set(scatteredChart(count).map((p) => p.rgb.join())).size;
const hash = (text: string, seed: number) =>
  [...text].reduce((h, c) => (Math.imul(h ^ c.charCodeAt(0), 0x01000193) >>> 0) % 1e9, (seed % 1e9) + 7);
