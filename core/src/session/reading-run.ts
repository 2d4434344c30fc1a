/** A pass over a strip that was kept. */
export interface KeptPass {
  readonly strip: number;
  /** From 0. */
  readonly pass: number;
}

/** What is to be read next: every strip once, then every strip again. Undefined when all is read. */
export function nextPass(stripCount: number, passes: number, kept: readonly KeptPass[]): KeptPass | undefined {
  const have = new Set(kept.map((k) => `${k.pass}/${k.strip}`));
  for (let pass = 0; pass < passes; pass++)
    for (let strip = 0; strip < stripCount; strip++) if (!have.has(`${pass}/${strip}`)) return { strip, pass };
  return undefined;
}
