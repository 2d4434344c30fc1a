import {
  CHANGE_COSTS,
  placed,
  type AtThePrinter,
  type ChangeCosts,
  type Placed,
  type Presence,
  type Waiting,
} from './run-timing.ts';

export interface RunStep extends Omit<Placed, 'holds'> {
  readonly id: string;
}

export interface RunPlan {
  readonly steps: readonly RunStep[];
  /** Prints that need a hand for longer than anyone is there; they wait on. */
  readonly unplaced: readonly string[];
  /** No other order is better; of more prints than can be weighed, a good one. */
  readonly exact: boolean;
  readonly blackInkChanges: number;
  readonly feedChanges: number;
  readonly inkMl: number;
  readonly minutes: number;
  /** When the last is dry, minutes from the beginning. */
  readonly dryMin: number;
}

export interface RunAsked {
  readonly prints: readonly Waiting[];
  readonly begins?: AtThePrinter;
  readonly costs?: ChangeCosts;
  /** Empty: someone is there all the time. */
  readonly present?: readonly Presence[];
}

/** States up to which every order is weighed: sets of prints, alike ones counted and not told from each other. */
const MAX_STATES = 6_000;
/** Orders that are tried where not all can be. */
const MAX_TRIED = 30_000;
const EPSILON = 1e-9;

/** A run as far as it is planned, with what it took. */
interface Label {
  readonly unplaced: number;
  readonly inks: number;
  readonly feeds: number;
  readonly minutes: number;
  readonly holds: AtThePrinter;
  readonly from?: Label;
  readonly print?: number;
  readonly as?: Placed;
}

/**
 * The order that leaves fewest prints without a hand, changes the black ink least, then the feed least, and is done
 * first. Exact where the sets of prints can all be weighed (Held & Karp 1962), alike prints counted as one kind; beyond
 * that from several beginnings, bettered by moving single prints.
 */
export function runOrder(asked: RunAsked): RunPlan {
  const question: Required<RunAsked> = {
    begins: {},
    costs: CHANGE_COSTS,
    ...asked,
    present: [...(asked.present ?? [])].sort((a, b) => a.fromMin - b.fromMin),
  };
  const kinds = kindsOf(question);
  const states = kinds.reduce((product, kind) => product * (kind.length + 1), 1);
  const exact = states <= MAX_STATES;
  return planOf(question, exact ? bestOrder(question, kinds) : goodOrder(question), exact);
}

/**
 * Prints of a kind, by their numbers: any order among them is as good. While someone is there all the time those of one
 * ink and one feed are of a kind, however long they take.
 */
function kindsOf({ prints, present }: Required<RunAsked>): number[][] {
  const kinds = new Map<string, number[]>();
  prints.forEach((p, i) => {
    const timed = present.length === 0 ? [] : [p.hand, p.stack, p.copies, p.minutesEach];
    const key = JSON.stringify([p.blackInk, p.feed, ...timed]);
    kinds.set(key, [...(kinds.get(key) ?? []), i]);
  });
  // What dries longest is printed first.
  return [...kinds.values()].map((kind) => kind.sort((a, b) => prints[b]!.dryMinutes - prints[a]!.dryMinutes));
}

const start = (begins: AtThePrinter): Label => ({ unplaced: 0, inks: 0, feeds: 0, minutes: 0, holds: begins });

function grown(label: Label, print: number, { prints, present, costs }: Required<RunAsked>): Label {
  const as = placed(prints[print]!, label.minutes, label.holds, present, costs);
  if (!as) return { ...label, unplaced: label.unplaced + 1, from: label, print, as: undefined };
  return {
    unplaced: label.unplaced,
    inks: label.inks + Number(as.blackInkChange),
    feeds: label.feeds + Number(as.feedChange),
    minutes: as.endMin,
    holds: as.holds,
    from: label,
    print,
    as,
  };
}

function better(a: Label, b: Label): boolean {
  if (a.unplaced !== b.unplaced) return a.unplaced < b.unplaced;
  if (a.inks !== b.inks) return a.inks < b.inks;
  if (a.feeds !== b.feeds) return a.feeds < b.feeds;
  return a.minutes < b.minutes - EPSILON;
}
/** No worse in anything: whatever follows, the other is never the better beginning. */
const covers = (a: Label, b: Label): boolean =>
  a.unplaced <= b.unplaced && a.inks <= b.inks && a.feeds <= b.feeds && a.minutes <= b.minutes + EPSILON;

