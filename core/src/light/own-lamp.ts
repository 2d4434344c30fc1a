import { daylight } from '../colour/daylight.ts';
import { spectrumAt } from '../colour/spectrum.ts';
import { blackbody, colourTemperature, lightXyz } from '../colour/temperature.ts';
import type { Spectrum } from '../colour/types.ts';
import type { ViewingLight } from './table-lights.ts';

/** What is known of the UV of a lamp whose spectrum begins too late to show it. */
export const LAMP_UV = {
  unknown: { name: 'not known', says: 'UV not measured' },
  led: { name: 'none: a white LED', says: 'UV taken as none, a white LED' },
  filtered: { name: 'none: behind UV glass or film', says: 'UV taken as none, filtered' },
  tungsten: { name: 'as of a tungsten or halogen lamp', says: 'UV taken as tungsten’s' },
  daylight: { name: 'as of daylight', says: 'UV taken as daylight’s' },
} as const;
export type LampUv = keyof typeof LAMP_UV;

/** A lamp of one's own, as its file gave it: the spectrum is closed with nothing at both ends. */
export interface OwnLamp {
  readonly id: string;
  readonly name: string;
  readonly spectrum: Spectrum;
  readonly uv: LampUv;
}

/** Brightener is woken from 340 nm on: a spectrum that begins later than this does not show what wakes it. */
const UV_FROM_NM = 350;
const BEGIN_NM = 300;

/** First wavelength that was measured: the spectrum is closed one step before it. */
const firstNm = ({ startNm, stepNm }: Spectrum) => startNm + stepNm;

/** Whether a lamp's spectrum shows the UV that wakes brighteners. */
export const showsUv = (spectrum: Spectrum): boolean => firstNm(spectrum) <= UV_FROM_NM;

/**
 * A lamp of one's own as a light over the table. Where its UV was not measured its name says so, so that it is said
 * wherever the light is named; where nothing is known of it, the power with none and with daylight's share are its ends.
 */
export function viewingLight({ id, name, spectrum, uv }: OwnLamp): ViewingLight {
  if (showsUv(spectrum)) return { key: id, name, source: 'imported', power: spectrum };
  const from = `imported, from ${firstNm(spectrum)} nm`;
  const tail = uv === 'tungsten' ? 'tungsten' : uv === 'daylight' || uv === 'unknown' ? 'daylight' : undefined;
  const extended = tail && withTail(spectrum, tail);
  return {
    key: id,
    name: `${name} (${LAMP_UV[uv].says})`,
    source: `${from}; ${LAMP_UV[uv].says}`,
    power: uv === 'unknown' || !extended ? spectrum : extended,
    ...(uv === 'unknown' && extended && { uvEnds: [spectrum, extended] as const }),
  };
}

/**
 * The spectrum continued below its first wavelength in the proportions of daylight, or of a blackbody, of its own
 * temperature: no lamp of that kind has more UV than its own violet leads on to.
 */
function withTail(spectrum: Spectrum, kind: 'tungsten' | 'daylight'): Spectrum {
  const kelvin = colourTemperature(lightXyz(spectrum))?.kelvin ?? 5000;
  const like = kind === 'tungsten' ? blackbody(kelvin) : daylight(Math.min(25_000, Math.max(4000, kelvin)));
  const first = firstNm(spectrum);
  const scale = spectrumAt(spectrum, first) / spectrumAt(like, first);
  const steps = Math.max(0, Math.round((first - BEGIN_NM) / spectrum.stepNm));
  const tail = Array.from({ length: steps }, (_, i) => {
    const nm = first - (steps - i) * spectrum.stepNm;
    // Below 340 nm nothing wakes a brightener and no table reaches: the spectrum is closed there.
    return nm < 340 ? 0 : scale * spectrumAt(like, nm);
  });
  return {
    startNm: first - steps * spectrum.stepNm,
    stepNm: spectrum.stepNm,
    values: [...tail, ...spectrum.values.slice(1)],
  };
}

/** Lights of which each counts once: those that are white, and of one lamp that was imported several times the first. */
export function countedLights(lights: readonly ViewingLight[]): ViewingLight[] {
  const counted: ViewingLight[] = [];
  for (const light of lights) {
    if (!colourTemperature(lightXyz(light.power))) continue;
    if (!counted.some((other) => sameLamp(other.power, light.power))) counted.push(light);
  }
  return counted;
}

/** Two lamps are one where no wavelength of the eye differs by more than this share of their mean (our own choice). */
const SAME_LAMP = 0.02;

function sameLamp(p: Spectrum, q: Spectrum): boolean {
  const grid = Array.from({ length: 41 }, (_, i) => 380 + 10 * i);
  const [a, b] = [p, q].map((s) => {
    const values = grid.map((nm) => spectrumAt(s, nm));
    const mean = values.reduce((x, v) => x + v, 0) / values.length;
    return values.map((v) => v / mean);
  });
  return a!.every((v, i) => Math.abs(v - b![i]!) <= SAME_LAMP * Math.max(1, v));
}
