import { readFileSync } from 'node:fs';
import { performance } from 'node:perf_hooks';
import { pathToFileURL } from 'node:url';
import { join } from 'node:path';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

/** How long things take, as ratios within one run: a slower machine gives the same answers. */
checkNode();
installPackages();
build();
const from = (path) => import(pathToFileURL(join(ROOT, 'core/dist', path)).href);
const [
  { seededRandom },
  { standIn },
  { press },
  { readChart },
  { surfaceChart },
  { writeCgats },
  { readingFromCgats },
  { readingFacts },
  { computeFigures },
  { gamutOfReading },
  { groupPatches },
  { printSpectra },
  { litPrint },
  { lighting },
  { TABLE_LIGHTS },
  { GLASSES },
  { modifiedHull },
  { convexHull },
  { meshVolume },
] = await Promise.all(
  [
    'random.js',
    'simulation/stand-in.js',
    'simulation/printer.js',
    'simulation/instrument.js',
    'simulation/chart.js',
    'formats/cgats-write.js',
    'formats/reading-from-cgats.js',
    'measurement/reading-facts.js',
    'measurement/measures/registry.js',
    'measurement/gamut-of-reading.js',
    'measurement/repeats.js',
    'light/print-spectra.js',
    'light/lit-print.js',
    'light/lit-sheet.js',
    'light/table-lights.js',
    'light/glass.js',
    'gamut/modified-hull.js',
    'gamut/convex-hull.js',
    'gamut/mesh.js',
  ].map(from),
);

const TIMES = 15;
const WARM_MS = 400;
/** Median of several runs, ms, once the engine has got used to the work. */
function median(run) {
  for (const until = performance.now() + WARM_MS; performance.now() < until;) run();
  const took = Array.from({ length: TIMES }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  }).sort((a, b) => a - b);
  return took[Math.floor(TIMES / 2)];
}
const rows = [];
const say = (what, ms, against, ofWhat) =>
  rows.push({
    what,
    ms: ms.toFixed(1),
    ratio: against === undefined ? '' : `${(ms / against).toFixed(2)} × ${ofWhat}`,
  });

// A file of 10,000 spectral patches.
const facts = {
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
const model = standIn(facts);
const print = press(model, 'M1');
const base = readChart(model, surfaceChart(), 'M1', 1);
const random = seededRandom(3);
const large = {
  ...base,
  patches: Array.from({ length: 10_000 }, (_, i) => {
    const device = [random(), random(), random()];
    return { id: `P${i}`, device, reflectance: print(device), lab: [50, 0, 0], xyz: [20, 20, 20] };
  }),
};
const bytes = new TextEncoder().encode(writeCgats(large));
const split = median(() =>
  new TextDecoder()
    .decode(bytes)
    .split(/\r\n|\r|\n/)
    .map((line) => line.split(/\s+/)),
);
const taken = median(() => readingFromCgats(bytes));
say(`splitting ${(bytes.length / 1e6).toFixed(1)} MB of CGATS, 10 000 spectral patches, into words`, split);
say('importing it: words, numbers, colours', taken, split, 'splitting');
const { reading } = readingFromCgats(bytes);
const figures = median(() => {
  const told = readingFacts(reading);
  computeFigures(told);
});
say('every figure of it, gamut included', figures, taken, 'the import');

// A chart as the bench reads it.
const chart = { bytes: new TextEncoder().encode(writeCgats(base)) };
const small = median(() => readingFromCgats(chart.bytes));
say(`importing a chart of ${base.patches.length} spectral patches`, small);
say(
  'every figure of it',
  median(() => computeFigures(readingFacts(base))),
  small,
  'the import',
);
say(
  'its gamut alone',
  median(() => gamutOfReading(base, groupPatches(base))),
  small,
  'the import',
);

// A gamut from scattered patches, a press's own, against plain hulls of the same points.
const scattered = readingFromCgats(
  readFileSync(join(ROOT, 'core/test/fixtures/fogra39l.cgats.txt')),
).reading.patches.map((p) => p.lab);
const hull = median(() => convexHull(scattered));
say(`a plain convex hull of ${scattered.length} scattered patches`, hull);
say(
  'their gamut solid and its volume',
  median(() => meshVolume(modifiedHull(scattered))),
  hull,
  'the plain hull',
);

// Six spectral print conditions under another light.
const withoutUv = readChart(model, surfaceChart(), 'M2', 2);
const told = readingFacts(base, [withoutUv]);
const sheet = printSpectra(told);
const measured = computeFigures(told);
const wholeImport = median(() => computeFigures(readingFacts(readingFromCgats(chart.bytes).reading)));
say('importing one of them with all its figures', wholeImport);
const lights = TABLE_LIGHTS.map((l) => l.power);
let turn = 0;
say(
  'another light over six, all figures',
  median(() => {
    const light = lights[++turn % lights.length];
    for (let i = 0; i < 6; i++) litPrint(sheet, measured, lighting(light, GLASSES[0], sheet));
  }),
  wholeImport,
  'importing one',
);

console.log(`Median of ${TIMES} runs, Node.js ${process.versions.node}`);
const widest = Math.max(...rows.map((r) => r.what.length));
for (const { what, ms, ratio } of rows) console.log(`${what.padEnd(widest)}  ${ms.padStart(8)} ms  ${ratio}`);
