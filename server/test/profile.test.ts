import { asThree } from '@rakuen/core/colour/three';
import { createHash } from 'node:crypto';
import { execFileSync, spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { cmsFLAGS_NOCACHE, instantiate } from 'lcms-wasm';
import sharp from 'sharp';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { labToXyz } from '@rakuen/core/colour/lab';
import { relativeToWhite } from '@rakuen/core/colour/relative';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import { summarise } from '@rakuen/core/characterisation/model-error';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { encodeLab16, throughLut16 } from '@rakuen/core/formats/icc/lut16';
import { readLut16, readProfile } from '@rakuen/core/formats/icc/profile-read';
import type { Reading } from '@rakuen/core/measurement/reading';
import { whileWet } from '@rakuen/core/proof/mistakes';
import { seededRandom } from '@rakuen/core/random';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS, truth } from '../../core/test/sheets.ts';
import { fixture, temporaryFolder } from './rakuen.ts';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const TIFICC = process.env.TIFICC ?? '/usr/bin/tificc';
const TRANSICC = process.env.TRANSICC ?? '/usr/bin/transicc';
const folder = temporaryFolder();

function shell(command: 'profile' | 'check', ...args: string[]) {
  const done = spawnSync('npm', ['run', '--silent', command, '--', ...args], { cwd: ROOT, encoding: 'utf8' });
  return {
    code: done.status,
    out: done.stdout,
    err: done.stderr.split('\n').filter((l) => l && !l.startsWith('npm warn')),
  };
}

const written = (name: string, reading: Reading) => {
  const file = join(folder, name);
  writeFileSync(file, writeCgats(reading));
  return file;
};

const sheet = SHEETS.baryta;
const real = truth(sheet);
const readings = ['M1', 'M2'].map((condition, i) =>
  written(`${condition}.txt`, readChart(sheet, scatteredChart(900), condition as 'M1' | 'M2', 11 + i)),
);

/** LittleCMS's pixel formats: Lab and RGB, float. */
const LAB = (1 << 22) | (10 << 16) | (3 << 3) | 4;
const RGB = (1 << 22) | (4 << 16) | (3 << 3) | 4;

async function opened(file: string) {
  const cms = await instantiate();
  const bytes = readFileSync(file);
  const profile = cms.cmsOpenProfileFromMem(bytes, bytes.length);
  const lab = cms.cmsCreateLab4Profile();
  const run = (from: number, to: number, formats: [number, number], intent: number, pixels: number[]) => {
    const transform = cms.cmsCreateTransform(from, formats[0], to, formats[1], intent, cmsFLAGS_NOCACHE);
    expect(transform).not.toBe(0);
    const out = Array.from(cms.cmsDoTransform(transform, Float32Array.from(pixels), pixels.length / 3));
    return Array.from({ length: out.length / 3 }, (_, i) => asThree(out.slice(i * 3, i * 3 + 3)));
  };
  return {
    toDevice: (labs: readonly Lab[], intent = 1) => run(lab, profile, [LAB, RGB], intent, labs.flat()),
    toLab: (rgbs: readonly Rgb[], intent = 1) => run(profile, lab, [RGB, LAB], intent, rgbs.flat()),
  };
}

const json = <T>(text: string) => JSON.parse(text) as T;
interface Written {
  patches: number;
  stated: Record<'all' | 'pictures', { mean: number; p95: number }>;
  joined: string[];
  leftOut: unknown[];
  questioned: unknown[];
  file: string;
}

