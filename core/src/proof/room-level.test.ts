import { roomLevel } from './room-level.ts';

describe('how bright a sheet is in a room', () => {
  it('a white of 0.9 under 500 lx has 143 cd/m²; a screen of 100 shows it as bright as it can', () => {
    const { paperCdM2, dim, darker } = roomLevel(0.9, 500, 100);
    expect(paperCdM2).toBeCloseTo((0.9 * 500) / Math.PI, 9);
    expect(dim).toBe(1);
    expect(darker).toBe(true);
  });
  it('under 50 lx it is shown at what it has there', () => {
    const { paperCdM2, dim, darker } = roomLevel(0.9, 50, 100);
    expect(dim * 0.9 * 100).toBeCloseTo(paperCdM2, 9);
    expect(darker).toBe(false);
  });
  it.each([
    [0, 100],
    [100, 0],
    [Number.NaN, 100],
  ])('%d lx on %d cd/m² is no room', (lux, screen) => expect(() => roomLevel(0.9, lux, screen)).toThrow(RangeError));
});
