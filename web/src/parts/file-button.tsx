import { useRef } from 'react';
import { Button } from './button.tsx';

/** Takes one file by the file dialog. */
export function FileButton({
  label,
  accept,
  disabled = false,
  onFile,
}: {
  label: string;
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onFile(file);
          // The same file may be chosen again after it was mended.
          e.target.value = '';
        }}
      />
    </>
  );
}
