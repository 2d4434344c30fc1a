import type { TimedPrint } from '@rakuen/core/print/minutes';
import type { PrintRow } from './prints.entity.ts';

/** A print as far as minutes are computed from it. */
export const timedPrint = ({ minutes, copies, settings, widthMm, heightMm }: PrintRow): TimedPrint => ({
  minutes,
  copies,
  feed: settings.feed,
  areaM2: widthMm * heightMm * 1e-6,
});
