import type { Rate } from './spoilage.ts';

/** What goes into one print; all money in one currency. */
export interface CostInput {
  /** Share of a sheet, or metres of a roll, times its price. */
  readonly paper: number;
  readonly inkMl: number;
  readonly inkPerMl: number;
  /** Minutes at the printer and the trimmer. */
  readonly minutes: number;
  readonly perHour: number;
  /** Sleeve, board, box: what a good print takes and a spoilt one does not. */
  readonly finishing: number;
  readonly spoilage: Rate;
}

export interface CostLine {
  readonly name: string;
  readonly amount: number;
}

export interface PrintCost {
  readonly lines: readonly CostLine[];
  /** One good print, the spoilt on the way paid by it. */
  readonly good: number;
  /** The same at the ends of the spoilage's interval. */
  readonly low: number;
  readonly high: number;
}

/** A rate of spoilage that is dearer than any price: nothing sensible follows from more. */
const MOST_SPOILT = 0.9;

/**
 * Cost of a good print: paper, ink and minutes are spent on spoilt ones as well, 1 / (1 − p) times for each good one;
 * sleeve and board on good ones alone.
 */
export function printCost(c: CostInput): PrintCost {
  const ink = c.inkMl * c.inkPerMl;
  const work = (c.minutes / 60) * c.perHour;
  const spent = c.paper + ink + work;
  const at = (share: number) => spent / (1 - Math.min(share, MOST_SPOILT)) + c.finishing;
  return {
    lines: [
      { name: 'paper', amount: c.paper },
      { name: 'ink', amount: ink },
      { name: 'minutes', amount: work },
      { name: 'spoilage', amount: at(c.spoilage.share) - spent - c.finishing },
      { name: 'sleeve and board', amount: c.finishing },
    ],
    good: at(c.spoilage.share),
    low: at(c.spoilage.low),
    high: at(c.spoilage.high),
  };
}

/** What is left of a price, 0–1 of it; negative where the print costs more. */
export const marginAt = (price: number, cost: number): number => (price - cost) / price;

/** The price at which a share of it is left, 0–1. */
export const priceFor = (margin: number, cost: number): number => cost / (1 - margin);

/** Two ways to feed: what it takes to set one up, and what each print takes then, in money or in minutes. */
export interface Feeding {
  readonly setUp: number;
  readonly each: number;
}

/**
 * How many prints the way that is quick to set up serves better.
 * @returns the last number at which `quick` costs no more than `slow`; Infinity where it always does, 0 where it never does
 */
export function paysUpTo(quick: Feeding, slow: Feeding): number {
  if (quick.each <= slow.each) return quick.setUp <= slow.setUp ? Infinity : 0;
  return Math.max(0, Math.floor((slow.setUp - quick.setUp) / (quick.each - slow.each) + 1e-9));
}
