/** Size of a cell of the occupied-Lab histogram, in L*, a*, b*. */
export const CELL_SIZE = { L: 2, a: 4, b: 4 } as const;

const A_LOW = -160;
const L_COUNT = 51;
const AB_COUNT = 80;

/** The colours a picture holds: the mean colour of each occupied cell, and its share of the picture. */
export interface OccupiedCells {
  readonly count: number;
  /** L*, a*, b*, share (0–1), one cell after another. */
  readonly data: Float32Array;
}

/** An occupied-Lab histogram in the making. Each cell keeps its mean colour, so no colour is rounded to a grid. */
export class LabCells {
  private readonly n = new Float64Array(L_COUNT * AB_COUNT * AB_COUNT);
  private readonly sums = new Float64Array(L_COUNT * AB_COUNT * AB_COUNT * 3);

  add(L: number, a: number, b: number): void {
    const i = clamp(Math.floor(L / CELL_SIZE.L), L_COUNT - 1);
    const j = clamp(Math.floor((a - A_LOW) / CELL_SIZE.a), AB_COUNT - 1);
    const k = clamp(Math.floor((b - A_LOW) / CELL_SIZE.b), AB_COUNT - 1);
    const cell = (i * AB_COUNT + j) * AB_COUNT + k;
    this.n[cell]++;
    this.sums[cell * 3] += L;
    this.sums[cell * 3 + 1] += a;
    this.sums[cell * 3 + 2] += b;
  }

  occupied(pixels: number): OccupiedCells {
    const used: number[] = [];
    for (let cell = 0; cell < this.n.length; cell++) if (this.n[cell] > 0) used.push(cell);
    const data = new Float32Array(used.length * 4);
    used.forEach((cell, at) => {
      for (let c = 0; c < 3; c++) data[at * 4 + c] = this.sums[cell * 3 + c] / this.n[cell];
      data[at * 4 + 3] = this.n[cell] / pixels;
    });
    return { count: used.length, data };
  }
}

const clamp = (v: number, most: number) => (v < 0 ? 0 : v > most ? most : v);
