import type { ReactNode } from 'react';

/** Head of a screen: the step's name, the question it answers, and what can be done. */
export function ScreenHead({ title, question, children }: { title: string; question: string; children?: ReactNode }) {
  return (
    <div className="mb-5 flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-line pb-3">
      <div>
        <h1>{title}</h1>
        <p className="text-quiet">{question}</p>
      </div>
      <div className="flex flex-wrap items-center gap-2">{children}</div>
    </div>
  );
}
