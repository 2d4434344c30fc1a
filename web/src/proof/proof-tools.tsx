import { formatNumber } from '@rakuen/core/measurement/show';
import { WHOLE, zoomOf } from '@rakuen/core/proof/part';
import { QuietButton } from '../parts/button.tsx';
import type { ProofAtHand } from './use-proof-view.ts';

/** What is done with the proof by hand: nearer and further, flipped, on every sheet, written out. */
export function ProofTools({
  at: { turned, change, toPart, flip, comeNearer, goFurther },
  sheets,
  all,
  onAll,
  same,
  onSwap,
  onCrops,
  onStrips,
  onCopy,
  copied,
}: {
  at: ProofAtHand;
  /** Sheets on the table. */
  sheets: number;
  all: boolean;
  onAll: () => void;
  /** Both hands hold one and the same. */
  same: boolean;
  /** Absent where one sheet lies in both hands. */
  onSwap?: () => void;
  onCrops: () => void;
  onStrips: () => void;
  onCopy: () => void;
  /** Whose print file is written. */
  copied: string;
}) {
  const { part, beside } = turned;
  return (
    <p className="mt-1 -ml-1.5">
      {sheets > 2 && (
        <QuietButton aria-pressed={all} onClick={onAll}>
          {all ? 'The two in hand' : `On all ${sheets} sheets`}
        </QuietButton>
      )}
      <QuietButton onClick={comeNearer}>Nearer</QuietButton>
      <QuietButton disabled={part.width === 1} onClick={goFurther}>
        Further
      </QuietButton>
      {part.width < 1 && (
        <QuietButton onClick={() => toPart(WHOLE)}>
          The whole picture, now {formatNumber(zoomOf(part), 1)} × nearer
        </QuietButton>
      )}
      {!same && !all && (
        <>
          <QuietButton onClick={flip}>Flip</QuietButton>
          <QuietButton aria-pressed={beside} onClick={() => change({ beside: !beside })}>
            {beside ? 'One above the other' : 'Beside each other'}
          </QuietButton>
          {onSwap && <QuietButton onClick={onSwap}>Swap hands</QuietButton>}
        </>
      )}
      <QuietButton onClick={onCrops}>Marked places</QuietButton>
      <QuietButton onClick={onStrips}>Strips on paper</QuietButton>
      <QuietButton onClick={onCopy}>Print file for {copied}</QuietButton>
    </p>
  );
}
