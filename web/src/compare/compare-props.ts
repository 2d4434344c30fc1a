import type { Thresholds } from '@rakuen/core/measurement/thresholds';
import type { LitCondition, useLitTable } from './use-light.ts';

/** What every place of the comparison works on: the table under its light, the pair in hand, the printmaker's thresholds. */
export interface CompareProps {
  readonly laid: LitCondition[];
  readonly left: LitCondition;
  readonly right: LitCondition;
  readonly lit: ReturnType<typeof useLitTable>;
  readonly thresholds: Thresholds;
}
