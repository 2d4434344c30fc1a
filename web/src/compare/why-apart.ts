import { WORKING_SPACES } from '@rakuen/core/gamut/working-spaces';
import { unlike } from '@rakuen/core/measurement/basis';
import { gamutVolume } from '@rakuen/core/measurement/measures/gamut-volume';
import type { CompareProps } from './compare-props.ts';
import type { LitCondition } from './use-light.ts';

/** A solid by its key: of a print condition, a working space or a profile. */
interface Named {
  readonly id: string;
}

/**
 * Why two solids are drawn and not held against each other: they rest on unlike things. A working space is what it is
 * in any light; a profile tells its paper in D50, without glass.
 */
export function whyApart(
  first: Named,
  second: Named,
  { laid, lit }: { laid: readonly LitCondition[]; lit: Pick<CompareProps['lit'], 'plain'> },
): string | undefined {
  const [p, q] = [first, second].map(({ id }) => laid.find((c) => c.id === id));
  if (p && q) return unlike(gamutVolume, p, q);
  const isProfile = (c: LitCondition | undefined, { id }: Named) => !c && !(id in WORKING_SPACES);
  const onlyOneLit = (p || q) && (isProfile(p, first) || isProfile(q, second)) && !lit.plain;
  return onlyOneLit ? 'a profile tells D50 without glass, and not this light' : undefined;
}
