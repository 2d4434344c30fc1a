import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

/** A figure that explains itself: a click opens one sentence on how it comes about. */
export function Explained({
  why,
  className = '',
  children,
}: {
  why?: string;
  className?: string;
  children: ReactNode;
}) {
  if (!why) return <span className={className}>{children}</span>;
  return (
    <Popover.Root>
      <Popover.Trigger
        title={why}
        className={`rounded-[2px] text-left underline decoration-line decoration-dotted underline-offset-4 hover:decoration-ink ${className}`}
      >
        {children}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-[44ch] border border-edge bg-sheet px-3 py-2 text-[13px] shadow-md"
        >
          {why}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
