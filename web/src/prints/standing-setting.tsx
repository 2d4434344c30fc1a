import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PrintView } from '@rakuen/contract/prints';
import { useConditionsQuery } from '../api/api.ts';
import { useTrialsQuery } from '../compare/judging-api.ts';
import { day } from '../parts/label.ts';

/** The media setting that was chosen for this paper in this printer, and whether the print is sent with it. */
export function StandingSetting({ print, condition }: { print: PrintView; condition: ConditionHead }) {
  const { data: trials } = useTrialsQuery();
  const { data: conditions } = useConditionsQuery();
  // The newest stamp stands; one of another way of printing says nothing of this one.
  const standing = trials?.find(
    (t) =>
      t.paperId === condition.paperId &&
      t.printer === print.settings.printer &&
      conditions?.find((c) => c.id === t.conditionId)?.printMode === print.settings.printMode,
  );
  if (!standing) return null;
  const { mediaSetting, reason, by, stampedAt } = standing;
  const sentWith = print.settings.mediaSetting;
  return (
    <section aria-label="Standing setting" className={sentWith === mediaSetting ? '' : 'border-l-4 border-ink pl-3'}>
      <p>
        The standing media setting of this paper in this printer is <b className="font-semibold">{mediaSetting}</b>
        {sentWith === mediaSetting ? '.' : `; this print is sent with ${sentWith || 'none that was said'}.`}
      </p>
      <p className="max-w-[70ch]">
        <span className="font-serif">{reason}</span>{' '}
        <span className="text-[13px] text-quiet">
          {by}, {day(stampedAt)}
        </span>
      </p>
    </section>
  );
}
