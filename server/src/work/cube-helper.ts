import { Worker } from 'node:worker_threads';
import { throughCodes, type CodeCube } from '@rakuen/core/characterisation/code-cube';

/** Whose turn it is between the two threads. */
export const TURN = { starting: 0, ready: 1, asked: 2, done: 3 } as const;

/** What the two threads share. */
export interface Shared extends CodeCube {
  readonly control: SharedArrayBuffer;
  readonly samples: Uint8Array | Uint16Array;
  readonly top: number;
  readonly out: Uint16Array;
}

/** A helper that has not answered for so long is no more asked. */
const LOST_MS = 10_000;

/** A cube looked up on two threads; where the second can’t be had, on this one alone. Close it when done. */
export class CubeOnTwo {
  private readonly state: Int32Array;
  private readonly shared: Shared;
  private readonly helper: Worker;

  /** @param most values that are looked up at once */
  constructor(
    private readonly cube: CodeCube,
    private readonly top: number,
    most: number,
  ) {
    const control = new SharedArrayBuffer(8);
    const values = new Float32Array(new SharedArrayBuffer(cube.values.byteLength));
    values.set(cube.values);
    const samples =
      top === 255 ? new Uint8Array(new SharedArrayBuffer(most)) : new Uint16Array(new SharedArrayBuffer(most * 2));
    this.state = new Int32Array(control);
    this.shared = {
      control,
      nodes: cube.nodes,
      values,
      samples,
      top,
      out: new Uint16Array(new SharedArrayBuffer(most * 2)),
    };
    this.helper = new Worker(new URL('./cube-worker.js', import.meta.url), { workerData: this.shared });
    this.helper.on('error', () => Atomics.store(this.state, 0, TURN.done));
    this.helper.unref();
  }

  /** The helper waits to be asked. */
  get ready(): boolean {
    return Atomics.load(this.state, 0) === TURN.ready;
  }

  look(samples: Uint8Array | Uint16Array, out: Uint16Array): void {
    const half = Math.floor(samples.length / 6) * 3;
    if (!this.ready) {
      throughCodes(this.cube, samples, this.top, out);
      return;
    }
    const rest = samples.length - half;
    this.shared.samples.set(samples.subarray(half));
    this.state[1] = rest;
    Atomics.store(this.state, 0, TURN.asked);
    Atomics.notify(this.state, 0);
    throughCodes(this.cube, samples.subarray(0, half), this.top, out.subarray(0, half));
    if (Atomics.wait(this.state, 0, TURN.asked, LOST_MS) === 'timed-out') {
      Atomics.store(this.state, 0, TURN.done);
      throughCodes(this.cube, samples.subarray(half), this.top, out.subarray(half));
    } else out.set(this.shared.out.subarray(0, rest), half);
  }

  close(): void {
    Atomics.store(this.state, 0, TURN.done);
    Atomics.notify(this.state, 0);
  }
}
