import type { FeedKey } from '../print/feed.ts';
/** Gloss at one angle, gloss units, bare sheet and full black (ISO 2813). */
export interface GlossObservation {
  readonly kind: 'gloss';
  readonly angleDeg: 20 | 60 | 85;
  readonly white: readonly number[];
  readonly black: readonly number[];
}
/** Sheets weighed one by one, grams, and their size, mm (ISO 536). */
export interface WeightObservation {
  readonly kind: 'weight';
  readonly grams: readonly number[];
  readonly widthMm: number;
  readonly heightMm: number;
}
/** Thickness of a stack in several places, µm (ISO 534). */
export interface ThicknessObservation {
  readonly kind: 'thickness';
  readonly stackUm: readonly number[];
  readonly sheets: number;
}
/** Luminous reflectance of one sheet over black and over a stack of itself, percent (ISO 2471). */
export interface OpacityObservation {
  readonly kind: 'opacity';
  readonly overBlack: readonly number[];
  readonly overStack: readonly number[];
}
/** What a raking-light scan of the bare sheet gave. */
export interface TextureObservation {
  readonly kind: 'texture';
  readonly wavelengthMm: number;
  readonly wavelengthSd: number;
  readonly amplitudeL: number;
  readonly amplitudeSd: number;
  readonly ppi: number;
}
/** Transfer of full black onto a scrap of the same paper, graded by eye 0 none to 4 much. */
export interface RubObservation {
  readonly kind: 'rub';
  readonly minutesAfterPrinting: number;
  readonly grade: number;
}
/** Bronzing seen at a slant, graded by eye 0 none to 4 strong. */
export interface BronzingObservation {
  readonly kind: 'bronzing';
  readonly grade: number;
}

/** How far the rings of the test page are blocked, graded by eye 0 clean to 4 blocked to the middle. */
export interface RingsObservation {
  readonly kind: 'rings';
  readonly grade: number;
}

/**
 * The finest hairline of the test page that stands sharp and open, graded by eye: 0 that of 0.05 mm, 1 of 0.1, 2 of 0.15,
 * 3 of 0.2, 4 only those of 0.3 mm and more.
 */
export interface HairlinesObservation {
  readonly kind: 'hairlines';
  readonly grade: number;
}

/** How much a sheet curls before it is fed, graded by eye 0 flat to 4 it must be flattened. */
export interface CurlObservation {
  readonly kind: 'curl';
  readonly grade: number;
}
/** How easily a fresh print takes scuffs and fingerprints, graded by eye 0 to 4. */
export interface ScuffsObservation {
  readonly kind: 'scuffs';
  readonly grade: number;
}

/** How a feed path took the sheet. */
export const TAKES = { well: 'takes it', care: 'takes it with care', not: 'does not take it' } as const;

/** What the sheet is like on one way into the printer, from the hands that used it. */
export interface FeedingObservation {
  readonly kind: 'feeding';
  readonly feed: FeedKey;
  readonly takes: keyof typeof TAKES;
  /** Sheets a feeder takes at once. */
  readonly stack?: number;
  /** In the printer's own words; empty where nothing had to be set. */
  readonly headHeight: string;
  readonly suction: string;
  /** Lifted corners, graded 0 none to 4 the head strikes them. */
  readonly corners: number;
  /** Of a roll: how the last metres at the core curl, 0 flat to 4. */
  readonly coreCurl?: number;
  /** Prints to the edge there. */
  readonly borderless: boolean;
  /** Takes sizes of one's own there. */
  readonly customSizes: boolean;
  /** A part-used roll is taken again. */
  readonly reloads?: boolean;
}

/** Everything that is found out about a print without reading its patches. */
export type Observation = AnyObservation & {
  /** ISO 8601; absent where nobody needs to know. */
  readonly takenAt?: string;
};
type AnyObservation =
  | GlossObservation
  | WeightObservation
  | ThicknessObservation
  | OpacityObservation
  | TextureObservation
  | RubObservation
  | BronzingObservation
  | RingsObservation
  | HairlinesObservation
  | CurlObservation
  | ScuffsObservation
  | FeedingObservation;
export type ObservationKind = Observation['kind'];

/** A kind of observation, declared. */
export interface ObservationKindFacts {
  readonly name: string;
  /** `sheet`: of the bare paper, and so true of every print condition on it. `print`: of this print condition alone. */
  readonly of: 'sheet' | 'print';
  readonly figure: 'measured' | 'judged';
  /** How it is done, as the bench tells it. */
  readonly how: string;
  readonly source: string;
}

