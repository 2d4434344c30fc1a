import { deltaE2000 } from '../colour/difference.ts';
import type { Hint } from '../picture/hints.ts';
import type { PictureFigures } from '../picture/tally.ts';
import { leastStepL, type Commission } from './commission.ts';
import { contrastKept, scalesSeen } from './contrast-kept.ts';
import { behindGlass, shineOf, textureSeen, type Weighed } from './leanings/leaning.ts';
import { longOf } from './leanings/long-greys.ts';
import { SHADOW_L } from './palette.ts';
import { deltaE, percent } from './words.ts';

/** A verdict is no longer than this. */
export const MAX_VERDICT_WORDS = 12;

/** Shares of a quality that is held, and that is mostly held (our own bounds). */
const HELD = 0.85;
const MOSTLY = 0.6;
/** A tooth is spoken of from here on, 0 none, 1 rough and near (our own bound). */
const TOOTH_SEEN = 0.2;
const held = (kept: number): string => (kept >= HELD ? 'Holds' : kept >= MOSTLY ? 'Holds most of' : 'Loses');

/** Something a picture asks, how much of it a sheet gives, and a fact that shows it. */
interface Asked {
  /** How much the picture asks it, 0–1. */
  readonly asks: number;
  /** As the head of a verdict. */
  readonly head: string;
  /** As a fact behind another head; behind its own where that does not say the same again. */
  readonly fact: string;
  readonly ownFact?: string;
  /** How far the sheet is from giving it all, 0–1: what is lost is said before what is kept. */
  readonly lost: number;
}

/** What a sheet does to a picture, in at most twelve words: the picture's first question, and the facts that answer it. */
export function verdictOf(w: Weighed): string {
  const asked = [ground, shadows, colour, greys, softness, contrast, texture, shine]
    .flatMap((question) => question(w) ?? [])
    .sort((p, q) => q.asks - p.asks);
  const [first, ...others] = asked;
  if (!first) return 'Prints the picture as it is, within what is seen.';
  const facts = others.sort((p, q) => q.asks * (0.3 + q.lost) - p.asks * (0.3 + p.lost)).map((o) => o.fact);
  const sentence = [first.head, ...(first.ownFact ? [first.ownFact] : [])];
  for (const fact of facts) if (wordsOf([...sentence, fact]) <= MAX_VERDICT_WORDS) sentence.push(fact);
  const [head, ...rest] = sentence;
  return rest.length > 0 ? `${head}: ${rest.slice(0, 2).join(', ')}` : head!;
}

/** Words as a reader counts them: figures with their unit are one. */
export const wordsOf = (parts: readonly string[]): number => parts.join(' ').split(' ').filter(Boolean).length;

const both = (fact: string) => ({ fact, ownFact: fact });
const has = (hints: readonly Hint[], hint: Hint) => hints.includes(hint);
const subjectOf = (hints: readonly Hint[], picture: PictureFigures): string =>
  has(hints, 'night') ? 'the night' : picture.key === 'low key' ? 'the darks' : 'the shadows';

/** Steps of tone in the picture's own shadows that an eye parts in that light, in the file and on the sheet. */
export function shadowStepsSeen(
  picture: PictureFigures,
  commission: Pick<Commission, 'lux'>,
  match: Pick<Weighed['match'], 'shadowStepsKept'>,
): { of: number; seen: number } {
  const range = Math.max(0, SHADOW_L - Math.min(SHADOW_L, Math.max(0, picture.deepestL ?? picture.darkL)));
  const of = Math.floor(range / leastStepL(commission.lux));
  return { of, seen: Math.min(of, Math.round(of * match.shadowStepsKept)) };
}

/** A reproduction asks first for the white of its original. */
function ground({ commission, match }: Weighed): Asked | undefined {
  if (!commission.originalGround) return undefined;
  const off = deltaE2000(commission.originalGround, match.whiteLab);
  return {
    asks: 1,
    head:
      off < 2
        ? 'Matches the original’s ground'
        : off < 5
          ? 'Comes near the original’s ground'
          : 'Misses the original’s ground',
    ...both(deltaE(off)),
    lost: Math.min(1, off / 8),
  };
}

function shadows({ picture, hints, commission, match }: Weighed): Asked | undefined {
  if (match.shadowShare < 0.05) return undefined;
  const { of, seen } = shadowStepsSeen(picture, commission, match);
  if (of < 3) return undefined;
  return {
    asks: Math.min(1, 0.15 + 1.2 * match.shadowShare),
    head: `${held(match.shadowStepsKept)} ${subjectOf(hints, picture)}`,
    ...both(`${seen} of ${of} shadow steps`),
    lost: 1 - match.shadowStepsKept,
  };
}

