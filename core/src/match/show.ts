/** How well each paper serves each picture, 0–10; absent where it is refused or not known. By picture, then by paper. */
export type Scores = readonly (readonly (number | undefined)[])[];

/** What is asked for a show. Papers and pictures are numbers of columns and rows of the scores. */
export interface ShowQuestion {
  readonly scores: Scores;
  /** Papers that every choice holds, and papers that none does. */
  readonly chosen?: readonly number[];
  readonly vetoed?: readonly number[];
  /** Mean loss that is accepted, in points of 10, against every picture on its best paper. */
  readonly maxLoss: number;
  /** Whether two papers may hang beside each other, where one look is wished for. */
  readonly alike?: (p: number, q: number) => boolean;
}

/** What a picture scores on the best paper of a choice, and what that is below its best paper of all. */
export interface ShownPicture {
  readonly picture: number;
  readonly score: number;
  readonly loss: number;
}

/** The best choice of so many papers that was found. */
export interface Choice {
  /** Numbers of papers, rising. */
  readonly papers: readonly number[];
  /** Mean over the pictures of the score on the best paper of the choice; a picture that none carries counts as 0. */
  readonly meanScore: number;
  readonly meanLoss: number;
  /** The picture that loses most. */
  readonly hardest: ShownPicture;
  /** No choice of as many papers has a higher mean than this: the mean itself where all of them were tried. */
  readonly atMost: number;
}

export interface ShowPlan {
  /** Every choice was tried. */
  readonly exact: boolean;
  /** The best of each number of papers, as long as one more improves anything. */
  readonly choices: readonly Choice[];
  /** Which of the choices has the fewest papers within the loss accepted; absent where none has. */
  readonly fewest?: number;
  /** Pairs of chosen papers that do not look alike, though one look is wished for. */
  readonly unlike: readonly (readonly [number, number])[];
}

/** What a paper more, or less, does to a choice. */
export interface PaperChange {
  readonly paper: number;
  /** Change of the mean score: above 0 for a paper more, below 0 for a paper less. */
  readonly byMean: number;
  /** Pictures that would hang on another paper. */
  readonly pictures: number;
  /** The picture whose score changes most. */
  readonly most: { readonly picture: number; readonly by: number };
}

/** Up to so many papers every choice is tried. */
export const MAX_EXACT = 14;
/** Means nearer than this are the same. */
const SAME = 1e-9;
/** Rounds of exchanging one paper for another, beyond the exact search (our own choice). */
const MAX_ROUNDS = 20;

/**
 * The fewest papers that carry a show. Up to 14 papers every choice is tried; of more, papers are added one by one, from
 * every beginning, and then exchanged as long as that helps. The mean of the best scores is monotone and submodular, so
 * that each choice has a bound: no other of as many papers can have a mean above `atMost` (Nemhauser, Wolsey & Fisher 1978).
 */
export function planShow(question: ShowQuestion): ShowPlan {
  const show = new Show(question);
  const { chosen, free, alike } = show;
  const unlike = chosen.flatMap((p, i) =>
    chosen.slice(i + 1).flatMap((q) => (alike(p, q) ? [] : ([[p, q]] as [number, number][]))),
  );
  if (question.scores.length === 0 || chosen.length + free.length === 0) return { exact: true, choices: [], unlike };
  const exact = chosen.length + free.length <= MAX_EXACT;
  const found = exact ? tryAll(show) : grow(show);
  const choices: Choice[] = [];
  for (const { papers, atMost } of found) {
    const choice = show.choice(papers, atMost);
    const before = choices.at(-1);
    // With one look two papers may carry less than the best alone, and three more: what improves nothing is left out.
    if (!before || choice.meanScore > before.meanScore + SAME) choices.push(choice);
  }
  const fewest = choices.findIndex((c) => c.meanLoss <= question.maxLoss + SAME);
  return { exact, choices, unlike, ...(fewest >= 0 && { fewest }) };
}

/** What dropping each paper of a choice costs, the least first. */
export function drops({ scores }: ShowQuestion, papers: readonly number[]): PaperChange[] {
  return papers
    .map((paper) =>
      changed(
        scores,
        papers,
        papers.filter((p) => p !== paper),
        paper,
      ),
    )
    .sort((a, b) => b.byMean - a.byMean);
}

