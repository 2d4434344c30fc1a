import { useRef, useState } from 'react';
import { Button } from './button.tsx';

/** Takes files by drop or by the file dialog. */
export function DropZone({
  label,
  hint,
  accept,
  multiple = false,
  disabled = false,
  onFiles,
}: {
  label: string;
  hint: string;
  accept: string;
  multiple?: boolean;
  disabled?: boolean;
  onFiles: (files: File[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const take = (list: FileList | null) => {
    const files = [...(list ?? [])];
    if (files.length > 0) onFiles(multiple ? files : files.slice(0, 1));
  };
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault();
        setOver(false);
        if (!disabled) take(e.dataTransfer.files);
      }}
      className={`flex flex-wrap items-center gap-x-4 gap-y-2 border border-dashed px-4 py-3 ${over ? 'border-ink bg-field' : 'border-edge'}`}
    >
      <Button disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </Button>
      <span className="text-quiet">{hint}</span>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        aria-label={label}
        tabIndex={-1}
        className="sr-only"
        onChange={(e) => {
          take(e.target.files);
          // The same file may be chosen again after it was mended.
          e.target.value = '';
        }}
      />
    </div>
  );
}
