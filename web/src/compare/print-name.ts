import type { ConditionHead } from '@rakuen/contract/conditions';

type Named = Pick<
  ConditionHead,
  'id' | 'paper' | 'printer' | 'inkSet' | 'mediaSetting' | 'resolution' | 'printMode' | 'profile'
>;
const TELLING = ['mediaSetting', 'printer', 'inkSet', 'printMode', 'resolution', 'profile'] as const;

/** A print among others: its paper, and where others are on the same paper what sets it apart from them. */
export function printName(one: Named, among: readonly Named[]): string {
  const same = among.filter((c) => c.id !== one.id && c.paper.id === one.paper.id);
  const apart = TELLING.filter((key) => same.some((c) => c[key] !== one[key])).map((key) => one[key] || 'none');
  return [one.paper.name, ...apart].join(', ');
}
