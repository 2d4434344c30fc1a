import fc from 'fast-check';
import { designChart } from '../chart/chart-design.ts';
import { fromRgb16 } from '../chart/device16.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab } from '../colour/types.ts';
import { benchPrints, faultPlace, FAULTS, readStrip, type Fault } from '../simulation/instrument.ts';
import type { PressModel } from '../simulation/printer.ts';
import { BENCH_GRID } from '../simulation/sheet.ts';
import { standIn, type StandInFacts } from '../simulation/stand-in.ts';
import { FOREIGN_PRINTERS, readForeign } from '../../test/foreign-printers.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { groupPatches } from '../measurement/repeats.ts';
import { driftOut } from './drift-out.ts';
import { bendExpectation } from './expectation.ts';
import { outliers } from './outliers.ts';
import { nextPass } from './reading-run.ts';
import { sessionReadings, type PassedPatch } from './session-reading.ts';
import { checkStrip, type Misread } from './strip-check.ts';
import { driftFinding, whiteDrift } from './white-drift.ts';

const chart = designChart({ purpose: 'gamut', patches: 500, sheet: 'A4', patchMm: 8, dpi: 300, seed: 4 });
const strips = chart.strips.map((s) => s.patches.map((p) => fromRgb16(p.rgb16)));
const facts: StandInFacts = {
  coating: 'baryta',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  blackInk: 'photo black',
  mediaSetting: 'Fibre gloss',
  printMode: 'colour through a profile',
  blackOvercoat: false,
};
const white = illuminantWhite();
const labsOf = (spectra: number[][]): Lab[] =>
  spectra.map((values) =>
    xyzToLab(spectrumToXyz({ startNm: BENCH_GRID.startNm, stepNm: BENCH_GRID.stepNm, values }), white),
  );

/** A bench: what is expected of a printer of a kind, and what the sheet in hand gives. */
function bench(actual: PressModel) {
  const [expectedPrint, prints] = [benchPrints(standIn(facts, true)).M1, benchPrints(actual)];
  const expected = strips.map((s) => labsOf(s.map((rgb) => expectedPrint(rgb))));
  const read = (strip: number, fault?: Fault) =>
    labsOf(readStrip(prints, { strips, strip, seed: 100 + strip, sinceCalibration: strip, fault, flake: 0 }).M1);
  return { expected, read };
}

