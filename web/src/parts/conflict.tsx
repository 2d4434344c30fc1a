import type { ApiError } from '@rakuen/contract/settings';
import { Button } from './button.tsx';

/** What another window made of the thing that is being changed here; undefined for any other error. */
export function theirsOf<T extends { revision: number }>(error: unknown): T | undefined {
  const { statusCode, current } = (error ?? {}) as Partial<ApiError>;
  return statusCode === 412 ? (current as T | undefined) : undefined;
}

/** Fields in which two versions differ, each in words. */
export function differing(mine: object, theirs: object): { field: string; mine: string; theirs: string }[] {
  const [m, t] = [mine, theirs] as Record<string, unknown>[];
  const told = (v: unknown) =>
    v === undefined || v === null || v === '' ? '—' : typeof v === 'object' ? JSON.stringify(v) : String(v);
  return Object.keys(m)
    .filter((field) => field in t && told(m[field]) !== told(t[field]))
    .map((field) => ({ field, mine: told(m[field]), theirs: told(t[field]) }));
}

/** The second of two windows is told, and shown both. */
export function Conflict({
  mine,
  theirs,
  onMine,
  onTheirs,
}: {
  mine: object;
  theirs: object;
  onMine: () => void;
  onTheirs: () => void;
}) {
  const fields = differing(mine, theirs);
  return (
    <div role="alert" className="border-l-4 border-ink bg-field px-3 py-2">
      <p className="font-semibold">This was changed in another window meanwhile.</p>
      {fields.length > 0 && (
        <table className="mt-1 w-full text-[13px]">
          <thead>
            <tr className="text-left text-quiet">
              {['', 'yours', 'theirs'].map((h) => (
                <th key={h} scope="col" className="pr-4 font-normal">
                  {h || <span className="sr-only">field</span>}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fields.map((f) => (
              <tr key={f.field} className="border-t border-line align-top">
                <th scope="row" className="py-0.5 pr-4 text-left font-normal">
                  {wordsOf(f.field)}
                </th>
                <td className="py-0.5 pr-4 break-words">{f.mine}</td>
                <td className="py-0.5 pr-4 break-words">{f.theirs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="mt-2 flex gap-3">
        <Button onClick={onMine}>Keep yours</Button>
        <Button onClick={onTheirs}>Take theirs</Button>
      </div>
    </div>
  );
}

/** "settings.mediaSetting" → "settings media setting". */
export const wordsOf = (field: string): string =>
  field.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`).replaceAll('.', ' ');