/** What each further paper would improve, the most first; those that improve nothing are left out. */
export function additions(question: ShowQuestion, papers: readonly number[]): PaperChange[] {
  const { alike, free } = new Show(question);
  return free
    .filter((p) => !papers.includes(p) && papers.every((q) => alike(p, q)))
    .map((paper) => changed(question.scores, papers, [...papers, paper], paper))
    .filter((c) => c.byMean > SAME)
    .sort((a, b) => b.byMean - a.byMean);
}

function changed(scores: Scores, from: readonly number[], to: readonly number[], paper: number): PaperChange {
  let [sum, pictures] = [0, 0];
  let most = { picture: 0, by: 0 };
  scores.forEach((of, picture) => {
    const by = bestOf(of, to) - bestOf(of, from);
    sum += by;
    if (Math.abs(by) > SAME) pictures++;
    if (Math.abs(by) > Math.abs(most.by)) most = { picture, by };
  });
  return { paper, byMean: scores.length > 0 ? sum / scores.length : 0, pictures, most };
}

const bestOf = (of: readonly (number | undefined)[], papers: readonly number[]): number =>
  papers.reduce((best, p) => Math.max(best, of[p] ?? 0), 0);

/** The best of one number of papers, with the bound that no other of as many exceeds. */
interface Found {
  readonly papers: readonly number[];
  readonly atMost: number;
}

/** A show made ready to be searched: scores by paper, so that one is taken in with one pass over the pictures. */
class Show {
  readonly pictures: number;
  readonly columns: readonly Float64Array[];
  readonly chosen: readonly number[];
  readonly free: readonly number[];
  readonly alike: (p: number, q: number) => boolean;
  /** Score of each picture on its best paper that is not vetoed. */
  readonly best: Float64Array;

  constructor({ scores, chosen = [], vetoed = [], alike = () => true }: ShowQuestion) {
    this.pictures = scores.length;
    this.columns = (scores[0] ?? []).map((_, s) => Float64Array.from(scores, (of) => of[s] ?? 0));
    this.chosen = [...new Set(chosen)].sort((p, q) => p - q);
    this.free = this.columns.map((_, s) => s).filter((s) => !this.chosen.includes(s) && !vetoed.includes(s));
    this.alike = alike;
    this.best = this.over([...this.chosen, ...this.free]);
  }

  /** Score of each picture on the best of some papers. */
  over(papers: readonly number[]): Float64Array {
    const out = new Float64Array(this.pictures);
    for (const p of papers) this.take(p, out, out);
    return out;
  }

  /** @param into the better of `from` and of the paper, by picture */
  take(paper: number, from: Float64Array, into: Float64Array): void {
    const column = this.columns[paper]!;
    for (let i = 0; i < into.length; i++) into[i] = Math.max(from[i]!, column[i]!);
  }

  /** By how much a paper raises the sum over the pictures. */
  gain(paper: number, over: Float64Array): number {
    const column = this.columns[paper]!;
    let sum = 0;
    for (let i = 0; i < over.length; i++) if (column[i]! > over[i]!) sum += column[i]! - over[i]!;
    return sum;
  }

  mayJoin(paper: number, papers: readonly number[]): boolean {
    return papers.every((p) => this.alike(p, paper));
  }

  choice(papers: readonly number[], atMost: number): Choice {
    const over = this.over(papers);
    let hardest: ShownPicture = { picture: 0, score: over[0]!, loss: -1 };
    for (const [picture, score] of over.entries()) {
      const loss = this.best[picture]! - score;
      if (loss > hardest.loss + SAME || (loss > hardest.loss - SAME && score < hardest.score - SAME))
        hardest = { picture, score, loss };
    }
    const meanScore = sumOf(over) / this.pictures;
    return {
      papers: [...papers].sort((p, q) => p - q),
      meanScore,
      meanLoss: Math.max(0, sumOf(this.best) / this.pictures - meanScore),
      hardest,
      atMost: Math.max(meanScore, atMost),
    };
  }
}

const sumOf = (v: Float64Array): number => v.reduce((sum, x) => sum + x, 0);
const leastOf = (v: Float64Array): number => v.reduce((least, x) => Math.min(least, x), Infinity);

