import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useRef, type ReactNode } from 'react';

export function Dialog({
  title,
  description,
  open,
  onClose,
  wide = false,
  full = false,
  children,
}: {
  title: string;
  description?: string;
  open: boolean;
  onClose: () => void;
  wide?: boolean;
  /** As wide as the window. */
  full?: boolean;
  children: ReactNode;
}) {
  const openedFrom = useRef(document.activeElement as HTMLElement | null);
  return (
    <Radix.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-[#0008]" />
        <Radix.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(event) => {
            // A field with autoFocus has it already; then what had it before this was drawn counts.
            if (!(event.currentTarget as HTMLElement).contains(document.activeElement))
              openedFrom.current = document.activeElement as HTMLElement | null;
          }}
          onCloseAutoFocus={(event) => {
            // Dialogs here are opened by state and have no trigger of their own to go back to.
            event.preventDefault();
            openedFrom.current?.focus();
          }}
          className={`scroll-quiet fixed top-1/2 left-1/2 z-50 max-h-[92vh] w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-y-auto border border-edge bg-sheet p-6 ${full ? 'max-w-none' : wide ? 'max-w-[860px]' : 'max-w-[560px]'}`}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <div>
              <Radix.Title className="font-serif text-[1.3rem]">{title}</Radix.Title>
              {description && <p className="mt-1 text-quiet">{description}</p>}
            </div>
            <Radix.Close className="rounded-[3px] p-1.5 hover:bg-field" aria-label="Close">
              <X size={18} aria-hidden />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
