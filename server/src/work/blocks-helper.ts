import { Worker } from 'node:worker_threads';
import { stretchesOf, type Blocks, type Stretch } from '@rakuen/core/picture/blocks';
import type { PixelKind } from '@rakuen/core/picture/pixels';
import type { PictureColours } from './picture-colours.ts';

/** What is to be known of a picture to read it by place. */
export interface PictureBeside {
  readonly kind: PixelKind;
  readonly colours: PictureColours;
}

/** What is looked at of a run of pixels. */
export interface Rows {
  readonly samples: Uint8Array | Uint16Array;
  readonly stretches: readonly Stretch[];
}

/** So many runs may wait to be looked at: what is held stays small however large the picture is. */
const MOST_WAITING = 16;

/** Reads a picture by place, on a thread of its own, which makes itself ready while the picture is decoded. */
export class BlocksBeside {
  private readonly helper: Worker;
  private readonly blocks: Promise<Blocks>;
  private at = 0;
  private waiting = 0;
  private roomAgain = () => {};

  constructor(private readonly picture: PictureBeside) {
    const helper = new Worker(new URL('./blocks-worker.js', import.meta.url), { workerData: picture });
    this.helper = helper;
    this.blocks = new Promise((resolve, reject) => {
      helper.on('message', (told: Blocks | 'added') => {
        if (told !== 'added') return resolve(told);
        this.waiting--;
        this.roomAgain();
      });
      helper.once('error', reject);
      helper.once('exit', () => reject(new Error('The thread that reads the picture by place was ended.')));
    });
    // Whoever leaves before it is done does not await it.
    this.blocks.catch(() => {});
  }

  /** Hands on the next pixels of the picture, in the order of the file; waits where too many wait already. */
  async add(samples: Uint8Array | Uint16Array): Promise<void> {
    const { kind } = this.picture;
    const { channels } = kind;
    const count = samples.length / channels;
    const parts = stretchesOf(kind, this.at, count);
    this.at += count;
    const width = parts.reduce((sum, { fromX, toX }) => sum + toX - fromX, 0);
    const copy = kind.bits === 8 ? new Uint8Array(width * channels) : new Uint16Array(width * channels);
    let first = 0;
    const stretches = parts.map((part): Stretch => {
      const wide = part.toX - part.fromX;
      copy.set(samples.subarray(part.first * channels, (part.first + wide) * channels), first * channels);
      first += wide;
      return { ...part, first: first - wide };
    });
    this.helper.postMessage({ samples: copy, stretches } satisfies Rows, [copy.buffer]);
    if (++this.waiting < MOST_WAITING) return;
    await Promise.race([this.blocks, new Promise<void>((resolve) => (this.roomAgain = resolve))]);
  }

  finish(): Promise<Blocks> {
    this.helper.postMessage('all');
    return this.blocks;
  }

  end(): void {
    void this.helper.terminate();
  }
}
