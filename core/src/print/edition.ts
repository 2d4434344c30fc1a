/** Series an edition is numbered in; each begins at 1. */
export const SERIES = {
  edition: { name: 'edition', short: '' },
  artist: { name: 'artist’s proof', short: 'AP' },
  printer: { name: 'printer’s proof', short: 'PP' },
  good: { name: 'good to print', short: 'GTP' },
} as const;
export type Series = keyof typeof SERIES;
export const SERIES_KEYS = Object.keys(SERIES) as Series[];

/** Where a numbered print is. */
export const FATES = ['here', 'sold', 'gifted', 'destroyed', 'returned'] as const;
export type Fate = (typeof FATES)[number];

/** How many there are to be of each series; null: as many as are asked for. */
export interface EditionSizes {
  readonly edition: number | null;
  readonly artist: number;
  readonly printer: number;
  readonly good: number;
}

/** Artist’s proofs apart, often a tenth (practice); one sheet kept as good to print (practice). */
export const proofsOf = (size: number): Omit<EditionSizes, 'edition'> => ({
  artist: Math.max(1, Math.round(size / 10)),
  printer: 0,
  good: 1,
});

/** A number as it is written under a print: 3/12, AP 1/2; of an open edition 3. */
export function numberText(series: Series, number: number, sizes: EditionSizes): string {
  const most = sizes[series];
  const { short } = SERIES[series];
  return `${short ? `${short} ` : ''}${number}${most === null ? '' : `/${most}`}`;
}
