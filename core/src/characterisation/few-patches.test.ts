import { scatteredChart, SHEETS, truth } from '../../test/sheets.ts';
import { deltaE2000 } from '../colour/difference.ts';
import type { Rgb } from '../colour/types.ts';
import { seededRandom } from '../random.ts';
import type { ChartPatch } from '../simulation/chart.ts';
import { readChart } from '../simulation/instrument.ts';
import { standIn } from '../simulation/stand-in.ts';
import { fitPrint, type FittedPrint } from './fitted-print.ts';
import { labAt } from './lattice.ts';
import { summarise } from './model-error.ts';
import { expandPrint, printModel } from './print-model.ts';
import { whichNext } from './which-next.ts';

const random = seededRandom(12);
const HELD_OUT = Array.from({ length: 300 }, (): Rgb => [random(), random(), random()]);

/** A sheet of the same kind from another mill, brightened otherwise. */
const other = standIn({
  coating: 'cotton',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 310,
  thicknessUm: 450,
  blackInk: 'matt black',
  mediaSetting: 'Fine art matt',
  printMode: 'colour through a profile',
  blackOvercoat: false,
  sheetName: 'Another mill’s cotton',
});

describe('thirty patches of a sheet whose like is known', () => {
  const known = fitPrint([readChart(SHEETS.cotton, scatteredChart(460), 'M1', 7)]);
  const like = { fitted: known, model: expandPrint(known) };
  const kept = JSON.parse(
    JSON.stringify(fitPrint([readChart(other, scatteredChart(30), 'M1', 8)], like)),
  ) as FittedPrint;
  const real = truth(other);
  const off = (fitted: FittedPrint) => {
    const { labs } = expandPrint(fitted);
    return summarise(HELD_OUT.map((rgb) => deltaE2000(real(rgb), labAt(labs, rgb))));
  };

  it('foretell the rest: mean within 2.0, and the stated error within 30 % of the true one', () => {
    const found = off(kept).mean;
    expect(found).toBeLessThan(2);
    expect(Math.abs(kept.error.crossValidated.mean / found - 1)).toBeLessThan(0.3);
  });

  it('better than the like as it is, and than themselves alone', () => {
    const asItIs = summarise(HELD_OUT.map((rgb) => deltaE2000(real(rgb), labAt(like.model.labs, rgb)))).mean;
    expect(off(kept).mean).toBeLessThan(asItIs / 2);
    expect(off(kept).mean).toBeLessThan(off(fitPrint([readChart(other, scatteredChart(30), 'M1', 8)])).mean / 2);
  });

  it('say in what the sheet differs from its like', () => {
    expect(kept.like!.kinship.strength.every((s) => s > 0.5 && s < 2)).toBe(true);
    expect(kept.like!.kinship.surface).toBeGreaterThan(0.005);
  });
});

describe('which patches next', () => {
  const chart = scatteredChart(40);
  const reading = (patches: readonly ChartPatch[]) => readChart(SHEETS.cotton, patches, 'M1', 8);
  const skin = seededRandom(4);
  const ofPicture = (): Rgb => {
    const t = skin();
    return [0.35 + 0.3 * t + 0.08 * skin(), 0.2 + 0.3 * t + 0.08 * skin(), 0.12 + 0.25 * t + 0.08 * skin()];
  };
  const wanted = Array.from({ length: 100 }, () => ({ device: ofPicture(), weight: 0.01 }));
  const judged = Array.from({ length: 120 }, ofPicture);
  const real = truth(SHEETS.cotton);
  const error = (extra: readonly Rgb[]) => {
    const { labs } = printModel([reading([...chart, ...extra.map((rgb, i) => ({ id: `N${i}`, rgb }))])]);
    return summarise(judged.map((rgb) => deltaE2000(real(rgb), labAt(labs, rgb)))).mean;
  };

  it('win at least 1.5 times what random ones win for the pictures on the table', () => {
    const fitted = fitPrint([reading(chart)]);
    const next = whichNext(
      fitted,
      chart.map((p) => p.rgb),
      wanted,
      10,
    );
    expect(new Set(next.map(String)).size).toBe(10);
    const before = error([]);
    const won = before - error(next);
    const seeds = Array.from({ length: 20 }, (_, i) => i + 1);
    const byChance =
      seeds.reduce((sum, seed) => {
        const chance = seededRandom(seed);
        return sum + before - error(Array.from({ length: 10 }, (): Rgb => [chance(), chance(), chance()]));
      }, 0) / seeds.length;
    expect(won).toBeGreaterThan(1.5 * byChance);
  });
});
