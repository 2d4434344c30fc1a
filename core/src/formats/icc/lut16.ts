/**
 * A table of ICC.1 (lut16Type): curves in, a lattice, curves out; everything 16 bit. The matrix of the type is for XYZ
 * alone and stays the identity.
 */
export interface Lut16 {
  readonly inputs: number;
  readonly outputs: number;
  /** Nodes along each input. */
  readonly grid: number;
  /** Input · entries + entry, evenly over the input. */
  readonly inputCurves: Uint16Array;
  /** First input slowest; `outputs` numbers a node. */
  readonly lattice: Uint16Array;
  /** Output · entries + entry. */
  readonly outputCurves: Uint16Array;
}

/** 16-bit Lab as lut16Type has it, in either version: L* 100 is 0xFF00, a* and b* 0 are 0x8000. */
export const encodeLab16 = (L: number, a: number, b: number): [number, number, number] => [
  clip16(L * 652.8),
  clip16((a + 128) * 256),
  clip16((b + 128) * 256),
];

export const decodeLab16 = (L: number, a: number, b: number): [number, number, number] => [
  L / 652.8,
  a / 256 - 128,
  b / 256 - 128,
];

export const clip16 = (v: number): number => (v <= 0 ? 0 : v >= 65535 ? 65535 : Math.round(v));

/** A straight line of two entries for each of `channels`. */
export const straight = (channels: number): Uint16Array =>
  Uint16Array.from({ length: channels * 2 }, (_, i) => (i % 2) * 65535);

/** Value of a curve's evenly spaced entries, 0–1 in, 0–65535 out. */
function onCurve(curves: Uint16Array, channel: number, channels: number, at: number): number {
  const entries = curves.length / channels;
  const place = Math.min(1, Math.max(0, at)) * (entries - 1);
  const low = Math.min(entries - 2, Math.floor(place));
  const t = place - low;
  const from = channel * entries + low;
  return entries === 1 ? curves[channel]! : curves[from]! * (1 - t) + curves[from + 1]! * t;
}

/**
 * Evaluates a table for one colour: 16-bit numbers in and out. Between the nodes by tetrahedra (their like for other
 * counts of inputs) where the input is device values, axis by axis where it is Lab: so do the programs that read
 * profiles, and greys lie on an axis of Lab and on a diagonal of RGB.
 */
export function throughLut16(lut: Lut16, input: ArrayLike<number>, from: 'device' | 'Lab' = 'device'): number[] {
  const { inputs, outputs, grid, lattice } = lut;
  const fraction: number[] = [];
  const stride: number[] = [];
  let base = 0;
  let step = 1;
  for (let x = inputs - 1; x >= 0; x--) {
    const place = (onCurve(lut.inputCurves, x, inputs, input[x]! / 65535) / 65535) * (grid - 1);
    const low = Math.min(Math.max(0, grid - 2), Math.floor(place));
    fraction[x] = grid === 1 ? 0 : place - low;
    stride[x] = step;
    base += low * step;
    step *= grid;
  }
  const sum = new Array<number>(outputs).fill(0);
  if (from === 'Lab') {
    for (let corner = 0; corner < 1 << inputs; corner++) {
      let [weight, node] = [1, base];
      for (let x = 0; x < inputs; x++) {
        const far = corner & (1 << x);
        weight *= far ? fraction[x]! : 1 - fraction[x]!;
        if (far) node += stride[x]!;
      }
      if (weight !== 0) for (let o = 0; o < outputs; o++) sum[o]! += weight * lattice[node * outputs + o]!;
    }
    return sum.map((v, o) => onCurve(lut.outputCurves, o, outputs, v / 65535));
  }
  const order = Array.from({ length: inputs }, (_, i) => i).sort((i, j) => fraction[j]! - fraction[i]!);
  let node = base;
  for (let i = 0; i <= inputs; i++) {
    const weight = (i === 0 ? 1 : fraction[order[i - 1]!]!) - (i === inputs ? 0 : fraction[order[i]!]!);
    if (weight !== 0) for (let o = 0; o < outputs; o++) sum[o]! += weight * lattice[node * outputs + o]!;
    if (i < inputs) node += stride[order[i]!]!;
  }
  return sum.map((v, o) => onCurve(lut.outputCurves, o, outputs, v / 65535));
}
