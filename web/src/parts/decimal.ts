/** A number as a hand writes it: a decimal comma is a decimal point. NaN where it is none. */
export const decimal = (text: string): number => Number(text.trim().replace(',', '.'));
