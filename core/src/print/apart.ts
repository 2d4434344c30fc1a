/** What a print condition is told by in a list. */
export interface NamedCondition {
  readonly id: string;
  readonly paperId: string;
  readonly printer: string;
  readonly inkSet: string;
  readonly blackInk: string;
  readonly mediaSetting: string;
  readonly resolution: string;
  readonly printMode: string;
  readonly profile: string;
  readonly blackOvercoat: boolean;
}

/** What every list says of a condition. */
const SAID = ['paperId', 'printer', 'mediaSetting', 'printMode', 'blackOvercoat'] as const;
/** What may part two that are said alike, in the order in which it is told. */
const PARTING = ['inkSet', 'blackInk', 'resolution', 'profile'] as const;

/** Words that tell conditions of one paper apart which a list would otherwise call alike; nothing for one that stands alone. */
export function whatPartsThem(conditions: readonly NamedCondition[]): Map<string, string> {
  const alike = new Map<string, NamedCondition[]>();
  for (const c of conditions) {
    const key = JSON.stringify(SAID.map((k) => c[k]));
    alike.set(key, [...(alike.get(key) ?? []), c]);
  }
  const words = new Map<string, string>();
  for (const twins of alike.values()) {
    if (twins.length < 2) continue;
    const differing = PARTING.filter((k) => twins.some((t) => t[k] !== twins[0]![k]));
    twins.forEach((c, i) => {
      const told = differing.map((k) => c[k] || (k === 'profile' ? 'no profile' : '')).filter(Boolean);
      // Alike in everything: at least which one it is.
      words.set(c.id, told.length > 0 ? told.join(', ') : `no. ${i + 1}`);
    });
  }
  return words;
}
