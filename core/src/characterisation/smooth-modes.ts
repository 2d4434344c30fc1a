import { symmetricEigen } from './linear-algebra.ts';

/** Shapes a line of nodes can take, from the straight ones to the most bent. */
export interface AxisModes {
  readonly nodes: number;
  /** ∫f″², for a shape of mean square 1 over an axis of length 1. */
  readonly bending: Float64Array;
  /** Value of shape i at node k: i · nodes + k. */
  readonly shapes: Float64Array;
}

const known = new Map<number, AxisModes>();

/**
 * Eigenvectors of the squared second differences of a line of nodes. In them the penalty of a regular lattice's second
 * differences is a plain sum, axis by axis, so that a lattice of any number of nodes can be fitted in its few smoothest
 * shapes (Eilers & Marx 1996, "Flexible smoothing with B-splines and penalties", with every node kept).
 */
export function axisModes(nodes: number): AxisModes {
  const made = known.get(nodes);
  if (made) return made;
  const penalty = new Float64Array(nodes * nodes);
  for (let i = 0; i + 2 < nodes; i++) {
    const second = [1, -2, 1];
    for (let p = 0; p < 3; p++)
      for (let q = 0; q < 3; q++) penalty[(i + p) * nodes + i + q]! += second[p]! * second[q]! * (nodes - 1) ** 3;
  }
  const { values, vectors } = symmetricEigen(penalty, nodes);
  const modes: AxisModes = {
    nodes,
    bending: Float64Array.from({ length: nodes }, (_, i) => Math.max(0, values[nodes - 1 - i]!) * nodes),
    shapes: Float64Array.from(
      { length: nodes * nodes },
      (_, at) => vectors[nodes - 1 - Math.floor(at / nodes)]![at % nodes]! * Math.sqrt(nodes),
    ),
  };
  known.set(nodes, modes);
  return modes;
}

/** Shapes of a whole lattice: products of one shape an axis, then hinges. */
export interface LatticeModes {
  readonly axes: number;
  readonly axis: AxisModes;
  /** All shapes, hinges included. */
  readonly count: number;
  /**
   * The last so many shapes are hinges of the greatest device value: (knot − max) ÷ knot below the knot, 0 above. Black
   * ink is laid down by what all inks have in common, and often sets in with a kink; smooth shapes can't follow one.
   */
  readonly hinges: number;
  /** Which shape of each axis: mode · axes + axis. */
  readonly which: Uint8Array;
  /** How much each bends, the sum over its axes. */
  readonly bending: Float64Array;
  /** Shapes of an axis that are used at all. */
  readonly deepest: number;
}

const knownLattices = new Map<string, LatticeModes>();

/**
 * The `count` smoothest shapes of a lattice of `nodes` along each of its axes, and `hinges` more about its first node.
 */
export function latticeModes(axes: number, nodes: number, count: number, hinges = 0): LatticeModes {
  const key = [axes, nodes, count, hinges].join();
  const made = knownLattices.get(key) ?? smoothest(axes, nodes, count, hinges);
  knownLattices.set(key, made);
  return made;
}

/** Knots of the hinges lie on nodes: knot k at node k + 2, so that the lattice holds each without loss. */
const FIRST_KNOT = 2;
/** What a hinge is charged, as bending: that of a shape which turns once and a half along an axis (our own choice). */
const HINGE_BENDING = 30;
const hingeAt = (knot: number, max: number) => (max >= knot ? 0 : (knot - max) / knot);

