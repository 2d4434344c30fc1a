import { deltaE2000 } from '../colour/difference.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumAt, spectrumToXyz } from '../colour/spectrum.ts';
import { readingFacts } from '../measurement/reading-facts.ts';
import { computeFigures } from '../measurement/measures/registry.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { luminescence } from '../simulation/brightener.ts';
import { readChart } from '../simulation/instrument.ts';
import { baseReflectance } from '../simulation/sheet.ts';
import { scatteredChart, SHEETS } from '../../test/sheets.ts';
import { estimateBrightener, glowOf } from './estimated-brightener.ts';
import { GLASSES } from './glass.ts';
import { litPrint } from './lit-print.ts';
import { lighting } from './lit-sheet.ts';
import { printSpectra } from './print-spectra.ts';
import { TABLE_LIGHTS } from './table-lights.ts';
import { turns } from './turns.ts';

const WHITE = illuminantWhite();
const between = (random: () => number, low: number, high: number) => low + (high - low) * random();

/** Factor of the base at a wavelength, and what its brightener adds there. */
type Sheet = (nm: number) => { base: number; glow: number };
type Family = (random: () => number, brightened: boolean) => Sheet;

/** Papers by three descriptions that share nothing: the bench's own, pulp after Kubelka and Munk, a plain curve. */
const FAMILIES: Record<string, Family> = {
  bench: (random, brightened) => {
    const sheet = { reflectance: between(random, 0.84, 0.96), warmth: between(random, 0, 0.15), flake: 0 };
    const strength = brightened ? between(random, 0.03, 0.6) : 0;
    return (nm) => ({
      base: baseReflectance(sheet as Parameters<typeof baseReflectance>[0], nm),
      glow: luminescence(strength, ILLUMINANTS.D50, nm),
    });
  },
  pulp: (random, brightened) => {
    const lignin = Math.exp(between(random, Math.log(0.001), Math.log(0.03)));
    const [fall, grey] = [between(random, 45, 95), between(random, 0.0005, 0.004)];
    const coating = random() < 0.5 ? between(random, 0.1, 0.6) : 0;
    const edgeNm = between(random, 380, 397);
    const tint = random() < 0.4 ? between(random, 0, 0.006) : 0;
    const tintNm = between(random, 555, 600);
    const strength = brightened ? between(random, 0.02, 0.28) : 0;
    const [peak, rise, tail] = [between(random, 431, 446), between(random, 11, 19), between(random, 27, 44)];
    const shoulder = between(random, 0, 0.25);
    const taken = between(random, 0.4, 1.1) * Math.min(0.8, strength * 4);
    return (nm) => {
      const ks = grey + lignin * Math.exp((400 - nm) / fall) + tint / (1 + ((nm - tintNm) / 35) ** 4);
      const pulp = 1 + ks - Math.sqrt(ks * ks + 2 * ks);
      const coated = 1 - coating / (1 + Math.exp((nm - edgeNm) / 6));
      const band =
        Math.exp(-(((nm - peak) / (nm < peak ? rise : tail)) ** 2)) +
        shoulder * Math.exp(-(((nm - peak - 28) / 18) ** 2));
      return {
        base: pulp * coated * (1 - taken * Math.exp(-(((nm - 372) / 24) ** 2))),
        glow: (strength * band * spectrumAt(ILLUMINANTS.D50, 440)) / spectrumAt(ILLUMINANTS.D50, nm),
      };
    };
  },
  curve: (random, brightened) => {
    const [level, tilt, bend] = [between(random, 0.82, 0.95), between(random, 0, 0.06), between(random, -0.02, 0.02)];
    const [fall, fallNm] = [between(random, 0, 0.05), between(random, 30, 80)];
    const strength = brightened ? between(random, 0.02, 0.22) : 0;
    const [peak, width] = [between(random, 434, 444), between(random, 24, 34)];
    return (nm) => {
      const x = (nm - 560) / 180;
      return {
        base: level + tilt * x + bend * x * x - fall * Math.exp((380 - nm) / fallNm),
        glow: strength * Math.exp(-(((nm - peak) / width) ** 2)),
      };
    };
  },
};

