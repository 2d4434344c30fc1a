import { Worker } from 'node:worker_threads';
import type { BinnedCodes } from '@rakuen/core/picture/bins';
import { stretchesOf, type Blocks, type Stretch } from '@rakuen/core/picture/blocks';
import type { PixelKind } from '@rakuen/core/picture/pixels';
import type { PictureColours } from './picture-colours.ts';

/** What is to be known of a picture to read it. */
export interface PictureBeside {
  readonly kind: PixelKind;
  readonly colours: PictureColours;
}

type Codes = Uint8Array | Uint16Array;

/** What is looked at of a run of pixels. */
export interface Run {
  readonly samples: Codes;
  readonly stretches: readonly Stretch[];
  /** All its pixels are there, and counted by their colours too. */
  readonly whole: boolean;
}

/** What the helper tells: that a run was added; at the end the colours of those it was given whole, then the picture by place. */
export type Told = 'added' | { readonly counted: BinnedCodes } | { readonly blocks: Blocks };

/** Nothing is wrong with the picture: the thread that reads it too is gone. */
export class ThreadLost extends Error {
  override readonly name = 'ThreadLost';

  constructor(cause?: unknown) {
    super('The thread that reads the picture beside this one was ended.', { cause });
  }
}

/** So many runs may wait to be looked at: what is held stays small however large the picture is. */
const MOST_WAITING = 16;

/** Reads a picture by place, and counts a part of its colours, on a thread that makes itself ready while the picture is decoded. */
export class ReadBeside {
  private readonly helper: Worker;
  readonly counted: Promise<BinnedCodes>;
  readonly blocks: Promise<Blocks>;
  private at = 0;
  private waiting = 0;
  private roomAgain = () => {};

  constructor(private readonly picture: PictureBeside) {
    const helper = new Worker(new URL('./beside-worker.js', import.meta.url), { workerData: picture });
    this.helper = helper;
    const told = <T>(part: (told: Exclude<Told, 'added'>) => T | undefined) =>
      new Promise<T>((resolve, reject) => {
        helper.on('message', (words: Told) => {
          const found = words === 'added' ? undefined : part(words);
          if (found) resolve(found);
        });
        helper.once('error', (cause) => reject(new ThreadLost(cause)));
        helper.once('exit', () => reject(new ThreadLost()));
      });
    helper.on('message', (words: Told) => {
      if (words !== 'added') return;
      this.waiting--;
      this.roomAgain();
    });
    this.counted = told((t) => ('counted' in t ? t.counted : undefined));
    this.blocks = told((t) => ('blocks' in t ? t.blocks : undefined));
    // Whoever leaves before it is done awaits neither.
    this.counted.catch(() => {});
    this.blocks.catch(() => {});
  }

  /**
   * Hands on the next pixels of the picture, in the order of the file; waits where too many wait already.
   * @param whole count their colours there too
   */
  async add(samples: Codes, whole: boolean): Promise<void> {
    const { kind } = this.picture;
    const count = samples.length / kind.channels;
    const stretches = stretchesOf(kind, this.at, count);
    this.at += count;
    const run: Run = whole
      ? { samples: samples.slice(), stretches, whole }
      : { ...rowsAlone(samples, stretches, kind.channels), whole };
    this.helper.postMessage(run, [run.samples.buffer as ArrayBuffer]);
    if (++this.waiting < MOST_WAITING) return;
    await Promise.race([this.counted, new Promise<void>((resolve) => (this.roomAgain = resolve))]);
  }

  /** That was all of it. */
  finish(): void {
    this.helper.postMessage('all');
  }

  end(): void {
    void this.helper.terminate();
  }
}

/** The stretches of a run one after another, and nothing between them. */
function rowsAlone(samples: Codes, stretches: readonly Stretch[], channels: number) {
  const width = stretches.reduce((sum, { fromX, toX }) => sum + toX - fromX, 0);
  const rows = samples instanceof Uint8Array ? new Uint8Array(width * channels) : new Uint16Array(width * channels);
  let first = 0;
  const moved = stretches.map((part): Stretch => {
    const wide = part.toX - part.fromX;
    rows.set(samples.subarray(part.first * channels, (part.first + wide) * channels), first * channels);
    first += wide;
    return { ...part, first: first - wide };
  });
  return { samples: rows, stretches: moved };
}
