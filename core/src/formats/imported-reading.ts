import type { Reading } from '../measurement/reading.ts';

/** A reading and what the printmaker should know of how it was understood. */
export interface ImportedReading {
  readonly reading: Reading;
  /** What was recognised, in words: "CMYK device values 0–100", "decimal commas". */
  readonly recognised: readonly string[];
  /** What the file does not say, and what follows from that. */
  readonly missing: readonly string[];
  readonly columns: readonly string[];
  /** What stands in its head, as it stands there. */
  readonly keywords?: Readonly<Record<string, string>>;
}
