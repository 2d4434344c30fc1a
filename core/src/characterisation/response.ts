import { xyzToLab } from '../colour/lab.ts';
import { illuminantWhite, spectrumToXyz } from '../colour/spectrum.ts';
import type { Lab } from '../colour/types.ts';
import type { SpectralGrid } from '../measurement/reading.ts';
import { compose, componentsOf, project, type Components } from './components.ts';
import type { PrintSample } from './print-samples.ts';

/** Reflectances are fitted as their cube roots, in which equal steps are about equal to the eye. */
export const toRoot = (r: number): number => Math.cbrt(Math.max(0, r));
export const fromRoot = (t: number): number => (t > 0 ? t * t * t : 0);

/** Components of the roots that add less than this are noise (our own choice, a tenth of a unit of L*). */
const ROOT_NOISE = 0.0004;
const LIT_NOISE = 0.0008;

/** In what a print's spectra are fitted. Plain data. */
export interface SpectralChannels {
  readonly grid: SpectralGrid;
  /** Of cube roots of reflectance. */
  readonly reflected: Components;
  /** Of what luminescence adds; absent where it is not told apart. */
  readonly luminous?: Components;
}

/** What is fitted of a print: channels a place, and how they become a colour again. */
export interface Response {
  readonly channels: number;
  readonly valuesOf: (sample: PrintSample) => ArrayLike<number>;
  readonly labOf: (channels: ArrayLike<number>) => Lab;
}

/** Channels that hold the samples' spectra. @param more roots of further spectra they must hold */
export function channelsOf(
  samples: readonly PrintSample[],
  grid: SpectralGrid,
  more: readonly ArrayLike<number>[] = [],
): SpectralChannels {
  const lit = more.length === 0 && samples.every((s) => s.luminous);
  return {
    grid,
    reflected: asLists(
      componentsOf([...samples.map((s) => Float64Array.from(s.reflected!, toRoot)), ...more], {
        most: 10,
        leastRms: ROOT_NOISE,
      }),
    ),
    luminous: lit
      ? asLists(
          componentsOf(
            samples.map((s) => s.luminous!),
            { most: 3, leastRms: LIT_NOISE, centred: false },
          ),
        )
      : undefined,
  };
}

/** Components as JSON keeps them. */
const asLists = ({ width, mean, directions }: Components): Components => ({
  width,
  mean: Array.from(mean),
  directions: directions.map((d) => Array.from(d)),
});

export function spectralResponse({ grid, reflected, luminous }: SpectralChannels): Response {
  const dull = reflected.directions.length;
  const white = illuminantWhite();
  return {
    channels: dull + (luminous?.directions.length ?? 0),
    valuesOf: (s) => [
      ...project(reflected, Float64Array.from(s.reflected!, toRoot)),
      ...(luminous ? project(luminous, s.luminous!) : []),
    ],
    labOf: (channels) => {
      const values = Array.from(compose(reflected, channels), fromRoot);
      if (luminous) compose(luminous, channels, dull).forEach((v, i) => (values[i]! += v));
      return xyzToLab(spectrumToXyz({ startNm: grid.startNm, stepNm: grid.stepNm, values }), white);
    },
  };
}

/** Where there are no spectra: Lab itself, in hundredths. */
export const colourResponse: Response = {
  channels: 3,
  valuesOf: (s) => s.lab.map((v) => v / 100),
  labOf: (c) => [c[0]! * 100, c[1]! * 100, c[2]! * 100],
};
