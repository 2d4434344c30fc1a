import type { Spectrum } from '../colour/types.ts';
import { decodeLines } from './decode-text.ts';
import { FormatError } from './format-error.ts';

const NM = { least: 300, most: 1100 } as const;
/** What a lamp's spectrum must span to be looked at by: the ends of the eye. */
const SPAN = { from: 420, to: 680 } as const;
const FEWEST = 8;
const STEP = 5;
const MOST_LINES = 5000;

/**
 * A lamp's spectral power from a file of two columns, nm and power in any unit: CSV, TSV or spaces, decimal commas
 * where another sign parts the columns, a heading or none. Uneven steps are drawn onto 5 nm, straight between the
 * points.
 * @throws FormatError naming the line
 */
export function parseLightSpectrum(bytes: Uint8Array): Spectrum {
  const { lines } = decodeLines(bytes);
  const points: { nm: number; power: number }[] = [];
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
  for (let nm = startNm, at = 0; nm <= last.nm; nm += STEP) {
    while (points[at + 1]!.nm < nm) at++;
    const [p, q] = [points[at]!, points[at + 1]!];
    values.push(p.power + ((q.power - p.power) * (nm - p.nm)) / (q.nm - p.nm));
  }
  // A lamp that was not measured in the UV has none as far as anyone knows; the ends are held by whoever reads a
  // spectrum, so they are closed here.
  return { startNm: startNm - STEP, stepNm: STEP, values: [0, ...values, 0] };
}