/** Every choice, each built from the one that lacks its last paper. */
function tryAll(show: Show): Found[] {
  const { free, chosen, pictures } = show;
  const best = new Map<number, { papers: readonly number[]; sum: number; least: number }>();
  const depth = Array.from({ length: free.length + 1 }, () => new Float64Array(pictures));
  const visit = (papers: readonly number[], from: number, over: Float64Array, level: number): void => {
    const sum = sumOf(over);
    const least = leastOf(over);
    const known = best.get(papers.length);
    // Of two that carry the pictures alike, the one that is kinder to the weakest of them.
    if (!known || sum > known.sum + SAME || (sum > known.sum - SAME && least > known.least + SAME))
      best.set(papers.length, { papers, sum, least });
    for (let i = from; i < free.length; i++) {
      const next = free[i]!;
      if (!show.mayJoin(next, papers)) continue;
      show.take(next, over, depth[level]!);
      visit([...papers, next], i + 1, depth[level]!, level + 1);
    }
  };
  visit(chosen, 0, show.over(chosen), 0);
  return [...best.values()]
    .filter((b) => b.papers.length > 0)
    .sort((a, b) => a.papers.length - b.papers.length)
    .map(({ papers, sum }) => ({ papers, atMost: sum / pictures }));
}

/** From every beginning the paper that raises the mean most, again and again; then one is exchanged for another. */
function grow(show: Show): Found[] {
  const { chosen, free, pictures } = show;
  const bestBySize = new Map<number, { papers: readonly number[]; sum: number }>();
  const bounds: Float64Array[] = [];
  const keep = (papers: readonly number[], over: Float64Array) => {
    const sum = sumOf(over);
    if (papers.length > 0 && sum > (bestBySize.get(papers.length)?.sum ?? -1) + SAME)
      bestBySize.set(papers.length, { papers, sum });
  };
  const begin = show.over(chosen);
  keep(chosen, begin);
  bounds.push(boundsFrom(show, begin));
  for (const [at, first] of free.entries()) {
    let papers = [...chosen];
    const over = Float64Array.from(begin);
    for (let next: number | undefined = first; next !== undefined && show.mayJoin(next, papers);) {
      papers = [...papers, next];
      show.take(next, over, over);
      keep(papers, over);
      if (at === 0) bounds.push(boundsFrom(show, over));
      next = strongest(show, papers, over);
    }
  }
  const all = sumOf(show.best);
  return [...bestBySize.entries()]
    .sort(([a], [b]) => a - b)
    .map(([size, { papers }]) => ({
      papers: exchanged(show, papers),
      atMost: Math.min(all, ...bounds.map((b) => b[size - chosen.length]!)) / pictures,
    }));
}

/** The paper that raises the sum most; absent where none raises it. */
function strongest(show: Show, papers: readonly number[], over: Float64Array): number | undefined {
  let best: { paper: number; gain: number } | undefined;
  for (const paper of show.free) {
    if (papers.includes(paper) || !show.mayJoin(paper, papers)) continue;
    const gain = show.gain(paper, over);
    if (gain > (best?.gain ?? 0) + SAME) best = { paper, gain };
  }
  return best?.paper;
}

/** Sum that no choice of so many further papers exceeds, by their number: what some choice has, and the largest gains upon it. */
function boundsFrom(show: Show, over: Float64Array): Float64Array {
  const gains = show.free.map((p) => show.gain(p, over)).sort((a, b) => b - a);
  const out = new Float64Array(gains.length + 1);
  out[0] = sumOf(over);
  for (const [k, gain] of gains.entries()) out[k + 1] = out[k]! + gain;
  return out;
}

/** One paper for another, as long as that raises the sum. */
function exchanged(show: Show, papers: readonly number[]): readonly number[] {
  let now = papers;
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const better = exchange(show, now);
    if (!better) break;
    now = better;
  }
  return now;
}

function exchange(show: Show, papers: readonly number[]): readonly number[] | undefined {
  const sum = sumOf(show.over(papers));
  let best: { papers: readonly number[]; sum: number } | undefined;
  for (const out of papers) {
    if (show.chosen.includes(out)) continue;
    const rest = papers.filter((p) => p !== out);
    const over = show.over(rest);
    const base = sumOf(over);
    for (const paper of show.free) {
      if (papers.includes(paper) || !show.mayJoin(paper, rest)) continue;
      const with_ = base + show.gain(paper, over);
      if (with_ > (best?.sum ?? sum) + SAME) best = { papers: [...rest, paper], sum: with_ };
    }
  }
  return best?.papers;
}
