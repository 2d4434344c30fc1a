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

export const REQUIRED = { required: 'This is needed' } as const;

const ABOVE = 'A number above 0';
/** Rules of a form for a number above nought. */
export const aboveNought = { ...asNumber, ...REQUIRED, validate: (v: number) => v > 0 || ABOVE } as const;
/** The same where it may be left open. */
export const aboveNoughtOrNone = {
  ...asNumberOrNone,
  validate: (v?: number) => v === undefined || v > 0 || ABOVE,
} as const;

const NUMBER = 'A number, as 120 or 120,5';
/** Rule of a form that keeps what was typed as it stands: a number, whatever it is. */
export const typedNumber = {
  validate: (v: string) => (!Number.isNaN(decimal(v)) && v.trim() !== '' ? true : NUMBER),
} as const;
/** The same where it may be left open. */
export const typedNumberOrNone = { validate: (v: string) => (Number.isNaN(decimal(v)) ? NUMBER : true) } as const;

/** A field of a plain form that takes a number: what is none is told when the form is sent, and never dropped. */
export const NUMBER_TYPED = {
  inputMode: 'decimal',
  pattern: '\\s*-?\\d+([.,]\\d+)?\\s*',
  title: NUMBER,
} as const;
