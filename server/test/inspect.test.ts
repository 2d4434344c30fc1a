import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { labToXyz } from '@rakuen/core/colour/lab';
import { absoluteOnWhite } from '@rakuen/core/colour/relative';
import type { Lab } from '@rakuen/core/colour/types';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { readChart } from '@rakuen/core/simulation/instrument';
import { scatteredChart, SHEETS } from '../../core/test/sheets.ts';
import { cmykProfile } from './cmyk-profile.ts';
import { condition, fixture, start, temporaryFolder } from './rakuen.ts';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const path = (name: string) => fileURLToPath(fixture(name));

function inspect(...args: string[]) {
  const done = spawnSync('npm', ['run', '--silent', 'inspect', '--', ...args], { cwd: ROOT, encoding: 'utf8' });
  return {
    code: done.status,
    out: done.stdout,
    err: done.stderr.split('\n').filter((l) => l && !l.startsWith('npm warn')),
  };
}

type Seen = {
  kind: string;
  patches?: number;
  whiteLab: number[];
  blackLab: number[];
  dmax: number;
  dmin: number;
  gamutVolume: number;
  missing: string[];
};

describe('npm run inspect', () => {
  it('prints the figures of readings and profiles', () => {
    const { code, out } = inspect(path('fogra39l.cgats.txt'), path('sRGB.icc'));
    expect(code).toBe(0);
    expect(out).toMatch(/Patches\s+1617/);
    expect(out).toMatch(/White L\* a\* b\*\s+95\.0 {2}0\.0 {2}−2\.0/);
    expect(out).toMatch(/Missing\s+Measurement condition/);
    expect(out).toMatch(/Kind\s+ICC profile/);
  });

  it('sRGB 832 870 and Adobe RGB (1998) 1 208 631 cubic Lab units within 0.3 % from their profiles (Lindbloom, table of RGB working spaces)', () => {
    const { code, out } = inspect(
      '--json',
      path('sRGB.icc'),
      path('compatibleWithAdobeRGB1998.icc'),
      path('fogra39l.cgats.txt'),
    );
    expect(code).toBe(0);
    const [srgb, adobe, coated] = JSON.parse(out) as Seen[];
    expect(Math.abs(srgb.gamutVolume / 832_870 - 1)).toBeLessThan(0.003);
    expect(Math.abs(adobe.gamutVolume / 1_208_631 - 1)).toBeLessThan(0.003);
    expect(coated).toMatchObject({ kind: 'readings', patches: 1617, whiteLab: [95, 0, -2] });
    expect(srgb.whiteLab[0]).toBeCloseTo(100, 1);
  });

  it('reads a CMYK printer profile, white and black as an instrument would read them', () => {
    const white: Lab = [94, 0.5, 2];
    const ink = (c: number, m: number, y: number, k: number): Lab => {
      const light = (1 - 0.35 * c) * (1 - 0.4 * m) * (1 - 0.08 * y) * (1 - 0.92 * k);
      const colour = 1 - 0.9 * k;
      return [100 * light, colour * (68 * m - 36 * c), colour * (88 * y - 48 * c - 6 * m)];
    };
    const file = join(temporaryFolder(), 'press.icc');
    writeFileSync(file, cmykProfile(ink, labToXyz(white)));
    const { code, out, err } = inspect('--json', file);
    expect(err).toEqual([]);
    expect(code).toBe(0);
    const [seen] = JSON.parse(out) as Seen[];
    expect(seen.kind).toBe('ICC profile');
    seen.whiteLab.forEach((v, i) => expect(Math.abs(v - white[i])).toBeLessThan(0.15));
    const black = absoluteOnWhite(white)(ink(1, 1, 1, 1));
    expect(Math.abs(seen.blackLab[0] - black[0])).toBeLessThan(0.5);
    expect(seen.gamutVolume).toBeGreaterThan(100_000);
    expect(seen.gamutVolume).toBeLessThan(900_000);
    expect(seen.dmax).toBeGreaterThan(seen.dmin + 1);
  });

  it('and the application tell the same of one file, measure by measure: a table, spectra, several measurement conditions', async () => {
    const rakuen = await start();
    const both = join(temporaryFolder(), 'both.txt');
    const [m1, m2] = (['M1', 'M2'] as const).map((light) =>
      writeCgats(readChart(SHEETS.cotton, scatteredChart(200), light, 3)),
    );
    writeFileSync(both, m1);
    const files = [path('fogra39l.cgats.txt'), both];
    try {
      const told = JSON.parse(inspect('--json', ...files).out) as { figures: Record<string, object> }[];
      for (const [i, file] of files.entries()) {
        const id = await condition(rakuen, `Inspected ${i}`);
        const { body } = await rakuen.upload<{ facts: { figures: Record<string, object> } }>(
          `/api/conditions/${id}/readings`,
          'inspected.txt',
          readFileSync(file),
        );
        expect(body.facts.figures).toEqual(told[i].figures);
      }
      // A second set in the application is a second file: what the shell does not see, it does not tell.
      const id = await condition(rakuen, 'Two lights');
      await rakuen.upload(`/api/conditions/${id}/readings`, 'm1.txt', m1);
      const { body } = await rakuen.upload<{ facts: { figures: Record<string, { shape: string }> } }>(
        `/api/conditions/${id}/readings`,
        'm2.txt',
        m2,
      );
      expect(body.facts.figures.brightenerShift.shape).toBe('scalar');
      expect(body.facts.figures.brightenerShift).not.toHaveProperty('between');
      expect(told[1].figures.brightenerShift).toMatchObject({ between: [expect.any(Number), expect.any(Number)] });
    } finally {
      await rakuen.stop();
    }
  }, 240_000);

  it('a bad file: exit code 1 and one line naming file, line and fault; good files are printed all the same', () => {
    const bad = join(temporaryFolder(), 'bad.txt');
    writeFileSync(
      bad,
      'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n1 50 0 zero\nEND_DATA\n',
    );
    const { code, out, err } = inspect(bad, path('sRGB.icc'));
    expect(code).toBe(1);
    expect(err).toHaveLength(1);
    expect(err[0]).toMatch(/bad\.txt, line 6, column LAB_B: “zero” is not a number/);
    expect(out).toContain('ICC profile');
    const broken = join(temporaryFolder(), 'broken.icc');
    writeFileSync(broken, Buffer.concat([Buffer.alloc(36), Buffer.from('acsp'), Buffer.alloc(200, 7)]));
    expect(inspect(broken)).toMatchObject({ code: 1, err: [expect.stringContaining('broken.icc')] });
    expect(inspect('/nowhere/at/all.txt')).toMatchObject({
      code: 1,
      err: [expect.stringContaining('can’t be opened')],
    });
    expect(inspect()).toMatchObject({ code: 1 });
  });
});
