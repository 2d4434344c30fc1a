import type { Blocks } from './blocks.ts';

/** A picture as a mosaic of some sixty tiles across: where it is plain, where busy, and what colour lies there. */
export interface Tiles {
  readonly columns: number;
  readonly rows: number;
  /** Blocks along an edge of a tile. */
  readonly sizeBlocks: number;
  readonly L: Float32Array;
  readonly a: Float32Array;
  readonly b: Float32Array;
  /** Root mean square of L* about the tile's own slope: what is drawn in it, at every scale smaller than a tile. */
  readonly busy: Float32Array;
  /** Root mean square step of L* from pixel to pixel. */
  readonly fine: Float32Array;
  /** L*, a*, b* of the strongest colour of each. */
  readonly strongest: Float32Array;
}

export function tilesOf(blocks: Blocks): Tiles {
  const sizeBlocks = blocks.perTile;
  const columns = Math.ceil(blocks.columns / sizeBlocks);
  const rows = Math.ceil(blocks.rows / sizeBlocks);
  const plane = () => new Float32Array(columns * rows);
  const [L, a, b, busy, fine] = [plane(), plane(), plane(), plane(), plane()];
  for (let j = 0; j < rows; j++)
    for (let i = 0; i < columns; i++) {
      const at = j * columns + i;
      const x0 = i * sizeBlocks;
      const y0 = j * sizeBlocks;
      const x1 = Math.min(blocks.columns, x0 + sizeBlocks);
      const y1 = Math.min(blocks.rows, y0 + sizeBlocks);
      const n = (x1 - x0) * (y1 - y0);
      const [mx, my] = [(x0 + x1 - 1) / 2, (y0 + y1 - 1) / 2];
      let [sL, sa, sb, sLL, sx, sy, xx, yy, within, steps] = [0, 0, 0, 0, 0, 0, 0, 0, 0, 0];
      for (let y = y0; y < y1; y++)
        for (let x = x0; x < x1; x++) {
          const block = y * blocks.columns + x;
          const v = blocks.L[block]!;
          sL += v;
          sLL += v * v;
          sx += v * (x - mx);
          sy += v * (y - my);
          xx += (x - mx) ** 2;
          yy += (y - my) ** 2;
          sa += blocks.a[block]!;
          sb += blocks.b[block]!;
          within += blocks.within[block]!;
          steps += blocks.steps[block]!;
        }
      // A tone that only runs across a tile is smooth: its slope is taken out.
      const slope = (xx > 0 ? (sx * sx) / xx : 0) + (yy > 0 ? (sy * sy) / yy : 0);
      L[at] = sL / n;
      a[at] = sa / n;
      b[at] = sb / n;
      busy[at] = Math.sqrt(Math.max(0, (sLL - (sL * sL) / n - slope + within) / n));
      fine[at] = Math.sqrt(steps / n);
    }
  return { columns, rows, sizeBlocks, L, a, b, busy, fine, strongest: blocks.strongest };
}

/** Where a tile's middle lies in the picture, 0–1 across and down. */
export function tileMiddle(tiles: Tiles, at: number): readonly [x: number, y: number] {
  return [((at % tiles.columns) + 0.5) / tiles.columns, (Math.floor(at / tiles.columns) + 0.5) / tiles.rows];
}
