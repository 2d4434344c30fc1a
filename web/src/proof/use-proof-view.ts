import { useState } from 'react';
import { moved, nearer, WHOLE, type Part } from '@rakuen/core/proof/part';
import { useKeys } from '../parts/use-keys.ts';
import { SPLIT_STEP } from './laid.tsx';
import type { ProofView } from './proof-canvas.ts';

/** What is turned by hand and key over the picture itself. */
export type Turned = Pick<ProofView, 'split' | 'beside' | 'map' | 'part'>;
/** So much nearer by a key, and so much of what is seen aside. */
const NEARER = 1.5;
const PAN = 0.15;

/** How the proof is looked at: the dividing line, one beside the other, nearer and aside; by hand and by key. */
export function useProofView() {
  const [turned, setTurned] = useState<Turned>({ split: 0.5, beside: false, map: 'none', part: WHOLE });
  const { split, beside, part } = turned;
  const change = (over: Partial<Turned>) => setTurned((v) => ({ ...v, ...over }));
  const toPart = (to: Part) => change({ part: to });
  const flip = () => change({ split: split > 0.5 ? 0 : 1, beside: false });
  const by = (times: number) => () => toPart(nearer(part, times));
  useKeys({
    v: flip,
    '[': () => change({ split: Math.max(0, split - SPLIT_STEP), beside: false }),
    ']': () => change({ split: Math.min(1, split + SPLIT_STEP), beside: false }),
    b: () => change({ beside: !beside }),
    '+': by(NEARER),
    '=': by(NEARER),
    '-': by(1 / NEARER),
    '0': () => toPart(WHOLE),
    // Of the whole there is nothing aside: the arrows scroll the page.
    ...(part.width < 1 && {
      ArrowLeft: () => toPart(moved(part, -PAN, 0)),
      ArrowRight: () => toPart(moved(part, PAN, 0)),
      ArrowUp: () => toPart(moved(part, 0, -PAN)),
      ArrowDown: () => toPart(moved(part, 0, PAN)),
    }),
  });
  return { turned, change, toPart, flip, comeNearer: by(NEARER), goFurther: by(1 / NEARER) };
}
export type ProofAtHand = ReturnType<typeof useProofView>;
