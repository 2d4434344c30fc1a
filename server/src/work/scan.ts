import sharp from 'sharp';
import type { TextureScan } from '@rakuen/core/measurement/texture';
import { PictureError } from './picture-error.ts';

/** A scan is looked at where it is sharpest, in its middle: this many mm are enough. */
const MOST_MM = 60;

/**
 * Lightness of a scan: grey, decoded as sRGB's tone curve, from the middle of the sheet.
 * @throws PictureError when it can't be read or is larger than the limit
 */
export async function lightnessOfScan(path: string, ppi: number, maxPixels: number): Promise<TextureScan> {
  const image = sharp(path, { limitInputPixels: maxPixels, ignoreIcc: true, failOn: 'truncated' });
  try {
    const { width, height } = await image.metadata();
    const most = Math.round((MOST_MM / 25.4) * ppi);
    const [w, h] = [Math.min(width, most), Math.min(height, most)];
    const { data, info } = await image
      .extract({ left: (width - w) >> 1, top: (height - h) >> 1, width: w, height: h })
      .greyscale()
      .toColourspace('grey16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    const values = new Uint16Array(data.buffer, data.byteOffset, data.byteLength / 2);
    const channels = info.channels;
    return {
      widthPx: info.width,
      heightPx: info.height,
      ppi,
      lightness: Float32Array.from({ length: info.width * info.height }, (_, i) =>
        lightness(values[i * channels] / 65_535),
      ),
    };
  } catch (error) {
    throw new PictureError(
      `The scan can’t be read (${(error as Error).message.split('\n')[0].slice(0, 120)}).`,
      'Save it again as TIFF, PNG or JPEG.',
      'file',
    );
  }
}

/** L* of a grey in sRGB's tone curve (IEC 61966-2-1). */
function lightness(v: number): number {
  const Y = v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  return Y > 216 / 24389 ? 116 * Math.cbrt(Y) - 16 : (Y * 24389) / 27;
}

/** A scan as it is kept: 16-bit grey in sRGB's tone curve, so that bringing it again gives the same texture. */
export async function scanPng({ widthPx, heightPx, lightness: L, ppi }: TextureScan): Promise<Uint8Array> {
  const grey = Uint16Array.from(L, (l) => {
    const Y = l > 8 ? ((l + 16) / 116) ** 3 : (l * 27) / 24389;
    return Math.round((Y <= 0.0031308 ? 12.92 * Y : 1.055 * Y ** (1 / 2.4) - 0.055) * 65_535);
  });
  return sharp(grey, { raw: { width: widthPx, height: heightPx, channels: 1 } })
    .toColourspace('grey16')
    .withMetadata({ density: ppi })
    .png()
    .toBuffer();
}
