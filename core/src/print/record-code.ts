/** Digits of Crockford's base 32, and the five more that its check sign takes (Crockford, Base 32, 2019). */
const DIGITS = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const CHECK_SIGNS = `${DIGITS}*~$=U`;
const HEX_DIGITS = 10;
const CODE_DIGITS = 8;

/** What is read alike is taken alike: I and L as 1, O as 0; marks between are left out. */
const plain = (text: string): string =>
  text
    .toUpperCase()
    .replace(/[\s\-–—]/g, '')
    .replace(/[IL]/g, '1')
    .replace(/O/g, '0');

/** Sign that a value leaves after division by 37. */
function checkSign(digits: string): string {
  let rest = 0;
  for (const digit of digits) rest = (rest * 32 + DIGITS.indexOf(digit)) % 37;
  return CHECK_SIGNS[rest]!;
}

/**
 * Short code of a record, to be typed from a label: the first 40 bits of its id in base 32, and a check sign. Two of
 * 20,000 records have one code in 2 of 10,000 studios: both are shown then.
 * @param id a UUID
 * @returns such as 7Q2M-K9XA-4
 */
export function recordCode(id: string): string {
  let bits = BigInt(`0x${id.replaceAll('-', '').slice(0, HEX_DIGITS)}`);
  let digits = '';
  for (let i = 0; i < CODE_DIGITS; i++) {
    digits = DIGITS[Number(bits & 31n)]! + digits;
    bits >>= 5n;
  }
  return `${digits.slice(0, 4)}-${digits.slice(4)}-${checkSign(digits)}`;
}

export type CodeRead =
  /** @property idBegins how the id of the record begins */
  | { readonly idBegins: string }
  /** It has the form of a code, and a sign of it is wrong. */
  | { readonly misread: true };

/** Reads a code as it is typed; undefined for what has not the form of one. */
export function readCode(text: string): CodeRead | undefined {
  const typed = plain(text);
  // The U is a check sign alone; a word of nine letters is no code unless it could be one.
  if (!/^[0-9A-HJKMNP-TV-Z]{8}[0-9A-HJKMNP-TV-Z*~$=U]$/.test(typed)) return undefined;
  const digits = typed.slice(0, CODE_DIGITS);
  if (checkSign(digits) !== typed[CODE_DIGITS]) return { misread: true };
  let bits = 0n;
  for (const digit of digits) bits = (bits << 5n) + BigInt(DIGITS.indexOf(digit));
  const hex = bits.toString(16).padStart(HEX_DIGITS, '0');
  return { idBegins: `${hex.slice(0, 8)}-${hex.slice(8)}` };
}
