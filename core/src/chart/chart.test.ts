import fc from 'fast-check';
import { readingFromCgats } from '../formats/reading-from-cgats.ts';
import { parseCgats } from '../formats/cgats.ts';
import { deviceSurface } from '../gamut/device-surface.ts';
import { CHART_LIMITS, ChartError, designChart, type WishedSpec } from './chart-design.ts';
import { chartPatches, writeChartReference } from './chart-reference.ts';
import { fromRgb16, toRgb16, WHITE_16 } from './device16.ts';
import { CHART_PURPOSE_KEYS } from './purposes.ts';
import { pixelAt, rasteriseChart } from './raster.ts';
import { SHEET_SIZE_KEYS } from './sheet-sizes.ts';
import { BAR_STEPS, barValues, rasterisePage, testPage } from './test-page.ts';

const spec: WishedSpec = { purpose: 'combined', patches: 700, sheet: 'A4', patchMm: 8, dpi: 300, seed: 2026 };
const specs = fc.record({
  purpose: fc.constantFrom(...CHART_PURPOSE_KEYS.filter((key) => key !== 'control')),
  patches: fc.integer({ min: 150, max: 1500 }),
  sheet: fc.constantFrom(...SHEET_SIZE_KEYS),
  patchMm: fc.integer({ min: 6, max: 12 }),
  dpi: fc.constantFrom(300, 360),
  seed: fc.integer({ min: 1, max: 999_999 }),
});
const laidOut = (s: WishedSpec) => {
  try {
    return designChart(s);
  } catch (error) {
    if (error instanceof ChartError) return undefined;
    throw error;
  }
};

describe('a control chart', () => {
  it.each([24, 48, 100, 150])(
    'of %i patches: white, black, the six full inks and greys among them, short enough',
    (count) => {
      const chart = designChart({ ...spec, purpose: 'control', patches: count });
      const values = new Set(
        chartPatches(chart).map((p) =>
          fromRgb16(p.rgb16)
            .map((v) => v.toFixed(2))
            .join(),
        ),
      );
      for (const rgb of ['1,1,1', '0,0,0', '0,1,1', '1,0,1', '1,1,0', '1,0,0', '0,1,0', '0,0,1', '0.5,0.5,0.5'])
        expect(
          values.has(
            rgb
              .split(',')
              .map((v) => Number(v).toFixed(2))
              .join(),
          ),
        ).toBe(true);
      expect(chart.distinctCount).toBe(count);
      // Two controls a strip, and what is left over in the last.
      expect(chart.patchCount).toBeLessThanOrEqual(count + 4 * chart.strips.length);
      expect(chart.pages).toHaveLength(1);
    },
  );

  it('is refused below 24 and above 150 patches; other charts below 150', () => {
    const ask = (purpose: 'control' | 'gamut', patches: number) => () => designChart({ ...spec, purpose, patches });
    for (const wrong of [ask('control', 23), ask('control', 151), ask('gamut', 149)]) expect(wrong).toThrow(ChartError);
    expect(ask('gamut', 150)).not.toThrow();
  });
});

