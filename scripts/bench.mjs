import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { performance } from 'node:perf_hooks';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import { lightChange } from './bench/light-change.mjs';
import { lists } from './bench/lists.mjs';
import { longLists } from './bench/long-lists.mjs';
import { firstProof, runOfThirty } from './bench/print-chain.mjs';
import { proofSwitch } from './bench/proof-switch.mjs';
import { stripLayout } from './bench/strip-layout.mjs';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

/**
 * How long things take, as ratios within one run: a slower machine gives the same answers. `--json` prints one array,
 * `--only NAME` one row of it; the exit code is 1 where a row passes its limit.
 */
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
  { fitPrint },
  { expandPrint },
  { litModel },
  { relativePrint },
  { profileTables },
  { makeProfile },
  { sentLattice, printed, throughPrinted },
  strips,
  { PLAIN },
  runOrders,
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
    'characterisation/fitted-print.js',
    'characterisation/print-model.js',
    'characterisation/lit-model.js',
    'characterisation/relative-print.js',
    'characterisation/profile-tables.js',
    'characterisation/make-profile.js',
    'characterisation/printed.js',
    'proof/strips.js',
    'proof/recipe.js',
    'print/run-order.js',
  ].map(from),
);

const args = process.argv.slice(2);
const json = args.includes('--json');
const only = args.includes('--only') ? args[args.indexOf('--only') + 1] : undefined;

const WARM_MS = 400;
const sorted = (list) => [...list].sort((a, b) => a - b);
const middle = (list) => sorted(list)[Math.floor(list.length / 2)];
/** Median of several runs, ms, once the engine has got used to the work. */
function median(run, times = 15) {
  for (const until = performance.now() + WARM_MS; performance.now() < until;) run();
  return middle(
    Array.from({ length: times }, () => {
      const began = performance.now();
      run();
      return performance.now() - began;
    }),
  );
}
async function medianOf(run, times) {
  const took = [];
  for (let i = 0; i < times; i++) {
    const began = performance.now();
    await run();
    took.push(performance.now() - began);
  }
  return middle(took);
}
/** What several rows are held against is made, or measured, once. */
const once = (make) => {
  let made;
  return () => (made ??= { value: make() }).value;
};

const model = standIn({
  coating: 'baryta',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  blackInk: 'photo black',
  mediaSetting: 'Fibre gloss',
  printMode: 'colour through a profile',
  blackOvercoat: false,
});
const base = readChart(model, surfaceChart(), 'M1', 1);
const random = seededRandom(3);
const spectral = (count) => {
  const print = press(model, 'M1');
  return {
    ...base,
    patches: Array.from({ length: count }, (_, i) => {
      const device = i === 0 ? [1, 1, 1] : i === 1 ? [0, 0, 0] : [random(), random(), random()];
      return { id: `P${i}`, device, reflectance: print(device), lab: [50, 0, 0], xyz: [20, 20, 20] };
    }),
  };
};
const asFile = (reading) => new TextEncoder().encode(writeCgats(reading));
const large = once(() => asFile(spectral(10_000)));
const imported = once(() => median(() => readingFromCgats(large())));
const chart = once(() => asFile(base));
const chartImported = once(() => median(() => readingFromCgats(chart())));
const scattered = once(() =>
  readingFromCgats(readFileSync(join(ROOT, 'core/test/fixtures/fogra39l.cgats.txt'))).reading.patches.map((p) => p.lab),
);
const nine = once(() => [readingFromCgats(asFile(spectral(900))).reading]);
const fitted = once(() => fitPrint(nine()));
const expanded = once(() => expandPrint(fitted()));
const sent = once(() => sentLattice(relativePrint(expanded().labs), 'relative'));

/**
 * All of a condition: learned, opened, and its tables for a profile, the four renderings among them; and a
 * 24-megapixel 16-bit TIFF decoded and taken to Lab by libvips.
 */
