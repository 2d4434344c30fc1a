import { Link } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PackView } from '@rakuen/contract/packs';
import { useRemovePackMutation, useSheetPrintedMutation } from '../compare/judging-api.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { PackSheets } from './pack-sheets.tsx';

/** A pack that was planned: what of it is printed, and what is still to be read. */
export function PackEntry({ pack, conditions }: { pack: PackView; conditions: ConditionHead[] }) {
  const [tick] = useSheetPrintedMutation();
  const [remove, { error }] = useRemovePackMutation();
  const printed = new Set(pack.printed);
  const total = pack.plan.reduce((n, t) => n + t.sheets.length, 0);
  const left = pack.plan.reduce((n, t) => n + t.left, 0);
  const nameOf = (id: string) => {
    const c = conditions.find((x) => x.id === id);
    return c ? `${c.paper.name}, ${conditionLine(c)}` : 'a removed print condition';
  };
  return (
    <li>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2>{pack.spec.name}</h2>
        <p className="text-[13px] text-quiet">
          {day(pack.createdAt)}; {printed.size} of {total} sheets printed, {left} left,{' '}
          {pack.spec.chartId === undefined
            ? 'no chart on it'
            : pack.unread.length === 0
              ? 'all charts read'
              : `${pack.unread.length} ${pack.unread.length === 1 ? 'chart' : 'charts'} unread`}
        </p>
        <BinButton className="ml-auto" of={pack.spec.name} onBin={() => remove(pack.id).unwrap()} />
      </div>
      <ErrorNote error={error} />
      <ul className="mt-2 space-y-4">
        {pack.plan.map((t) => (
          <li key={t.id} className="border-t border-line pt-2">
            <p className="mb-1.5">
              <span className="font-serif">{nameOf(t.id)}</span>{' '}
              {pack.unread.includes(t.id) && (
                <>
                  <b>unread</b>{' '}
                  <Link
                    className="underline decoration-line underline-offset-3 hover:decoration-ink"
                    to={`/readings/sessions?condition=${t.id}${pack.spec.chartId ? `&chart=${pack.spec.chartId}` : ''}`}
                    aria-label={`Read the chart of ${nameOf(t.id)}`}
                  >
                    read it
                  </Link>
                </>
              )}
              {t.lacking.length > 0 && (
                <span className="text-quiet">; no room for {t.lacking.map((i) => i.name).join(', ')}</span>
              )}
            </p>
            <PackSheets
              sheets={t.sheets}
              left={t.left}
              width={pack.spec.widthMm}
              height={pack.spec.heightMm}
              printed={(n) => printed.has(`${t.id}/${n}`)}
              onPrinted={(n, is) => void tick({ id: pack.id, sheet: `${t.id}/${n}`, printed: is })}
            />
          </li>
        ))}
      </ul>
    </li>
  );
}