/** By how many of each kind are printed, then by what the printer holds. */
function bestOrder(question: Required<RunAsked>, kinds: readonly number[][]): Label {
  const radix = kinds.map((_, k) => kinds.slice(0, k).reduce((product, kind) => product * (kind.length + 1), 1));
  const total = kinds.reduce((product, kind) => product * (kind.length + 1), 1);
  const states = Array.from({ length: total }, () => new Map<string, Label[]>());
  states[0]!.set('', [start(question.begins)]);
  for (let state = 0; state < total; state++) {
    for (const labels of states[state]!.values())
      for (const label of labels)
        for (const [k, kind] of kinds.entries()) {
          const done = Math.floor(state / radix[k]!) % (kind.length + 1);
          if (done < kind.length) keep(states[state + radix[k]!]!, grown(label, kind[done]!, question));
        }
    // What led here is kept by its labels.
    if (state < total - 1) states[state]!.clear();
  }
  return [...states[total - 1]!.values()].flat().reduce((a, b) => (better(b, a) ? b : a));
}

function keep(there: Map<string, Label[]>, label: Label): void {
  const key = `${label.holds.blackInk ?? ''} ${label.holds.feed ?? ''}`;
  const rivals = there.get(key) ?? [];
  if (rivals.some((r) => covers(r, label))) return;
  there.set(key, [...rivals.filter((r) => !covers(label, r)), label]);
}

function goodOrder(question: Required<RunAsked>): Label {
  const run = (order: readonly number[]) =>
    order.reduce((label, print) => grown(label, print, question), start(question.begins));
  let tried = 0;
  const bettered = (begin: number[]): Label => {
    let [order, best] = [begin, run(begin)];
    for (let improved = true; improved && tried < MAX_TRIED;) {
      improved = false;
      for (let from = 0; from < order.length; from++)
        for (let to = 0; to < order.length && tried < MAX_TRIED; to++) {
          if (from === to) continue;
          const next = [...order];
          next.splice(to, 0, ...next.splice(from, 1));
          const moved = run(next);
          tried++;
          if (better(moved, best)) [order, best, improved] = [next, moved, true];
        }
    }
    return best;
  };
  return beginnings(question)
    .map(bettered)
    .reduce((a, b) => (better(b, a) ? b : a));
}

/** Kept together by ink and feed, with each ink first in turn, and those that need a hand before or after the others. */
function beginnings({ prints, begins }: Required<RunAsked>): number[][] {
  const inks = [...new Set(prints.map((p) => p.blackInk))];
  const orders = inks.flatMap((first) =>
    [1, -1].map((handFirst) =>
      prints
        .map((_, i) => i)
        .sort((a, b) => {
          const [p, q] = [prints[a]!, prints[b]!];
          const rank = (w: Waiting) => (w.blackInk === first ? 0 : 1 + inks.indexOf(w.blackInk));
          const held = (w: Waiting) => (w.feed === begins.feed ? 0 : 1);
          const hand = (w: Waiting) => handFirst * (w.hand === 'each copy' ? 0 : 1);
          return rank(p) - rank(q) || hand(p) - hand(q) || held(p) - held(q) || p.feed.localeCompare(q.feed) || a - b;
        }),
    ),
  );
  return orders;
}

function planOf({ prints, costs }: Required<RunAsked>, label: Label, exact: boolean): RunPlan {
  const steps: RunStep[] = [];
  const unplaced: string[] = [];
  let dryMin = 0;
  for (let at: Label | undefined = label; at?.print !== undefined; at = at.from) {
    const { id, dryMinutes } = prints[at.print]!;
    if (!at.as) {
      unplaced.unshift(id);
      continue;
    }
    const { holds: _, ...step } = at.as;
    steps.unshift({ id, ...step });
    dryMin = Math.max(dryMin, step.endMin + dryMinutes);
  }
  return {
    steps,
    unplaced,
    exact,
    blackInkChanges: label.inks,
    feedChanges: label.feeds,
    inkMl: label.inks * costs.blackInkMl,
    minutes: label.minutes,
    dryMin,
  };
}
