import type { ReactNode } from 'react';

/** A link to a file that is taken away. */
export function FileLink({ href, label, children }: { href: string; label: string; children: ReactNode }) {
  return (
    <a
      href={href}
      aria-label={label}
      className="inline-flex min-h-7 items-center underline decoration-line underline-offset-3 hover:decoration-ink"
    >
      {children}
    </a>
  );
}
