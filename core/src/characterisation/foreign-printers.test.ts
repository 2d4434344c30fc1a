import {
  FOREIGN_PRINTERS,
  foreignChart,
  foreignTruth,
  readForeign,
  trueError,
  type ForeignPrinter,
} from '../../test/foreign-printers.ts';
import { askedPatches } from '../chart/asked-patches.ts';
import { deltaE2000 } from '../colour/difference.ts';
import { illuminantWhite } from '../colour/spectrum.ts';
import { labToXyz, xyzToLab } from '../colour/lab.ts';
import { relativeToWhite } from '../colour/relative.ts';
import { mapThree } from '../colour/three.ts';
import type { Lab, Rgb } from '../colour/types.ts';
import { encodeLab16, throughLut16, type Lut16 } from '../formats/icc/lut16.ts';
import type { PatchReading, Reading } from '../measurement/reading.ts';
import { seededNormal, seededRandom } from '../random.ts';
import { fitPrint } from './fitted-print.ts';
import { labAt, nodePlaces, type ColourLattice } from './lattice.ts';
import { expandPrint, printModel, type PrintModel } from './print-model.ts';
import { profileTables, type ProfileTables } from './profile-tables.ts';
import { relativePrint } from './relative-print.ts';
import { compensated } from './renderings.ts';
import { sender } from './send.ts';

/** Six printers of other mathematics than the simulation the model was developed on; see test/foreign-printers.ts. */
const COUNTS = [100, 460] as const;
type Count = (typeof COUNTS)[number] | 900;
const reading = (printer: ForeignPrinter, count: Count, seed = 3) =>
  readForeign(printer, foreignChart(count, seed), seed + 2);
const models = new Map<string, { model: PrintModel; tables: () => ProfileTables }>();
function modelOf(printer: ForeignPrinter, count: Count) {
  const key = `${printer.name} ${count}`;
  const known = models.get(key);
  if (known) return known;
  const model = expandPrint(fitPrint([reading(printer, count)]));
  let tables: ProfileTables | undefined;
  const made = { model, tables: () => (tables ??= profileTables(relativePrint(model.labs), { version: 2 })) };
  models.set(key, made);
  return made;
}
const cases = FOREIGN_PRINTERS.flatMap((printer) => COUNTS.map((count) => [printer.name, count, printer] as const));
const density = (L: number) => -Math.log10(labToXyz([L, 0, 0])[1] / 100);
const sentBy = (table: Lut16, lab: Lab): Rgb =>
  mapThree(throughLut16(table, encodeLab16(...lab), 'Lab') as [number, number, number], (v) => v / 65535);

describe('black of a printer that is not our own', () => {
  it.each(cases)(
    '%s, %i patches: a picture’s black is the darkest the sheet has, by both renderings',
    (_, count, printer) => {
      const { model, tables } = modelOf(printer, count);
      const truth = foreignTruth(printer);
      const darkest = density(truth([0, 0, 0])[0]);
      const black = compensated(0, relativePrint(model.labs).blackL)([0, 0, 0]);
      const [perceptual, colorimetric] = tables().fromLab;
      for (const device of [sentBy(colorimetric, black), sentBy(perceptual, [0, 0, 0])])
        expect(darkest - density(truth(device)[0])).toBeLessThan(count === 100 ? 0.06 : 0.03);
    },
  );

  it.each(cases)('%s, %i patches: nothing is predicted darker than the darkest reading', (_, count, printer) => {
    const { model } = modelOf(printer, count);
    const read = Math.min(...reading(printer, count).patches.map((p) => p.lab[0]));
    let least = 100;
    for (let n = 0; n < model.labs.values.length; n += 3) least = Math.min(least, model.labs.values[n]!);
    expect(least).toBeGreaterThan(read - 0.35);
  });

  it.each(FOREIGN_PRINTERS.map((p) => [p.name, p] as const))(
    '%s: greys through a profile of 460 patches keep to the line and never fall',
    (_, printer) => {
      const { model, tables } = modelOf(printer, 460);
      const truth = foreignTruth(printer);
      const toRelative = relativeToWhite(truth([1, 1, 1]));
      const [blackL, blackA, blackB] = toRelative(truth([0, 0, 0]));
      const aim = compensated(0, relativePrint(model.labs).blackL);
      let last = -1;
      for (let L = 0; L <= 100; L++) {
        const lab = truth(sentBy(tables().fromLab[1], aim([L, 0, 0])));
        const [l, a, b] = toRelative(lab);
        // Neutral to the paper, and from where the sheet has no neutral any more straight on to its black.
        const t = Math.min(1, (100 - l) / (100 - blackL));
        const off = Math.min(Math.hypot(a, b), distanceToPath([a, b], [blackA * t, blackB * t]));
        expect(off).toBeLessThan(lab[0] > 12 ? (printer.name === 'dye' ? 1.4 : 0.8) : 1);
        expect(l).toBeGreaterThan(last - 0.01);
        last = l;
      }
    },
  );

  it.each(FOREIGN_PRINTERS.map((p) => [p.name, p] as const))(
    '%s: as much of a night picture is out of gamut as by the printer’s own inverse, read with our chart’s dark colours',
    (_, printer) => {
      const truth = foreignTruth(printer);
      const darks = askedPatches('gamut', 300).patches.flatMap((p) =>
        p.role === 'dark' ? [mapThree(p.rgb16, (v) => v / 65535)] : [],
      );
      expect(darks).toHaveLength(24);
      const { labs } = printModel([readForeign(printer, [...foreignChart(460), ...darks], 5)]);
      const real: ColourLattice = {
        axes: 3,
        nodes: 33,
        values: Float32Array.from([...nodePlaces(3, 33)].flatMap((at) => truth(at as unknown as Rgb))),
      };
      const random = seededRandom(6);
      const dark = Array.from({ length: 400 }, (): Lab => {
        const [C, h] = [10 * random(), 2 * Math.PI * random()];
        return [100 * random() ** 2, C * Math.cos(h), C * Math.sin(h)];
      });
      const share = (labs: ColourLattice) => {
        const print = relativePrint(labs);
        const send = sender(print);
        const aim = compensated(0, print.blackL);
        return dark.filter((lab) => deltaE2000(aim(lab), labAt(print.lattice, send(aim(lab)).device)) > 1).length / 400;
      };
      expect(Math.abs(share(labs) - share(real))).toBeLessThan(printer.name === 'hard black onset' ? 0.06 : 0.02);
    },
  );
});

