import {
  judgeSheets,
  type Candidate,
  type JudgedSheet,
  type Judgement,
  type Question,
  type Uncounted,
} from './judge.ts';
import type { Reason } from './leanings/leaning.ts';
import { LEANINGS } from './leanings/registry.ts';
import type { MatchFigures } from './on-sheet.ts';
import { partingFigure, type PartingFigure } from './parting.ts';
import { weightsOf, type Weights } from './schools.ts';

/** What is asked of a ranking, besides the sheets. */
export interface Asked extends Question {
  readonly weights?: Weights;
}

/** What a criterion parts one place from the next by. */
export interface PartedBy {
  readonly leaning: string;
  /** Difference of the costs; positive: this place is the better. */
  readonly by: number;
  readonly figure?: PartingFigure;
}

/** One place in the ranking of sheets for a picture. */
export interface RankedSheet {
  readonly id: string;
  /** From 1; sheets that can't be told apart share a place. */
  readonly place: number;
  /** 10: nothing is taken from the picture. 0: would not. */
  readonly score: number;
  /** One standard deviation of the score: by how much the readings and the weights may be off. */
  readonly scoreSd: number;
  /** What all reasons take together; 1 is about 1 ΔE00 over the whole picture. */
  readonly cost: number;
  /** What it does to the picture, in at most twelve words. */
  readonly verdict: string;
  readonly reasons: readonly Reason[];
  readonly figures: MatchFigures;
  /** It and the next can't be told apart for sure. */
  readonly closeToNext: boolean;
  /** Leanings that part it from the next, the strongest first; positive: it is the better there. */
  readonly parts: readonly PartedBy[];
}

/** What would have to change for the second to win. */
export interface Turn {
  readonly leaning: string;
  readonly name: string;
  /** The weight at which the two are level, and the weight today. */
  readonly weight: number;
  readonly from: number;
}

export interface Ranking {
  readonly places: readonly RankedSheet[];
  readonly refused: readonly { readonly id: string; readonly why: string }[];
  /** Leanings that say the same of all: told once. */
  readonly shared: readonly Reason[];
  /** What counts for none, since it is not known of all. */
  readonly uncounted: readonly Uncounted[];
  readonly turns: readonly Turn[];
}

/**
 * Costs nearer than this share a place. Within it the better score comes first: a price counts by its own criterion,
 * and no lower score stands above a higher. Our own choice.
 */
export const TIE = 0.1;
/** A cost at which a score has fallen to 10/e: a sheet nobody would take. */
const SCALE = 6;
/** Weights are a printmaker's, and may be off by so much (our own choice). */
const WEIGHT_SD = 0.2;
/** What a model of a sheet may be off by, where it does not say, ΔE00. */
const USUAL_ERROR = 0.2;
/** Costs of one leaning that differ by less are the same for all. */
const SAME = 0.05;

export const scoreOf = (cost: number): number => 10 * Math.exp(-Math.max(0, cost) / SCALE);

/** The sheets in the order in which they serve the picture, each with its reasons. */
export const rankSheets = (asked: Asked, candidates: readonly Candidate[]): Ranking =>
  weigh(judgeSheets(asked, candidates), asked.weights);

/** The order under other weights: no leaning is asked again. */
export function weigh({ sheets, refused, uncounted, alike }: Judgement, own?: Weights): Ranking {
  const weights = weightsOf(own);
  const weighed = sheets
    .map((sheet): Sheet => {
      // Weighed at nothing, a leaning is silent; what it would say is not lost to those who hold it.
      const reasons = sheet.opinions
        .filter((o) => weights[o.leaning] !== 0)
        .map((o): Reason => ({ ...o, cost: o.unweighted * weights[o.leaning]! }));
      return {
        ...sheet,
        reasons,
        costs: new Map(reasons.map((r) => [r.leaning, r.cost])),
        cost: reasons.reduce((sum, r) => sum + r.cost, 0),
      };
    })
    .sort((p, q) => p.cost - q.cost);
  return {
    places: placed(weighed, alike),
    refused,
    shared: weighed[0]?.reasons.filter((r) => alike.has(r.leaning)) ?? [],
    uncounted,
    turns: turnsOf(weighed, weights),
  };
}

