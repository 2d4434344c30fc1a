import { CIE_START_NM, CIE_STEP_NM } from './cie-tables.ts';
import { ILLUMINANTS } from './illuminant.ts';
import { VIEWING_LIGHTS, type ViewingLight } from './lights.ts';
import type { Spectrum } from './types.ts';

const through = (light: Spectrum, transmits: (nm: number) => number): Spectrum => ({
  ...light,
  values: light.values.map((s, i) => s * transmits(light.startNm + i * light.stepNm)),
});
/** A filter that rises from nothing to full between two wavelengths, smoothly. */
export const edge = (fromNm: number, toNm: number) => (nm: number) => {
  const t = Math.min(1, Math.max(0, (nm - fromNm) / (toNm - fromNm)));
  return t * t * (3 - 2 * t);
};

const known = (key: string) => VIEWING_LIGHTS.find((l) => l.key === key)!;

/** Lights the whole table can be looked at under, the reference first. Models are said to be models: no lamp was measured. */
export const TABLE_LIGHTS: readonly ViewingLight[] = [
  { ...known('D50'), name: 'D50 with its UV' },
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
  { ...known('A'), name: 'tungsten' },
  known('led-warm'),
  known('led-cool'),
  known('triphosphor'),
  {
    key: 'museum',
    name: 'a museum LED behind UV glass',
    source: 'model: a blue peak at 450 nm and an even run to 680 nm, nothing below 400 nm',
    power: {
      startNm: CIE_START_NM,
      stepNm: CIE_STEP_NM,
      values: ILLUMINANTS.D50.values.map((_, i) => {
        const nm = CIE_START_NM + i * CIE_STEP_NM;
        return (
          edge(400, 425)(nm) *
          (0.55 * Math.exp(-0.5 * ((nm - 450) / 14) ** 2) +
            Math.exp(-0.5 * ((nm - 570) / 75) ** 4) * (0.6 + (nm - 480) / 500))
        );
      }),
    },
  },
];

/** Glass between the print and the eye. */
export interface Glass {
  readonly key: string;
  readonly name: string;
  readonly source: string;
  /** Light is let through twice: on its way to the print and back. */
  readonly transmits: (nm: number) => number;
  /** Share of the room's light that the glass throws back, 0–1. */
  readonly reflects: number;
}

/** Our own models, after what their kinds do (practice). */
export const GLASSES: readonly Glass[] = [
  { key: 'none', name: 'no glass', source: '', transmits: () => 1, reflects: 0 },
  {
    key: 'plain',
    name: 'plain glass',
    source: 'model: 92 % in one pass, UV from 330 nm on; 8 % thrown back by its two faces (practice)',
    transmits: (nm) => 0.92 * edge(300, 345)(nm),
    reflects: 0.08,
  },
  {
    key: 'uv',
    name: 'UV-blocking glass',
    source: 'model: 91 % in one pass, nothing below 400 nm; 8 % thrown back (practice)',
    transmits: (nm) => 0.91 * edge(385, 415)(nm),
    reflects: 0.08,
  },
  {
    key: 'museum',
    name: 'coated museum glass',
    source: 'model: 98 % in one pass, nothing below 400 nm; 0.8 % thrown back (practice)',
    transmits: (nm) => 0.98 * edge(385, 415)(nm),
    reflects: 0.008,
  },
];

/** How light the room is that the glass shows, as a share of the light on the print (our own assumption). */
export const ROOM = 0.2;
