import { open } from 'node:fs/promises';
import type { Sharp } from 'sharp';
import { abAt } from '@rakuen/core/characterisation/lab-axes';
import { throughCodes } from '@rakuen/core/characterisation/code-cube';
import { nodePlaces, readCube } from '@rakuen/core/characterisation/lattice';
import { throughPrinted } from '@rakuen/core/characterisation/printed';
import { tiffHead, type TiffKind } from '@rakuen/core/formats/tiff-head';
import type { LabOfCodes } from '@rakuen/core/picture/pixels';
import { applyLocal } from '@rakuen/core/proof/local-contrast';
import type { LocalTurn } from './local-base.ts';
import { CubeOnTwo } from './cube-helper.ts';
import { codesOf } from './light-codes.ts';
import type { PixelFrame } from './copy-frame.ts';
import { HELD_AT_ONCE_PX, heldRuns, pixelRuns } from './pixel-stream.ts';

/** Pixels that go through a profile together, and those that are looked up together. */
const RUN = 1 << 15;
const LOOKED_UP = 1 << 18;

export interface PrintFile {
  /** What is read: bare values of the picture in one depth. */
  readonly pipeline: Sharp;
  readonly channels: 1 | 3;
  readonly bitsPerChannel: 8 | 16 | 32;
  readonly labOf: LabOfCodes;
  /** What becomes of the colours, and how they are written. */
  readonly written: (labs: Float32Array) => Uint16Array;
  /**
   * What comes out runs smoothly from code to code, so that between the nodes of a fine lattice it may be looked up:
   * many times as fast, and within a tenth of what an eye tells apart.
   */
  readonly smooth?: boolean;
  /** Contrast turned by what lies about each place, before anything else. */
  readonly local?: LocalTurn;
  /** Bare paper around it, with what stands there. */
  readonly frame?: PixelFrame;
  /** Size of the picture alone. */
  readonly kind: TiffKind;
  readonly out: string;
  readonly scratch: string;
}

/** Nodes along a channel of the lattice by which large pictures are written. */
const NODES = 41;
/** And of one of Lab: two cells to each of a profile’s own tables, and white and grey lie on nodes. */
const LAB_NODES = 65;
/** Fewer pixels are computed one by one in the time the lattice takes. */
const WORTH_A_LATTICE_PX = 400_000;

/** And more are shared between two threads. */
const WORTH_TWO_PX = 6e6;

/** What is written for samples of a picture, so many pixels at once. */
interface Writer {
  readonly run: number;
  /** @param first which pixel of the picture comes first */
  readonly write: (samples: Uint8Array | Uint16Array, first: number) => Uint16Array;
  readonly close?: () => void;
}

/** Computed for each, or looked up. */
function writerFor(task: PrintFile): Writer {
  const { channels, bitsPerChannel, labOf, written, local, smooth, kind } = task;
  const top = bitsPerChannel === 8 ? 255 : 65_535;
  const { widthPx, heightPx } = kind;
  const large = smooth && channels === 3 && widthPx * heightPx >= WORTH_A_LATTICE_PX;
  const turned = (labs: Float32Array, first: number) => {
    if (local) applyLocal(labs, local.recipe, local.base, { widthPx, heightPx, first });
    return labs;
  };
  const codes = (samples: Uint8Array | Uint16Array) => {
    const out = new Float32Array(samples.length);
    for (let i = 0; i < out.length; i++) out[i] = samples[i] / top;
    return out;
  };
  if (!large) return { run: RUN, write: (samples, first) => written(turned(labOf(codes(samples)), first)) };
  if (local) {
    // What lies about a place stands between its colour and what is written: two lattices, and the turn between them.
    const labs = lattice(NODES, labOf);
    const sent = lattice(LAB_NODES, (places) => written(labsAt(places)));
    return {
      run: RUN,
      write: (samples, first) => {
        const found = new Float32Array(samples.length);
        const at = codes(samples);
        for (let i = 0; i < at.length; i += 3) readCube(NODES, labs, at[i], at[i + 1], at[i + 2], found, i);
        throughPrinted({ axes: 3, nodes: LAB_NODES, values: sent }, turned(found, first), found);
        const out = new Uint16Array(found.length);
        for (let i = 0; i < out.length; i++) out[i] = found[i] + 0.5;
        return out;
      },
    };
  }
  const cube = { nodes: NODES, values: lattice(NODES, (places) => written(labOf(places))) };
  const two = widthPx * heightPx >= WORTH_TWO_PX ? new CubeOnTwo(cube, top, LOOKED_UP * 3) : undefined;
  // Two places in turn: while one goes to the disk the other is filled, and no memory is asked for anew.
  const places = [new Uint16Array(LOOKED_UP * 3), new Uint16Array(LOOKED_UP * 3)];
  let turn = 0;
  const write: Writer['write'] = (samples) => {
    const out = places[(turn ^= 1)].subarray(0, samples.length);
    if (two) two.look(samples, out);
    else throughCodes(cube, samples, top, out);
    return out;
  };
  return { run: LOOKED_UP, write, close: () => two?.close() };
}

