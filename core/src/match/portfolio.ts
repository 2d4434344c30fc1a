/** How well each sheet serves each picture, 0–10; nothing where it was refused. */
export type Scores = readonly (readonly (number | undefined)[])[];

/** The best choice of so many sheets for a show. */
export interface Choice {
  /** Numbers of sheets, rising. */
  readonly sheets: readonly number[];
  /** Mean over the pictures of the score of the best sheet chosen; a picture none can carry counts as 0. */
  readonly meanScore: number;
  readonly worst: { readonly picture: number; readonly score: number };
}

/** So many sheets are looked at in every combination; of more, those that serve best on their own. */
export const MOST_SHEETS = 12;

/**
 * For one sheet, two, three… the choice that carries the pictures best: every combination of at most twelve sheets is
 * tried, so that there is no better one.
 * @param scores by picture, then by sheet
 */
export function portfolio(scores: Scores): Choice[] {
  const pictures = scores.length;
  const sheets = scores[0]?.length ?? 0;
  if (pictures === 0 || sheets === 0) return [];
  const alone = (s: number) => scores.reduce((sum, of) => sum + (of[s] ?? 0), 0);
  const tried = Array.from({ length: sheets }, (_, s) => s)
    .sort((p, q) => alone(q) - alone(p) || p - q)
    .slice(0, MOST_SHEETS);
  const best: (Choice | undefined)[] = [];
  for (let mask = 1; mask < 1 << tried.length; mask++) {
    const chosen = tried.filter((_, i) => mask & (1 << i));
    let sum = 0;
    let worst = { picture: 0, score: Infinity };
    for (let p = 0; p < pictures; p++) {
      let score = 0;
      for (const s of chosen) score = Math.max(score, scores[p]![s] ?? 0);
      sum += score;
      if (score < worst.score) worst = { picture: p, score };
    }
    const size = chosen.length;
    const known = best[size];
    // Of two that carry the pictures alike, the one that is kinder to the worst of them.
    if (
      !known ||
      sum / pictures > known.meanScore + 1e-9 ||
      (sum / pictures > known.meanScore - 1e-9 && worst.score > known.worst.score)
    )
      best[size] = { sheets: [...chosen].sort((p, q) => p - q), meanScore: sum / pictures, worst };
  }
  return best.filter((c): c is Choice => c !== undefined);
}
