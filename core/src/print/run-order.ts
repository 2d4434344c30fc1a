/** A print that waits for the printer. */
export interface Waiting {
  readonly id: string;
  readonly blackInk: string;
  readonly feed: string;
  /** Someone must stand by for all of it. */
  readonly byHand: boolean;
  /** Minutes at the printer, feeding included. */
  readonly minutes: number;
  /** Minutes it lies to dry afterwards; the printer goes on meanwhile. */
  readonly dryMinutes: number;
}

/** What a change takes. */
export interface ChangeCosts {
  readonly blackInkMinutes: number;
  readonly blackInkMl: number;
  readonly feedMinutes: number;
}
/** Four minutes and three millilitres for the black (practice); three minutes for another feed (our own choice). */
export const CHANGE_COSTS: ChangeCosts = { blackInkMinutes: 4, blackInkMl: 3, feedMinutes: 3 };

/** A time when someone is at the printer, minutes from the beginning of the run. */
export interface Presence {
  readonly fromMin: number;
  readonly toMin: number;
}

export interface RunStep {
  readonly id: string;
  /** When it is fed, minutes from the beginning. */
  readonly startMin: number;
  readonly endMin: number;
  readonly blackInkChange: boolean;
  readonly feedChange: boolean;
  /** It is fed by hand while nobody is there to do it. */
  readonly alone: boolean;
}

export interface RunPlan {
  readonly steps: readonly RunStep[];
  /** The best order there is; of more prints than can be weighed, a good one. */
  readonly exact: boolean;
  readonly blackInkChanges: number;
  readonly feedChanges: number;
  readonly inkMl: number;
  readonly minutes: number;
  /** When the last is dry, minutes from the beginning. */
  readonly dryMin: number;
}

/** What the printer holds when the run begins; what is absent changes nothing the first time. */
export interface AtThePrinter {
  readonly blackInk?: string;
  readonly feed?: string;
}

export interface RunAsked {
  readonly prints: readonly Waiting[];
  readonly begins?: AtThePrinter;
  readonly costs?: ChangeCosts;
  /** Empty: someone is there all the time. */
  readonly present?: readonly Presence[];
}

/** Prints up to which every order is weighed. */
export const EXACT_RUN = 12;

/** A run as far as it is planned, with what it took. */
interface Label {
  readonly alone: number;
  readonly inks: number;
  readonly feeds: number;
  readonly minutes: number;
  readonly order: readonly number[];
}

/**
 * The order that leaves no sheet to be fed by hand while nobody is there, changes the black ink least, then the feed
 * least, and is done first. Up to twelve prints by weighing all that could still be best of every set and last print
 * (Held & Karp 1962); beyond that the prints are kept together by ink and feed and the order is bettered by moving
 * single ones.
 */
export function runOrder(asked: RunAsked): RunPlan {
  const exact = asked.prints.length <= EXACT_RUN;
  return told(asked, exact ? bestOrder(asked) : goodOrder(asked), exact);
}

const NOTHING: Label = { alone: 0, inks: 0, feeds: 0, minutes: 0, order: [] };

/** A run with one more print. */
function after(
  label: Label,
  next: number,
  { prints, begins = {}, costs = CHANGE_COSTS, present = [] }: RunAsked,
): Label {
  const { ink, feed, start, alone } = coming(label, next, { prints, begins, costs, present });
  return {
    alone: label.alone + Number(alone),
    inks: label.inks + Number(ink),
    feeds: label.feeds + Number(feed),
    minutes: start + prints[next]!.minutes,
    order: [...label.order, next],
  };
}