describe.each(['2', '4'])('a profile of version %s from the shell', (version) => {
  const file = join(folder, `baryta-v${version}.icc`);

  it('is written, and says the model’s own error', () => {
    const done = shell('profile', ...readings, '--out', file, '--icc', version, '--json');
    expect(done.err).toEqual([]);
    expect(done.code).toBe(0);
    const said = json<Written>(done.out);
    expect(said).toMatchObject({ patches: 900, joined: readings, leftOut: [], questioned: [], file });
    expect(said.stated.all.mean).toBeLessThan(0.4);
    expect(said.stated.pictures.mean).toBeLessThan(0.8);
  });

  it('a print through it lands on its aims: mean 1.0, 95 % within 2.0, greys within 0.8 ΔC*, L* without a fall in 255 steps (LittleCMS)', async () => {
    const profile = await opened(file);
    const random = seededRandom(5);
    const relative = relativeToWhite(real([1, 1, 1]));
    const aims = Array.from({ length: 500 }, () => relative(real([random(), random(), random()])));
    const landed = profile.toDevice(aims).map((rgb) => relative(real(rgb)));
    const off = summarise(aims.map((aim, i) => deltaE2000(aim, landed[i])));
    expect(off.mean).toBeLessThan(1);
    expect(off.p95).toBeLessThan(2);
    const black = relative(real([0, 0, 0]))[0];
    const greys = Array.from({ length: 256 }, (_, i): Lab => [black + ((100 - black) * i) / 255, 0, 0]);
    const printed = profile.toDevice(greys).map((rgb) => relative(real(rgb)));
    expect(Math.max(...printed.map(([, a, b]) => Math.hypot(a, b)))).toBeLessThan(0.8);
    expect(printed.every((lab, i) => i === 0 || lab[0] >= printed[i - 1][0])).toBe(true);
    // There and back, within the gamut.
    const back = profile.toLab(profile.toDevice(aims));
    expect(summarise(aims.map((aim, i) => deltaE2000(aim, back[i]))).mean).toBeLessThan(0.5);
  });

  it('LittleCMS takes every rendering, and agrees with our own evaluation to 0.1 ΔE00', async () => {
    const profile = await opened(file);
    const read = readProfile(readFileSync(file));
    const random = seededRandom(6);
    const labs = Array.from({ length: 200 }, (): Lab => [random() * 100, random() * 120 - 60, random() * 120 - 60]);
    const [toLab, back] = [readLut16(read, 'A2B1'), readLut16(read, 'B2A1')];
    const ours = labs.map((lab) => asThree(throughLut16(back, encodeLab16(...lab), 'Lab').map((v) => v / 65535)));
    const theirs = profile.toDevice(labs);
    const shown = (rgb: Rgb) =>
      throughLut16(
        toLab,
        rgb.map((v) => v * 65535),
      );
    const decoded = (v: number[]): Lab => [v[0] / 652.8, v[1] / 256 - 128, v[2] / 256 - 128];
    labs.forEach((_, i) => expect(deltaE2000(decoded(shown(ours[i])), decoded(shown(theirs[i])))).toBeLessThan(0.1));
    const rgbs = ours.slice(0, 100);
    profile.toLab(rgbs).forEach((lab, i) => expect(deltaE2000(lab, decoded(shown(rgbs[i])))).toBeLessThan(0.1));
    for (const intent of [0, 1, 2, 3])
      expect(profile.toDevice([[50, 10, 10]], intent)[0].every((v) => v > 0 && v < 1)).toBe(true);
  });

  it('one of version 4 carries its number, MD5 of what counts of it; tificc (Debian liblcms2-utils) separates a picture by it', async () => {
    const bytes = readFileSync(file);
    const counted = Buffer.from(bytes);
    for (const [from, to] of [
      [44, 48],
      [64, 68],
      [84, 100],
    ])
      counted.fill(0, from, to);
    const number = bytes[8] < 4 ? '0'.repeat(32) : createHash('md5').update(counted).digest('hex');
    expect(bytes.subarray(84, 100).toString('hex')).toBe(number);
    const [from, to] = [join(folder, 'plain.tif'), join(folder, 'sent.tif')];
    await sharp({ create: { width: 16, height: 16, channels: 3, background: '#6080a0' } })
      .tiff({ compression: 'none' })
      .toFile(from);
    execFileSync(TIFICC, [`-o${file}`, '-t1', from, to]);
    const sent = await sharp(to, { ignoreIcc: true }).raw().toBuffer();
    const [lab] = (await opened(file)).toLab([[sent[0] / 255, sent[1] / 255, sent[2] / 255]]);
    expect(lab[0]).toBeGreaterThan(45);
    expect(lab[0]).toBeLessThan(60);
    expect(lab[2]).toBeLessThan(-10);
  });

  it('transicc (Debian liblcms2-utils) and libvips take it', async () => {
    const out = execFileSync(TRANSICC, ['-i*Lab', `-o${file}`, '-t1', '-n'], { input: '60 0 0\n', encoding: 'utf8' });
    expect(out).toMatch(/\d/);
    const pixel = sharp({ create: { width: 8, height: 8, channels: 3, background: '#808080' } });
    const tiff = await pixel.withIccProfile(file).tiff().toBuffer();
    expect((await sharp(tiff).metadata()).icc!.length).toBe(readFileSync(file).length);
  });
});

