/** A share with the interval it lies in, 0–1. */
export interface Rate {
  readonly spoilt: number;
  readonly of: number;
  readonly share: number;
  readonly low: number;
  readonly high: number;
}

/** Two-sided 95 % of the normal distribution. */
const Z95 = 1.959964;

/**
 * A share found in a few tries, with its 95 % score interval (Wilson 1927): never below 0 nor above 1, and honest
 * where nothing was spoilt yet.
 * @param spoilt sheets spoilt
 * @param of sheets through the printer, the spoilt included
 * @throws RangeError where more were spoilt than there were
 */
export function rateOf(spoilt: number, of: number, z = Z95): Rate {
  if (of < 0 || spoilt < 0 || spoilt > of) throw new RangeError(`${spoilt} of ${of} can’t have been spoilt.`);
  if (of === 0) return { spoilt, of, share: 0, low: 0, high: 1 };
  const share = spoilt / of;
  const middle = share + z ** 2 / (2 * of);
  const half = z * Math.sqrt((share * (1 - share)) / of + z ** 2 / (4 * of ** 2));
  const scale = 1 + z ** 2 / of;
  return {
    spoilt,
    of,
    share,
    low: spoilt === 0 ? 0 : (middle - half) / scale,
    high: spoilt === of ? 1 : (middle + half) / scale,
  };
}

/** What was spoilt, as it is booked. */
export interface Misprint {
  readonly cause: string;
  /** The look before the sheet that would have caught it; empty where none would. */
  readonly check: string;
  readonly sheets: number;
  /** What the sheets cost; absent where no price is known. */
  readonly lost?: number;
  readonly minutes: number;
}

export interface CauseAccount {
  readonly cause: string;
  readonly check: string;
  readonly sheets: number;
  readonly minutes: number;
  readonly lost: number;
  /** Misprints among them whose sheet has no price. */
  readonly unpriced: number;
}

/** What each cause took, the dearest first; where prices are lacking for some, by sheets. */
export function byCause(list: readonly Misprint[]): CauseAccount[] {
  const causes = new Map<string, CauseAccount>();
  for (const m of list) {
    const was = causes.get(m.cause) ?? { cause: m.cause, check: m.check, sheets: 0, minutes: 0, lost: 0, unpriced: 0 };
    causes.set(m.cause, {
      ...was,
      sheets: was.sheets + m.sheets,
      minutes: was.minutes + m.minutes,
      lost: was.lost + (m.lost ?? 0),
      unpriced: was.unpriced + (m.lost === undefined ? 1 : 0),
    });
  }
  const priced = list.every((m) => m.lost !== undefined);
  return [...causes.values()].sort((a, b) => (priced ? b.lost - a.lost : 0) || b.sheets - a.sheets);
}
