import type { Hint } from '../picture/hints.ts';
import type { PictureFigures } from '../picture/tally.ts';
import type { Commission } from './commission.ts';
import type { Field, Reason } from './leanings/leaning.ts';
import { LEANINGS } from './leanings/registry.ts';
import type { MatchFigures } from './on-sheet.ts';
import { weightsOf, type Weights } from './schools.ts';
import type { SheetQualities } from './sheet.ts';
import { refusedBy } from './vetoes.ts';

/** A sheet with what it does to the picture. */
export interface Candidate {
  readonly sheet: SheetQualities;
  readonly figures: MatchFigures;
}

/** What is asked of a ranking, besides the sheets. */
export interface Asked {
  readonly picture: PictureFigures;
  readonly hints: readonly Hint[];
  readonly commission: Commission;
  readonly weights?: Weights;
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
  readonly reasons: readonly Reason[];
  readonly figures: MatchFigures;
  /** It and the next can't be told apart for sure. */
  readonly closeToNext: boolean;
  /** Leanings that part it from the next, the strongest first; positive: it is the better there. */
  readonly parts: readonly { readonly leaning: string; readonly by: number }[];
}

/** What would have to change for the second to win. */
export interface Turn {
  readonly leaning: string;
  readonly name: string;
  /** The weight at which the two are level, and the weight today. */
  readonly weight: number;
  readonly from: number;
}