describe('for a lamp', () => {
  it('the profile carries that lamp’s white', () => {
    const file = join(folder, 'warm.icc');
    expect(shell('profile', ...readings, '--out', file, '--light', 'led-warm').code).toBe(0);
    const { tags } = readProfile(readFileSync(file));
    const chad = new DataView(tags.get('chad')!.slice().buffer).getInt32(8) / 65536;
    expect(Math.abs(chad - 1)).toBeGreaterThan(0.02);
  });
});

describe('check of a profile', () => {
  const random = seededRandom(77);
  const sent: Rgb[] = [
    ...Array.from({ length: 30 }, (): Rgb => [random(), random(), random()]),
    ...Array.from({ length: 12 }, (_, i): Rgb => [i / 11, i / 11, i / 11]),
  ];
  const read = (of: keyof typeof SHEETS, condition: 'M1' | 'M2' = 'M1') =>
    readChart(
      SHEETS[of],
      sent.map((rgb, i) => ({ id: `S${i + 1}`, rgb })),
      condition,
      21,
    );
  const strip = (of: keyof typeof SHEETS) => written(`${of}-strip.txt`, read(of));
  interface Checked {
    mean: number;
    p95: number;
    max: number;
    greys: { maxDeltaC: number; maxDeltaL: number; monotone: boolean } | null;
    verdict: string;
    recognised: { clear: boolean; causes: { mistake: string }[]; sentence: string } | null;
    off: string[];
  }

  it('passes on the sheet it was made for, and not on another', () => {
    const profile = join(folder, 'baryta-v2.icc');
    const own = json<Checked>(shell('check', profile, strip('baryta'), '--json').out);
    expect(own.mean).toBeLessThan(0.6);
    expect(own.greys!.monotone).toBe(true);
    expect(own.verdict).toBe('passes');
    const other = json<Checked>(shell('check', profile, strip('uncoated'), '--json').out);
    expect(other.mean).toBeGreaterThan(4);
    expect(other.verdict).toMatch(/^A profile of your own would be visible/);
  });

  it('holds nothing against what was promised in another lamp, or from another measurement condition', () => {
    const warm = shell('check', join(folder, 'warm.icc'), strip('baryta'));
    expect(warm).toMatchObject({ code: 1, out: '' });
    expect(warm.err[0]).toMatch(/made for another light than D50/);
    // Nearly as white as D50, and still another light.
    const uvFree = join(folder, 'uv-free.icc');
    expect(shell('profile', ...readings, '--out', uvFree, '--light', 'D50-no-uv', '--grid', '17').code).toBe(0);
    expect(shell('check', uvFree, strip('baryta'))).toMatchObject({ code: 1, out: '' });
    const dark = shell('check', join(folder, 'baryta-v2.icc'), written('dark.txt', read('baryta', 'M2')));
    expect(dark).toMatchObject({ code: 1, out: '' });
    expect(dark.err[0]).toMatch(/built from M1; these readings are M2/);
    const { condition: _, ...silent } = read('baryta');
    const held = json<Checked>(
      shell('check', join(folder, 'baryta-v2.icc'), written('silent.txt', silent), '--json').out,
    );
    expect(held.off[0]).toMatch(/do not say their measurement condition, and .* was built from M1/);
  });

  it('tells a strip that was read before it had dried from one that was not', () => {
    const profile = join(folder, 'baryta-v2.icc');
    const dry = read('baryta');
    const white = dry.patches.reduce((p, q) => (q.lab[0] > p.lab[0] ? q : p)).lab;
    const labs = whileWet(
      dry.patches.map((p) => p.lab),
      white,
    );
    const { spectralGrid: _, ...told } = dry;
    const wet: Reading = {
      ...told,
      patches: dry.patches.map(({ reflectance: __, ...p }, i) => ({ ...p, lab: labs[i], xyz: labToXyz(labs[i]) })),
    };
    const cause = (file: string) => json<Checked>(shell('check', profile, file, '--json').out).recognised!;
    expect(cause(strip('baryta'))).toMatchObject({ clear: true });
    expect(cause(strip('baryta')).causes.map((c) => c.mistake)).toEqual(
      expect.arrayContaining(['no profile', 'black and white', 'missing ink', 'black ink', 'turned', 'shifted', 'wet']),
    );
    expect(cause(strip('baryta')).causes[0].mistake).toBe('as intended');
    const found = cause(written('wet.txt', wet));
    expect([found.clear, found.causes[0].mistake]).toEqual([true, 'wet']);
    expect(shell('check', profile, join(folder, 'wet.txt')).out).toContain(found.sentence);
  });
});

