import type { PictureView } from '@rakuen/contract/pictures';
import type { Mark } from '@rakuen/core/picture/marks';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import { jest } from '@jest/globals';
import { partly } from '../../test/partly.ts';
import { LAB_UNITS, type LabImage, labImage, localBaseOf, sampleAt } from './lab-image.ts';
import { asksFor, noteOf, resolutionOf } from './picture-words.ts';

const FIGURES = partly<PictureFigures>({
  key: 'low key',
  contrast: 'high',
  colour: 'colour',
  nearBlackShare: 0.2,
  saturatedShare: 0,
  meanChroma: 8,
  accents: [],
  deepestL: 4.2,
  highestL: 93,
  structure: { smoothShare: 0, busyShare: 0, shadowDetailShare: 0, shallowFocus: false, subject: { key: 'low key' } },
});
type Structure = NonNullable<PictureFigures['structure']>;
const asks = (over: Partial<PictureFigures> = {}, structure: Partial<Structure> = {}) =>
  asksFor({
    figures: { ...FIGURES, ...over, structure: { ...FIGURES.structure!, ...structure } },
  } as PictureView).replaceAll(/[\u2009\u202f\u00a0]/g, ' ');

describe('what a picture asks for, in words', () => {
  it('its key, its contrast, its colour, its black; and its greys where nothing else stands out', () =>
    expect(asks()).toBe('Low key, high contrast, muted colour; 20 % of it near black. Its greys run from L* 4 to 93.'));

  it('a picture without black is not said to have some', () =>
    expect(asks({ nearBlackShare: 0.01 })).toContain('; no true black to speak of.'));

  it('a small strong colour is named before it is called muted', () => {
    const accents = [{ name: 'reds', share: 0.01, topChroma: 60 }];
    expect(asks({ accents })).toContain('muted colour with a small strong red;');
    expect(asks({ accents, saturatedShare: 0.2 })).toContain('saturated colour;');
  });

  it('black and white has no colour', () => {
    expect(asks({ colour: 'black and white' } as Partial<PictureFigures>)).toContain('black and white;');
    expect(asks({ colour: 'black and white' } as Partial<PictureFigures>)).not.toContain('muted');
  });

  it('two things that stand out are said, and no more', () => {
    const words = asks({}, { smoothShare: 0.5, busyShare: 0.3, shadowDetailShare: 0.2, shallowFocus: true });
    expect(words).toContain('50 % is plain, where a texture would show; 30 % is busy detail.');
    expect(words).not.toContain('focus');
  });

  it('a subject of another key than the whole stands on its ground', () => {
    const ground = partly<Structure['ground']>({ lab: [92, 0, 0] });
    const subject = { key: 'low key' } as Structure['subject'];
    expect(asks({ key: 'high key' }, { ground, subject })).toMatch(/^Low key on a ground of L\* 92, /);
  });

  it('a picture whose structure an earlier version did not tell is told without it', () =>
    expect(asksFor({ figures: { ...FIGURES, structure: undefined } } as PictureView)).toMatch(/near black\. $/));
});

describe('a note to a mark', () => {
  const mark = (kind: Mark['kind'], detailL = 2): Mark => ({ kind, x: 0, y: 0, lab: [12, 3, 4], detailL });

  it('every kind has a name of its own, and tells its lightness', () => {
    const kinds: Mark['kind'][] = ['shadow', 'light', 'colour', 'smooth', 'fine', 'skin', 'own'];
    const notes = kinds.map((k) => noteOf(mark(k)));
    expect(new Set(notes.map((n) => n.name)).size).toBe(kinds.length);
    for (const { figures } of notes) expect(figures).toContain('L* 12.0');
  });

  it('a light in which nothing is drawn is bare', () => {
    expect(noteOf(mark('light', 0.2)).figures).toMatch(/, bare$/);
    expect(noteOf(mark('light', 1.4)).figures).toMatch(/1\.4 L\* drawn in it$/);
  });

  it('a colour tells how strong it is: √(3² + 4²)', () => expect(noteOf(mark('colour')).figures).toMatch(/C\* 5$/));
});

