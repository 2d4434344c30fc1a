/** A filter that rises from nothing to full between two wavelengths, smoothly: share let through, 0–1, by nm. */
export const edge =
  (fromNm: number, toNm: number) =>
  (nm: number): number => {
    const t = Math.min(1, Math.max(0, (nm - fromNm) / (toNm - fromNm)));
    return t * t * (3 - 2 * t);
  };
