import { readingFromCgats } from '@rakuen/core/formats/reading-from-cgats';
import { gamutOfReading } from '@rakuen/core/measurement/gamut-of-reading';
import { groupPatches } from '@rakuen/core/measurement/repeats';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import { PictureTally } from '@rakuen/core/picture/tally';
import { COATING_CLASSES } from '@rakuen/core/paper';
import { SCENES, type SceneName } from './pictures/draw.ts';
import { CONDITIONS, demoReadings, PAPERS } from './studio.ts';

describe('the invented studio', () => {
  it('spans the trade: gloss classes, matt, cotton, metallic, uncoated', () => {
    expect(new Set(PAPERS.map((p) => p.coating)).size).toBeGreaterThanOrEqual(6);
    expect(new Set(PAPERS.map((p) => p.name)).size).toBe(PAPERS.length);
  });

  it('every paper is printed, with the black ink its class takes', () => {
    for (const paper of PAPERS) {
      const conditions = CONDITIONS.filter((c) => c.paper === paper.key);
      expect(conditions.length).toBeGreaterThan(0);
      for (const c of conditions.filter((x) => !x.inkSet.includes('dye'))) expect(c.blackInk).toBe(`${COATING_CLASSES[paper.coating].blackInk} black`);
    }
  });

  it('readings are CGATS files that our own reader takes, the same every time, with and without UV', () => {
    const [m1, m2] = demoReadings(CONDITIONS[0], 1);
    expect(demoReadings(CONDITIONS[0], 1)[0].text).toBe(m1.text);
    expect(demoReadings(CONDITIONS[0], 2)[0].text).not.toBe(m1.text);
    for (const [file, uv] of [[m1, 'M1'], [m2, 'M2']] as const) {
      const { reading, missing } = readingFromCgats(new TextEncoder().encode(file.text));
      expect(reading).toMatchObject({ condition: uv, deviceSpace: 'RGB', colourFrom: 'spectrum', backing: 'white' });
      expect(missing).toEqual([]);
      expect(gamutOfReading(reading, groupPatches(reading)).method).toBe('device surface');
    }
  });
});

describe('pictures drawn by code', () => {
  const read = (name: SceneName) => {
    const [w, h] = [150, 100];
    const scene = SCENES[name](w, h);
    const tally = new PictureTally();
    const lab = new Float32Array(w * h * 3);
    for (let i = 0; i < w * h; i++) {
      const rgb = scene.shade(((i % w) + 0.5) / h, (Math.floor(i / w) + 0.5) / h);
      lab.set(rgbToLab(SRGB, rgb.map((v) => SRGB.encode(Math.min(1, Math.max(0, v)))) as unknown as [number, number, number]), i * 3);
    }
    expect(lab.every(Number.isFinite)).toBe(true);
    tally.add(lab);
    return tally.finish().figures;
  };

  it('the dish is low key, the salt crust high key, the control room saturated', () => {
    expect(read('nightDish')).toMatchObject({ key: 'low key' });
    expect(read('nightDish').nearBlackShare).toBeGreaterThan(0.4);
    expect(read('saltCrust')).toMatchObject({ key: 'high key' });
    expect(read('controlRoom').saturatedShare).toBeGreaterThan(0.3);
  });

  it('are the same every time', () => {
    for (const name of Object.keys(SCENES) as SceneName[]) expect(SCENES[name](60, 40).shade(0.7, 0.3)).toEqual(SCENES[name](60, 40).shade(0.7, 0.3));
  });
});
