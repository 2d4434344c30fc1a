import { localGain } from '../picture/local-gain.ts';
import { changeOf } from './recipe-on-sheet.ts';
import { PLAIN } from './recipe.ts';

describe('what a recipe changes of a picture', () => {
  const grey = { count: 2, data: Float32Array.of(20, 0, 0, 0.25, 60, 0, 0, 0.75) };
  it('nothing where nothing is done; a turn of chroma none of a grey', () => {
    expect(changeOf(grey, PLAIN)).toBe(0);
    expect(changeOf(grey, { ...PLAIN, saturation: 0.3 })).toBeCloseTo(0, 6);
  });
  it('each colour by its share: shadows opened move the dark quarter alone', () => {
    const whole = { count: 1, data: Float32Array.of(20, 0, 0, 1) };
    const opened = { ...PLAIN, shadows: 0.5 };
    expect(changeOf(whole, opened)).toBeGreaterThan(1);
    expect(changeOf(grey, opened)).toBeCloseTo(changeOf(whole, opened) / 4, 5);
  });
});

describe('what local contrast gives back', () => {
  const soft = { sdL: 1, byTone: [0, 0, 0, 0, 0, 0, 0, 1, 0] };
  const broad = (mm: number, of: Parameters<typeof localGain>[2]) =>
    localGain({ localFine: 0, localBroad: 0.4 }, mm, of);
  it('is nothing without it, and falls with the size beyond its scale', () => {
    expect(localGain(PLAIN, 5, soft)).toBe(1);
    expect(broad(3, soft)).toBeGreaterThan(broad(12, soft));
    expect(broad(12, soft)).toBeGreaterThan(broad(60, soft));
    expect(broad(60, soft)).toBeLessThan(1.03);
    expect(broad(1, soft)).toBeLessThan(1.4);
  });
  it('leaves edges, and tones near black', () => {
    expect(broad(3, { ...soft, sdL: 20 })).toBeLessThan(1.05);
    expect(broad(3, { sdL: 1, byTone: [1, 0, 0, 0, 0, 0, 0, 0, 0] })).toBeLessThan(1.05);
  });
});
