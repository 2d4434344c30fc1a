/** A picture that can't be read: what is wrong, what to do, and where. */
export class PictureError extends Error {
  override readonly name = 'PictureError';
  readonly remedy: string;
  readonly field?: string;

  constructor(message: string, remedy: string, field?: string) {
    super(message);
    this.remedy = remedy;
    this.field = field;
  }
}
