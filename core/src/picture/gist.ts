import type { OccupiedCells } from './cells.ts';

/**
 * A picture in few colours: enough to put thousands of them in order for a sheet. Its tones are those of the picture, its
 * colours the mean of many.
 */
export interface Gist {
  /** Share of the picture at each L*, rounded, 0–100. */
  readonly tones: Float32Array;
  readonly colours: OccupiedCells;
}

const TONES = 101;
/** Colours of a gist, at most (our own choice: scores by them lie within 0.5 of those by all, mostly within 0.1; `practice.test.ts`). */
export const MAX_COLOURS = 100;
/** Width of a bin in L*, at first and from try to try. */
const FIRST_BIN_L = 2;
const WIDER = 1.25;

/** @param cells L*, a*, b*, share */
export function gistOf(cells: OccupiedCells): Gist {
  const tones = new Float32Array(TONES);
  for (let i = 0; i < cells.count * 4; i += 4)
    tones[Math.max(0, Math.min(100, Math.round(cells.data[i]!)))]! += cells.data[i + 3]!;
  let bin = FIRST_BIN_L;
  let colours = binned(cells, bin);
  while (colours.count > MAX_COLOURS) colours = binned(cells, (bin *= WIDER));
  return { tones, colours };
}

/** Colours that fall in one bin, each with its mean; bins of a* and b* grow with the chroma, as a step of it does (CIE94). */
function binned({ count, data }: OccupiedCells, width: number): OccupiedCells {
  const bins = new Map<string, [share: number, L: number, a: number, b: number]>();
  for (let i = 0; i < count * 4; i += 4) {
    const [L, a, b, share] = [data[i]!, data[i + 1]!, data[i + 2]!, data[i + 3]!];
    const C = Math.hypot(a, b);
    // Rings of equal steps, each cut into pieces about as long as they are wide.
    const ring = Math.floor(Math.log1p(0.045 * C) / 0.045 / width);
    const middle = Math.expm1(0.045 * (ring + 0.5) * width) / 0.045;
    const pieces = Math.max(1, Math.round((2 * Math.PI * middle) / (width * (1 + 0.015 * middle))));
    const piece = ring === 0 ? 0 : Math.floor(((Math.atan2(b, a) / (2 * Math.PI) + 1) % 1) * pieces);
    const key = `${Math.floor(L / width)} ${ring} ${piece}`;
    const at = bins.get(key);
    if (!at) bins.set(key, [share, L * share, a * share, b * share]);
    else {
      at[0] += share;
      at[1] += L * share;
      at[2] += a * share;
      at[3] += b * share;
    }
  }
  const flat = [...bins.values()].flatMap(([share, L, a, b]) =>
    share > 0 ? [L / share, a / share, b / share, share] : [],
  );
  return { count: flat.length / 4, data: Float32Array.from(flat) };
}

/** As it is kept: the tones, then L*, a*, b* and share of each colour. */
export function packGist({ tones, colours }: Gist): Float32Array {
  const out = new Float32Array(TONES + colours.count * 4);
  out.set(tones);
  out.set(colours.data.subarray(0, colours.count * 4), TONES);
  return out;
}

/** @throws RangeError where it is none */
export function unpackGist(packed: Float32Array): Gist {
  if (packed.length < TONES || (packed.length - TONES) % 4 !== 0) throw new RangeError('This is no gist of a picture.');
  return {
    tones: packed.subarray(0, TONES),
    colours: { count: (packed.length - TONES) / 4, data: packed.subarray(TONES) },
  };
}
