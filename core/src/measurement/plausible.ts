import { bulk, type CoatingClass } from '../paper.ts';
import type { Observation } from './observations.ts';
import { formatNumber } from './show.ts';

/** What is known of the sheet that something was measured of. */
export interface KnownSheet {
  readonly coating?: CoatingClass;
  /** As the maker claims it, or as it was measured before. */
  readonly weightGsm?: number;
  readonly thicknessUm?: number;
}

/** Something that was typed and is hard to believe. */
export interface Doubt {
  /** Box of the form. */
  readonly field: string;
  /** What follows from what was typed, why it is doubted, and what may have been meant. */
  readonly message: string;
}

/**
 * What inkjet papers are like, tissue to board: g/m² and µm a sheet (practice); bulk cm³/g, coated sheets denser than
 * rag and handmade ones (practice).
 */
const RANGE = { gsm: [30, 700], um: [40, 1200], bulk: { coated: [0.7, 1.7], open: [0.75, 3.5] } } as const;
const DENSE: readonly CoatingClass[] = ['gloss', 'lustre', 'baryta', 'metallic'];
/** Further from a claim than this share is doubted: makers allow themselves 5 % and damp adds a little (our own choice). */
const OFF_CLAIM = 0.25;
/** Readings of one sheet that differ by more than this ratio are not of one thing (our own choice). */
const MAX_RATIO = { grams: 1.2, stackUm: 1.3, percent: 1.15, gloss: 3 } as const;
/** Below this, gloss units spread by themselves. */
const LEAST_GLOSS = 5;

/** Derived from a weighing, g/m². */
export const areaWeightOf = ({
  grams,
  widthMm,
  heightMm,
}: {
  grams: readonly number[];
  widthMm: number;
  heightMm: number;
}) => (meanOf(grams) * 1e6) / (widthMm * heightMm);
/** Derived from a stack, µm a sheet. */
export const thicknessOf = ({ stackUm, sheets }: { stackUm: readonly number[]; sheets: number }) =>
  meanOf(stackUm) / sheets;

/** What is hard to believe of something measured at the bench; nothing where it fits. */
export function doubtsOf(o: Observation, sheet: KnownSheet): Doubt[] {
  switch (o.kind) {
    case 'weight':
      return [...spreadDoubt('grams', o.grams, MAX_RATIO.grams, 'g'), ...weightDoubt(o, sheet)].slice(0, 1);
    case 'thickness':
      return [...spreadDoubt('stackUm', o.stackUm, MAX_RATIO.stackUm, 'µm'), ...thicknessDoubt(o, sheet)].slice(0, 1);
    case 'opacity':
      return [
        ...spreadDoubt('overBlack', o.overBlack, MAX_RATIO.percent, '%'),
        ...spreadDoubt('overStack', o.overStack, MAX_RATIO.percent, '%'),
        ...opacityDoubt(o),
      ].slice(0, 1);
    case 'gloss':
      return (['white', 'black'] as const).flatMap((side) =>
        spreadDoubt(
          `${side}${o.angleDeg}`,
          o[side].map((v) => v + LEAST_GLOSS),
          MAX_RATIO.gloss,
          'GU',
          o[side],
        ),
      );
    default:
      return [];
  }
}

function spreadDoubt(
  field: string,
  values: readonly number[],
  maxRatio: number,
  unit: string,
  shown: readonly number[] = values,
): Doubt[] {
  if (values.length < 2 || Math.max(...values) <= maxRatio * Math.min(...values)) return [];
  const [low, high] = [Math.min(...shown), Math.max(...shown)].map((v) => formatNumber(v, v < 10 ? 2 : 1));
  return [{ field, message: `${low} and ${high} ${unit} are too far apart to be readings of one sheet.` }];
}