const everything = once(async () => {
  const all = () => {
    const opened = expandPrint(fitPrint(nine()));
    profileTables(relativePrint(opened.labs), { version: 4 });
  };
  const [width, height] = [6000, 4000];
  const values = Uint16Array.from({ length: width * height * 3 }, (_, i) => (i * 2654435761) >>> 16);
  const tiff = await sharp(values, { raw: { width, height, channels: 3 } })
    .toColourspace('rgb16')
    .tiff({ compression: 'none' })
    .toBuffer();
  const theirOwn = () => sharp(tiff).toColourspace('lab').raw({ depth: 'float' }).toBuffer();
  // In turn, so that what else the machine does falls on both alike; whoever begins pays for what the other left in
  // memory, and is not counted.
  const [ours, theirs] = [[], []];
  for (let i = 0; i < 4; i++) {
    await theirOwn();
    for (let k = 0; k < 2; k++) theirs.push(await medianOf(theirOwn, 1));
    for (let k = 0; k < 2; k++) all();
    for (let k = 0; k < 2; k++) ours.push(await medianOf(all, 1));
  }
  return { ms: middle(ours), decodedMs: middle(theirs) };
});

const TIFF_24 = join(tmpdir(), `rakuen-bench-${process.pid}.tif`);
/** A picture of 24 megapixels, 16 bits, with tones and colours as pictures have them. */
const largePicture = once(async () => {
  const [width, height] = [6000, 4000];
  const values = new Uint16Array(width * height * 3);
  for (let i = 0; i < values.length; i++) {
    const y = Math.floor(i / (3 * width));
    values[i] = 30_000 + 20_000 * Math.sin(i / 9000 + (i % 3)) + 4000 * Math.sin(y / 37) + ((i * 2654435761) >>> 22);
  }
  await sharp(values, { raw: { width, height, channels: 3 } })
    .toColourspace('rgb16')
    .tiff({ compression: 'none' })
    .toFile(TIFF_24);
  return TIFF_24;
});
const serverSide = (path) => import(pathToFileURL(join(ROOT, 'server/dist/work', path)).href);
const scratch = () => join(mkdtempSync(join(tmpdir(), 'rakuen-bench-')), 'scratch');
/** A print file of 24 megapixels by a recipe. @returns ms, and ms of libvips without one */
async function printCopy(recipe) {
  const { writeCopy } = await serverSide('copy-task.js');
  const folder = mkdtempSync(join(tmpdir(), 'rakuen-bench-'));
  const icc = join(folder, 'own.icc');
  const words = { description: 'bench', licence: '', createdAt: new Date(), matt: false, readings: '' };
  const bytes = makeProfile(expanded(), { version: 2, grid: 33, greys: 'paper', light: TABLE_LIGHTS[0] }, words);
  writeFileSync(icc, bytes);
  const path = await largePicture();
  const size = { widthMm: 423.33, heightMm: 282.22, ppi: 360 };
  const took = await medianOf(
    () =>
      writeCopy({
        path,
        assumeSrgb: false,
        maxPixels: 4e8,
        target: { icc: bytes, rendering: 'relative' },
        as: 'tif',
        recipe,
        ...size,
        out: join(folder, 'copy.tif'),
        scratch: scratch(),
      }),
    3,
  );
  const plain = await medianOf(
    () =>
      sharp(path)
        .withIccProfile(icc)
        .toColourspace('rgb16')
        .tiff({ compression: 'none' })
        .toFile(join(folder, 'plain.tif')),
    3,
  );
  rmSync(folder, { recursive: true, force: true });
  return [took, plain];
}
const pictureRead = once(async () => {
  const { analysePicture } = await serverSide('picture-task.js');
  const path = await largePicture();
  let result;
  // In turn, so that what else the machine does falls on both alike.
  const [reads, labs] = [[], []];
  for (let i = 0; i < 9; i++) {
    labs.push(await medianOf(() => sharp(path).toColourspace('lab').raw({ depth: 'float' }).toBuffer(), 1));
    const read = () => analysePicture({ path, assumeSrgb: false, maxPixels: 4e8, scratch: scratch() });
    reads.push(await medianOf(async () => (result = await read()), 1));
  }
  return { ms: middle(reads), labMs: middle(labs), result };
});
/** A picture laid on so many sheets with ready models. */
const laidOn = once(async () => {
  const [{ onSheet }, { layBare }, { paletteOf }, { readySheet }] = await Promise.all(
    ['on-sheet', 'lay', 'palette', 'ready-sheet'].map((name) => from(`match/${name}.js`)),
  );
  const { result } = await pictureRead();
  const bare = layBare(sent(), expanded());
  const cells = { count: result.cells.length / 4, data: result.cells };
  const ready = readySheet({ bare, seen: bare });
  // Two hundred sheets do not lie in the processor's memory as one does.
  const sheets = Array.from({ length: 200 }, () => ({
    ...ready,
    losses: ready.losses.slice(),
    held: ready.held.slice(),
  }));
  return () => {
    const palette = paletteOf(cells, ready.nodes);
    return sheets.map((sheet) => onSheet(palette, result.figures.structure.marks, sheet));
  };
});