describe('a strip is checked against what a printer of that kind should give', () => {
  const right = bench(standIn(facts));
  // Another white, another ink hold: a sheet that is not what was expected, as none ever is.
  const other = bench({
    ...standIn(facts),
    sheet: { ...standIn(facts).sheet, warmth: 0.06, inkHold: 0.85, reflectance: 0.9 },
  });

  it.each(['the expected sheet', 'another sheet'])('%s: good strips pass', (name) => {
    const { expected, read } = name === 'the expected sheet' ? right : other;
    const questioned = strips.filter((_, s) => checkStrip(read(s), expected, s).length > 0).length;
    expect(questioned).toBe(0);
  });

  const NAMES = { slipped: 'slipped', doubled: 'doubled', turned: 'turned' } as const;
  const ofAll = FAULTS.filter((f): f is keyof typeof NAMES => f in NAMES);
  it.each(ofAll)('a %s strip is caught and named, on every strip', (fault) => {
    for (const { expected, read } of [right, other]) {
      strips.forEach((_, s) => {
        const [finding] = checkStrip(read(s, fault), expected, s);
        // The middle strip of an odd number is its own opposite: turned, it reads backwards.
        const named: Misread = fault === 'turned' && s === strips.length - 1 - s ? 'backwards' : NAMES[fault];
        expect(finding?.misread).toBe(named);
        expect(finding.saw).toMatch(/ΔE00/);
      });
    }
  });

  it('a dirty patch is caught where the eye would see it, and the right one is named', () => {
    const { expected, read } = right;
    let caught = 0;
    strips.forEach((_, s) => {
      const [good, bad] = [read(s), read(s, 'dirty')];
      const apart = good.map((lab, i) => Math.hypot(...lab.map((v, c) => v - bad[i][c])));
      const dirty = apart.indexOf(Math.max(...apart));
      const [finding] = checkStrip(bad, expected, s);
      if (!finding) return;
      caught++;
      expect(finding).toMatchObject({ misread: 'dirty', patches: [dirty] });
    });
    expect(caught / strips.length).toBeGreaterThan(0.6);
  });

  it.each(['skipped', 'repeated', 'stopped'] as const)(
    'a strip with patches %s in its further half is caught on every strip, at the patch where it begins',
    (fault) => {
      for (const { expected, read } of [right, other]) {
        strips.forEach((strip, s) => {
          const at = faultPlace(strip.length, 100 + s);
          const [finding] = checkStrip(read(s, fault), expected, s);
          expect(finding?.misread).toBe(fault);
          // Neighbours that are alike can hide the first wrong patch or the second.
          expect(Math.abs(finding.patches![0] - at)).toBeLessThanOrEqual(2);
          expect(finding.patches!.at(-1)).toBe(strip.length - 1);
          expect(finding.saw).toContain(`From patch ${finding.patches![0] + 1} on`);
        });
      }
    },
  );

  it('whatever is wrong with three patches or with half of them stops the strip', () => {
    const { expected, read } = right;
    const random = seededRandom(6);
    let stopped = 0;
    for (let n = 0; n < 200; n++) {
      const s = n % strips.length;
      const count = 3 + Math.floor(random() * (strips[s].length / 2 - 2));
      const at = Math.floor(random() * (strips[s].length - count + 1));
      // Clearly wrong: each is another colour by 12 ΔE*ab or more.
      const wrong = read(s).map((lab, i): Lab =>
        i < at || i >= at + count ? lab : [lab[0] + (lab[0] > 50 ? -12 : 12), lab[1] + 8 * random(), lab[2]],
      );
      const [finding] = checkStrip(wrong, expected, s);
      if (finding?.patches?.includes(at) && finding.patches.length >= count / 2) stopped++;
    }
    expect(stopped).toBeGreaterThanOrEqual(196);
  });

  it('a printer of another make passes, once three of its strips were read', () => {
    let [alarms, count] = [0, 0];
    for (const printer of FOREIGN_PRINTERS) {
      const pairs: (readonly [Lab, Lab])[] = [];
      strips.forEach((strip, s) => {
        const bend = bendExpectation(pairs);
        const expected = right.expected.map((e) => e.map(bend));
        const read = readForeign(printer, strip, s + 1).patches.map((p) => p.lab!);
        const doubt = expected[s].map((e) => e.doubtDeltaE);
        const found = checkStrip(
          read,
          expected.map((e) => e.map(({ lab }) => lab)),
          s,
          { doubt },
        );
        pairs.push(...read.map((lab, i) => [right.expected[s][i], lab] as const));
        if (s < 3) return;
        count++;
        if (found.length > 0) alarms++;
      });
    }
    expect(alarms / count).toBeLessThanOrEqual(0.03);
  });

  it('the expectation bends towards what was read', () => {
    const { expected, read } = other;
    const pairs = [0, 1, 2, 3].flatMap((s) => read(s).map((lab, i) => [expected[s][i], lab] as const));
    const bend = bendExpectation(pairs);
    const misfit = (of: (lab: Lab) => Lab) =>
      read(6).reduce((sum, lab, i) => sum + Math.hypot(...lab.map((v, c) => v - of(expected[6][i])[c])), 0);
    expect(misfit((lab) => bend(lab).lab)).toBeLessThan(0.7 * misfit((lab) => lab));
    expect(bendExpectation(pairs.slice(0, 5))([50, 1, 2])).toEqual({ lab: [50, 1, 2] });
  });
});

describe('drift', () => {
  it('is told from the repeated whites when it is more than noise', () => {
    const { read } = bench(standIn(facts));
    const whites = strips.map((s, i) => ({
      sinceCalibration: i,
      Y: 100 * ((read(i)[s.findIndex((rgb) => rgb.every((v) => v === 1))][0] + 16) / 116) ** 3,
    }));
    const drift = whiteDrift(whites)!;
    expect(Math.abs(drift.perStrip + 0.0004)).toBeLessThan(4 * drift.error);
    expect(drift.error).toBeLessThan(0.0001);
    expect(driftFinding(whites)).toMatchObject({
      misread: 'drift',
      saw: expect.stringMatching(/fell by 0\.\d+ % of Y/),
    });
    const normal = seededNormal(2);
    expect(
      driftFinding(Array.from({ length: 30 }, (_, i) => ({ sinceCalibration: i, Y: 90 + 0.05 * normal() }))),
    ).toBeUndefined();
    expect(driftFinding(whites.slice(0, 3))).toBeUndefined();
  });
});

describe('drift taken out', () => {
  it('by the line through the whites: what drifted reads as it did after the calibration', () => {
    const whites = Array.from({ length: 20 }, (_, i) => ({ sinceCalibration: i, Y: 90 * (1 - 0.0004 * i) }));
    const factor = driftOut(whites);
    expect(factor(0)).toBeCloseTo(1, 6);
    for (const { sinceCalibration, Y } of whites) expect(Y * factor(sinceCalibration)).toBeCloseTo(90, 3);
  });

  it('too few whites change nothing; an instrument that stands still is left where it stands', () => {
    expect(
      driftOut([
        { sinceCalibration: 0, Y: 90 },
        { sinceCalibration: 1, Y: 80 },
      ])(5),
    ).toBe(1);
    fc.assert(
      fc.property(
        fc.double({ min: 20, max: 100, noNaN: true }),
        fc.integer({ min: 0, max: 40 }),
        (Y, since) =>
          Math.abs(driftOut(Array.from({ length: 8 }, (_, i) => ({ sinceCalibration: i, Y })))(since) - 1) < 1e-9,
      ),
    );
  });
});

