import { CIE_START_NM, CIE_STEP_NM } from './cie-tables.ts';
import { ILLUMINANTS } from './illuminant.ts';
import type { Spectrum } from './types.ts';

/** A light prints are looked at under. Models are said to be models: no lamp was measured. */
export interface ViewingLight {
  readonly key: string;
  readonly name: string;
  readonly source: string;
  readonly power: Spectrum;
}

const COUNT = 50;
const peak = (nm: number, at: number, width: number) => Math.exp(-0.5 * ((nm - at) / width) ** 2);
const model = (power: (nm: number) => number): Spectrum => ({
  startNm: CIE_START_NM,
  stepNm: CIE_STEP_NM,
  values: Array.from({ length: COUNT }, (_, i) => power(CIE_START_NM + i * CIE_STEP_NM)),
});

/** The reference first, then the lights a print meets. */
export const VIEWING_LIGHTS: readonly ViewingLight[] = [
  { key: 'D50', name: 'D50', source: 'CIE 15', power: ILLUMINANTS.D50 },
  { key: 'A', name: 'tungsten (illuminant A)', source: 'CIE 15', power: ILLUMINANTS.A },
  { key: 'D65', name: 'daylight (D65)', source: 'CIE 15', power: ILLUMINANTS.D65 },
  { key: 'C', name: 'north sky (illuminant C)', source: 'CIE 15', power: ILLUMINANTS.C },
  {
    key: 'led-warm',
    name: 'a warm white LED',
    source: 'model: a blue peak at 452 nm and a broad one at 600 nm',
    power: model((nm) => 0.42 * peak(nm, 452, 11) + peak(nm, 600, 58)),
  },
  {
    key: 'led-cool',
    name: 'a cool white LED',
    source: 'model: a blue peak at 450 nm and a broad one at 558 nm',
    power: model((nm) => 1.05 * peak(nm, 450, 10) + 0.85 * peak(nm, 558, 50)),
  },
  {
    key: 'triphosphor',
    name: 'a triphosphor lamp',
    source: 'model: peaks at 436, 490, 544 and 611 nm',
    power: model(
      (nm) => 0.45 * peak(nm, 436, 9) + 0.22 * peak(nm, 490, 10) + peak(nm, 544, 9) + 0.95 * peak(nm, 611, 9),
    ),
  },
];