const SHEETS_EACH = 40;
/** What a b* is shown to: an interval is not failed by less. */
const SHOWN_B = 0.1;

/** Sheets of a family read from a wavelength on with an instrument's noise: how far off b* without UV is, and whether the interval holds it. */
function tried(family: Family, brightened: boolean, startNm: number) {
  const [random, normal] = [seededRandom(91), seededNormal(92)];
  const grid = { startNm, stepNm: 10, count: (730 - startNm) / 10 + 1 };
  const bOf = (values: readonly number[]) => xyzToLab(spectrumToXyz({ ...grid, values: [...values] }), WHITE)[2];
  const all = Array.from({ length: SHEETS_EACH }, () => {
    const sheet = family(random, brightened);
    const noise = between(random, 0.0005, 0.0025);
    const level = 0.003 * normal();
    const parts = Array.from({ length: grid.count }, (_, i) => sheet(startNm + 10 * i));
    const white = parts.map(({ base, glow }) => base + glow + level + noise * normal());
    const truth = bOf(parts.map(({ base }) => base + level));
    const found = estimateBrightener(grid, white, 'M1')!;
    const without = (strength: number) => bOf(white.map((v, i) => v - strength * found.unit[i]!));
    const [least, most] = [without(found.low), without(found.high)];
    return {
      off: Math.abs(without(found.strength) - truth),
      held: truth >= least - SHOWN_B && truth <= most + SHOWN_B,
      width: most - least,
      unread: Math.abs(bOf(white) - truth),
    };
  });
  const median = (of: (s: (typeof all)[number]) => number) => all.map(of).sort((p, q) => p - q)[SHEETS_EACH / 2]!;
  return {
    off: median((s) => s.off),
    width: all.reduce((sum, s) => sum + s.width, 0) / SHEETS_EACH,
    unread: median((s) => s.unread),
    held: all.filter((s) => s.held).length / SHEETS_EACH,
  };
}

describe.each(Object.entries(FAMILIES))('a brightener estimated from one spectrum of a sheet: %s', (_, family) => {
  const known = new Map<string, ReturnType<typeof tried>>();
  const of = (brightened: boolean, startNm: number) => {
    const key = `${brightened} ${startNm}`;
    if (!known.has(key)) known.set(key, tried(family, brightened, startNm));
    return known.get(key)!;
  };
  it.each([true, false])(
    'b* without UV within 1.0 in the median, and its interval holds nine of ten (brightened: %s)',
    (brightened) => {
      const [whole, late] = [of(brightened, 380), of(brightened, 400)];
      for (const { off, held } of [whole, late]) {
        expect(off).toBeLessThan(0.6);
        expect(held).toBeGreaterThanOrEqual(0.9);
      }
      // Better than taking the white for what it is without UV, where that is wrong.
      if (brightened) expect(whole.off).toBeLessThan(0.25 * whole.unread);
    },
  );

  it('where the spectrum begins at 400 nm the interval is wider', () =>
    expect(of(true, 400).width).toBeGreaterThan(1.02 * of(true, 380).width));
});

describe('what can’t be told', () => {
  const grid = { startNm: 380, stepNm: 10, count: 36 };
  const flat = Array.from({ length: 36 }, () => 0.9);
  it('a reading without UV holds nothing of it', () => {
    expect(estimateBrightener(grid, flat, 'M2')).toBeUndefined();
    expect(estimateBrightener(grid, flat, 'M3')).toBeUndefined();
  });
  it('a spectrum that begins in the blue, one of few bands, and a black sheet do not let it be told', () => {
    expect(estimateBrightener({ ...grid, startNm: 430, count: 30 }, flat.slice(0, 30), 'M1')).toBeUndefined();
    expect(estimateBrightener({ ...grid, count: 8 }, flat.slice(0, 8), 'M1')).toBeUndefined();
    expect(
      estimateBrightener(
        grid,
        flat.map(() => 0.02),
        'M1',
      ),
    ).toBeUndefined();
  });
});