function smoothest(axes: number, nodes: number, count: number, hinges: number): LatticeModes {
  const axis = axisModes(nodes);
  const deep = Math.min(nodes, axes === 3 ? 20 : 14);
  const all: { which: number[]; bending: number }[] = [];
  const walk = (which: number[], bending: number) => {
    if (which.length === axes) all.push({ which, bending });
    else for (let i = 0; i < deep; i++) walk([...which, i], bending + axis.bending[i]!);
  };
  walk([], 0);
  all.sort((x, y) => x.bending - y.bending);
  const kept = all.slice(0, count);
  return {
    axes,
    axis,
    count: kept.length + hinges,
    hinges,
    which: Uint8Array.from(kept.flatMap((m) => m.which)),
    bending: Float64Array.from([...kept.map((m) => m.bending), ...new Array<number>(hinges).fill(HINGE_BENDING)]),
    deepest: Math.max(...kept.flatMap((m) => m.which)) + 1,
  };
}

/** Value of every shape at a place, 0–1 along each axis, between its nodes as the lattice itself is read. */
export function modesAt(
  { axes, axis, count, hinges, which, deepest }: LatticeModes,
  at: readonly number[],
): Float64Array {
  const { nodes, shapes } = axis;
  const along = new Float64Array(axes * deepest);
  for (let x = 0; x < axes; x++) {
    const place = Math.min(1, Math.max(0, at[x]!)) * (nodes - 1);
    const low = Math.min(nodes - 2, Math.floor(place));
    const share = place - low;
    for (let i = 0; i < deepest; i++)
      along[x * deepest + i] = shapes[i * nodes + low]! * (1 - share) + shapes[i * nodes + low + 1]! * share;
  }
  const values = new Float64Array(count);
  const smooth = count - hinges;
  for (let m = 0; m < smooth; m++) {
    let product = 1;
    for (let x = 0; x < axes; x++) product *= along[x * deepest + which[m * axes + x]!]!;
    values[m] = product;
  }
  const max = Math.max(...at);
  for (let h = 0; h < hinges; h++) values[smooth + h] = hingeAt((h + FIRST_KNOT) / (nodes - 1), max);
  return values;
}

/**
 * Values at every node of the lattice, the last axis fastest, of channels given by their amounts of each shape (channel
 * · count + mode). One axis after another is opened, so that the cost is that of the nodes and not of nodes times
 * shapes.
 */
export function atNodes(modes: LatticeModes, amounts: Float64Array, channels: number): Float64Array[] {
  const { axes, axis, count, hinges, which, deepest } = modes;
  const { nodes, shapes } = axis;
  const smooth = count - hinges;
  return Array.from({ length: channels }, (_, channel) => {
    let open = new Float64Array(deepest ** axes);
    for (let m = 0; m < smooth; m++) {
      let at = 0;
      for (let x = 0; x < axes; x++) at = at * deepest + which[m * axes + x]!;
      open[at]! += amounts[channel * count + m]!;
    }
    // The first axis is opened into nodes and goes to the end; after all axes the order is the first again.
    for (let x = 0; x < axes; x++) {
      const rest = open.length / deepest;
      const next = new Float64Array(rest * nodes);
      for (let i = 0; i < deepest; i++) {
        for (let r = 0; r < rest; r++) {
          const amount = open[i * rest + r]!;
          if (amount === 0) continue;
          for (let k = 0, to = r * nodes, from = i * nodes; k < nodes; k++) next[to++]! += amount * shapes[from++]!;
        }
      }
      open = next;
    }
    if (hinges > 0) addHinges(open, modes, amounts.subarray(channel * count + smooth, (channel + 1) * count));
    return open;
  });
}

function addHinges(values: Float64Array, { axes, axis: { nodes } }: LatticeModes, amounts: Float64Array): void {
  const byNode = Float64Array.from({ length: nodes }, (_, i) =>
    amounts.reduce((s, amount, h) => s + amount * hingeAt((h + FIRST_KNOT) / (nodes - 1), i / (nodes - 1)), 0),
  );
  for (let n = 0; n < values.length; n++) {
    let most = 0;
    for (let x = 0, rest = n; x < axes; x++, rest = Math.floor(rest / nodes)) most = Math.max(most, rest % nodes);
    values[n]! += byNode[most]!;
  }
}
