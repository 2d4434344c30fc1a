import type { ButtonHTMLAttributes, Ref } from 'react';

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** The one main action of a screen. */
  main?: boolean;
  ref?: Ref<HTMLButtonElement>;
}

export function Button({ main = false, className = '', type = 'button', ...rest }: ButtonProps) {
  const look = main
    ? 'bg-vermilion text-onseal border-vermilion font-semibold'
    : 'bg-sheet text-ink border-edge hover:bg-field';
  return (
    <button
      type={type}
      className={`inline-flex min-h-8 items-center gap-1.5 rounded-[3px] border px-3 py-1 disabled:cursor-not-allowed disabled:opacity-55 ${look} ${className}`}
      {...rest}
    />
  );
}

/** A button that is only a word or a sign, for use inside lists. */
export function QuietButton({
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { ref?: Ref<HTMLButtonElement> }) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-7 items-center gap-1 rounded-[3px] px-1.5 text-ink underline decoration-line underline-offset-3 hover:decoration-ink disabled:opacity-55 ${className}`}
      {...rest}
    />
  );
}
