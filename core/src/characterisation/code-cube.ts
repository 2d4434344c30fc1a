/** What is written for every code of three channels: 16-bit values at the nodes of a regular lattice, the last channel fastest. */
export interface CodeCube {
  readonly nodes: number;
  readonly values: Float32Array;
}

/**
 * Looks codes up, by the same tetrahedra as every other lattice, in one loop: a large picture asks it for every pixel.
 * @param samples three codes a pixel, 0 to `top`
 * @param out as many 16-bit values
 */
export function throughCodes(
  { nodes, values }: CodeCube,
  samples: Uint8Array | Uint16Array,
  top: number,
  out: Uint16Array,
): void {
  const edge = nodes - 2;
  const scale = (nodes - 1) / top;
  const sx = nodes * nodes * 3;
  const sy = nodes * 3;
  for (let i = 0; i < samples.length; i += 3) {
    const px = samples[i]! * scale;
    const py = samples[i + 1]! * scale;
    const pz = samples[i + 2]! * scale;
    let ix = px | 0;
    let iy = py | 0;
    let iz = pz | 0;
    if (ix > edge) ix = edge;
    if (iy > edge) iy = edge;
    if (iz > edge) iz = edge;
    const fx = px - ix;
    const fy = py - iy;
    const fz = pz - iz;
    const n0 = ix * sx + iy * sy + iz * 3;
    const n3 = n0 + sx + sy + 3;
    let n1 = n0;
    let n2 = n3;
    let high = fx;
    let middle = fy;
    let low = fz;
    if (fx >= fy) {
      if (fy >= fz) {
        n1 += sx;
        n2 -= 3;
      } else if (fx >= fz) {
        n1 += sx;
        n2 -= sy;
        middle = fz;
        low = fy;
      } else {
        n1 += 3;
        n2 -= sy;
        high = fz;
        middle = fx;
        low = fy;
      }
    } else if (fx >= fz) {
      n1 += sy;
      n2 -= 3;
      high = fy;
      middle = fx;
    } else if (fy >= fz) {
      n1 += sy;
      n2 -= sx;
      high = fy;
      middle = fz;
      low = fx;
    } else {
      n1 += 3;
      n2 -= sx;
      high = fz;
      low = fx;
    }
    const w0 = 1 - high;
    const w1 = high - middle;
    const w2 = middle - low;
    out[i] = w0 * values[n0]! + w1 * values[n1]! + w2 * values[n2]! + low * values[n3]! + 0.5;
    out[i + 1] = w0 * values[n0 + 1]! + w1 * values[n1 + 1]! + w2 * values[n2 + 1]! + low * values[n3 + 1]! + 0.5;
    out[i + 2] = w0 * values[n0 + 2]! + w1 * values[n1 + 2]! + w2 * values[n2 + 2]! + low * values[n3 + 2]! + 0.5;
  }
}
