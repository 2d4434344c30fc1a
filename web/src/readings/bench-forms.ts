import type { BenchKind } from '@rakuen/contract/observations';
import { FEED_PATHS } from '@rakuen/core/print/feed';
import { GRADES, TAKES, type Observation, type ObservationKind } from '@rakuen/core/measurement/observations';
import { areaWeightOf, asPercent, thicknessOf } from '@rakuen/core/measurement/plausible';
import { formatNumber } from '@rakuen/core/measurement/show';
import { decimal } from '../parts/decimal.ts';

/** A box of a bench form. */
export interface BenchField {
  readonly key: string;
  readonly label: string;
  readonly unit: string;
  /** Several readings, separated by spaces. */
  readonly many?: true;
  /** May stay empty. */
  readonly optional?: true;
  readonly start?: string;
}

type Typed = Readonly<Record<string, string>>;
type Values<K extends ObservationKind> = Omit<Extract<Observation, { kind: K }>, 'kind'>[];

/** What was typed can't be taken: says where and what to do. */
export class TypingError extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message);
  }
}

/** How one kind is written down at the bench: its boxes, and the way between what is typed and what is kept. */
export interface BenchForm<K extends ObservationKind> {
  readonly fields: readonly BenchField[];
  readonly toValues: (typed: Typed) => Values<K>;
  readonly fromValues: (values: Values<K>) => Typed;
  /** What follows from what was typed, to be shown beside it. */
  readonly derived?: (values: Values<K>) => string;
}

/** Numbers as a hand writes them: separated by spaces or semicolons, a comma counting as a decimal sign. */
export function numbersIn(text: string): number[] {
  return text
    .split(/[\s;]+/)
    .map((word) => word.replace(/,$/, ''))
    .filter((word) => word !== '')
    .map((word) => decimal(word));
}

const many = (typed: Typed, { key, label, optional }: BenchField): number[] => {
  const numbers = numbersIn(typed[key] ?? '');
  if (numbers.length === 0 && !optional) throw new TypingError(key, `${label}: nothing was read yet.`);
  if (numbers.some((n) => !Number.isFinite(n)))
    throw new TypingError(
      key,
      `${label}: “${typed[key]}” holds something that is no number. Separate the readings by spaces.`,
    );
  return numbers;
};
const one = (typed: Typed, field: BenchField): number => {
  const [value, ...more] = many(typed, field);
  if (more.length > 0) throw new TypingError(field.key, `${field.label} takes one number.`);
  return value;
};
const spaced = (values: readonly number[], digits: number) => values.map((v) => v.toFixed(digits)).join(' ');

/** Reflectance in percent; fractions are recognised. */
const percents = (typed: Typed, field: BenchField) => asPercent(many(typed, field)).percent;
const figure = (value: number) => formatNumber(value, value < 10 ? 2 : 0);

const ANGLES = [20, 60, 85] as const;
const glossField = (angle: number, side: 'white' | 'black'): BenchField => ({
  key: `${side}${angle}`,
  label: `${angle}°, ${side === 'white' ? 'bare sheet' : 'full black'}`,
  unit: 'GU',
  many: true,
  optional: true,
});
const GRAMS: BenchField = { key: 'grams', label: 'Sheets, one by one', unit: 'g', many: true };
const WIDTH: BenchField = { key: 'widthMm', label: 'Width', unit: 'mm', start: '210' };
const HEIGHT: BenchField = { key: 'heightMm', label: 'Length', unit: 'mm', start: '297' };
const STACK: BenchField = { key: 'stackUm', label: 'Stack, in several places', unit: 'µm', many: true };
const SHEETS: BenchField = { key: 'sheets', label: 'Sheets in it', unit: '', start: '10' };
const OVER_BLACK: BenchField = { key: 'overBlack', label: 'Y over black', unit: '%, or 0–1', many: true };
const OVER_STACK: BenchField = { key: 'overStack', label: 'Y over a stack of itself', unit: '%, or 0–1', many: true };