function coming(label: Label, next: number, { prints, begins, costs, present }: Required<RunAsked>) {
  const print = prints[next]!;
  const last = label.order[label.order.length - 1];
  const held = last === undefined ? begins : prints[last]!;
  const ink = held.blackInk !== undefined && print.blackInk !== 'none' && held.blackInk !== print.blackInk;
  const feed = held.feed !== undefined && held.feed !== print.feed;
  const ready = label.minutes + (ink ? costs.blackInkMinutes : 0) + (feed ? costs.feedMinutes : 0);
  if (!print.byHand || present.length === 0) return { ink, feed, start: ready, alone: false };
  const begin = [...present]
    .sort((a, b) => a.fromMin - b.fromMin)
    .map((p) => ({ start: Math.max(ready, p.fromMin), end: p.toMin }))
    .find((p) => p.start + print.minutes <= p.end);
  return { ink, feed, start: begin?.start ?? ready, alone: !begin };
}

const worth = (l: Label): readonly number[] => [l.alone, l.inks, l.feeds, l.minutes];
function better(a: Label, b: Label): boolean {
  const [va, vb] = [worth(a), worth(b)];
  const at = va.findIndex((v, i) => Math.abs(v - vb[i]!) > 1e-9);
  return at >= 0 && va[at]! < vb[at]!;
}
/** No worse in anything: whatever follows, the other is never the better beginning. */
const covers = (a: Label, b: Label): boolean => {
  const vb = worth(b);
  return worth(a).every((v, i) => v <= vb[i]! + 1e-9);
};

function bestOrder(asked: RunAsked): Label {
  const { length } = asked.prints;
  // By set, then by the print that came last.
  const states = Array.from({ length: 1 << length }, () => new Map<number, Label[]>());
  states[0]!.set(-1, [NOTHING]);
  for (let set = 0; set < states.length; set++) {
    for (const labels of states[set]!.values())
      for (const label of labels)
        for (let next = 0; next < length; next++) {
          if (set & (1 << next)) continue;
          const grown = after(label, next, asked);
          const there = states[set | (1 << next)]!;
          const rivals = there.get(next) ?? [];
          if (rivals.some((r) => covers(r, grown))) continue;
          there.set(next, [...rivals.filter((r) => !covers(grown, r)), grown]);
        }
  }
  return [...states[states.length - 1]!.values()].flat().reduce((a, b) => (better(b, a) ? b : a));
}

function goodOrder(asked: RunAsked): Label {
  const run = (order: readonly number[]) => order.reduce((label, next) => after(label, next, asked), NOTHING);
  const { prints, begins = {} } = asked;
  const key = ({ blackInk, feed }: Waiting) =>
    `${blackInk === begins.blackInk ? 0 : 1} ${blackInk} ${feed === begins.feed ? 0 : 1} ${feed}`;
  let best = run(prints.map((_, i) => i).sort((a, b) => key(prints[a]!).localeCompare(key(prints[b]!))));
  for (let bettered = true; bettered;) {
    bettered = false;
    for (let from = 0; from < prints.length && !bettered; from++)
      for (let to = 0; to < prints.length && !bettered; to++) {
        const order = [...best.order];
        order.splice(to, 0, ...order.splice(from, 1));
        const moved = run(order);
        if (better(moved, best)) [best, bettered] = [moved, true];
      }
  }
  return best;
}

function told(asked: RunAsked, { order, minutes, inks, feeds }: Label, exact: boolean): RunPlan {
  const { prints, begins = {}, costs = CHANGE_COSTS, present = [] } = asked;
  let label = NOTHING;
  const steps = order.map((next): RunStep => {
    const { ink, feed, start, alone } = coming(label, next, { prints, begins, costs, present });
    label = after(label, next, asked);
    return {
      id: prints[next]!.id,
      startMin: start,
      endMin: label.minutes,
      blackInkChange: ink,
      feedChange: feed,
      alone,
    };
  });
  const dryMin = Math.max(0, ...steps.map((s, i) => s.endMin + prints[order[i]!]!.dryMinutes));
  return { steps, exact, blackInkChanges: inks, feedChanges: feeds, inkMl: inks * costs.blackInkMl, minutes, dryMin };
}
