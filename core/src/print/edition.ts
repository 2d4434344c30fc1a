/** Series an edition is numbered in; each begins at 1. */
export const SERIES = {
  edition: { name: 'edition', short: '' },
  artist: { name: 'artist’s proof', short: 'AP' },
  printer: { name: 'printer’s proof', short: 'PP' },
  good: { name: 'good to print', short: 'GTP' },
} as const;
export type Series = keyof typeof SERIES;
export const SERIES_KEYS = Object.keys(SERIES) as Series[];

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

/** A number as it is written under a print: 3/12, AP 1/2; of an open edition 3; of a second one 3/12, second edition. */
export function numberText(series: Series, number: number, sizes: EditionSizes, ordinal = 1): string {
  const most = sizes[series];
  const { short } = SERIES[series];
  const later = ordinalWords(ordinal);
  return `${short ? `${short} ` : ''}${number}${most === null ? '' : `/${most}`}${later && `, ${later}`}`;
}

const ORDINALS = ['second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];

/** What a later edition of one picture, paper and size is called; the first is called nothing. */
export const ordinalWords = (ordinal: number): string =>
  ordinal < 2 ? '' : `${ORDINALS[ordinal - 2] ?? `no. ${ordinal}`} edition`;

/** What is known of the box that a numbered sheet came from. Formulations as they are printed on the boxes; '' where not known. */
export interface BoxKnown {
  /** Formulation the edition is locked to. */
  readonly edition: string;
  /** Formulations that were held against the first print, and accepted. */
  readonly accepted: readonly string[];
  /** Of the box that the print was made from. */
  readonly ofPrint: string;
  /** As it was entered with the number. */
  readonly entered: string;
  /** No number of the edition was given yet. */
  readonly first: boolean;
}

export type BoxOfNumber =
  /** @property locks the edition begins with this number: it is locked to this box */
  | { readonly batch: string; readonly locks: boolean }
  /** It is not known, and has to be said. */
  | { readonly refused: 'not known' }
  /** What was entered is not what the print’s box says. */
  | { readonly refused: 'contradicts'; readonly batch: string }
  /** Another box than the edition’s, which nobody accepted. */
  | { readonly refused: 'another box'; readonly batch: string };

/** The box of a number is that of its print. What is not known stays unknown, and is asked for where the edition’s is known. */
export function boxOfNumber({ edition, accepted, ofPrint, entered, first }: BoxKnown): BoxOfNumber {
  if (ofPrint && entered && entered !== ofPrint) return { refused: 'contradicts', batch: ofPrint };
  const batch = ofPrint || entered;
  if (batch === '') return edition === '' ? { batch, locks: false } : { refused: 'not known' };
  if (batch === edition || accepted.includes(batch)) return { batch, locks: false };
  if (edition === '' && first) return { batch, locks: true };
  return { refused: 'another box', batch };
}
