import { NOISE_WIDTH } from './difference.ts';
import type { Figure } from './figure.ts';
import type { Measure } from './measures/measure.ts';
import { MEASURES } from './measures/registry.ts';

/** Criteria by which a media setting is ranked, in the order a printmaker asks for them. */
export const TRIAL_CRITERIA: readonly Measure[] = MEASURES.filter((m) => m.trial);

/** A candidate's places, from 1, by criterion; criteria nobody measured are left out. */
export interface TrialRank {
  readonly conditionId: string;
  readonly values: Readonly<Record<string, number>>;
  readonly places: Readonly<Record<string, number>>;
  /** Mean of its places over the criteria every measured candidate has: means of unlike lists are not compared. */
  readonly mean: number;
}

interface Ranked {
  readonly conditionId: string;
  readonly values: Record<string, number>;
  readonly places: Record<string, number>;
}

/** Settings of one paper in one printer, ranked: best mean place first. The choice stays the printmaker's. */
export function rankTrial(
  candidates: readonly { readonly id: string; readonly figures: Readonly<Record<string, Figure>> }[],
): TrialRank[] {
  const ranks = candidates.map((c): Ranked => ({ conditionId: c.id, values: {}, places: {} }));
  for (const { key, better } of TRIAL_CRITERIA) {
    const known = candidates.flatMap((c, i) => {
      const f = c.figures[key];
      return f?.shape === 'scalar' ? [{ i, value: f.value, sd: f.sd }] : [];
    });
    if (known.length < 2) continue;
    known.sort((p, q) => (better === 'higher' ? q.value - p.value : p.value - q.value));
    for (const k of known) {
      // A place is lost only to those that are surely better.
      const ahead = known.filter(
        (o) =>
          Math.abs(o.value - k.value) > NOISE_WIDTH * Math.hypot(o.sd, k.sd) && known.indexOf(o) < known.indexOf(k),
      );
      ranks[k.i]!.values[key] = k.value;
      ranks[k.i]!.places[key] = ahead.length + 1;
    }
  }
  const measured = ranks.filter((r) => Object.keys(r.places).length > 0);
  const shared = TRIAL_CRITERIA.filter((m) => measured.every((r) => m.key in r.places));
  return ranks
    .map((r) => {
      const places = shared.flatMap((m) => r.places[m.key] ?? []);
      return { ...r, mean: places.length === 0 ? Infinity : places.reduce((s, v) => s + v, 0) / places.length };
    })
    .sort((p, q) => p.mean - q.mean);
}
