import { open } from 'node:fs/promises';
import type { Sharp } from 'sharp';
import { tiffHead, type TiffKind } from '@rakuen/core/formats/tiff-head';
import type { LabOfCodes } from '@rakuen/core/picture/blocks';
import { codesOfLight } from './open-picture.ts';
import { pixelRuns } from './pixel-stream.ts';

/** Pixels that go through a profile together. */
const RUN = 1 << 15;

export interface PrintFile {
  /** What is read: bare values of the picture in one depth. */
  readonly pipeline: Sharp;
  readonly channels: 1 | 3;
  readonly bitsPerChannel: 8 | 16 | 32;
  readonly labOf: LabOfCodes;
  /** What becomes of the colours, and how they are written. */
  readonly written: (labs: Float32Array) => Uint16Array;
  readonly kind: TiffKind;
  readonly out: string;
  readonly scratch: string;
}

/** Takes a picture through its profile and whatever follows, and writes it as a 16-bit TIFF; a run of pixels at a time, so that memory stays flat. */
export async function writePrintFile(task: PrintFile): Promise<void> {
  const { channels, bitsPerChannel, labOf, written } = task;
  const top = bitsPerChannel === 8 ? 255 : 65_535;
  const file = await open(task.out, 'w');
  try {
    await file.writeFile(tiffHead(task.kind));
    for await (const { samples: given, pixels } of pixelRuns(task.pipeline, task.scratch)) {
      const samples = given instanceof Float32Array ? codesOfLight(given).samples : given;
      for (let from = 0; from < pixels; from += RUN) {
        const n = Math.min(RUN, pixels - from);
        const codes = new Float32Array(n * channels);
        for (let i = 0; i < codes.length; i++) codes[i] = samples[from * channels + i] / top;
        const out = written(labOf(codes));
        await file.writeFile(Buffer.from(out.buffer, out.byteOffset, out.byteLength));
      }
    }
    await file.sync();
  } finally {
    await file.close();
  }
}
