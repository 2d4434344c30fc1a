import Color from 'colorjs.io';
import { apply } from '../colour/matrix.ts';
import { SRGB } from '../colour/rgb-space.ts';
import type { Xyz } from '../colour/types.ts';
import { WHITE_D65, WHITE_ICC } from '../colour/white.ts';
import { TABLE_LIGHTS } from '../light/table-lights.ts';
import { lightXyz } from '../colour/temperature.ts';
import { besideScreen, isWhite, SCREEN_WHITES } from './screen-white.ts';

/** Illuminant A (CIE 15). */
const A: Xyz = [109.85, 100, 35.585];
const whiteOf = (screen: { x: number; y: number }, lamp: Xyz) =>
  apply(besideScreen(SRGB, screen, lamp).matrix, WHITE_ICC);

describe('a print beside a screen', () => {
  it('in light of the screen’s own white it is as it is alone', () => {
    for (const v of whiteOf(SCREEN_WHITES.D65, WHITE_D65)) expect(v).toBeCloseTo(1, 2);
    const d50: Xyz = [96.42, 100, 82.51];
    for (const v of whiteOf(SCREEN_WHITES.D50, d50)) expect(v).toBeCloseTo(1, 2);
  });

  it('in another light it has that light’s colour: a white in tungsten as sRGB has it without any settling', () => {
    const wanted = new Color('xyz-d65', A.map((v) => v / 100) as [number, number, number]).to('srgb-linear').coords;
    whiteOf(SCREEN_WHITES.D65, A).forEach((v, i) => expect(v).toBeCloseTo(wanted[i]!, 2));
  });

  it('is dimmed until its white fits, and no further', () => {
    const { matrix, fit, beyond } = besideScreen(SRGB, SCREEN_WHITES.D65, A);
    expect(fit).toBeLessThan(0.7);
    expect(Math.max(...apply(matrix, WHITE_ICC)) * fit).toBeCloseTo(1, 6);
    expect(beyond).toBe(false);
    // A candle's red is more than any such screen can give.
    expect(besideScreen(SRGB, SCREEN_WHITES.D65, [140, 100, 4]).beyond).toBe(true);
  });

  it('a screen set to the warmer white shows every lamp bluer than one set to the cooler', () => {
    for (const light of TABLE_LIGHTS) {
      const lamp = lightXyz(light.power);
      const [cool, warm] = [whiteOf(SCREEN_WHITES.D65, lamp), whiteOf(SCREEN_WHITES.D50, lamp)];
      expect(warm[2] / warm[0]).toBeGreaterThan(cool[2] / cool[0]);
    }
  });

  it('what is no white is refused', () => {
    expect(isWhite({ x: 0.64, y: 0.33 })).toBe(false);
    expect(isWhite({ x: NaN, y: 0.33 })).toBe(false);
    expect(() => besideScreen(SRGB, { x: 0.1, y: 0.8 }, A)).toThrow(RangeError);
  });
});