const distanceToPath = ([a, b]: readonly [number, number], [toA, toB]: readonly [number, number]) => {
  const length = Math.hypot(toA, toB);
  if (length < 1e-9) return Math.hypot(a, b);
  const along = Math.max(0, Math.min(length, (a * toA + b * toB) / length));
  return Math.hypot(a - (toA / length) * along, b - (toB / length) * along);
};

describe('misreadings', () => {
  it.each(COUNTS)('charts of %i patches without one lose none, and few are questioned', (count) => {
    const questioned = FOREIGN_PRINTERS.map((printer) => {
      const { error } = modelOf(printer, count).model;
      expect(error.contradicted).toEqual([]);
      expect(error.patches).toBe(new Set(foreignChart(count).map(String)).size);
      return error.questioned.length;
    });
    const share = questioned.reduce((s, v) => s + v, 0) / (count * FOREIGN_PRINTERS.length);
    expect(share).toBeLessThan(count === 100 ? 0.04 : 0.006);
  });

  it('19 of 20 planted ones above 3 ΔE00 are questioned', () => {
    const random = seededRandom(5);
    let [planted, found] = [0, 0];
    for (const printer of FOREIGN_PRINTERS)
      for (const count of COUNTS) {
        const clean = reading(printer, count);
        const { patches, wrong } = withMisreadings(clean, count === 100 ? 2 : 6, random);
        const names = fitPrint([{ ...clean, patches }]).error.questioned.map((q) => q.patch);
        planted += wrong.length;
        found += wrong.filter((id) => names.includes(id)).length;
      }
    expect(planted).toBe(48);
    expect(found / planted).toBeGreaterThanOrEqual(0.95);
  });
});

const WHITE = illuminantWhite();

/** Patches that took on a share of another's colour, 3 ΔE00 at least. */
function withMisreadings({ patches }: Reading, count: number, random: () => number) {
  const mixed = new Map<number, PatchReading>();
  while (mixed.size < count) {
    const [i, j] = [random(), random()].map((v) => Math.floor(v * patches.length)) as [number, number];
    const [own, other] = [patches[i]!, patches[j]!];
    const share = 0.15 + 0.85 * random();
    const mix = (p: readonly number[], q: readonly number[]) => p.map((v, k) => v * (1 - share) + share * q[k]!);
    const xyz = mix(own.xyz, other.xyz) as unknown as PatchReading['xyz'];
    const lab = xyzToLab(xyz, WHITE);
    if (deltaE2000(lab, own.lab) < 3 || own.device!.every((v) => v === 0 || v === 1)) continue;
    mixed.set(i, { ...own, xyz, lab, reflectance: mix(own.reflectance!, other.reflectance!) });
  }
  return {
    patches: patches.map((p, i) => mixed.get(i) ?? p),
    wrong: [...mixed.values()].map((p) => p.id),
  };
}

describe('the stated error', () => {
  const random = seededRandom(99);
  const all = Array.from({ length: 300 }, (): Rgb => [random(), random(), random()]);
  const normal = seededNormal(8);
  const near = (tone: number) => Math.min(1, Math.max(0, tone + 0.07 * normal()));
  const pictures = Array.from({ length: 300 }, (): Rgb => {
    const tone = random();
    return [near(tone), near(tone), near(tone)];
  });

  it('of all colours lies within 0.7–1.5 (mean) and 0.6–1.8 (95 %) of the true one in 9 of 10, of pictures in 3 and 4 of 5', () => {
    const ratios = FOREIGN_PRINTERS.flatMap((printer) =>
      ([100, 460, 900] as const).map((count) => {
        const { model } = modelOf(printer, count);
        const off = (at: readonly Rgb[]) => trueError(foreignTruth(printer), (rgb) => labAt(model.labs, rgb), at);
        const [ofAll, ofPictures] = [off(all), off(pictures)];
        const { stated } = model.error;
        return {
          all: [stated.all.mean / ofAll.mean, stated.all.p95 / ofAll.p95] as const,
          pictures: [stated.pictures.mean / ofPictures.mean, stated.pictures.p95 / ofPictures.p95] as const,
        };
      }),
    );
    for (const kind of ['all', 'pictures'] as const) {
      const means = ratios.map((r) => r[kind][0]);
      const p95s = ratios.map((r) => r[kind][1]);
      const within = (list: readonly number[], from: number, to: number) =>
        list.filter((v) => v >= from && v <= to).length / list.length;
      expect(within(means, 0.7, 1.5)).toBeGreaterThanOrEqual(kind === 'all' ? 0.9 : 0.75);
      expect(within(p95s, 0.6, 1.8)).toBeGreaterThanOrEqual(kind === 'all' ? 0.9 : 0.8);
    }
  });
});
