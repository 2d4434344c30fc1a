/** What a print is laid on: a sheet, or a roll of a width. */
interface Stock {
  readonly kind: 'sheet' | 'roll';
  readonly widthMm: number;
  readonly heightMm: number;
}
interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}
const short = (s: Size) => Math.min(s.widthMm, s.heightMm);
const long = (s: Size) => Math.max(s.widthMm, s.heightMm);

/** Whether a print lies on a sheet, turned or not. */
export const fitsOn = (sheet: Size, print: Size): boolean => short(sheet) >= short(print) && long(sheet) >= long(print);

/**
 * What a print takes of its stock: a sheet; of a roll the length, turned so that the longer side lies across where it fits.
 * @returns sheets, or mm of a roll; undefined where it lies on neither way
 */
export function taken(stock: Stock, print: Size): number | undefined {
  if (stock.kind === 'sheet') return fitsOn(stock, print) ? 1 : undefined;
  return long(print) <= stock.widthMm ? short(print) : short(print) <= stock.widthMm ? long(print) : undefined;
}