describe('a print read in M1 alone, against the same read with and without UV', () => {
  const chart = scatteredChart(300);
  const read = (condition: 'M1' | 'M2') => readChart(SHEETS.uncoated, chart, condition, 5);
  const both = printSpectra(readingFacts(read('M1'), [read('M2')]))!;
  const alone = readingFacts(read('M1'));
  const one = printSpectra(alone)!;
  const lamp = TABLE_LIGHTS.find((l) => l.key === 'led-warm')!;
  const base = computeFigures(alone);
  const lit = (sheet: typeof one) => litPrint(sheet, base, lighting(lamp.power, GLASSES[0]!, sheet)).figures;

  it('each says what it is: read, or estimated', () => {
    expect(both.estimated).toBeUndefined();
    expect(one.estimated).toMatchObject({ startsLate: false });
    expect(one.estimated!.least).toBeLessThan(1);
    expect(one.estimated!.most).toBeGreaterThan(1);
  });

  it('its white in a warm lamp is within 1 ΔE00 of what was read, and b* within its interval', () => {
    const [known, told] = [lit(both).white!, lit(one).white!];
    if (known.shape !== 'colour' || told.shape !== 'colour') throw new Error('no white');
    expect(deltaE2000(known.lab, told.lab)).toBeLessThan(1);
    expect(known.between).toBeUndefined();
    expect(told.between![0]).toBeLessThan(known.lab[2]);
    expect(told.between![1]).toBeGreaterThan(known.lab[2]);
    // As if it had none: off by more than the interval is wide.
    const { luminous: _, estimated: __, reflected, ...rest } = one;
    const asOne = { ...rest, reflected: reflected.map((v, i) => v + one.luminous![i]!) };
    const none = lit(asOne).white!;
    expect(none.shape === 'colour' && deltaE2000(known.lab, none.lab)).toBeGreaterThan(2);
  });

  it('a spread is carried into what is told of it, and a black keeps its own', () => {
    const [known, told] = [lit(both), lit(one)];
    expect(told.white).toHaveProperty('sd');
    const sd = (f: object | undefined) => (f as { sd: number }).sd;
    expect(sd(told.white)).toBeGreaterThan(2 * sd(known.white));
    expect(told.dmax).not.toHaveProperty('between');
    expect(sd(told.dmax)).toBe(sd(known.dmax));
  });

  it('how its white turns from lamp to lamp lies between what is said', () => {
    const known = turns(both);
    turns(one).forEach(({ white, whiteBetween }, i) => {
      expect(Math.abs(white! - known[i]!.white!)).toBeLessThan(1);
      expect(known[i]!.white).toBeGreaterThan(whiteBetween![0] - 0.2);
      expect(known[i]!.white).toBeLessThan(whiteBetween![1] + 0.2);
    });
  });

  it('its Δb* is a figure of a kind of its own', () => {
    const measured = computeFigures(readingFacts(read('M1'), [read('M2')])).brightenerShift!;
    const estimated = base.brightenerShift!;
    if (measured.shape !== 'scalar' || estimated.shape !== 'scalar') throw new Error('no shift');
    expect(measured.between).toBeUndefined();
    expect(Math.abs(estimated.value - measured.value)).toBeLessThan(1);
    expect(measured.value).toBeGreaterThan(estimated.between![0]);
    expect(measured.value).toBeLessThan(estimated.between![1]);
  });

  it('what glows through ink: none where the ink lets nothing through, all of it on bare paper', () => {
    const found = { unit: [0, 1, 0.5], strength: 0.2, low: 0.1, high: 0.3, startsLate: false };
    const white = [0.8, 1.0, 0.9];
    expect([...glowOf(white, white, found)]).toEqual([0, 0.2, 0.1]);
    expect([...glowOf([0, 0, 0], white, found)]).toEqual([0, 0, 0]);
    // A quarter of the light comes back: half of it passes the ink each way.
    expect(glowOf([0.2, 0.25, 0.225], white, found)[1]).toBeCloseTo(0.2 * 0.5 * 0.5, 12);
  });
});