/** Values at the nodes of a lattice of three axes, a run at a time. */
function lattice(nodes: number, valuesAt: (places: Float32Array) => ArrayLike<number>): Float32Array {
  const places = new Float32Array(nodes ** 3 * 3);
  let n = 0;
  for (const at of nodePlaces(3, nodes)) places.set(at, n++ * 3);
  const values = new Float32Array(places.length);
  for (let from = 0; from < places.length; from += RUN * 3)
    values.set(valuesAt(places.slice(from, Math.min(places.length, from + RUN * 3))), from);
  return values;
}

/** Colours at places of a lattice of Lab, as every printed lattice has them; in place. */
function labsAt(places: Float32Array): Float32Array {
  for (let i = 0; i < places.length; i += 3) {
    places[i] *= 100;
    places[i + 1] = abAt(places[i + 1]);
    places[i + 2] = abAt(places[i + 2]);
  }
  return places;
}

/**
 * Takes a picture through its profile and whatever follows, and writes it as a 16-bit TIFF; a run of pixels at a time,
 * so that memory stays flat.
 */
export async function writePrintFile(task: PrintFile): Promise<void> {
  const { channels, frame, kind } = task;
  let writer: Writer | undefined;
  const file = await open(task.out, 'w');
  try {
    await file.writeFile(tiffHead(frame ? framed(kind, frame) : kind));
    if (frame) await file.writeFile(bytesOf(frame.top.data));
    const put = frame ? rowsBeside(frame, kind.widthPx) : (out: Uint16Array) => out;
    // While one run goes to the disk the next is looked up.
    let onItsWay = Promise.resolve();
    const ready = () => void (writer = writerFor(task));
    const runs =
      kind.widthPx * kind.heightPx <= HELD_AT_ONCE_PX
        ? heldRuns(task.pipeline, task.bitsPerChannel, ready)
        : pixelRuns(task.pipeline, task.scratch, ready);
    let first = 0;
    for await (const { samples: given, pixels } of runs) {
      const { samples } = codesOf(given);
      const { run, write } = writer!;
      for (let from = 0; from < pixels; from += run) {
        const part = samples.subarray(from * channels, Math.min(pixels, from + run) * channels);
        const out = put(write(part, first + from));
        await onItsWay;
        onItsWay = file.writeFile(bytesOf(out));
        onItsWay.catch(() => {});
      }
      first += pixels;
    }
    await onItsWay;
    if (frame) await file.writeFile(bytesOf(frame.bottom.data));
    await file.sync();
  } finally {
    writer?.close?.();
    await file.close();
  }
}

const bytesOf = (values: Uint16Array): Buffer => Buffer.from(values.buffer, values.byteOffset, values.byteLength);

const framed = (kind: TiffKind, { top, bottom, leftPx, rightPx }: PixelFrame): TiffKind => ({
  ...kind,
  widthPx: kind.widthPx + leftPx + rightPx,
  heightPx: kind.heightPx + top.heightPx + bottom.heightPx,
});

/** Puts bare paper before and after each row of a picture that comes in runs of any length. */
function rowsBeside({ leftPx, rightPx }: PixelFrame, widthPx: number): (run: Uint16Array) => Uint16Array {
  const row = widthPx * 3;
  const whole = row + (leftPx + rightPx) * 3;
  let column = 0;
  return (run) => {
    const out = new Uint16Array((Math.ceil((column + run.length) / row) + 1) * whole);
    let written = 0;
    for (let from = 0; from < run.length;) {
      if (column === 0) {
        out.fill(PAPER, written, written + leftPx * 3);
        written += leftPx * 3;
      }
      const n = Math.min(row - column, run.length - from);
      out.set(run.subarray(from, from + n), written);
      [from, written, column] = [from + n, written + n, column + n];
      if (column < row) continue;
      out.fill(PAPER, written, written + rightPx * 3);
      [written, column] = [written + rightPx * 3, 0];
    }
    return out.subarray(0, written);
  };
}

/** Device values of bare paper, RGB. */
const PAPER = 65_535;
