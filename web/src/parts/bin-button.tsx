import { useState } from 'react';
import { Button, QuietButton } from './button.tsx';

/**
 * Removes a thing, asked twice. Where it is refused the question stands as at first; why, the place that asked shows.
 */
export function BinButton({
  words = 'Remove',
  sureWords = 'Put in the bin',
  of,
  framed = false,
  className,
  onBin,
}: {
  words?: string;
  sureWords?: string;
  /** Which of several it is, for those who don't see where it stands. */
  of?: string;
  framed?: boolean;
  className?: string;
  /** Rejects where it is refused. */
  onBin: () => Promise<unknown>;
}) {
  const [sure, setSure] = useState(false);
  const Asked = framed ? Button : QuietButton;
  const now = sure ? sureWords : words;
  return (
    <Asked
      className={className}
      aria-label={of && `${now}: ${of}`}
      onClick={() => (sure ? void onBin().catch(() => setSure(false)) : setSure(true))}
    >
      {now}
    </Asked>
  );
}
