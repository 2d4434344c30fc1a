/** How a form takes a number: as a hand writes it; NaN of nothing. */
export const asNumber = {
  setValueAs: (v: unknown): number =>
    typeof v === 'number' ? v : String(v ?? '').trim() === '' ? NaN : decimal(String(v)),
};

/** A number as a hand writes it: a decimal comma is a decimal point. NaN where it is none. */
export const decimal = (text: string): number => Number(text.trim().replace(',', '.'));
