import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { validateXML } from 'xmllint-wasm';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import type { Lab } from '@rakuen/core/colour/types';
import { designChart } from '@rakuen/core/chart/chart-design';
import { writeChartReference } from '@rakuen/core/chart/chart-reference';
import { readingFromCgats } from '@rakuen/core/formats/reading-from-cgats';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { writeCxf } from '@rakuen/core/formats/cxf-write';
import type { Reading } from '@rakuen/core/measurement/reading';
import { surfaceChart } from '@rakuen/core/simulation/chart';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn } from '@rakuen/core/simulation/stand-in';
import { fixture } from './rakuen.ts';

/** LittleCMS's own program, from Debian's liblcms2-utils. */
const TRANSICC = process.env.TRANSICC ?? '/usr/bin/transicc';
const SCHEMA = readFileSync(new URL('../../core/test/cxf3-subset.xsd', import.meta.url), 'utf8');

const press = standIn({
  coating: 'cotton',
  surface: 'smooth',
  brightenerClaim: 'moderate',
  weightGsm: 300,
  thicknessUm: 400,
  blackInk: 'matt black',
  mediaSetting: 'Fine art matt',
  printMode: 'colour through a profile',
  blackOvercoat: false,
});
const [m1, m0, m2] = (['M1', 'M0', 'M2'] as const).map((light, i): Reading => ({
  ...readChart(press, surfaceChart(3, 9, 2), light, i),
  instrument: 'Bench & sons',
  createdAt: '2026-11-24T10:00:00Z',
  description: 'Words with “quotes” & <brackets>',
}));

describe('what we write, others read', () => {
  let folder: string;
  beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'rakuen-accepted-'))));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));

  /** Device values of a CGATS file, taken by LittleCMS through the sRGB profile to L*a*b*. */
  function throughLittleCms(cgats: string): Map<string, Lab> {
    const [from, to] = [join(folder, 'in.txt'), join(folder, 'out.txt')];
    writeFileSync(from, cgats);
    execFileSync(TRANSICC, ['-i', fileURLToPath(fixture('sRGB.icc')), '-o', '*Lab', '-t', '1', from, to], {
      stdio: 'pipe',
    });
    const { reading } = readingFromCgats(readFileSync(to));
    return new Map(reading.patches.map((p) => [p.id, p.lab]));
  }

  it.each([
    ['a reading as CGATS', writeCgats(m1), m1.patches.map((p) => [p.id, p.device!] as const)],
    [
      'a chart’s reference',
      writeChartReference(
        designChart({ purpose: 'neutral', patches: 150, sheet: 'A4', patchMm: 8, dpi: 300, seed: 9 }),
      ),
      designChart({ purpose: 'neutral', patches: 150, sheet: 'A4', patchMm: 8, dpi: 300, seed: 9 }).strips.flatMap(
        (s) => s.patches.map((p) => [p.id, p.rgb16.map((v) => v / 65_535)] as const),
      ),
    ],
  ])('LittleCMS takes %s and finds every device value in it', (_, cgats, devices) => {
    const labs = throughLittleCms(cgats);
    expect(labs.size).toBe(devices.length);
    for (const [id, device] of devices)
      expect(deltaE2000(labs.get(id)!, rgbToLab(SRGB, device as [number, number, number]))).toBeLessThan(0.1);
  });

  const validate = (text: string) =>
    validateXML({ xml: [{ fileName: 'reading.cxf', contents: text }], schema: [SCHEMA] });

  it('a schema-aware XML parser takes one reading and three, with spectra and without', async () => {
    const { spectralGrid: _, ...plain } = m1;
    const withoutSpectra = { ...plain, patches: plain.patches.map(({ reflectance: _r, ...p }) => p) };
    for (const text of [writeCxf(m1), writeCxf(m1, m0, m2), writeCxf(withoutSpectra)])
      expect(await validate(text)).toMatchObject({ valid: true, errors: [] });
  });

  it('and would say so if it were otherwise', async () => {
    const { valid, errors } = await validate(writeCxf(m1).replace('<cc:L>', '<cc:L>about '));
    expect(valid).toBe(false);
    expect(errors[0].message).toContain('about');
  });
});
