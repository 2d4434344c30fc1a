/** A file that can't be read. `message` says what is wrong, `line` and `field` say where, `remedy` says what to do. */
export class FormatError extends Error {
  override readonly name = 'FormatError';
  readonly line?: number;
  readonly field?: string;
  readonly remedy: string;
  /** What the file leaves open and a hand can say: what its columns hold, or what device values run to. */
  readonly asks?: 'columns' | 'scale';

  constructor(fault: Pick<FormatError, 'message' | 'line' | 'field' | 'remedy' | 'asks'>) {
    super(fault.message);
    this.line = fault.line;
    this.field = fault.field;
    this.remedy = fault.remedy;
    this.asks = fault.asks;
  }
}

/** One line for a shell or a log: file, line, field, fault and remedy. */
export function describeFault(file: string, error: FormatError): string {
  const place = [file, error.line === undefined ? '' : `line ${error.line}`, error.field ? `column ${error.field}` : '']
    .filter(Boolean)
    .join(', ');
  return `${place}: ${error.message} ${error.remedy}`;
}
