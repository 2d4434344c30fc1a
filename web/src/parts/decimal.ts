/** How a form takes a number: as a hand writes it; NaN of nothing. */
export const asNumber = {
  setValueAs: (v: unknown): number =>
    typeof v === 'number' ? v : String(v ?? '').trim() === '' ? NaN : decimal(String(v)),
};

/** The same where it may be left open: undefined of nothing. */
export const asNumberOrNone = {
  setValueAs: (v: unknown): number | undefined => (String(v ?? '').trim() === '' ? undefined : asNumber.setValueAs(v)),
};

/** A number as a hand writes it: a decimal comma is a decimal point. NaN where it is none. */
export const decimal = (text: string): number => Number(text.trim().replace(',', '.'));
