import type { Stamp } from '@rakuen/contract/vocabulary';

/** The seal: chosen is filled, held is an open frame, refused is broken and leans. Told apart by form, not by colour alone. */
export function Seal({ stamp, small = false }: { stamp: Stamp; small?: boolean }) {
  const box = small ? 'px-1.5 py-px text-[11px]' : 'px-2.5 py-1 text-[13px]';
  const look = {
    chosen: 'bg-vermilion text-onseal border-vermilion',
    held: 'border-vermilion border-double text-ink',
    refused: 'border-vermilion border-dashed text-ink italic',
  }[stamp];
  return (
    <span
      className={`inline-block -rotate-2 rounded-[3px] border-[3px] font-serif font-semibold tracking-wide ${box} ${look}`}
    >
      {stamp}
    </span>
  );
}
