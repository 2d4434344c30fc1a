/** Size of a cell of the occupied-Lab histogram before it is divided, in L*, a*, b*. */
export const CELL_SIZE = { L: 2, a: 4, b: 4 } as const;
/** A cell that holds more of a picture than this is divided: a bound that runs through it then parts no more than this wrongly. */
const MOST_SHARE = 0.0002;
/** A cell is halved this often in each direction, down to 0.125 L*. */
const MOST_DEPTH = 4;
const LOW = { L: -8, a: -200, b: -200 } as const;

/** The colours a picture holds: the mean colour of each occupied cell, and its share of the picture. */
export interface OccupiedCells {
  readonly count: number;
  /** L*, a*, b*, share (0–1), one cell after another. */
  readonly data: Float32Array;
}

interface Cell {
  n: number;
  L: number;
  a: number;
  b: number;
  /** Made when the cell is full: what comes after is kept finer. */
  parts?: (Cell | undefined)[];
}

const emptyCell = (): Cell => ({ n: 0, L: 0, a: 0, b: 0 });

/**
 * An occupied-Lab histogram in the making. Each cell keeps its mean colour, so no colour is rounded to a grid; where a picture crowds
 * (a night sky, a wall) the cells grow finer, so that shares against a bound stay true to the pixels.
 */
export class LabCells {
  private readonly roots = new Map<number, Cell>();
  private readonly most: number;

  /** @param expected number of pixels that will come, about */
  constructor(expected: number) {
    this.most = Math.max(1, Math.floor(expected * MOST_SHARE));
  }

  add(L: number, a: number, b: number): void {
    const place = [(L - LOW.L) / CELL_SIZE.L, (a - LOW.a) / CELL_SIZE.a, (b - LOW.b) / CELL_SIZE.b];
    let [i, j, k] = place.map((v) => Math.min(255, Math.max(0, Math.floor(v))));
    const key = (i * 256 + j) * 256 + k;
    let cell = this.roots.get(key);
    if (!cell) this.roots.set(key, (cell = emptyCell()));
    let [x, y, z] = [place[0] - i, place[1] - j, place[2] - k];
    for (let depth = 0; cell.n >= this.most && depth < MOST_DEPTH; depth++) {
      cell.parts ??= new Array<Cell | undefined>(8).fill(undefined);
      [i, j, k] = [x >= 0.5 ? 1 : 0, y >= 0.5 ? 1 : 0, z >= 0.5 ? 1 : 0];
      const at = i * 4 + j * 2 + k;
      cell = cell.parts[at] ??= emptyCell();
      [x, y, z] = [x * 2 - i, y * 2 - j, z * 2 - k];
    }
    cell.n++;
    cell.L += L;
    cell.a += a;
    cell.b += b;
  }

  occupied(pixels: number): OccupiedCells {
    const flat: number[] = [];
    const known = new Map<string, number>();
    const put = ({ n, L, a, b, parts }: Cell) => {
      const colour = [L / n, a / n, b / n];
      // One colour over and over fills its cell and the finer ones after it: they are put together again.
      const key = colour.map((v) => Math.round(v * 1000)).join();
      const at = known.get(key);
      if (at !== undefined) flat[at + 3] += n / pixels;
      else known.set(key, flat.push(...colour, n / pixels) - 4);
      parts?.forEach((part) => part && put(part));
    };
    for (const cell of this.roots.values()) put(cell);
    return { count: flat.length / 4, data: Float32Array.from(flat) };
  }
}
