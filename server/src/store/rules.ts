import type { Repository } from 'typeorm';
import { refuseStale } from '../app/revision.ts';
import type { RuleRow } from './rules.entity.ts';

/** What holds for the studio, and how often it was changed. `value` is absent where nobody has said anything yet. */
export interface Rule<T> {
  readonly value?: T;
  readonly revision: number;
}

export async function ruleOf<T extends object>(rules: Repository<RuleRow>, id: RuleRow['id']): Promise<Rule<T>> {
  const { value, revision } = await rules.findOneByOrFail({ id });
  return value === null ? { revision } : { value: value as T, revision };
}

/**
 * Says a rule anew; the database records it and counts its revision.
 * @param from revision the change was made from; whatever it is now where absent
 * @param view what the second of two windows is shown of the first
 * @throws ChangedMeanwhile (412)
 */
export async function setRule(
  rules: Repository<RuleRow>,
  id: RuleRow['id'],
  value: object,
  { called, from, view }: { readonly called: string; readonly from?: number; readonly view: { revision: number } },
): Promise<void> {
  refuseStale(called, view, from, view);
  await rules.update({ id }, { value });
}
