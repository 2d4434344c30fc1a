import { deltaE2000 } from '@rakuen/core/colour/difference';
import { DRY_HOURS, whyUnlike } from '@rakuen/core/measurement/alike';
import { white } from '@rakuen/core/measurement/measures/white';
import type { LaterBox } from '@rakuen/core/print/since';
import type { HistoryEntry } from '@rakuen/contract/readings';

/** How far the white and the black of a later box lie from those of an earlier one. */
export function boxesApart(then: HistoryEntry, now: HistoryEntry): LaterBox['apart'] {
  const basis = (e: HistoryEntry) => ({
    condition: e.measurementCondition,
    wet: e.driedHours !== undefined && e.driedHours < DRY_HOURS,
  });
  const why = whyUnlike(white, basis(then), basis(now));
  if (why) return { why };
  const apart = (key: string) => {
    const [p, q] = [then.figures[key], now.figures[key]];
    return p?.shape === 'colour' && q?.shape === 'colour' ? deltaE2000(p.lab, q.lab) : undefined;
  };
  const whites = apart('white');
  return whites === undefined ? { why: 'no white is known of one of them' } : { white: whites, black: apart('black') };
}
