/** A pass over a strip that was kept. */
export interface KeptPass {
  readonly strip: number;
  /** From 0. */
  readonly pass: number;
}

/**
 * What is to be read next: every strip of a sheet once, then every strip of it again, then the next sheet, so that each is laid but once.
 * Undefined when all is read.
 * @param sheets sheet each strip is printed on, from 0
 */
export function nextPass(sheets: readonly number[], passes: number, kept: readonly KeptPass[]): KeptPass | undefined {
  const have = new Set(kept.map((k) => `${k.pass}/${k.strip}`));
  for (const sheet of [...new Set(sheets)].sort((p, q) => p - q))
    for (let pass = 0; pass < passes; pass++)
      for (let strip = 0; strip < sheets.length; strip++)
        if (sheets[strip] === sheet && !have.has(`${pass}/${strip}`)) return { strip, pass };
  return undefined;
}
