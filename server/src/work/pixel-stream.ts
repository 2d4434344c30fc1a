import { mkdir, open, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Sharp } from 'sharp';

/** The image library's own file: 64 bytes of header, then pixels as the processor holds them. */
const HEADER = 64;
const FORMATS = { 0: Uint8Array, 2: Uint16Array, 6: Float32Array } as const;
/** Read at once: large enough to be quick, small enough to be nothing. */
const CHUNK_PX = 1 << 18;

/** Pixels that follow each other; good until the next but one is asked for. */
export interface PixelRun {
  readonly samples: Uint8Array | Uint16Array | Float32Array;
  readonly pixels: number;
}

/**
 * Decodes a picture to disk and hands its pixels on a run at a time: memory stays flat however large it is.
 * @param pipeline what is to be decoded, in one number of channels and one depth
 * @param folder made for it, and cleared by who asks: the decoder may still open its file after its thread was ended,
 * and where the folder is gone it can't
 * @param meanwhile done on this thread while another decodes
 */
export async function* pixelRuns(
  pipeline: Sharp,
  folder: string,
  meanwhile: () => void = () => {},
): AsyncGenerator<PixelRun> {
  await mkdir(folder, { recursive: true });
  const pixels = join(folder, 'pixels.v');
  try {
    const decoded = pipeline.toFile(pixels);
    // Its fault is told where it is awaited.
    decoded.catch(() => {});
    // The decoder is asked only at the next turn of the loop.
    await new Promise((resolve) => setImmediate(resolve));
    meanwhile();
    await decoded;
    const file = await open(pixels);
    try {
      const head = Buffer.alloc(HEADER);
      await file.read(head, 0, HEADER, 0);
      const channels = head.readInt32LE(12);
      const Values = FORMATS[head.readInt32LE(20) as keyof typeof FORMATS];
      const size = channels * Values.BYTES_PER_ELEMENT;
      const total = head.readInt32LE(4) * head.readInt32LE(8);
      const read = async (from: number, bytes: Buffer<ArrayBuffer>): Promise<PixelRun> => {
        const count = Math.min(CHUNK_PX, total - from);
        let have = 0;
        while (have < count * size) {
          const { bytesRead } = await file.read(bytes, have, count * size - have, HEADER + from * size + have);
          if (bytesRead === 0) throw new Error('The decoded picture is cut short; the disk may be full.');
          have += bytesRead;
        }
        return { samples: new Values(bytes.buffer, bytes.byteOffset, count * channels), pixels: count };
      };
      // One run is read while the one before it is used: two places, in turn.
      const places = [Buffer.alloc(CHUNK_PX * size), Buffer.alloc(CHUNK_PX * size)];
      let next = read(0, places[0]);
      for (let from = 0, turn = 1; from < total; from += CHUNK_PX, turn ^= 1) {
        const run = await next;
        if (from + CHUNK_PX < total) next = read(from + CHUNK_PX, places[turn]);
        next.catch(() => {});
        yield run;
      }
      await next;
    } finally {
      await file.close();
    }
  } finally {
    await rm(pixels, { force: true });
  }
}

/** Pixels that are held at once rather than laid on the disk first: some 300 MB of 16 bits. */
export const HELD_AT_ONCE_PX = 50e6;
const DEPTHS = { 8: ['uchar', Uint8Array], 16: ['ushort', Uint16Array], 32: ['float', Float32Array] } as const;

/** The same for a picture that may be held as a whole: nothing is written, and nothing read again. */
export async function* heldRuns(
  pipeline: Sharp,
  bitsPerChannel: keyof typeof DEPTHS,
  meanwhile: () => void = () => {},
): AsyncGenerator<PixelRun> {
  const [depth, Values] = DEPTHS[bitsPerChannel];
  const decoded = pipeline.raw({ depth }).toBuffer({ resolveWithObject: true });
  decoded.catch(() => {});
  await new Promise((resolve) => setImmediate(resolve));
  meanwhile();
  const { data, info } = await decoded;
  const values = new Values(data.buffer, data.byteOffset, data.length / Values.BYTES_PER_ELEMENT);
  const total = info.width * info.height;
  for (let from = 0; from < total; from += CHUNK_PX) {
    const pixels = Math.min(CHUNK_PX, total - from);
    yield { samples: values.subarray(from * info.channels, (from + pixels) * info.channels), pixels };
  }
}