describe('resolution at the size of the print', () => {
  const at = (widthPx: number, longSideMm: number, viewingMm: number) =>
    resolutionOf({ widthPx, heightPx: widthPx / 2, commission: { longSideMm, viewingMm } } as PictureView);

  it('is pixels by inches of the longer side', () => {
    expect(at(6000, 508, 600).ppi).toBeCloseTo(300, 6);
    expect(
      resolutionOf({ widthPx: 10, heightPx: 600, commission: { longSideMm: 25.4, viewingMm: 1 } } as PictureView).ppi,
    ).toBe(600);
  });

  it('in the hand 300 are enough; from afar what an eye parts there is', () => {
    expect(at(6000, 508, 200).words).toBe('enough in the hand');
    // From 60 cm a minute of arc is 0.175 mm: 145.5 ppi.
    expect(at(3000, 508, 600).words).toBe('enough from 60 cm');
    expect(at(2000, 508, 600).words).toBe('too little from 60 cm; enough from 87 cm on');
  });

  it('what is said to be enough from further off is enough there', () => {
    const { words } = at(2000, 508, 600);
    const cm = Number(/enough from (\d+) cm on/.exec(words)![1]);
    expect(at(2000, 508, (cm + 1) * 10).words).toMatch(/^enough/);
  });
});

/** A picture of a grey ramp from left to right, and one warm spot. */
function ramp(widthPx = 40, heightPx = 20): LabImage {
  const lab = new Int16Array(widthPx * heightPx * 3);
  for (let i = 0; i < widthPx * heightPx; i++) lab[i * 3] = ((i % widthPx) / (widthPx - 1)) * 100 * LAB_UNITS;
  return { widthPx, heightPx, lab };
}

describe('a picture as Lab', () => {
  it('about a place: the mean of what is there, and how much is drawn in it', () => {
    const image = ramp();
    const middle = sampleAt(image, 0.5, 0.5);
    expect(middle.lab[0]).toBeCloseTo(51.3, 0);
    expect(middle.lab[1]).toBe(0);
    expect(middle.detailL).toBeGreaterThan(2);
    const flat = { ...image, lab: image.lab.map((_, i) => (i % 3 === 0 ? 40 * LAB_UNITS : 0)) };
    expect(sampleAt(flat, 0, 1)).toEqual({ lab: [40, 0, 0], detailL: 0 });
  });

  it('what lies under its local contrast is computed once for a size, and anew for another', () => {
    const image = ramp();
    const first = localBaseOf(image, 300);
    expect(localBaseOf(image, 300)).toBe(first);
    expect(localBaseOf(image, 600)).not.toBe(first);
  });

  it('is fetched once; a fetch that failed is not remembered', async () => {
    const bytes = new ArrayBuffer(8 + 2 * 1 * 6);
    const head = new DataView(bytes);
    head.setUint32(0, 2, true);
    head.setUint32(4, 1, true);
    new Int16Array(bytes, 8).set([250, 0, 0, 25_000, 500, -500]);
    let fails = true;
    const fetched = jest.fn(async () => (fails ? new Response('', { status: 500 }) : new Response(bytes)));
    Object.assign(globalThis, { fetch: fetched });
    await expect(labImage('p')).rejects.toThrow('could not be fetched');
    fails = false;
    const [image, again] = await Promise.all([labImage('p'), labImage('p')]);
    expect(again).toBe(image);
    expect([image.widthPx, image.heightPx, [...image.lab]]).toEqual([2, 1, [250, 0, 0, 25_000, 500, -500]]);
    expect(fetched).toHaveBeenCalledTimes(2);
    await labImage('p', { x: 0, y: 0, width: 0.5, height: 0.5 });
    expect(fetched).toHaveBeenCalledTimes(3);
  });
});