describe('readings of a session', () => {
  const patches: PassedPatch[] = [0, 1].flatMap((pass) =>
    [
      [0, 0.02],
      [65_535, 0.9],
    ].map(([v, r], i) => ({
      id: `A0${i + 1}`,
      rgb16: [v, v, v] as const,
      pass,
      reflectance: {
        M1: new Array<number>(BENCH_GRID.count).fill(r + pass * 0.001),
        M2: new Array<number>(BENCH_GRID.count).fill(r),
      },
    })),
  );
  const readings = sessionReadings(patches, ['M1', 'M2'], BENCH_GRID, {
    instrument: 'Bench',
    createdAt: '2026-11-24T10:00:00Z',
    description: 'Two patches',
    backing: 'white',
  });

  it('one a measurement condition, a patch a pass, colour from the spectrum', () => {
    expect(readings.map((r) => r.condition)).toEqual(['M1', 'M2']);
    expect(readings[0].patches.map((p) => p.id)).toEqual(['A01', 'A02', 'A01 #2', 'A02 #2']);
    // A flat reflectance is a grey of its own Y under every light.
    expect(readings[1].patches[1].xyz![1]).toBeCloseTo(90, 6);
    expect(readings[1].patches[1].lab![1]).toBeCloseTo(0, 6);
  });

  it('passes of a patch are its repeats: averaged, and their spread is found', () => {
    const groups = groupPatches(readings[0]);
    expect(groups).toHaveLength(2);
    expect(groups.map((g) => g.count)).toEqual([2, 2]);
  });
});

describe('a run', () => {
  it('takes every strip once, then again, and resumes at what is missing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 4 }), (count, passes) => {
        const kept: { strip: number; pass: number }[] = [];
        const sheets = Array.from({ length: count }, (_, i) => Math.floor(i / 4));
        for (let next = nextPass(sheets, passes, kept); next; next = nextPass(sheets, passes, kept)) kept.push(next);
        expect(kept).toHaveLength(count * passes);
        // Each sheet is laid once, and read from end to end before it is read again.
        const laid = kept.map((k) => sheets[k.strip]);
        expect(laid).toEqual([...laid].sort((a, b) => a - b));
        for (const sheet of new Set(laid)) {
          const turns = kept.filter((k) => sheets[k.strip] === sheet).map((k) => k.pass);
          expect(turns).toEqual([...turns].sort((a, b) => a - b));
        }
        const gap = kept[Math.floor(kept.length / 2)];
        expect(
          nextPass(
            sheets,
            passes,
            kept.filter((k) => k !== gap),
          ),
        ).toEqual(gap);
      }),
    );
  });

  it('shows the pass that lies apart, and no other', () => {
    const normal = seededNormal(3);
    const passes = Array.from({ length: 40 }, (_, i) =>
      [0, 1, 2].map((): Lab => [50 + i / 2 + 0.05 * normal(), 0.05 * normal(), 0.05 * normal()]),
    );
    expect(outliers(passes)).toEqual([]);
    passes[7][2] = [passes[7][2][0] - 6, 0, 4];
    expect(outliers(passes)).toMatchObject([{ patch: 7, pass: 2 }]);
    expect(outliers([[[50, 0, 0]]])).toEqual([]);
    // Of two that disagree neither is the wrong one.
    expect(
      outliers([
        [
          [50, 0, 0],
          [58, 0, 4],
        ],
        ...passes.slice(0, 6).map((p) => p.slice(0, 2)),
      ]),
    ).toEqual([]);
  });
});

describe('what is said of a strip', () => {
  const strip = (from: number): Lab[] => Array.from({ length: 12 }, (_, i) => [from + i * 4, (i % 3) * 9, 0]);
  const expected = [strip(20), strip(30), strip(40), strip(50)];

  it('strips and patches are called as they are on the sheet', () => {
    const labels = ['A', 'B', 'C', 'D'];
    const [slip] = checkStrip(expected[2], expected, 1, { labels });
    expect(slip).toMatchObject({
      misread: 'doubled',
      saw: expect.stringContaining('fits strip C better than strip B'),
    });
    const stained = expected[1].map((lab, i): Lab => (i === 4 ? [lab[0] - 25, lab[1], 10] : lab));
    expect(checkStrip(stained, expected, 1)[0].saw).toMatch(/^Patch 5 is/);
  });

  it('a turned sheet is looked for among the strips of its own sheet', () => {
    const turned = [...expected[3]].reverse();
    expect(checkStrip(turned, expected, 2, { range: [2, 3] })[0]?.misread).toBe('turned');
    expect(checkStrip(turned, expected, 2, { range: [0, 2] })[0]?.misread).not.toBe('turned');
  });

  it('a patch that reads so again is the printer’s own, and not called bad a second time', () => {
    const odd = expected[1].map((lab, i): Lab => (i === 4 ? [lab[0] - 25, lab[1], 10] : lab));
    expect(checkStrip(odd, expected, 1)).toHaveLength(1);
    expect(checkStrip(odd, expected, 1, { before: odd.map((lab) => [lab]) })).toEqual([]);
  });
});
