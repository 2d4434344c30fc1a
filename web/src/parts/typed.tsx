import { useState, type InputHTMLAttributes } from 'react';
import { TextField } from './form.tsx';

/** A field that speaks once its writer has left it or pressed Enter, so that one thing written is one step to take back. */
export function Typed({
  value,
  onTyped,
  wrong = () => undefined,
  ...rest
}: {
  label: string;
  unit?: string;
  className?: string;
  value: string;
  onTyped: (text: string) => void;
  /** What is wrong with it, for the writer; nothing where it can be taken. */
  wrong?: (text: string) => string | undefined;
} & Pick<InputHTMLAttributes<HTMLInputElement>, 'maxLength' | 'list' | 'inputMode'>) {
  const [draft, setDraft] = useState<string>();
  const error = draft === undefined ? undefined : wrong(draft);
  const done = () => {
    if (draft === undefined || error) return;
    setDraft(undefined);
    if (draft !== value) onTyped(draft);
  };
  return (
    <TextField
      {...rest}
      value={draft ?? value}
      error={error}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === 'Enter') done();
        if (e.key === 'Escape') setDraft(undefined);
      }}
    />
  );
}
