/** The values of a square of a grey scan, 0–255 as the screen has them. @param shownMm side of the square; the whole where it is larger */
export function squareOf(image: HTMLImageElement, ppi: number, shownMm: number): { size: number; codes: Uint8Array } {
  const size = Math.max(8, Math.min(image.naturalWidth, image.naturalHeight, Math.round((shownMm / 25.4) * ppi)));
  const canvas = document.createElement('canvas');
  canvas.width = size;
  canvas.height = size;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(image, 0, 0, size, size, 0, 0, size, size);
  const { data } = context.getImageData(0, 0, size, size);
  return { size, codes: Uint8Array.from({ length: size * size }, (_, i) => data[i * 4]) };
}
