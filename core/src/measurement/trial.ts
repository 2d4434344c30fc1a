import type { Figure } from './figure.ts';

/** Criteria by which a media setting is ranked, in the order a printmaker asks for them; `better` says which way is. */
export const TRIAL_CRITERIA = [
  { key: 'dmax', better: 'higher' },
  { key: 'linearity', better: 'lower' },
  { key: 'neutrality', better: 'lower' },
  { key: 'shadowSeparation', better: 'lower' },
  { key: 'blockedRings', better: 'lower' },
] as const satisfies readonly { key: string; better: 'higher' | 'lower' }[];
export type TrialCriterion = (typeof TRIAL_CRITERIA)[number]['key'];

/** A candidate's places, from 1, by criterion; criteria nobody measured are left out. */
export interface TrialRank {
  readonly conditionId: string;
  readonly values: Partial<Record<TrialCriterion, number>>;
  readonly places: Partial<Record<TrialCriterion, number>>;
  /** Mean of its places. */
  readonly mean: number;
}

/** Differences within two standard deviations share a place. */
const SAME = 2;

/** Settings of one paper in one printer, ranked: best mean place first. The choice stays the printmaker's. */
export function rankTrial(
  candidates: readonly { readonly id: string; readonly figures: Readonly<Record<string, Figure>> }[],
): TrialRank[] {
  const ranks = candidates.map((c) => ({
    conditionId: c.id,
    values: {} as Record<string, number>,
    places: {} as Record<string, number>,
    mean: Infinity,
  }));
  for (const { key, better } of TRIAL_CRITERIA) {
    const known = candidates.flatMap((c, i) => {
      const f = c.figures[key];
      return f?.shape === 'scalar' ? [{ i, value: f.value, sd: f.sd }] : [];
    });
    if (known.length < 2) continue;
    known.sort((p, q) => (better === 'higher' ? q.value - p.value : p.value - q.value));
    let place = 1;
    known.forEach((k, n) => {
      const before = known[n - 1];
      if (before && Math.abs(k.value - before.value) > SAME * Math.hypot(k.sd, before.sd)) place = n + 1;
      ranks[k.i].values[key] = k.value;
      ranks[k.i].places[key] = place;
    });
  }
  return ranks
    .map((r) => {
      const places = Object.values(r.places);
      return { ...r, mean: places.length === 0 ? Infinity : places.reduce((s, v) => s + v, 0) / places.length };
    })
    .sort((p, q) => p.mean - q.mean);
}