it('a profile damaged in a tag is refused by the name of the tag', () => {
  const bytes = readFileSync(join(folder, 'baryta-v2.icc'));
  const tags = bytes.readUInt32BE(128);
  const entry = Array.from({ length: tags }, (_, i) => 132 + i * 12).find(
    (at) => bytes.toString('latin1', at, at + 4) === 'B2A1',
  )!;
  bytes.writeUInt32BE(40, entry + 8);
  const broken = join(folder, 'broken.icc');
  writeFileSync(broken, bytes);
  const done = shell('check', broken, readings[0]);
  expect(done.code).toBe(1);
  expect(done.err[0]).toMatch(/broken\.icc.*tag “B2A1” is shorter than it says/);
});

describe('what can’t be used is said in one line', () => {
  const fogra = fileURLToPath(fixture('fogra39l.cgats.txt'));
  const few = written('few.txt', {
    ...readChart(sheet, scatteredChart(60), 'M1', 1),
    patches: readChart(sheet, scatteredChart(60), 'M1', 1).patches.slice(0, 12),
  });
  it.each([
    ['four inks', 'profile', [fogra, '--out', join(folder, 'x.icc')], /driven in RGB/],
    ['too few patches', 'profile', [few, '--out', join(folder, 'x.icc')], /needs at least 24/],
    ['no such file', 'profile', [join(folder, 'none.txt'), '--out', join(folder, 'x.icc')], /can’t be opened/],
    [
      'no place to write',
      'profile',
      [readings[0], '--grid', '17', '--out', join(folder, 'no', 'x.icc')],
      /can’t be written/,
    ],
    [
      'an unknown light',
      'profile',
      [readings[0], '--out', join(folder, 'x.icc'), '--light', 'moon'],
      /--light is one of/,
    ],
    ['a strip as a profile', 'check', [few, few], /not an ICC profile/],
    ['other inks', 'check', [join(folder, 'baryta-v2.icc'), fogra], /readings are of CMYK values/],
  ] as const)('%s', (_, command, args, words) => {
    const done = shell(command, ...args);
    expect(done.code).toBe(1);
    expect(done.err).toHaveLength(1);
    expect(done.err[0]).toMatch(words);
  });
});
