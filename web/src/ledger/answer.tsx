import type { LedgerAnswer } from '@rakuen/contract/ledger';

const several = (n: number, one: string, many: string) => `${n === 1 ? 'one' : n} ${n === 1 ? one : many}`;

/** What was asked, answered in figures. */
export function Answer({ answer: a, asked }: { answer: LedgerAnswer; asked: boolean }) {
  const parts = [
    a.prints > 0 &&
      `${several(a.prints, 'print', 'prints')}${a.copies > a.prints ? ` in ${a.copies} copies` : ''} of ${several(a.pictures, 'picture', 'pictures')} on ${several(a.papers, 'paper', 'papers')}`,
    a.decisions > 0 && several(a.decisions, 'decision', 'decisions'),
    a.spoilt > 0 && `${several(a.spoilt, 'sheet', 'sheets')} spoiled`,
  ].filter(Boolean);
  if (parts.length === 0) return null;
  return (
    <p role="status" className="mb-2">
      {asked ? 'Found: ' : 'In all: '}
      {parts.join('; ')}.
    </p>
  );
}
