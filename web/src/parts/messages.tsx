import type { ReactNode } from 'react';
import type { ApiError } from '@rakuen/contract/settings';

/** An error: what is wrong, where, and what to do. */
export function ErrorNote({ error }: { error: Partial<ApiError> | undefined }) {
  if (!error) return null;
  // A field of a form is said in the message; its name in the contract is no word of a page.
  const where = [error.file, error.line && `line ${error.line}`, error.file && error.field && `field ${error.field}`]
    .filter(Boolean)
    .join(', ');
  return (
    <div role="alert" className="max-w-[68ch] border-l-4 border-ink bg-field px-3 py-2">
      <p className="font-semibold">{error.message ?? 'Something went wrong.'}</p>
      {where && <p className="break-words">{where}</p>}
      {error.remedy && <p>{error.remedy}</p>}
    </div>
  );
}

/** A screen with nothing on it yet says what it is for and how to begin. */
export function Empty({ title, children, action }: { title: string; children: ReactNode; action?: ReactNode }) {
  return (
    <div className="mx-auto mt-10 max-w-[52ch] border border-dashed border-edge px-8 py-8">
      <h2>{title}</h2>
      <div className="mt-2">{children}</div>
      {action && <div className="mt-4 flex gap-2">{action}</div>}
    </div>
  );
}

export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="text-quiet">
      {what}…
    </p>
  );
}

/** A caution, shown where the danger is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <p className="border border-edge px-3 py-1.5 text-[13px]">
      <span className="font-semibold">Caution. </span>
      {children}
    </p>
  );
}
