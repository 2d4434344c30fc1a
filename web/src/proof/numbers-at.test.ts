import { chromaKeptWords } from './numbers-at.ts';

describe('chroma and hue under the pointer', () => {
  it('are said as they are in the file and as they are printed', () => {
    // C* 15 at 270°; printed 9 at 279°.
    const printed = [20, 9 * Math.cos((279 * Math.PI) / 180), 9 * Math.sin((279 * Math.PI) / 180)] as const;
    expect(chromaKeptWords([12, 0, -15], printed)).toBe('chroma 15 to 9, 60\u00a0% kept, hue +9°');
  });
  it('turn the short way round', () => {
    const at = (deg: number) =>
      [50, 30 * Math.cos((deg * Math.PI) / 180), 30 * Math.sin((deg * Math.PI) / 180)] as const;
    expect(chromaKeptWords(at(-178), at(179))).toBe('chroma 30 to 30, 100\u00a0% kept, hue −3°');
    expect(chromaKeptWords(at(176), at(-176))).toBe('chroma 30 to 30, 100\u00a0% kept, hue +8°');
  });
  it('a grey has none to keep', () => expect(chromaKeptWords([50, 1, 0], [50, 0, 0])).toBe(''));
});