/** A sheet with what every leaning takes from it. */
interface Sheet extends JudgedSheet {
  readonly reasons: readonly Reason[];
  readonly costs: ReadonlyMap<string, number>;
  readonly cost: number;
}

const costOf = ({ costs }: Sheet, leaning: string): number => costs.get(leaning) ?? 0;

function placed(sheets: readonly Sheet[], alike: ReadonlySet<string>): RankedSheet[] {
  const order: { sheet: Sheet; place: number }[] = [];
  while (order.length < sheets.length) {
    const from = order.length;
    const tied = sheets.slice(from).findIndex((s) => s.cost - sheets[from]!.cost >= TIE);
    const group = sheets.slice(from, tied < 0 ? sheets.length : from + tied);
    order.push(...group.map((sheet) => ({ sheet, place: from + 1 })));
  }
  return order.map(({ sheet, place }, at) => ranked(sheet, place, alike, order[at + 1]?.sheet));
}

const errorOf = ({ sheet }: Sheet): number => 0.5 * (sheet.modelError ?? USUAL_ERROR);

function ranked(one: Sheet, place: number, alike: ReadonlySet<string>, next: Sheet | undefined): RankedSheet {
  const score = scoreOf(one.cost);
  const sd = Math.hypot(...one.reasons.map((r) => WEIGHT_SD * r.cost), errorOf(one));
  return {
    id: one.sheet.id,
    place,
    score,
    scoreSd: (score * sd) / SCALE,
    cost: one.cost,
    verdict: one.verdict,
    reasons: one.reasons.filter((r) => !alike.has(r.leaning)).sort((p, q) => q.cost - p.cost),
    figures: one.figures,
    ...(next ? partedFrom(one, next) : { closeToNext: false, parts: [] }),
  };
}

function partedFrom(one: Sheet, next: Sheet): Pick<RankedSheet, 'closeToNext' | 'parts'> {
  const parts = LEANINGS.map((l) => ({ leaning: l.key, by: costOf(next, l.key) - costOf(one, l.key) }))
    .filter(({ by }) => Math.abs(by) >= SAME)
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by));
  // What is uncertain in both alike does not blur the difference: only what parts them may be weighed otherwise.
  const sd = Math.hypot(...parts.map(({ by }) => WEIGHT_SD * by), errorOf(one), errorOf(next));
  const figuresOf = ({ reasons }: Sheet, leaning: string) => reasons.find((r) => r.leaning === leaning)?.figures ?? [];
  return {
    parts: parts.map((p) => ({ ...p, figure: partingFigure(figuresOf(one, p.leaning), figuresOf(next, p.leaning)) })),
    closeToNext: next.cost - one.cost < sd,
  };
}

/** How far a weight may be turned before it is no longer the same question (our own choice). */
const MOST_TURN = 3;

/** Weights that would bring the second level with the first, the least turn first. */
function turnsOf(sheets: readonly Sheet[], weights: Readonly<Record<string, number>>): Turn[] {
  const [first, second] = sheets;
  if (!second) return [];
  const gap = second.cost - first!.cost;
  // Of two that share a place neither has won: there is nothing to turn.
  if (gap < TIE) return [];
  return LEANINGS.flatMap((leaning): Turn[] => {
    const weight = weights[leaning.key]!;
    const by = costOf(second, leaning.key) - costOf(first!, leaning.key);
    if (weight === 0 || Math.abs(by) < SAME) return [];
    // Level where the leaning's part of the gap is gone, or the other way round grown.
    const level = weight * (1 - gap / by);
    if (level < 0 || level > weight * MOST_TURN) return [];
    return [{ leaning: leaning.key, name: leaning.name, weight: level, from: weight }];
  }).sort((p, q) => Math.abs(Math.log((p.weight + 0.01) / p.from)) - Math.abs(Math.log((q.weight + 0.01) / q.from)));
}
