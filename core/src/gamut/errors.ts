/** The data can't bound a gamut; the message says what is missing, in words for the printmaker. */
export class GamutError extends Error {
  override readonly name = 'GamutError';
}
