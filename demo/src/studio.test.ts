import { mapThree } from '@rakuen/core/colour/three';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import { gamutOfReading } from '@rakuen/core/measurement/gamut-of-reading';
import { readingFacts } from '@rakuen/core/measurement/reading-facts';
import { groupPatches } from '@rakuen/core/measurement/repeats';
import { rgbToLab, SRGB } from '@rakuen/core/colour/rgb-space';
import { PictureTally } from '@rakuen/core/picture/tally';
import { COATING_CLASSES } from '@rakuen/core/paper';
import { SCENES, type SceneName } from './pictures/draw.ts';
import { CONDITIONS, demoReadings, FIRST_BOXES, LATER_BOX, PAPERS } from './studio.ts';

describe('the invented studio', () => {
  it('spans the trade: every class of coating, two barytas and two rags; two printers, three ink sets', () => {
    expect(new Set(PAPERS.map((p) => p.coating))).toEqual(new Set(Object.keys(COATING_CLASSES)));
    expect(PAPERS.filter((p) => p.coating === 'baryta').map((p) => p.brightenerClaim)).toEqual(['none', 'moderate']);
    expect(PAPERS.filter((p) => p.coating === 'cotton').map((p) => p.surface)).toEqual(['smooth', 'textured']);
    expect(PAPERS).toHaveLength(10);
    expect(new Set(CONDITIONS.map((c) => c.printer)).size).toBe(2);
    expect(new Set(CONDITIONS.map((c) => c.inkSet)).size).toBe(3);
    expect(new Set(PAPERS.map((p) => p.name)).size).toBe(PAPERS.length);
  });

  it('every paper is printed, with the black ink its class takes', () => {
    for (const paper of PAPERS) {
      const conditions = CONDITIONS.filter((c) => c.paper === paper.key);
      expect(conditions.length).toBeGreaterThan(0);
      for (const c of conditions.filter((x) => !x.inkSet.includes('dye')))
        expect(c.blackInk).toBe(`${COATING_CLASSES[paper.coating].blackInk} black`);
    }
  });

  it('readings are CxF3 files that our own reader takes, the same every time, in three measurement conditions', () => {
    const read = (condition: (typeof CONDITIONS)[number], seed: number) =>
      demoReadings(condition, condition.press, FIRST_BOXES.createdAt, seed).text;
    expect(read(CONDITIONS[0], 1)).toBe(read(CONDITIONS[0], 1));
    expect(read(CONDITIONS[0], 2)).not.toBe(read(CONDITIONS[0], 1));
    const parts = readingsFromFile(new TextEncoder().encode(read(CONDITIONS[0], 1)));
    expect(parts.map((p) => p.reading.condition)).toEqual(['M1', 'M0', 'M2']);
    for (const { reading, missing } of parts) {
      expect(reading).toMatchObject({
        deviceSpace: 'RGB',
        colourFrom: 'spectrum',
        backing: 'white',
        createdAt: FIRST_BOXES.createdAt,
      });
      expect(missing).toEqual([]);
      expect(gamutOfReading(reading, groupPatches(reading)).method).toBe('device surface');
    }
  });

  it('a print in greys alone encloses no gamut, and says so', () => {
    const greys = CONDITIONS.find((c) => c.printMode === 'driver black-and-white')!;
    const [{ reading }] = readingsFromFile(
      new TextEncoder().encode(demoReadings(greys, greys.press, FIRST_BOXES.createdAt, 3).text),
    );
    expect(() => gamutOfReading(reading, groupPatches(reading))).toThrow(/greys alone/);
  });

  it('the later box is another sheet under the same name: whiter with UV by sight, not by noise', () => {
    const { press, createdAt, condition } = LATER_BOX;
    const whiteOf = (p: typeof press, at: string) => {
      const facts = readingFacts(
        readingsFromFile(new TextEncoder().encode(demoReadings(CONDITIONS[condition], p, at, 5).text))[0].reading,
      );
      return facts.white.lab;
    };
    expect(
      deltaE2000(whiteOf(press, createdAt), whiteOf(CONDITIONS[condition].press, FIRST_BOXES.createdAt)),
    ).toBeGreaterThan(1);
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
      lab.set(
        rgbToLab(
          SRGB,
          mapThree(rgb, (v) => SRGB.encode(Math.min(1, Math.max(0, v)))),
        ),
        i * 3,
      );
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
    for (const name of Object.keys(SCENES) as SceneName[])
      expect(SCENES[name](60, 40).shade(0.7, 0.3)).toEqual(SCENES[name](60, 40).shade(0.7, 0.3));
  });
});