function weightDoubt(o: Extract<Observation, { kind: 'weight' }>, { weightGsm }: KnownSheet): Doubt[] {
  const gsm = areaWeightOf(o);
  const why = against(gsm, 'g/m²', RANGE.gsm, weightGsm);
  if (!why) return [];
  // What was meant fits the claim, or where nothing does at least a paper.
  const fits = (value: number) => !against(value, '', RANGE.gsm, weightGsm);
  const isPaper = !against(gsm, '', RANGE.gsm, undefined);
  const meant = fits(gsm / 100)
    ? { field: 'widthMm', words: 'Was the size typed in centimetres?' }
    : fits(gsm / 25.4 ** 2)
      ? { field: 'widthMm', words: 'Was the size typed in inches?' }
      : fits(meanOf(o.grams))
        ? { field: 'grams', words: 'Is that the weight of a square metre, and not of the sheet?' }
        : fits(gsm * 1000)
          ? { field: 'grams', words: 'Was the weight typed in kilograms?' }
          : !isPaper && !against(meanOf(o.grams), '', RANGE.gsm, undefined)
            ? { field: 'grams', words: 'Is that the weight of a square metre, and of another paper?' }
            : { field: 'grams', words: 'Check the weight and the size of the sheet.' };
  return [{ field: meant.field, message: `That gives ${words(gsm)} g/m², ${why}. ${meant.words}` }];
}

function thicknessDoubt(o: Extract<Observation, { kind: 'thickness' }>, sheet: KnownSheet): Doubt[] {
  const um = thicknessOf(o);
  const [low, high] = sheet.coating && DENSE.includes(sheet.coating) ? RANGE.bulk.coated : RANGE.bulk.open;
  const density = bulk(um, sheet.weightGsm);
  const why =
    against(um, 'µm', RANGE.um, sheet.thicknessUm) ??
    (density !== undefined && (density < low || density > high)
      ? `a bulk of ${words(density)} cm³/g; such papers have ${low} to ${high}`
      : undefined);
  if (!why) return [];
  const fits = (value: number) => {
    const by = bulk(value, sheet.weightGsm);
    return !against(value, '', RANGE.um, sheet.thicknessUm) && (by === undefined || (by >= low && by <= high));
  };
  const meant = fits(um * 1000)
    ? { field: 'stackUm', words: 'Was the stack typed in millimetres?' }
    : fits(meanOf(o.stackUm))
      ? { field: 'sheets', words: 'Was one sheet measured, and not a stack?' }
      : fits(um * 25.4)
        ? { field: 'stackUm', words: 'Was the stack typed in thousandths of an inch?' }
        : { field: 'stackUm', words: 'Check the stack and the number of sheets in it.' };
  return [{ field: meant.field, message: `That gives ${words(um)} µm a sheet, ${why}. ${meant.words}` }];
}

/** Over black less comes back than over a stack; a little more is noise. */
const OPACITY_NOISE = 1.01;

function opacityDoubt(o: Extract<Observation, { kind: 'opacity' }>): Doubt[] {
  const [black, stack] = [meanOf(o.overBlack), meanOf(o.overStack)];
  if (black > OPACITY_NOISE * stack)
    return [
      {
        field: 'overBlack',
        message: `That gives an opacity of ${words((100 * black) / stack)} %, above 100 %. Were the two backings swapped?`,
      },
    ];
  if (stack < 30)
    return [
      { field: 'overStack', message: `A stack that reflects ${words(stack)} % is no white paper. Check the reading.` },
    ];
  return [];
}

/** Why a derived figure is doubted; undefined where it fits the claim, or where nothing is claimed the range of papers. */
function against(
  value: number,
  unit: string,
  [low, high]: readonly [number, number],
  claimed: number | undefined,
): string | undefined {
  if (claimed !== undefined && Math.abs(value / claimed - 1) > OFF_CLAIM)
    return `where ${words(claimed)} ${unit} is claimed`;
  if (value < low || value > high) return `and papers have ${low} to ${high}`;
  return undefined;
}

const meanOf = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;
const words = (value: number) => formatNumber(value, value < 10 ? 2 : 0);

/** Reflectance typed as a fraction, 0 to 1, as percent; anything else stays as it is. */
export function asPercent(values: readonly number[]): { readonly percent: number[]; readonly wereFractions: boolean } {
  const wereFractions = values.length > 0 && values.every((v) => v > 0 && v <= MAX_FRACTION);
  return { percent: values.map((v) => (wereFractions ? 100 * v : v)), wereFractions };
}
/** No paper over anything reflects less than this in percent, and none more than this as a fraction. */
const MAX_FRACTION = 1.2;
