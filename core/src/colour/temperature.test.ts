import { ILLUMINANTS } from './illuminant.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { blackbody, colourTemperature, daylightXy, lightXyz } from './temperature.ts';
import type { Xyz } from './types.ts';

const xy = ([X, Y, Z]: Xyz) => [X / (X + Y + Z), Y / (X + Y + Z)];

describe('the lines of whites', () => {
  it('a blackbody of 2856 K has the chromaticity of illuminant A: 0.44758, 0.40745 (CIE 15)', () => {
    const [x, y] = xy(lightXyz(blackbody(2856)));
    expect(Math.abs(x - 0.44758)).toBeLessThan(0.0005);
    expect(Math.abs(y - 0.40745)).toBeLessThan(0.0005);
  });

  it.each([
    ['D50', 5003, 0.34567, 0.3585],
    ['D65', 6504, 0.31272, 0.32903],
    ['D75', 7504, 0.29902, 0.31485],
  ])('daylight: %s, %d K, is x %d, y %d (CIE 15)', (_, kelvin, x, y) => {
    const [dx, dy] = daylightXy(kelvin);
    expect(Math.abs(dx - x)).toBeLessThan(0.0003);
    expect(Math.abs(dy - y)).toBeLessThan(0.0003);
  });

  it('the tables of D50 and D65 lie on the daylight line', () => {
    for (const [name, kelvin] of [
      ['D50', 5003],
      ['D65', 6504],
    ] as const) {
      const [x, y] = xy(lightXyz(ILLUMINANTS[name]));
      const [dx, dy] = daylightXy(kelvin);
      expect(Math.hypot(x - dx, y - dy)).toBeLessThan(0.0008);
    }
    expect(() => daylightXy(3000)).toThrow(RangeError);
  });
});

describe('colour temperature', () => {
  it.each([
    ['A', 2856, 8],
    ['D50', 5003, 15],
    ['D65', 6504, 25],
  ] as const)('of illuminant %s is %d K (CIE 15)', (name, kelvin, within) =>
    expect(Math.abs(colourTemperature(lightXyz(ILLUMINANTS[name]))!.kelvin - kelvin)).toBeLessThan(within),
  );

  it('of a blackbody is its temperature', () => {
    for (const kelvin of [2000, 3200, 5600, 9000])
      expect(Math.abs(colourTemperature(lightXyz(blackbody(kelvin)))!.kelvin / kelvin - 1)).toBeLessThan(0.002);
  });

  it('a green light has none', () => expect(colourTemperature([20, 60, 20])).toBeUndefined());

  it('warm lamps are warm and cool ones cool', () => {
    const of = (key: string) => colourTemperature(lightXyz(TABLE_LIGHTS.find((l) => l.key === key)!.power))!.kelvin;
    expect(of('led-warm')).toBeLessThan(3600);
    expect(of('led-cool')).toBeGreaterThan(4500);
    expect(of('museum')).toBeGreaterThan(2700);
    expect(of('museum')).toBeLessThan(6000);
  });

  it('no lamp that is sold as white is greener or pinker than 0.006 (practice)', () => {
    for (const { key, power } of TABLE_LIGHTS.filter((l) => l.source.startsWith('model'))) {
      const { duv } = colourTemperature(lightXyz(power))!;
      expect([key, Math.abs(duv) < 0.006]).toEqual([key, true]);
    }
  });
});