describe('a chart', () => {
  it('whatever is asked: a white and a black in every strip, 21 greys, the whole surface of the cube, no two patches on one place, all on the sheet', () => {
    fc.assert(
      fc.property(specs, (s) => {
        const chart = laidOut(s);
        if (!chart) return;
        expect(
          chart.strips.every((strip) =>
            (['white', 'black'] as const).every((role) => strip.patches.some((p) => p.role === role)),
          ),
        ).toBe(true);
        const values = new Set(chartPatches(chart).map((p) => p.rgb16.join()));
        expect([...values].filter((v) => new Set(v.split(',')).size === 1).length).toBeGreaterThanOrEqual(21);
        const n = chart.surfaceLevels;
        expect(n).toBeGreaterThanOrEqual(5);
        const net = deviceSurface(
          Array.from({ length: n }, (_, i) => i / (n - 1)),
          (rgb) => (values.has(toRgb16(rgb).join()) ? [50, 0, 0] : undefined),
        );
        expect(net).toBeDefined();
        const places = new Set(chart.strips.flatMap((t) => t.patches.map((p) => `${t.page}/${p.xMm}/${p.yMm}`)));
        expect(places.size).toBe(chart.patchCount);
        expect(values.size).toBe(chart.distinctCount);
        const within = chart.strips.every(({ page, patches }) =>
          patches.every(
            (p) =>
              p.xMm > 5 &&
              p.yMm > 5 &&
              p.xMm + s.patchMm < chart.pages[page].widthMm - 5 &&
              p.yMm + s.patchMm < chart.pages[page].heightMm - 5,
          ),
        );
        expect(within).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  it('the same seed gives the same chart, another seed another order of the same patches; the seed stands on the sheet', () => {
    expect(designChart(spec)).toEqual(designChart(spec));
    const other = designChart({ ...spec, seed: 2027 });
    const sorted = (c: typeof other) =>
      chartPatches(c)
        .filter((p) => p.rgb16.join() !== WHITE_16.join())
        .map((p) => p.rgb16.join())
        .sort();
    expect(new Set(sorted(other))).toEqual(new Set(sorted(designChart(spec))));
    expect(chartPatches(other).map((p) => p.rgb16)).not.toEqual(chartPatches(designChart(spec)).map((p) => p.rgb16));
    expect(
      designChart(spec)
        .pages[0].texts.map((t) => t.text)
        .join(' '),
    ).toContain('seed 2026');
  });

  it('whites lie all over the sheet, not in one row', () => {
    const rows = new Set(designChart(spec).strips.map((s) => s.patches.findIndex((p) => p.role === 'white')));
    expect(rows.size).toBeGreaterThan(5);
  });

  it('every purpose holds what it is for', () => {
    const roles = (purpose: WishedSpec['purpose']) =>
      designChart({ ...spec, purpose, patches: 150 }).strips.flatMap((s) => s.patches.map((p) => p.role));
    expect(roles('neutral').filter((r) => r === 'grey').length).toBeGreaterThan(90);
    expect(roles('ends').filter((r) => r === 'shadow').length).toBeGreaterThan(15);
    expect(roles('brightener').filter((r) => r === 'tint').length).toBeGreaterThan(15);
    expect(roles('setting').filter((r) => r === 'ink ramp').length).toBeGreaterThan(30);
    expect(designChart({ ...spec, purpose: 'gamut', patches: 1600 }).surfaceLevels).toBeGreaterThan(
      designChart({ ...spec, purpose: 'gamut', patches: 500 }).surfaceLevels,
    );
  });

  it('what can’t be laid out is said by its field', () => {
    for (const [field, [low, high]] of Object.entries(CHART_LIMITS)) {
      for (const bad of [low - 1, high + 1, NaN])
        expect(() => designChart({ ...spec, [field]: bad })).toThrow(expect.objectContaining({ field }));
    }
    expect(() => designChart({ ...spec, patches: 5000, patchMm: 30 })).toThrow(/sheets; 12 is the most/);
  });
});

describe('on paper', () => {
  const chart = designChart({ ...spec, dpi: 150, patches: 300 });
  const raster = rasteriseChart(chart, 0);

  it('the pixels in the middle and at the edges of every patch hold exactly the device values of the reference file', () => {
    const text = writeChartReference(chart);
    const [table] = parseCgats(new TextEncoder().encode(text)).tables;
    const reference = new Map(table.rows.map((r) => [r[0], r.slice(1).map((v) => Math.round(Number(v) * 257))]));
    expect(reference.size).toBe(chart.patchCount);
    for (const strip of chart.strips.filter((s) => s.page === 0)) {
      for (const p of strip.patches) {
        const [left, top, right, bottom] = [p.xMm, p.yMm, p.xMm + 8, p.yMm + 8].map((mm) => pixelAt(mm, 150));
        const at = (x: number, y: number) =>
          raster.data.subarray((y * raster.widthPx + x) * 3, (y * raster.widthPx + x) * 3 + 3).join();
        const found = new Set([at((left + right) >> 1, (top + bottom) >> 1), at(left, top), at(right - 1, bottom - 1)]);
        expect([p.id, ...found]).toEqual([p.id, reference.get(p.id)!.join()]);
      }
    }
  });

  it('strips are numbered, patches by strip and place; under every fifth a tick reaches out of the strip, and touches no other', () => {
    const [first, second] = chart.strips;
    expect(chart.strips.map((s) => s.label)).toEqual(chart.strips.map((_, i) => String(i + 1)));
    expect(second.patches.slice(0, 2).map((p) => p.id)).toEqual(['s2p01', 's2p02']);
    const between = first.patches[0].xMm + 8.6;
    const inked = first.patches.map((p) => {
      const at = pixelAt(p.yMm + 8.4, 150) * raster.widthPx;
      return [between, second.patches[0].xMm - 0.6].map((mm) => raster.data[(at + pixelAt(mm, 150)) * 3] === 0);
    });
    expect(inked).toEqual(first.patches.map((_, i) => [(i + 1) % 5 === 0, false]));
  });

  it('neighbours in a strip are parted by a spacer that stands out from both', () => {
    for (const strip of chart.strips) {
      const x = pixelAt(strip.patches[0].xMm + 4, 150);
      strip.patches.slice(1).forEach((p, i) => {
        const y = pixelAt(p.yMm - 0.4, 150);
        const bar = raster.data[(y * raster.widthPx + x) * 3 + 1] / 65_535;
        if (strip.page !== 0) return;
        expect([0, 1]).toContain(bar);
        const light = (rgb: readonly number[]) => (0.21 * rgb[0] + 0.72 * rgb[1] + 0.07 * rgb[2]) / 65_535;
        const [above, below] = [light(strip.patches[i].rgb16), light(p.rgb16)];
        expect(Math.min(Math.abs(bar - above), Math.abs(bar - below))).toBeGreaterThanOrEqual(
          Math.min(Math.abs(1 - bar - above), Math.abs(1 - bar - below)) - 1e-9,
        );
      });
    }
  });

  it('16-bit values survive the reference file, all of them', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 65_535 }), (v) =>
        expect(Math.round(Number((fromRgb16([v, v, v])[0] * 255).toFixed(4)) * 257)).toBe(v),
      ),
    );
  });

  it('a reading of the chart finds the cube’s surface by the reference’s device values', () => {
    const lines = writeChartReference(chart)
      .replace('SAMPLE_ID RGB_R RGB_G RGB_B', 'SAMPLE_ID RGB_R RGB_G RGB_B LAB_L LAB_A LAB_B')
      .replace('NUMBER_OF_FIELDS 4', 'NUMBER_OF_FIELDS 7');
    const read = readingFromCgats(new TextEncoder().encode(lines.replace(/^(s\d+p\d\d .*)$/gm, '$1 50 1 2')));
    expect(read.reading.patches).toHaveLength(chart.patchCount);
    expect(read.reading.deviceSpace).toBe('RGB');
  });
});