/** A figure that counts for none, since it is not known of all. */
export interface Uncounted {
  readonly what: string;
  readonly unknownOf: readonly string[];
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

/** Costs nearer than this are not told apart by anyone; then the cheaper sheet comes first. Our own choice. */
export const TIE = 0.15;
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
export function rankSheets(asked: Asked, candidates: readonly Candidate[]): Ranking {
  const weights = weightsOf(asked.weights);
  const refused: { id: string; why: string }[] = [];
  const fit = candidates.filter(({ sheet }) => {
    const why = refusedBy(sheet, asked.commission, asked.picture.colour);
    if (why) refused.push({ id: sheet.id, why });
    return !why;
  });
  const field = fieldOf(fit);
  const { alike, uncounted } = alikeOf(fit.map(({ sheet }) => sheet));
  const judged = fit
    .map((candidate, at): Judged => {
      const weighed = { ...asked, ...candidate, match: candidate.figures, field };
      const reasons = LEANINGS.flatMap((leaning): Reason[] => {
        const said = leaning.judge(weighed);
        // Weighed at nothing, a leaning is silent; what it would say is not lost to those who hold it.
        if (!said || weights[leaning.key] === 0) return [];
        // What is known of it alone is said, and not held against it.
        const unweighted =
          alike[at] === candidate.sheet ? said.cost : (leaning.judge({ ...weighed, sheet: alike[at] })?.cost ?? 0);
        return [{ leaning: leaning.key, ...said, unweighted, cost: unweighted * weights[leaning.key] }];
      });
      const cost = reasons.reduce((sum, r) => sum + r.cost, 0);
      return { ...candidate, reasons, cost };
    })
    .sort((p, q) => p.cost - q.cost);
  const shared = sharedBy(judged);
  return { places: placed(judged, shared), refused, shared, uncounted, turns: turnsOf(judged, weights) };
}

/** Figures that a sheet may lack, as they are called. */
const MAY_LACK = {
  textureL: 'texture',
  gloss60: 'gloss',
  glossDifferential: 'gloss differential',
  bronzing: 'bronzing',
  greysOff: 'neutrality of the greys',
  metamerism: 'turn of the greys',
  brightenerShift: 'brightener',
  longestMm: 'sizes',
  feeding: 'feeding',
  // Timed with the printing, and by practice without: one is not held against the other.
  minutesEach: 'minutes at the printer',
  pricePerM2: 'price',
} as const;
type MayLack = keyof typeof MAY_LACK;

/** The sheets with what is known of all of them: nothing is held against a sheet because it was measured and another was not. */
function alikeOf(sheets: readonly SheetQualities[]): { alike: SheetQualities[]; uncounted: Uncounted[] } {
  const keys = Object.keys(MAY_LACK) as MayLack[];
  const some = keys.filter((k) => sheets.some((s) => s[k] !== undefined));
  const partly = some.filter((k) => sheets.some((s) => s[k] === undefined));
  return {
    alike: sheets.map((sheet) =>
      partly.some((k) => sheet[k] !== undefined)
        ? { ...sheet, ...Object.fromEntries(partly.map((k) => [k, undefined])) }
        : sheet,
    ),
    uncounted: partly.map((k) => ({
      what: MAY_LACK[k],
      unknownOf: sheets.filter((s) => s[k] === undefined).map((s) => s.id),
    })),
  };
}

interface Judged extends Candidate {
  readonly reasons: readonly Reason[];
  readonly cost: number;
}

/** Amounts in two currencies are not put in one order. */
function fieldOf(fit: readonly Candidate[]): Field {
  const conditions = [...new Set(fit.flatMap(({ sheet }) => sheet.measurementCondition ?? []))].sort();
  const unlike = conditions.length > 1 ? { conditions } : {};
  const priced = fit.filter(({ sheet }) => sheet.pricePerM2 !== undefined);
  if (priced.length === 0 || new Set(priced.map(({ sheet }) => sheet.currency)).size > 1) return unlike;
  return { ...unlike, cheapestPerM2: Math.min(...priced.map(({ sheet }) => sheet.pricePerM2!)) };
}

const costOf = ({ reasons }: Judged, leaning: string): number => reasons.find((r) => r.leaning === leaning)?.cost ?? 0;

/** Leanings that every sheet has in one sentence, word by word. */
function sharedBy(judged: readonly Judged[]): Reason[] {
  if (judged.length < 2) return [];
  return judged[0].reasons.filter((r) =>
    judged.every(({ reasons }) => reasons.some((s) => s.leaning === r.leaning && s.sentence === r.sentence)),
  );
}

function placed(judged: readonly Judged[], shared: readonly Reason[]): RankedSheet[] {
  const places: RankedSheet[] = [];
  let i = 0;
  while (i < judged.length) {
    let end = i + 1;
    while (end < judged.length && judged[end].cost - judged[i].cost < TIE) end++;
    for (const one of priceOrder(judged.slice(i, end))) places.push(place(one, i + 1, shared));
    i = end;
  }
  return places.map((p, at) => {
    const next = judged.find((j) => j.sheet.id === places[at + 1]?.id);
    const own = judged.find((j) => j.sheet.id === p.id)!;
    if (!next) return p;
    const parts = LEANINGS.map((l) => ({ leaning: l.key, by: costOf(next, l.key) - costOf(own, l.key) }))
      .filter(({ by }) => Math.abs(by) >= SAME)
      .sort((a, b) => Math.abs(b.by) - Math.abs(a.by));
    // What is uncertain in both alike does not blur the difference: only what parts them may be weighed otherwise.
    const sd = Math.hypot(...parts.map(({ by }) => WEIGHT_SD * by), errorOf(own), errorOf(next));
    return { ...p, parts, closeToNext: next.cost - own.cost < sd };
  });
}

const errorOf = ({ sheet }: Judged): number => 0.5 * (sheet.modelError ?? USUAL_ERROR);

function place(one: Judged, at: number, shared: readonly Reason[]): RankedSheet {
  const score = scoreOf(one.cost);
  const sd = Math.hypot(...one.reasons.map((r) => WEIGHT_SD * r.cost), errorOf(one));
  return {
    id: one.sheet.id,
    place: at,
    score,
    scoreSd: (score * sd) / SCALE,
    cost: one.cost,
    reasons: one.reasons.filter((r) => !shared.some((s) => s.leaning === r.leaning)).sort((p, q) => q.cost - p.cost),
    figures: one.figures,
    closeToNext: false,
    parts: [],
  };
}

/** The cheaper first, where prices can be compared; else as they serve. */
function priceOrder(tied: readonly Judged[]): Judged[] {
  if (fieldOf(tied).cheapestPerM2 === undefined) return [...tied];
  const price = ({ sheet }: Judged) => sheet.pricePerM2 ?? Infinity;
  return [...tied].sort((p, q) => (price(p) === price(q) ? p.cost - q.cost : price(p) - price(q)));
}

/** How far a weight may be turned before it is no longer the same question (our own choice). */
const MOST_TURN = 3;

/** Weights that would bring the second level with the first, the least turn first. */
function turnsOf(judged: readonly Judged[], weights: Readonly<Record<string, number>>): Turn[] {
  const [first, second] = judged;
  if (!second) return [];
  const gap = second.cost - first.cost;
  // Of two that share a place neither has won: there is nothing to turn.
  if (gap < TIE) return [];
  return LEANINGS.flatMap((leaning): Turn[] => {
    const weight = weights[leaning.key];
    const by = costOf(second, leaning.key) - costOf(first, leaning.key);
    if (weight === 0 || Math.abs(by) < SAME) return [];
    // Level where the leaning's part of the gap is gone, or the other way round grown.
    const level = weight * (1 - gap / by);
    if (level < 0 || level > weight * MOST_TURN) return [];
    return [{ leaning: leaning.key, name: leaning.name, weight: level, from: weight }];
  }).sort((p, q) => Math.abs(Math.log((p.weight + 0.01) / p.from)) - Math.abs(Math.log((q.weight + 0.01) / q.from)));
}
