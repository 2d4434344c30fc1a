import fc from 'fast-check';
import { askedPatches } from './asked-patches.ts';
import { CHART_PURPOSE_KEYS } from './purposes.ts';

const asked = fc.record({ purpose: fc.constantFrom(...CHART_PURPOSE_KEYS), wanted: fc.integer({ min: 1, max: 2500 }) });

describe('the colours a chart holds', () => {
  it('are each there once, white and black first, never fewer than were wanted (fast-check)', () =>
    fc.assert(
      fc.property(asked, ({ purpose, wanted }) => {
        const { patches } = askedPatches(purpose, wanted);
        expect(new Set(patches.map((p) => p.rgb16.join())).size).toBe(patches.length);
        expect(patches.slice(0, 2).map((p) => p.role)).toEqual(['white', 'black']);
        expect(patches.length).toBeGreaterThanOrEqual(wanted);
        const code = (v: number) => v >= 0 && v <= 65_535 && Number.isInteger(v);
        expect(patches.every((p) => p.rgb16.every(code))).toBe(true);
      }),
      { numRuns: 40, examples: [[{ purpose: 'control', wanted: 1 }]] },
    ));

  it('hold the whole surface of the cube at the levels that are said (fast-check)', () =>
    fc.assert(
      fc.property(asked, ({ purpose, wanted }) => {
        const { patches, surfaceLevels: n } = askedPatches(purpose, wanted);
        const there = new Set(patches.map((p) => p.rgb16.join()));
        const at = (i: number) => Math.round((i / (n - 1)) * 65_535);
        const lacking: string[] = [];
        for (let i = 0; i < n; i++)
          for (let j = 0; j < n; j++)
            for (const end of [0, n - 1])
              for (const rgb of [
                [end, i, j],
                [i, end, j],
                [i, j, end],
              ])
                if (!there.has(rgb.map(at).join())) lacking.push(rgb.join());
        expect(lacking).toEqual([]);
      }),
      { numRuns: 15 },
    ));

  it('asked for more, hold what they held for less, but for a denser surface', () => {
    const inner = (wanted: number) => askedPatches('combined', wanted).patches.filter((p) => p.role === 'grey');
    expect(inner(1500).length).toBeGreaterThanOrEqual(21);
    expect(askedPatches('gamut', 2000).surfaceLevels).toBeGreaterThan(askedPatches('gamut', 300).surfaceLevels);
    expect(askedPatches('neutral', 300).patches.filter((p) => p.role === 'grey').length).toBeGreaterThan(
      inner(300).length,
    );
  });
});
