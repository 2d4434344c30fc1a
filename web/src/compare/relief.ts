/** Heights guessed from a scan: a square of it. */
export interface Relief {
  readonly size: number;
  /** Row by row, in lightness units of the scan times pixels. */
  readonly heights: Float32Array;
}

/** A slope this steep, lightness units a pixel, is drawn at full contrast: the same for every sheet, so that a rougher one looks rougher. */
const FULL_SLOPE = 14;
/** Running mean that is taken off a row, so that a lamp's fall-off and drift do not pile up into a hill, mm. */
const HILL_MM = 4;

/**
 * Height from shading: the scan's lamp stands at the left, so lightness less its mean is the slope along a row, and height its running sum, less what is
 * slower than the tooth.
 * @param shownMm side of the square that is kept
 */
export function heightsOf(image: HTMLImageElement, ppi: number, shownMm: number): Relief {
  const size = Math.max(8, Math.min(image.naturalWidth, image.naturalHeight, Math.round((shownMm / 25.4) * ppi)));
  const canvas = document.createElement('canvas');
  canvas.width = size;
  canvas.height = size;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0, size, size, 0, 0, size, size);
  const { data } = context.getImageData(0, 0, size, size);
  const heights = new Float32Array(size * size);
  const reach = Math.max(2, Math.round((HILL_MM / 25.4) * ppi));
  for (let y = 0; y < size; y++) {
    const row = y * size;
    let mean = 0;
    for (let x = 0; x < size; x++) mean += data[(row + x) * 4] / size;
    const sums = new Float64Array(size + 1);
    let height = 0;
    for (let x = 0; x < size; x++) {
      height += data[(row + x) * 4] - mean;
      heights[row + x] = height;
      sums[x + 1] = sums[x] + height;
    }
    for (let x = 0; x < size; x++) {
      const [from, to] = [Math.max(0, x - reach), Math.min(size, x + reach + 1)];
      heights[row + x] -= (sums[to] - sums[from]) / (to - from);
    }
  }
  return { size, heights };
}

/** The relief under a lamp from a direction, degrees from the left, anticlockwise. */
export function relit({ size, heights }: Relief, lampDeg: number): ImageData {
  const image = new ImageData(size, size);
  const [lx, ly] = [Math.cos((lampDeg * Math.PI) / 180), -Math.sin((lampDeg * Math.PI) / 180)];
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      const at = y * size + x;
      const dx = heights[y * size + Math.min(size - 1, x + 1)] - heights[y * size + Math.max(0, x - 1)];
      const dy = heights[Math.min(size - 1, y + 1) * size + x] - heights[Math.max(0, y - 1) * size + x];
      const light = 150 + (105 * (lx * dx + ly * dy)) / 2 / FULL_SLOPE;
      image.data.fill(Math.max(0, Math.min(255, light)), at * 4, at * 4 + 3);
      image.data[at * 4 + 3] = 255;
    }
  }
  return image;
}
