import { FORMATS, type Format } from '../commission.ts';
import type { SheetSize } from '../sheet.ts';
import type { Leaning, Weighed } from './leaning.ts';

const TOO_SMALL = 3;
/** A sheet so much longer than wide is a panorama (practice). */
const PANORAMA = 2;

const longOf = ({ widthMm, heightMm }: SheetSize): number => Math.max(widthMm, heightMm);
const shortOf = ({ widthMm, heightMm }: SheetSize): number => Math.min(widthMm, heightMm);

/** Does a size belong to a format? Panoramas are cut from a roll too. */
const OF_FORMAT: Readonly<Record<Format, (size: SheetSize) => boolean>> = {
  sheet: ({ roll }) => !roll,
  panorama: (size) => size.roll || longOf(size) >= PANORAMA * shortOf(size),
  roll: ({ roll }) => roll,
};

/** Sides of the print: as they are set, else the shorter by the picture; absent where neither is known. */
const sidesOf = ({ commission: { longSideMm, shortSideMm }, aspect }: Weighed): readonly [number, number?] => [
  longSideMm,
  shortSideMm ?? (aspect === undefined ? undefined : longSideMm * aspect),
];

function holds(size: SheetSize, long: number, short = 0): boolean {
  if (!size.roll) return long <= longOf(size) && short <= shortOf(size);
  const { widthMm, heightMm } = size;
  return (short <= widthMm && long <= heightMm) || (long <= widthMm && short <= heightMm);
}

const sizeWords = (a: number, b?: number): string =>
  b === undefined ? `${a.toFixed(0)} mm long` : `${a.toFixed(0)} × ${b.toFixed(0)} mm`;

export const size: Leaning = {
  key: 'size',
  name: 'Size and format',
  holds: 'A paper that is not sold in the size, or not in the format, makes another print.',
  disagrees: 'A smaller print may be the better one.',
  weight: 1,
  judge: (w) => {
    const { sizes } = w.sheet;
    if (sizes === undefined || sizes.length === 0) return undefined;
    const { format } = w.commission;
    const [long, short] = sidesOf(w);
    const offered = format ? sizes.filter(OF_FORMAT[format]) : sizes;
    if (offered.some((s) => holds(s, long, short))) return undefined;
    const largest = offered.toSorted((p, q) => q.widthMm * q.heightMm - p.widthMm * p.heightMm)[0];
    return {
      speaks: 'against',
      sentence: largest
        ? `The largest ${largest.roll ? 'roll' : 'sheet'} it is sold in is ${sizeWords(longOf(largest), shortOf(largest))}; the print is ${sizeWords(long, short)}.`
        : `It is not sold in the format asked for: ${FORMATS[format!]}.`,
      figures: largest ? [{ name: 'longest side', value: longOf(largest), unit: 'mm', weighed: true }] : [],
      cost: TOO_SMALL,
    };
  },
};