export const BENCH_FORMS: { readonly [K in BenchKind]: BenchForm<K> } = {
  weight: {
    fields: [GRAMS, WIDTH, HEIGHT],
    toValues: (t) => [{ grams: many(t, GRAMS), widthMm: one(t, WIDTH), heightMm: one(t, HEIGHT) }],
    fromValues: ([v]) => ({ grams: spaced(v.grams, 2), widthMm: String(v.widthMm), heightMm: String(v.heightMm) }),
    derived: ([v]) => `${figure(areaWeightOf(v))} g/m²`,
  },
  thickness: {
    fields: [STACK, SHEETS],
    toValues: (t) => [{ stackUm: many(t, STACK), sheets: one(t, SHEETS) }],
    fromValues: ([v]) => ({ stackUm: spaced(v.stackUm, 0), sheets: String(v.sheets) }),
    derived: ([v]) => `${figure(thicknessOf(v))} µm a sheet`,
  },
  opacity: {
    fields: [OVER_BLACK, OVER_STACK],
    toValues: (t) => [{ overBlack: percents(t, OVER_BLACK), overStack: percents(t, OVER_STACK) }],
    fromValues: ([v]) => ({ overBlack: spaced(v.overBlack, 2), overStack: spaced(v.overStack, 2) }),
    derived: ([v]) =>
      `opacity ${formatNumber((100 * mean(v.overBlack)) / mean(v.overStack), 1)} %; Y ${formatNumber(mean(v.overBlack), 1)} and ${formatNumber(mean(v.overStack), 1)} %`,
  },
  gloss: {
    fields: ANGLES.flatMap((a) => [glossField(a, 'white'), glossField(a, 'black')]),
    toValues: (t) => {
      const read = ANGLES.map((angleDeg) => ({
        angleDeg,
        white: many(t, glossField(angleDeg, 'white')),
        black: many(t, glossField(angleDeg, 'black')),
      }));
      const bare = read.find((r) => r.white.length === 0 && r.black.length > 0);
      if (bare)
        throw new TypingError(
          `white${bare.angleDeg}`,
          `${bare.angleDeg}°: full black was read and the bare sheet was not. Read both.`,
        );
      const told = read.filter((r) => r.white.length > 0);
      if (told.length === 0) throw new TypingError('white60', 'Gloss: nothing was read yet.');
      return told;
    },
    fromValues: (values) =>
      Object.fromEntries(
        values.flatMap((v) => [
          [`white${v.angleDeg}`, spaced(v.white, 1)],
          [`black${v.angleDeg}`, spaced(v.black, 1)],
        ]),
      ),
  },
};

const mean = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;
const times = (values: readonly number[]) => (values.length === 1 ? 'once' : `${values.length} times`);

/** An observation in words, as the list of what is kept shows it. */
export function inWords(o: Observation): string {
  switch (o.kind) {
    case 'gloss':
      return `${o.angleDeg}°: bare sheet ${formatNumber(mean(o.white), 1)}${o.black.length > 0 ? `, full black ${formatNumber(mean(o.black), 1)}` : ''} GU, ${times(o.white)}`;
    case 'weight':
      return `${formatNumber(mean(o.grams), 2)} g a sheet of ${o.widthMm} × ${o.heightMm} mm, ${times(o.grams)}`;
    case 'thickness':
      return `${formatNumber(mean(o.stackUm), 0)} µm for ${o.sheets} sheets, ${times(o.stackUm)}`;
    case 'opacity':
      return `Y ${formatNumber(mean(o.overBlack), 2)} % over black, ${formatNumber(mean(o.overStack), 2)} % over a stack, ${times(o.overBlack)}`;
    case 'texture':
      return `a tooth every ${formatNumber(o.wavelengthMm, 2)} mm, ${formatNumber(o.amplitudeL, 2)} L* high and low, at ${formatNumber(o.ppi, 0)} ppi`;
    case 'rub':
      return `${GRADES[o.grade]}, ${afterPrinting(o.minutesAfterPrinting)}`;
    case 'bronzing':
    case 'rings':
    case 'hairlines':
    case 'curl':
    case 'scuffs':
      return GRADES[o.grade];
    case 'feeding':
      return feedingInWords(o);
  }
}

function feedingInWords(o: Extract<Observation, { kind: 'feeding' }>): string {
  return [
    `${FEED_PATHS[o.feed].name} ${TAKES[o.takes]}`,
    o.stack !== undefined && `${o.stack} at once`,
    o.headHeight && `head height ${o.headHeight}`,
    o.suction && `suction ${o.suction}`,
    `corners ${GRADES[o.corners]}`,
    o.coreCurl !== undefined && `curl at the core ${GRADES[o.coreCurl]}`,
    o.borderless ? 'to the edge' : 'not to the edge',
    o.customSizes && 'sizes of one’s own',
    o.reloads !== undefined && (o.reloads ? 'a part-used roll goes in again' : 'a part-used roll does not go in again'),
  ]
    .filter(Boolean)
    .join(', ');
}

function afterPrinting(minutes: number): string {
  if (minutes < 120) return `${formatNumber(minutes, 0)} minutes after printing`;
  const hours = minutes / 60;
  return hours < 48
    ? `${formatNumber(hours, 0)} hours after printing`
    : `${formatNumber(hours / 24, 0)} days after printing`;
}
