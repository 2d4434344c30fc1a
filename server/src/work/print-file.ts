import { open } from 'node:fs/promises';
import type { Sharp } from 'sharp';
import { nodePlaces, readCube } from '@rakuen/core/characterisation/lattice';
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
  /**
   * What comes out runs smoothly from code to code, so that between the nodes of a fine lattice it may be looked up: thirty times as fast, and within a
   * tenth of what an eye tells apart.
   */
  readonly smooth?: boolean;
  readonly kind: TiffKind;
  readonly out: string;
  readonly scratch: string;
}

/** Nodes along a channel of the lattice by which large pictures are written. */
const NODES = 65;
/** Fewer pixels are computed one by one in the time the lattice takes. */
const WORTH_A_LATTICE_PX = 400_000;

type Writer = (codes: Float32Array) => Uint16Array;

/** What is written for codes 0–1: computed, or looked up. */
function writerFor({ channels, labOf, written, smooth, kind }: PrintFile): Writer {
  const exact: Writer = (codes) => written(labOf(codes));
  if (!smooth || channels !== 3 || kind.widthPx * kind.heightPx < WORTH_A_LATTICE_PX) return exact;
  const nodes = new Float32Array(NODES ** 3 * 3);
  let n = 0;
  for (const at of nodePlaces(3, NODES)) nodes.set(at, n++ * 3);
  const values = new Float32Array(nodes.length);
  for (let from = 0; from < nodes.length; from += RUN * 3)
    values.set(exact(nodes.subarray(from, Math.min(nodes.length, from + RUN * 3))), from);
  const found = new Float32Array(3);
  return (codes) => {
    const out = new Uint16Array(codes.length);
    for (let i = 0; i < codes.length; i += 3) {
      readCube(NODES, values, codes[i], codes[i + 1], codes[i + 2], found, 0);
      out[i] = found[0] + 0.5;
      out[i + 1] = found[1] + 0.5;
      out[i + 2] = found[2] + 0.5;
    }
    return out;
  };
}

/** Takes a picture through its profile and whatever follows, and writes it as a 16-bit TIFF; a run of pixels at a time, so that memory stays flat. */
export async function writePrintFile(task: PrintFile): Promise<void> {
  const { channels, bitsPerChannel } = task;
  const write = writerFor(task);
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
        const out = write(codes);
        await file.writeFile(Buffer.from(out.buffer, out.byteOffset, out.byteLength));
      }
    }
    await file.sync();
  } finally {
    await file.close();
  }
}
