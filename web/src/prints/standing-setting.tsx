import type { PrintLook } from '@rakuen/contract/prints';
import { day } from '../parts/label.ts';

/** Why the print is sent with the setting it is sent with; where it is sent with another, that stands with what differs. */
export function StandingSetting({ look: { print, standing } }: { look: PrintLook }) {
  if (!standing || standing.mediaSetting !== print.settings.mediaSetting) return null;
  return (
    <section aria-label="Standing setting">
      <p>
        Sent with <b className="font-semibold">{standing.mediaSetting}</b>, the standing setting of this paper in this
        printer.
      </p>
      <p className="max-w-[70ch]">
        <span className="font-serif">{standing.reason}</span>{' '}
        <span className="text-[13px] text-quiet">
          {standing.by}, {day(standing.stampedAt)}
        </span>
      </p>
    </section>
  );
}
