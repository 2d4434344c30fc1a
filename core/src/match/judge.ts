import type { Hint } from '../picture/hints.ts';
import type { PictureFigures } from '../picture/tally.ts';
import type { Commission } from './commission.ts';
import type { Field, Said } from './leanings/leaning.ts';
import { LEANINGS } from './leanings/registry.ts';
import type { MatchFigures } from './on-sheet.ts';
import type { SheetQualities } from './sheet.ts';
import { verdictOf } from './verdict.ts';
import { refusedBy } from './vetoes.ts';

/** A sheet with what it does to the picture. */
export interface Candidate {
  readonly sheet: SheetQualities;
  readonly figures: MatchFigures;
}

/** What is asked of the sheets: a picture, and where it will live. */
export interface Question {
  readonly picture: PictureFigures;
  readonly hints: readonly Hint[];
  readonly commission: Commission;
  /** Shorter side of the picture over its longer; absent where it is not known. */
  readonly aspect?: number;
}

/** A figure that counts for none, since it is not known of all. */
export interface Uncounted {
  readonly what: string;
  readonly unknownOf: readonly string[];
}

/** What a leaning says of a sheet, and what it costs at weight 1. */
export interface Opinion extends Said {
  readonly leaning: string;
  readonly unweighted: number;
}

export interface JudgedSheet extends Candidate {
  /** What it does to the picture, in a few words. */
  readonly verdict: string;
  readonly opinions: readonly Opinion[];
}

/** What every leaning says of every sheet, before anything is weighed: a weight may be turned without asking any of them again. */
export interface Judgement {
  readonly sheets: readonly JudgedSheet[];
  readonly refused: readonly { readonly id: string; readonly why: string }[];
  readonly uncounted: readonly Uncounted[];
  /** Leanings that say the same of all sheets, word by word. */
  readonly alike: ReadonlySet<string>;
}

export function judgeSheets(question: Question, candidates: readonly Candidate[]): Judgement {
  const refused: { id: string; why: string }[] = [];
  const fit = candidates.filter(({ sheet }) => {
    const why = refusedBy(sheet, question.commission, question.picture.colour);
    if (why) refused.push({ id: sheet.id, why });
    return !why;
  });
  const field = fieldOf(fit);
  const { alike, uncounted } = alikeOf(fit.map(({ sheet }) => sheet));
  const sheets = fit.map((candidate, at): JudgedSheet => {
    const weighed = { ...question, ...candidate, match: candidate.figures, field };
    const opinions = LEANINGS.flatMap((leaning): Opinion[] => {
      const said = leaning.judge(weighed);
      if (!said) return [];
      // What is known of it alone is said, and not held against it.
      const unweighted =
        alike[at] === candidate.sheet ? said.cost : (leaning.judge({ ...weighed, sheet: alike[at]! })?.cost ?? 0);
      return [{ leaning: leaning.key, ...said, unweighted }];
    });
    return { ...candidate, verdict: verdictOf(weighed), opinions };
  });
  return { sheets, refused, uncounted, alike: saidOfAll(sheets) };
}

function saidOfAll(sheets: readonly JudgedSheet[]): Set<string> {
  if (sheets.length < 2) return new Set();
  const [first, ...others] = sheets.map(({ opinions }) => new Map(opinions.map((o) => [o.leaning, o.sentence])));
  return new Set([...first!].flatMap(([key, words]) => (others.every((o) => o.get(key) === words) ? [key] : [])));
}

/** Figures that a sheet may lack, as they are called. */
const MAY_LACK = {
  coating: 'kind of coating',
  base: 'base',
  surface: 'surface as claimed',
  weightGsm: 'weight',
  textureL: 'texture',
  gloss60: 'gloss',
  glossDifferential: 'gloss differential',
  bronzing: 'bronzing',
  hairlines: 'hairlines of the test page',
  metamerism: 'turn of the greys',
  brightenerShift: 'brightener',
  sizes: 'sizes',
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

/** Amounts in two currencies are not put in one order. */
export function fieldOf(fit: readonly Candidate[]): Field {
  const conditions = [...new Set(fit.flatMap(({ sheet }) => sheet.measurementCondition ?? []))].sort();
  const unlike = conditions.length > 1 ? { conditions } : {};
  const priced = fit.filter(({ sheet }) => sheet.pricePerM2 !== undefined);
  if (priced.length === 0 || new Set(priced.map(({ sheet }) => sheet.currency)).size > 1) return unlike;
  return { ...unlike, cheapestPerM2: Math.min(...priced.map(({ sheet }) => sheet.pricePerM2!)) };
}