describe('the visual test page', () => {
  const settings = {
    paper: 'Slate Baryta',
    printer: 'Corvane P10',
    mediaSetting: 'Heavy gloss fibre',
    printMode: 'driver',
    date: '2026-11-24',
    resolution: '1440 dpi',
  };
  const page = testPage('A4', 300, settings);
  const raster = rasterisePage(page, 300);
  const at = (xMm: number, yMm: number) =>
    raster.data[(pixelAt(yMm, 300) * raster.widthPx + pixelAt(xMm, 300)) * 3] / 65_535;

  it('says its settings and holds rings, ramps, steps, hairlines, type, sweeps, memory colours and the bar', () => {
    const words = page.marks.flatMap((m) => (m.kind === 'text' ? [m.text] : [])).join('\n');
    for (const value of Object.values(settings)) expect(words).toContain(value);
    const named = page.marks.flatMap((m) => (m.kind === 'sweep' ? [m.name] : m.kind === 'flat' && m.id ? [m.id] : []));
    for (const name of [
      'zone plate',
      'grey ramp',
      'hues',
      'sky',
      'cheek',
      'fair skin',
      'shadow 1 %',
      'highlight 1 %',
      'bar 50 %',
    ])
      expect(named).toContain(name);
    expect(page.marks.some((m) => m.kind === 'flat' && m.widthMm === 0.05)).toBe(true);
    expect(page.marks.some((m) => m.kind === 'text' && m.face === 'serif' && m.sizeMm < 1.5)).toBe(true);
  });

  it('nothing leaves the sheet', () => {
    for (const sheet of ['A4', 'A3', 'A3+', 'letter'] as const) {
      const { widthMm, heightMm, marks } = testPage(sheet, 300, settings);
      for (const m of marks) {
        expect(m.xMm).toBeGreaterThan(4);
        expect(m.yMm).toBeGreaterThan(4);
        if (m.kind !== 'text') {
          expect(m.xMm + m.widthMm).toBeLessThan(widthMm - 4);
          expect(m.yMm + m.heightMm).toBeLessThan(heightMm - 4);
        }
      }
    }
  });

  it('the bar’s pixels are its reference; 1 % steps are 1 % apart; the rings alternate', () => {
    const bar = page.marks.filter((m) => m.kind === 'flat' && m.id?.startsWith('bar'));
    expect(bar).toHaveLength(BAR_STEPS);
    const values = barValues().map((v) => v[0]);
    expect(values.slice(0, 3)).toEqual([0, 65_535, 0]);
    bar.forEach(
      (m, i) =>
        m.kind === 'flat' && expect(Math.round(at(m.xMm + m.widthMm / 2, m.yMm + 4) * 65_535)).toBe(values[3 + i]),
    );
    const steps = page.marks.filter((m) => m.kind === 'flat' && m.id?.startsWith('shadow'));
    steps.forEach((m, i) => m.kind === 'flat' && expect(at(m.xMm + 5, m.yMm + 3)).toBeCloseTo(i / 100, 4));
    const plate = page.marks.find((m) => m.kind === 'sweep' && m.name === 'zone plate')!;
    const row = Array.from({ length: 500 }, (_, i) => at(plate.xMm + 30 + (i / 500) * 29, plate.yMm + 30));
    const crossings = row.slice(1).filter((v, i) => v > 0.5 !== row[i] > 0.5).length;
    expect(crossings).toBeGreaterThan(60);
  });
});
