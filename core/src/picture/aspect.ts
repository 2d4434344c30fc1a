/** Shorter side of a picture over its longer, 0–1. */
export const aspectOf = ({ widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number }): number =>
  Math.min(widthPx, heightPx) / Math.max(widthPx, heightPx);
