/**
 * Size of a cell of the occupied-Lab histogram before it is divided, in L*, a*, b*: fine in L*, for tone is bounded
 * there by every black and white.
 */
export const CELL_SIZE = { L: 0.25, a: 6, b: 6 } as const;
/** A cell that holds more of a picture than this is divided: a bound that runs through it then parts no more than this wrongly. */
const MOST_SHARE = 0.0002;
/** A cell is halved this often in each direction. */
const MOST_DEPTH = 4;
const LOW = { L: -8, a: -160, b: -160 } as const;
const COUNT = { L: 480, a: 54, b: 54 } as const;
const FINEST = 1 << MOST_DEPTH;
/** Numbers a cell keeps: pixels, sums of L*, a*, b*, and where its parts begin. */
const STRIDE = 5;

/** Whole part of a place, kept among so many cells. */
const within = (place: number, cells: number): number =>
  place <= 0 ? 0 : place >= cells * FINEST ? cells * FINEST - 1 : place | 0;

/** Colours alike to a two-hundredth have one key. */
const keyOf = (L: number, a: number, b: number): number =>
  (Math.round((L + 100) * 200) * 2 ** 17 + Math.round((a + 250) * 200)) * 2 ** 17 + Math.round((b + 250) * 200);

/** The colours a picture holds: the mean colour of each occupied cell, and its share of the picture. */
export interface OccupiedCells {
  readonly count: number;
  /** L*, a*, b*, share (0–1), one cell after another. */
  readonly data: Float32Array;
}

/**
 * An occupied-Lab histogram in the making. Each cell keeps its mean colour, so no colour is rounded to a grid; where a picture crowds
 * (a night sky, a wall) the cells grow finer, so that shares against a bound stay true to the pixels. Cells lie in one array: a tree of
 * objects takes four times as long.
 */
export class LabCells {
  private readonly roots = new Int32Array(COUNT.L * COUNT.a * COUNT.b);
  private cells = new Float64Array(4096 * STRIDE);
  /** The first cell is none; places in the array, not numbers of cells. */
  private used = STRIDE;
  private readonly most: number;

  /** @param expected number of pixels that will come, about */
  constructor(expected: number) {
    this.most = Math.max(1, Math.floor(expected * MOST_SHARE));
  }

  /** Makes room for `count` cells. @returns where the first begins */
  private room(count: number): number {
    const first = this.used;
    this.used += count * STRIDE;
    if (this.used > this.cells.length) {
      const wider = new Float64Array(this.cells.length * 2);
      wider.set(this.cells);
      this.cells = wider;
    }
    return first;
  }

  /** Adds pixels: L*, a*, b* one after another. @param weights how many pixels each of them stands for */
  add(lab: Float32Array, weights?: Float64Array): void {
    const { roots, most } = this;
    let { cells } = this;
    for (let p = 0, i = 0; p < lab.length; p += 3, i++) {
      const n = weights ? weights[i]! : 1;
      const L = lab[p]!;
      const a = lab[p + 1]!;
      const b = lab[p + 2]!;
      // In sixteenths of a cell, which is the finest part: its bits tell the way down.
      const x = within((L - LOW.L) * (FINEST / CELL_SIZE.L), COUNT.L);
      const y = within((a - LOW.a) * (FINEST / CELL_SIZE.a), COUNT.a);
      const z = within((b - LOW.b) * (FINEST / CELL_SIZE.b), COUNT.b);
      const root = ((x >> MOST_DEPTH) * COUNT.a + (y >> MOST_DEPTH)) * COUNT.b + (z >> MOST_DEPTH);
      let at = roots[root]!;
      if (at === 0) {
        roots[root] = at = this.room(1);
        ({ cells } = this);
      }
      for (let bit = MOST_DEPTH - 1; bit >= 0 && cells[at]! >= most; bit--) {
        let parts = cells[at + 4]!;
        if (parts === 0) {
          parts = this.room(8);
          ({ cells } = this);
          cells[at + 4] = parts;
        }
        at = parts + (((x >> bit) & 1) * 4 + ((y >> bit) & 1) * 2 + ((z >> bit) & 1)) * STRIDE;
      }
      cells[at]! += n;
      cells[at + 1]! += n * L;
      cells[at + 2]! += n * a;
      cells[at + 3]! += n * b;
    }
  }

  occupied(pixels: number): OccupiedCells {
    const flat: number[] = [];
    const known = new Map<number, number>();
    for (let at = STRIDE; at < this.used; at += STRIDE) {
      const n = this.cells[at]!;
      if (n === 0) continue;
      const L = this.cells[at + 1]! / n;
      const a = this.cells[at + 2]! / n;
      const b = this.cells[at + 3]! / n;
      // One colour over and over fills its cell and the finer ones after it: they are put together again.
      const key = keyOf(L, a, b);
      const place = known.get(key);
      if (place !== undefined) flat[place + 3]! += n / pixels;
      else known.set(key, flat.push(L, a, b, n / pixels) - 4);
    }
    return { count: flat.length / 4, data: Float32Array.from(flat) };
  }
}
