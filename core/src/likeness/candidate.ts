import { alikeMeasures, type ShownCondition } from '../measurement/basis.ts';
import type { LikeCandidate } from './likeness.ts';

/** A print condition with what its paper is, as a search for a like asks for it. */
export type LikeSheet = ShownCondition &
  Omit<LikeCandidate, 'figures' | 'coating' | 'weightGsm' | 'thicknessUm'> & {
    readonly paper: Pick<LikeCandidate, 'coating' | 'weightGsm' | 'thicknessUm'>;
  };

/** A print condition with those of its figures that may be held against the sheet that is missed. */
export const likeCandidate = (sheet: LikeSheet, missed: LikeSheet): LikeCandidate => ({
  id: sheet.id,
  figures: Object.fromEntries(
    alikeMeasures(sheet, missed).flatMap(({ key, likeness }) => {
      const figure = likeness && sheet.facts?.figures[key];
      return figure ? [[key, figure]] : [];
    }),
  ),
  printer: sheet.printer,
  inkSet: sheet.inkSet,
  printMode: sheet.printMode,
  coating: sheet.paper.coating,
  weightGsm: sheet.paper.weightGsm,
  thicknessUm: sheet.paper.thicknessUm,
  profile: sheet.profile,
});