/** Both passes of a chart that was read, as files; each paper's carries its own noise. */
const passes = (i) =>
  Object.fromEntries(['M1', 'M2'].map((m) => [`${m}.txt`, asFile(readChart(model, surfaceChart(), m, i + 1))]));

/** Rows, declared: what is measured, against what, and the ratio it may not pass. */
const ROWS = [
  {
    name: 'import',
    what: 'importing 10 000 spectral patches: words, numbers, colours',
    against: 'splitting the text into words',
    limit: 3.5,
    run: () => [
      imported(),
      median(() =>
        new TextDecoder()
          .decode(large())
          .split(/\r\n|\r|\n/)
          .map((line) => line.split(/\s+/)),
      ),
    ],
  },
  {
    name: 'figures',
    what: 'every figure of them, gamut included',
    against: 'the import',
    limit: 1,
    run: () => {
      const { reading } = readingFromCgats(large());
      return [median(() => computeFigures(readingFacts(reading))), imported()];
    },
  },
  {
    name: 'chart figures',
    what: `every figure of a chart of ${base.patches.length} spectral patches`,
    against: 'its import',
    limit: 3,
    run: () => [median(() => computeFigures(readingFacts(base))), chartImported()],
  },
  {
    name: 'chart gamut',
    what: 'its gamut alone',
    against: 'its import',
    limit: 1,
    run: () => [median(() => gamutOfReading(base, groupPatches(base))), chartImported()],
  },
  {
    name: 'scattered gamut',
    what: 'gamut solid and volume of 1617 scattered patches',
    against: 'a plain convex hull of them',
    limit: 3,
    run: () => [median(() => meshVolume(modifiedHull(scattered()))), median(() => convexHull(scattered()))],
  },
  {
    name: 'light',
    what: 'another light over six spectral conditions, all figures',
    against: 'importing one with its figures',
    limit: 0.1,
    run: () => {
      const told = readingFacts(base, [readChart(model, surfaceChart(), 'M2', 2)]);
      const sheet = printSpectra(told);
      const measured = computeFigures(told);
      const lights = TABLE_LIGHTS.map((l) => l.power);
      let turn = 0;
      return [
        median(() => {
          const light = lights[++turn % lights.length];
          for (let i = 0; i < 6; i++) litPrint(sheet, measured, lighting(light, GLASSES[0], sheet));
        }),
        median(() => computeFigures(readingFacts(readingFromCgats(chart()).reading))),
      ];
    },
  },
  {
    name: 'model',
    what: 'everything of one RGB condition of 900 spectral patches: learned, inverted, four renderings, tables of 33³',
    against: 'libvips decoding a 24-megapixel 16-bit TIFF and taking it to Lab',
    limit: 1,
    run: async () => {
      const { ms, decodedMs } = await everything();
      return [ms, decodedMs];
    },
  },
  {
    name: 'model new light',
    what: 'a new light for a ready model',
    against: 'everything of it',
    limit: 0.01,
    run: async () => {
      let turn = 0;
      return [median(() => litModel(expanded(), TABLE_LIGHTS[++turn % 8].power, GLASSES[0])), (await everything()).ms];
    },
  },
  {
    name: 'printed per pixel',
    what: 'a million colours looked up as they are printed',
    against: 'LittleCMS in libvips taking a million pixels through that sheet’s profile',
    limit: 3,
    run: async () => {
      const pixels = 1_000_000;
      const labs = Float32Array.from({ length: pixels * 3 }, (_, i) =>
        i % 3 === 0 ? random() * 100 : random() * 120 - 60,
      );
      const out = new Float32Array(labs.length);
      const lattice = printed(sent(), expanded().labs);
      const folder = mkdtempSync(join(tmpdir(), 'rakuen-bench-'));
      const icc = join(folder, 'own.icc');
      const words = { description: 'bench', licence: '', createdAt: new Date(), matt: false, readings: '' };
      writeFileSync(
        icc,
        makeProfile(expanded(), { version: 2, grid: 33, greys: 'paper', light: TABLE_LIGHTS[0] }, words),
      );
      const values = Uint8Array.from({ length: pixels * 3 }, () => random() * 256);
      const raw = { raw: { width: 1000, height: 1000, channels: 3 } };
      const plain = await medianOf(() => sharp(values, raw).raw().toBuffer(), 5);
      const through = await medianOf(
        () => sharp(values, raw).withIccProfile(icc, { attach: false }).raw().toBuffer(),
        5,
      );
      rmSync(folder, { recursive: true });
      return [median(() => throughPrinted(lattice, labs, out), 7), through - plain];
    },
  },
  {
    name: 'picture',
    what: 'reading a 24-megapixel 16-bit TIFF, every pixel: tone, colour, structure, marks, its preview',
    against: 'libvips decoding it and taking it to Lab',
    limit: 1.2,
    run: async () => {
      const { ms, labMs } = await pictureRead();
      return [ms, labMs];
    },
  },
  {
    name: 'match 200',
    what: 'that picture laid on 200 sheets with ready models',
    against: 'its reading',
    limit: 0.05,
    run: async () => {
      const lay = await laidOn();
      return [median(lay, 9), (await pictureRead()).ms];
    },
  },
  {
    name: 'rerank 200',
    what: 'a weight turned over 200 sheets',
    against: 'a frame of 16 ms',
    limit: 1,
    run: async () => {
      const [{ weigh }, { judgeSheets }, { USUAL_COMMISSION }] = await Promise.all(
        ['match/rank.js', 'match/judge.js', 'match/commission.js'].map(from),
      );
      const { result } = await pictureRead();
      const [figures] = (await laidOn())();
      const candidates = Array.from({ length: 200 }, (_, i) => ({
        sheet: {
          id: `s${i}`,
          paperId: `s${i}`,
          coating: 'baryta',
          pricePerM2: 10 + i,
          currency: 'EUR',
          brightenerShift: i % 7,
        },
        figures,
      }));
      const asked = { picture: result.figures, hints: [], commission: USUAL_COMMISSION };
      let i = 0;
      const judged = judgeSheets(asked, candidates);
      return [median(() => weigh(judged, { money: (i++ % 30) / 10 })), 16];
    },
  },
  {
    name: 'proof new light',
    what: 'the lattice of a sheet under another lamp, ready to be drawn',
    against: '100 ms',
    limit: 1,
    run: async () => {
      const [{ laySeen }, { packLab }] = await Promise.all(['match/lay.js', 'characterisation/packed.js'].map(from));
      return [
        median(() =>
          packLab(
            laySeen(sent(), expanded(), { light: TABLE_LIGHTS[3], glass: GLASSES[1], coating: 'baryta' }).lattice,
          ),
        ),
        100,
      ];
    },
  },
  {
    name: 'print copy',
    what: 'a print copy of 24 megapixels through a profile of our own',
    against: 'libvips converting and writing the same',
    limit: 2,
    run: () => printCopy(PLAIN),
  },
  {
    name: 'print copy local contrast',
    what: 'the same with local contrast at 2 and 12 mm on paper',
    against: 'libvips converting and writing it without',
    limit: 4,
    run: () => printCopy({ ...PLAIN, localFine: 0.3, localBroad: 0.2 }),
  },
  {
    name: 'run 30 prints',
    what: 'the order of 30 prints of two inks and three feeds, with two times at the printer',
    against: 'a second',
    limit: 1,
    run: async () => [runOfThirty(runOrders), 1000],
  },
  {
    name: 'first proof',
    what: 'a picture on a sheet that was just read, until it can be seen',
    against: 'a second',
    limit: 1,
    run: async () => [await firstProof(passes), 1000],
  },
  {
    name: 'light change',
    what: 'from choosing a light until the figures of six papers are on screen',
    against: 'importing one with its figures',
    limit: 4,
    run: async () => [
      await lightChange(passes),
      median(() => computeFigures(readingFacts(readingFromCgats(chart()).reading))),
    ],
  },
  {
    name: 'long lists',
    what: 'the longest the page stands still while 5 000 prints and their ledger are leafed through',
    against: 'a frame of 50 ms',
    limit: 1,
    run: async () => [await longLists(passes), 50],
  },
  {
    name: 'proof switch',
    what: 'another sheet in hand: work of the page’s own thread at 1280 × 800, handing over to the graphics processor included',
    against: 'a sixtieth of a second',
    limit: 1,
    run: async () => [await proofSwitch(passes), 1000 / 60],
  },
  {
    name: 'strip layout',
    what: 'small sheets the strips of up to six crops take, counted over every case',
    against: 'the fewest there can be',
    limit: 1.05,
    run: () => stripLayout(strips, PLAIN),
  },
  {
    name: 'lists',
    what: 'the slowest list, 99 of 100, with 209 print conditions, 5 000 prints and 5 000 decisions, while a 24-megapixel picture is read',
    against: 'a request that asks for nothing',
    limit: 60,
    run: async () => {
      const [ms, of, all] = await lists(passes, readFileSync(await largePicture()));
      for (const { path, bytes, ms: took } of all)
        console.error(`  ${path.padEnd(24)} ${took.toFixed(1)} ms, ${bytes} bytes`);
      return [ms, of];
    },
  },
  {
    name: 'second start',
    what: 'a second start of an empty studio until it answers',
    against: 'a bare start of Node.js',
    // A second and a half where a bare start takes a tenth of one.
    limit: 15,
    run: async () => {
      const data = mkdtempSync(join(tmpdir(), 'rakuen-bench-'));
      const start = () =>
        new Promise((done, fail) => {
          const child = spawn(process.execPath, ['scripts/start.mjs', '--port', '0', '--data', data, '--empty'], {
            cwd: ROOT,
          });
          let address = false;
          child.stdout.on('data', (text) => {
            if (address || !/Rakuen is at/.test(text)) return;
            address = true;
            child.kill('SIGINT');
            done(child);
          });
          child.on('exit', () => address || fail(new Error('Rakuen did not start')));
        });
      const stopped = async () => {
        const child = await start();
        return { child, ended: new Promise((done) => child.on('exit', done)) };
      };
      await (
        await stopped()
      ).ended;
      const took = [];
      for (let i = 0; i < 3; i++) {
        const began = performance.now();
        const { ended } = await stopped();
        took.push(performance.now() - began);
        await ended;
      }
      const bare = await medianOf(
        () => new Promise((done) => spawn(process.execPath, ['-e', '0']).on('exit', done)),
        5,
      );
      rmSync(data, { recursive: true, force: true });
      return [middle(took), bare];
    },
  },
];

const chosen = only === undefined ? ROWS : ROWS.filter((r) => r.name === only);
if (chosen.length === 0) {
  console.error(`There is no row “${only}”; there are ${ROWS.map((r) => r.name).join(', ')}.`);
  process.exit(1);
}
const found = [];
for (const { name, what, against, limit, run } of chosen) {
  const [ms, of] = await run();
  found.push({ name, ms: Number(ms.toFixed(2)), ratio: Number((ms / of).toFixed(4)), against, limit, what });
}
if (json)
  console.log(
    JSON.stringify(
      found.map(({ what: _, ...row }) => row),
      null,
      2,
    ),
  );
else
  for (const { name, what, ms, ratio, against, limit } of found)
    console.log(
      `${name.padEnd(18)} ${ms.toFixed(1).padStart(9)} ms  ${ratio.toFixed(3).padStart(8)} × ${against} (limit ${limit})\n  ${what}`,
    );
process.exitCode = found.some((r) => r.ratio > r.limit) ? 1 : 0;