function colour({ picture, match, sheet }: Weighed): Asked | undefined {
  if (picture.colour === 'black and white') return undefined;
  if (picture.colour !== 'colour') {
    const kept = Math.min(1, Math.max(0, 1 - match.outsideMeanDeltaE / 8)) ** (match.outsideShare > 0.05 ? 1 : 0);
    return {
      asks: 0.45,
      head: sheet.monochrome ? 'Prints no toning' : `${held(kept)} the toning`,
      fact: sheet.monochrome
        ? 'toning lost'
        : kept >= HELD
          ? 'toning kept'
          : `toning off in ${percent(match.outsideShare)}`,
      lost: 1 - kept,
    };
  }
  const strong = Math.min(1, picture.meanChroma / 45);
  const lostFamily = match.lostFamilies[0];
  const outside = match.outsideShare >= 0.02 && lostFamily ? familyOf(lostFamily.name) : undefined;
  const paled = match.paledFamilies[0] ? familyOf(match.paledFamilies[0].name) : undefined;
  const inside = 1 - Math.min(1, match.colourLostDeltaE / 5);
  const kept = Math.min(match.chromaKept, inside);
  const fact =
    outside && inside <= match.chromaKept
      ? `${outside} ${lostFamily!.meanDeltaE.toFixed(0)}\u00a0ΔE00 off`
      : match.chromaKept < 0.93
        ? `${paled ?? 'colours'} paler, ${percent(match.chromaKept)} of chroma`
        : `${familyOf(picture.families?.find((f) => !/grey/.test(f.name))?.name ?? 'colours')} kept`;
  return { asks: 0.15 + 0.6 * strong, head: `${held(kept)} the colours`, ...both(fact), lost: 1 - kept };
}

/** "deep blues" is "blues" here. */
const familyOf = (name: string): string => name.replace(/^(deep|light|dark|pale) /, '');

function greys({ picture, match, sheet }: Weighed): Asked | undefined {
  if (picture.colour === 'colour') return undefined;
  const off = sheet.monochrome ? sheet.greysOff : match.greysDeviation;
  if (off === undefined) return undefined;
  const kept = Math.max(0, 1 - off / 5);
  return {
    asks: 0.3,
    head: `${off < 1.2 ? 'Holds neutral greys' : 'Tints the greys'}`,
    ...both(`greys within ${off.toFixed(1)}\u00a0C*`),
    lost: 1 - kept,
  };
}

/** Long, soft tones: a matter of the surface. */
function softness(w: Weighed): Asked | undefined {
  const shine = shineOf(w.sheet);
  const long = longOf(w);
  if (shine === undefined || long < 0.3) return undefined;
  const tones = w.picture.colour === 'colour' ? 'quiet tones' : 'long greys';
  return {
    asks: 0.5 * long,
    head: shine < 0.2 ? `Lays ${tones} softly` : `Shows ${tones} crisply`,
    fact: shine < 0.2 ? 'soft on matt' : 'crisp on sheen',
    lost: shine,
  };
}

function contrast({ picture, commission, match, sheet }: Weighed): Asked | undefined {
  const scales = scalesSeen(
    contrastKept(picture.structure?.scales ?? [], commission.longSideMm, match, sheet),
    commission.viewingMm,
  );
  const whole = scales.reduce((s, v) => s + v.sdL, 0);
  if (whole < 1) return undefined;
  const kept = scales.reduce((s, v) => s + v.sdL * v.kept, 0) / whole;
  return {
    asks: Math.min(0.5, whole / 60),
    head: `${held(kept)} the contrast`,
    fact: `contrast ${percent(kept)}`,
    ownFact: `${percent(kept)} kept`,
    lost: Math.min(1, 3 * (1 - kept)),
  };
}

function texture(w: Weighed): Asked | undefined {
  const structure = w.picture.structure;
  const seen = textureSeen(w);
  if (!structure || seen < TOOTH_SEEN) return undefined;
  const busy = structure.busyShare > structure.smoothShare;
  return {
    asks: 0.1 + 0.3 * (busy ? structure.busyShare : structure.smoothShare),
    head: busy ? 'Carries its detail on a tooth' : 'Lets its tooth be seen',
    fact: busy ? 'tooth suits it' : 'tooth seen',
    lost: busy ? 0 : seen,
  };
}

function shine(w: Weighed): Asked | undefined {
  const shines = shineOf(w.sheet);
  if (behindGlass(w) || shines === undefined) return undefined;
  return {
    asks: 0.12,
    head: shines < 0.1 ? 'Shows no reflections' : 'Mirrors the room',
    fact: shines < 0.1 ? 'no reflections' : 'reflects',
    lost: shines,
  };
}
