import { CIE_START_NM, CIE_STEP_NM } from '../colour/cie-tables.ts';
import { ILLUMINANTS } from '../colour/illuminant.ts';
import type { Spectrum } from '../colour/types.ts';
import { edge } from './edge.ts';

/** A light prints are looked at under. Models are said to be models: no lamp was measured. */
export interface ViewingLight {
  readonly key: string;
  readonly name: string;
  readonly source: string;
  readonly power: Spectrum;
  /** Where its UV is not known: its power without any, and with as much as daylight would have. */
  readonly uvEnds?: readonly [none: Spectrum, daylight: Spectrum];
}

const peak = (nm: number, at: number, width: number) => Math.exp(-0.5 * ((nm - at) / width) ** 2);
const model = (power: (nm: number) => number): Spectrum => ({
  startNm: CIE_START_NM,
  stepNm: CIE_STEP_NM,
  values: ILLUMINANTS.D50.values.map((_, i) => power(CIE_START_NM + i * CIE_STEP_NM)),
});
const through = (light: Spectrum, transmits: (nm: number) => number): Spectrum => ({
  ...light,
  values: light.values.map((s, i) => s * transmits(light.startNm + i * light.stepNm)),
});

/**
 * Lights the whole table can be looked at under, the reference first. The models of lamps keep within 0.006 of the line of whites (Duv), as
 * lamps that are sold as white do (practice).
 */
export const TABLE_LIGHTS: readonly ViewingLight[] = [
  { key: 'D50', name: 'D50 with its UV', source: 'CIE 15', power: ILLUMINANTS.D50 },
  {
    key: 'D50-no-uv',
    name: 'D50 without UV',
    source: 'CIE 15, everything below 420 nm taken out (as ISO 13655 M2)',
    power: through(ILLUMINANTS.D50, (nm) => (nm < 420 ? 0 : 1)),
  },
  {
    key: 'window',
    name: 'daylight at a window',
    source: 'CIE 15 D65, through window glass: a model edge from 310 to 360 nm',
    power: through(ILLUMINANTS.D65, edge(310, 360)),
  },
  { key: 'A', name: 'tungsten', source: 'CIE 15, illuminant A', power: ILLUMINANTS.A },
  {
    key: 'led-warm',
    name: 'a warm white LED',
    source: 'model: a blue peak at 452 nm and a broad one at 600 nm',
    power: model((nm) => 0.42 * peak(nm, 452, 11) + peak(nm, 600, 58)),
  },
  {
    key: 'led-cool',
    name: 'a cool white LED',
    source: 'model: a blue peak at 450 nm and a broad one at 568 nm',
    power: model((nm) => 1.15 * peak(nm, 450, 10) + 0.85 * peak(nm, 568, 64)),
  },
  {
    key: 'triphosphor',
    name: 'a triphosphor lamp',
    source: 'model: peaks at 436, 490, 544 and 611 nm',
    power: model(
      (nm) => 0.5 * peak(nm, 436, 9) + 0.22 * peak(nm, 490, 10) + 0.9 * peak(nm, 544, 9) + 0.95 * peak(nm, 611, 9),
    ),
  },
  {
    key: 'museum',
    name: 'a museum LED behind UV glass',
    source: 'model: a blue peak at 450 nm and an even run to 680 nm, nothing below 400 nm',
    power: model(
      (nm) =>
        edge(400, 425)(nm) *
        (0.65 * peak(nm, 450, 14) + Math.exp(-0.5 * ((nm - 570) / 75) ** 4) * (0.6 + (nm - 480) / 500)),
    ),
  },
];
