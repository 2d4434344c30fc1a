import { CIE_STEP_NM } from '../colour/cie-tables.ts';
import type { Spectrum } from '../colour/types.ts';
import { decodeLines } from './decode-text.ts';
import { FormatError } from './format-error.ts';

const NM = { least: 300, most: 1100 } as const;
/** What a lamp's spectrum must span to be looked at by: the ends of the eye. */
const SPAN = { from: 420, to: 680 } as const;
const FEWEST = 8;
/** Places of the grid of the observer, nm. */
const STEP = CIE_STEP_NM;
const MOST_LINES = 5000;

interface Point {
  readonly nm: number;
  readonly power: number;
}

/** A lamp as its file gives it. */
export interface LampFile {
  /** Relative power, on the observer's grid. */
  readonly spectrum: Spectrum;
  /** Mean step of the file, nm. */
  readonly fileStepNm: number;
}

/**
 * A lamp's spectral power from a file of two columns, nm and power in any unit: CSV, TSV or spaces, decimal commas
 * where another sign parts the columns, a heading or none, drawn onto 10 nm.
 * @throws FormatError naming the line
 */
export function parseLightSpectrum(bytes: Uint8Array): LampFile {
  const { lines } = decodeLines(bytes);
  const points: Point[] = [];
  lines.slice(0, MOST_LINES).forEach((raw, i) => {
    const line = raw.trim();
    if (line === '' || line.startsWith('#')) return;
    const cells = /[;\t]/.test(line)
      ? line.split(/[;\t]/)
      : /,\s/.test(line) || (line.match(/,/g)?.length === 1 && !/\s/.test(line))
        ? line.split(',')
        : line.split(/\s+/);
    const [nm, power] = cells.map((c) => Number(c.trim().replace(',', '.')));
    if (nm === undefined || power === undefined || !Number.isFinite(nm) || !Number.isFinite(power)) {
      if (points.length === 0) return;
      throw new FormatError({
        message: 'This line holds no wavelength and power.',
        line: i + 1,
        remedy: 'Give two numbers a line: nm and power.',
      });
    }
    if (nm < NM.least || nm > NM.most)
      throw new FormatError({
        message: `${nm} nm is no wavelength of light for the eye.`,
        line: i + 1,
        remedy: `Give wavelengths in nm, from ${NM.least} to ${NM.most}.`,
      });
    if (power < 0)
      throw new FormatError({
        message: 'A lamp gives no less than nothing.',
        line: i + 1,
        remedy: 'Take the dark reading off, or set what is below 0 to 0.',
      });
    const before = points[points.length - 1];
    if (before && nm <= before.nm)
      throw new FormatError({
        message: `${nm} nm follows ${before.nm} nm.`,
        line: i + 1,
        remedy: 'Sort the wavelengths from short to long, each once.',
      });
    points.push({ nm, power });
  });
  if (points.length < FEWEST)
    throw new FormatError({
      message: `Only ${points.length} wavelengths were found.`,
      line: lines.length,
      remedy: 'Give two columns: nm and power, eight lines or more.',
    });
  const [first, last] = [points[0]!, points[points.length - 1]!];
  if (first.nm > SPAN.from || last.nm < SPAN.to)
    throw new FormatError({
      message: `The spectrum runs from ${first.nm} to ${last.nm} nm.`,
      line: 1,
      remedy: `It must span ${SPAN.from} to ${SPAN.to} nm at the least.`,
    });
  if (points.every((p) => p.power === 0))
    throw new FormatError({
      message: 'The lamp gives no light.',
      line: 1,
      remedy: 'Measure it again with the lamp on.',
    });
  const startNm = Math.ceil(first.nm / STEP) * STEP;
  const values: number[] = [];
  for (let nm = startNm; nm <= last.nm; nm += STEP) values.push(powerNear(points, nm));
  // The ends are held by what reads a spectrum: they are closed, for nothing is known beyond them.
  return { spectrum: { startNm: startNm - STEP, stepNm: STEP, values: [0, ...values, 0] }, fileStepNm: stepOf(points) };
}

/** Wider steps than this leave out the lines that a lamp may have between them, nm. */
export const FINE_STEP_NM = 10;

/** Mean step of a spectrum's file, nm. */
const stepOf = (points: readonly Point[]): number =>
  (points[points.length - 1]!.nm - points[0]!.nm) / (points.length - 1);

/**
 * Power about a wavelength of the grid. Each point's power is shared out between the two places of the grid about it,
 * so that no line is lost between them; where points are as wide apart as the grid it is the straight line between them.
 */
function powerNear(points: readonly Point[], nm: number): number {
  let [sum, weight, near] = [0, 0, 0];
  points.forEach(({ nm: at, power }, i) => {
    const share = 1 - Math.abs(at - nm) / STEP;
    if (share <= 0) return;
    const width =
      ((points[i + 1]?.nm ?? at) - (points[i - 1]?.nm ?? at)) / (i === 0 || i === points.length - 1 ? 1 : 2);
    sum += share * width * power;
    weight += share * width;
    near++;
  });
  if (near > 1) return sum / weight;
  const after = points.findIndex((p) => p.nm >= nm);
  const [p, q] = [points[Math.max(0, after - 1)]!, points[after]!];
  return p === q ? q.power : p.power + ((q.power - p.power) * (nm - p.nm)) / (q.nm - p.nm);
}
