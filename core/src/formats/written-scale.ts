import type { Reading } from '../measurement/reading.ts';

/**
 * What device values are written up to: 255 (RGB) or 100 (CMYK), as is usual; 1 where no patch reaches the full value,
 * for then only fractions tell the scale to whoever reads the file.
 */
export function writtenScale({ deviceSpace, patches }: Reading): number {
  const full = patches.some((p) => p.device?.some((v) => v > 0.9999));
  return !full ? 1 : deviceSpace === 'RGB' ? 255 : 100;
}
