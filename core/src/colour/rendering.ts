import { daylight } from './daylight.ts';
import { illuminantWhite, spectrumToXyz } from './spectrum.ts';
import { blackbody, colourTemperature, lightXyz } from './temperature.ts';
import type { Spectrum, Xyz } from './types.ts';

/**
 * Radiance factors of test colours 1–8, 380–780 nm at 10 nm (CIE 13.3, written down from memory; the indices of the
 * published fluorescent lamps F2 and F11 come out of them, see the test).
 */
const TEST_COLOURS: readonly (readonly number[])[] = [
  [
    219, 252, 256, 252, 244, 237, 230, 225, 220, 216, 214, 216, 223, 226, 225, 227, 236, 253, 272, 298, 341, 390, 424,
    442, 450, 451, 451, 450, 451, 453, 455, 458, 462, 464, 466, 466, 467, 467, 467, 467, 467,
  ],
  [
    70, 89, 111, 118, 121, 122, 123, 127, 131, 138, 150, 174, 207, 242, 260, 267, 272, 282, 299, 322, 335, 341, 342,
    342, 341, 339, 338, 336, 334, 332, 331, 329, 328, 326, 324, 324, 322, 320, 316, 315, 314,
  ],
  [
    65, 70, 73, 74, 74, 73, 73, 74, 77, 85, 109, 148, 198, 241, 278, 339, 392, 400, 380, 349, 315, 285, 264, 252, 241,
    229, 220, 216, 219, 230, 251, 288, 340, 390, 431, 460, 481, 493, 500, 505, 516,
  ],
  [
    74, 93, 116, 124, 128, 135, 144, 161, 186, 229, 281, 332, 370, 390, 395, 385, 367, 341, 312, 280, 247, 214, 185,
    169, 160, 154, 151, 148, 148, 151, 158, 165, 170, 170, 166, 164, 168, 177, 185, 192, 197,
  ],
  [
    295, 310, 313, 319, 326, 334, 346, 360, 381, 403, 415, 419, 413, 403, 389, 372, 353, 331, 308, 284, 260, 232, 210,
    194, 185, 180, 176, 175, 175, 180, 186, 192, 199, 199, 196, 195, 197, 203, 208, 215, 219,
  ],
  [
    151, 265, 410, 492, 517, 531, 544, 556, 554, 541, 519, 488, 450, 414, 377, 341, 309, 279, 253, 234, 225, 221, 220,
    220, 223, 233, 244, 258, 268, 278, 283, 291, 302, 325, 351, 376, 401, 425, 447, 469, 485,
  ],
  [
    378, 524, 551, 559, 561, 556, 544, 522, 488, 448, 408, 363, 324, 301, 283, 265, 257, 259, 260, 256, 254, 270, 302,
    344, 377, 400, 420, 438, 452, 462, 468, 473, 483, 496, 511, 525, 539, 553, 565, 575, 581,
  ],
  [
    104, 170, 319, 462, 490, 482, 462, 439, 413, 382, 352, 325, 299, 283, 270, 256, 250, 254, 264, 272, 278, 295, 348,
    434, 528, 604, 648, 676, 693, 705, 712, 717, 721, 719, 725, 729, 730, 730, 730, 730, 730,
  ],
];
const SAMPLES = TEST_COLOURS.map((thousandths): Spectrum => ({
  startNm: 380,
  stepNm: 10,
  values: thousandths.map((v) => v / 1000),
}));

/** Reference illuminants are blackbodies below this, daylight from here on, kelvin (CIE 13.3). */
const DAYLIGHT_FROM = 5000;

export interface Rendering {
  /** General colour rendering index. */
  readonly ra: number;
  /** Special indices of test colours 1–8. */
  readonly special: readonly number[];
}

/**
 * Colour rendering of a lamp (CIE 13.3): test colours in it against the same in a blackbody or daylight of its
 * temperature. @returns undefined where the lamp is no white
 */
export function colourRendering(lamp: Spectrum): Rendering | undefined {
  const white = colourTemperature(lightXyz(lamp));
  if (!white || white.kelvin > 25_000) return undefined;
  const reference = white.kelvin < DAYLIGHT_FROM ? blackbody(white.kelvin) : daylight(white.kelvin);
  const [under, against] = [chromaticity(illuminantWhite(lamp)), chromaticity(illuminantWhite(reference))];
  const special = SAMPLES.map((sample) => {
    const seen = chromaticity(spectrumToXyz(sample, lamp));
    const adapted = { ...adapt(seen, under, against), Y: seen.Y };
    const [p, q] = [uniform(adapted, against), uniform(chromaticity(spectrumToXyz(sample, reference)), against)];
    return 100 - 4.6 * Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
  });
  return { ra: special.reduce((s, r) => s + r, 0) / special.length, special };
}

interface Chromaticity {
  readonly u: number;
  readonly v: number;
  readonly Y: number;
}
function chromaticity([X, Y, Z]: Xyz): Chromaticity {
  const sum = X + 15 * Y + 3 * Z;
  return { u: (4 * X) / sum, v: (6 * Y) / sum, Y };
}

/** Von Kries in u, v, as CIE 13.3 writes it. */
function adapt(seen: Chromaticity, from: Chromaticity, to: Chromaticity): { u: number; v: number } {
  const c = ({ u, v }: Chromaticity) => (4 - u - 10 * v) / v;
  const d = ({ u, v }: Chromaticity) => (1.708 * v + 0.404 - 1.481 * u) / v;
  const [cs, ds] = [(c(to) / c(from)) * c(seen), (d(to) / d(from)) * d(seen)];
  const below = 16.518 + 1.481 * cs - ds;
  return { u: (10.872 + 0.404 * cs - 4 * ds) / below, v: 5.52 / below };
}

/** CIE 1964 W*U*V*. */
function uniform({ u, v, Y }: Chromaticity, white: Chromaticity): readonly [number, number, number] {
  const w = 25 * Math.cbrt(Y) - 17;
  return [w, 13 * w * (u - white.u), 13 * w * (v - white.v)];
}