export const OBSERVATION_KINDS: Record<ObservationKind, ObservationKindFacts> = {
  gloss: {
    name: 'Gloss',
    of: 'print',
    figure: 'measured',
    how: 'Bare sheet and full black, at 20°, 60° and 85°, in several places.',
    source: 'ISO 2813',
  },
  weight: {
    name: 'Weight',
    of: 'sheet',
    figure: 'measured',
    how: 'Whole sheets on the scale, one by one, and their size.',
    source: 'ISO 536',
  },
  thickness: {
    name: 'Thickness',
    of: 'sheet',
    figure: 'measured',
    how: 'A stack under the micrometer, in several places.',
    source: 'ISO 534',
  },
  opacity: {
    name: 'Opacity',
    of: 'sheet',
    figure: 'measured',
    how: 'One sheet over black, then over a stack of itself.',
    source: 'ISO 2471',
  },
  texture: {
    name: 'Texture',
    of: 'sheet',
    figure: 'measured',
    how: 'Scans of the bare sheet under a raking lamp, 300 ppi or more, 16 mm or more on either side, of several places.',
    source: 'raking-light scan, 0.2–4 mm band',
  },
  rub: {
    name: 'Rub',
    of: 'print',
    figure: 'judged',
    how: 'Rub full black ten times with a scrap of the same paper: 0 nothing comes off, 4 the scrap is black.',
    source: '(practice)',
  },
  bronzing: {
    name: 'Bronzing',
    of: 'print',
    figure: 'judged',
    how: 'Tilt a dark picture under one lamp: 0 no coloured sheen in the black, 4 it looks like metal.',
    source: '(practice)',
  },
  rings: {
    name: 'Rings',
    of: 'print',
    figure: 'judged',
    how: 'Look into the rings of the test page through a loupe: 0 clean to the rim, 4 blocked to the middle.',
    source: '(practice)',
  },
  hairlines: {
    name: 'Hairlines',
    of: 'print',
    figure: 'judged',
    how: 'Find the finest hairline of the test page that stands sharp through a loupe, black on white and white in black: 0 that of 0.05 mm, 1 of 0.1, 2 of 0.15, 3 of 0.2, 4 only those of 0.3 mm and more.',
    source: '(practice)',
  },
  curl: {
    name: 'Curl',
    of: 'sheet',
    figure: 'judged',
    how: 'Lay a sheet on the table as it comes: 0 it lies flat, 4 it can’t be fed before it was flattened.',
    source: '(practice)',
  },
  scuffs: {
    name: 'Scuffs and fingerprints',
    of: 'print',
    figure: 'judged',
    how: 'Draw a fingernail and a dry thumb over full black a few minutes after printing: 0 nothing stays, 4 both stay.',
    source: '(practice)',
  },
  feeding: {
    name: 'Feeding',
    of: 'print',
    figure: 'judged',
    how: 'How the printer takes the sheet, path by path, as the hands that fed it found.',
    source: '(practice)',
  },
};

/** Grade 0–4 as its word. */
export const GRADES = ['none', 'a trace', 'some', 'clear', 'strong'] as const;

/** From here on a rub counts as the one after a day, minutes: inks that are dry to the touch by then are dry. */
export const A_DAY_FROM_MINUTES = 12 * 60;
/** Scans of one sheet within so many hours are places of one sitting. */
const SITTING_HOURS = 12;

/** What an observation is about beside its kind: the newest of each is the one that gives figures. */
const subjectOf = (o: Observation): string => {
  switch (o.kind) {
    case 'gloss':
      return `gloss ${o.angleDeg}`;
    case 'rub':
      return `rub ${o.minutesAfterPrinting >= A_DAY_FROM_MINUTES ? 'after a day' : 'after minutes'}`;
    case 'feeding':
      return `feeding ${o.feed}`;
    default:
      return o.kind;
  }
};

/** The observations that give the figures, of a list from old to new; of texture all scans of the last sitting. */
export function primaryObservations(list: readonly Observation[]): Set<Observation> {
  const newest = new Map(list.map((o) => [subjectOf(o), o]));
  return new Set([...[...newest.values()].filter((o) => o.kind !== 'texture'), ...textureScans(list)]);
}

/** Scans of several places: those of the newest’s sitting and resolution. */
export function textureScans(list: readonly Observation[]): (TextureObservation & { takenAt?: string })[] {
  const scans = list.filter((o) => o.kind === 'texture');
  const last = scans[scans.length - 1];
  if (!last) return [];
  const since = (o: { takenAt?: string }) => Math.abs(Date.parse(last.takenAt ?? '') - Date.parse(o.takenAt ?? ''));
  return scans.filter((o) => o === last || (o.ppi === last.ppi && since(o) <= SITTING_HOURS * 3_600_000));
}

/** The last observation of a kind that fits; lists run from old to new. */
export function latest<K extends ObservationKind>(
  list: readonly Observation[],
  kind: K,
  fits: (o: Extract<Observation, { kind: K }>) => boolean = () => true,
): Extract<Observation, { kind: K }> | undefined {
  return [...list]
    .reverse()
    .find(
      (o): o is Extract<Observation, { kind: K }> => o.kind === kind && fits(o as Extract<Observation, { kind: K }>),
    );
}

/** Mean of repeated readings and its standard deviation; of a single one `assumed` stands in. */
export function meanOf(values: readonly number[], assumed: number): { mean: number; sd: number } {
  const mean = values.reduce((s, v) => s + v, 0) / values.length;
  if (values.length < 2) return { mean, sd: assumed };
  return { mean, sd: Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / (values.length - 1) / values.length) };
}
