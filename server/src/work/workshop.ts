import { availableParallelism } from 'node:os';
import { MessageChannel } from 'node:worker_threads';
import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import { Piscina } from 'piscina';
import { RakuenError } from '../app/errors.ts';
import type { FittedPrint } from '@rakuen/core/characterisation/fitted-print';
import type { LearnTask, ProfileTask } from './model-tasks.ts';
import type { PictureResult, PictureTask } from './picture-task.ts';
import { left } from './under-way.ts';
import type { Fault, TASKS, TaskName } from './worker.ts';

/** So much is worked at at once. */
export const AT_ONCE = Math.max(2, availableParallelism());

const THREADS = {
  filename: new URL('./thread.cjs', import.meta.url).href,
  idleTimeout: 60_000,
  resourceLimits: { maxOldGenerationSizeMb: 2048 },
};
/** Nothing short takes so long, and no picture: a task that does is ended with its thread. */
const DEADLINE_MS = { short: 120_000, picture: 1_200_000 } as const;

/** The worker threads: everything that computes runs here, so that the server keeps answering. */
@Injectable()
export class Workshop implements OnModuleDestroy {
  private short?: Piscina;
  /** Pictures take long: they are read on a thread of their own, so that one is always free for what is short. */
  private readonly pictures = new Piscina({ ...THREADS, minThreads: 0, maxThreads: 1 });

  private closed = false;

  /** What is short: a thread is there from the first of it on, and none where nothing is ever asked. */
  private get pool(): Piscina {
    if (this.closed) throw stopped();
    return (this.short ??= new Piscina({ ...THREADS, minThreads: 1, maxThreads: AT_ONCE }));
  }

  /** Somebody is there: what they ask first need not wait for a thread. */
  makeReady(): void {
    if (!this.closed) void this.pool;
  }

  async onModuleDestroy(): Promise<void> {
    this.closed = true;
    await Promise.all([this.short?.destroy(), this.pictures.destroy()]);
  }

  /** @throws RakuenError (422) when the input is at fault, `file` named in it; (503) when Rakuen is being stopped */
  async run<N extends Exclude<TaskName, 'analysePicture' | 'makeProfileOf' | 'fitPrintOf'>>(
    name: N,
    task: Parameters<(typeof TASKS)[N]>[0],
    file?: string,
  ): Promise<Awaited<ReturnType<(typeof TASKS)[N]>>> {
    const signal = AbortSignal.timeout(DEADLINE_MS.short);
    const answer = await this.pool.run({ name, task }, { signal }).catch((error: unknown) => {
      if (signal.aborted) throw tooLong(file);
      throw this.closed ? stopped() : error;
    });
    return resultOf(answer, file) as Awaited<ReturnType<(typeof TASKS)[N]>>;
  }

  /** Reads a picture, telling progress 0–1; `signal` ends the thread that reads it. */
  async readPicture(
    task: Omit<PictureTask, 'port'>,
    file: string,
    signal: AbortSignal,
    progress: (done: number) => void,
  ): Promise<PictureResult> {
    const until = AbortSignal.any([signal, AbortSignal.timeout(DEADLINE_MS.picture)]);
    return (await this.told(this.pictures, 'analysePicture', task, until, progress, file)) as PictureResult;
  }

  /**
   * Learns a print condition, telling progress 0–1; `signal` ends the thread that learns it. @throws RakuenError (409)
   * where it was left
   */
  async learn(
    task: Omit<LearnTask, 'port'>,
    signal: AbortSignal,
    progress: (done: number) => void,
  ): Promise<FittedPrint> {
    const until = AbortSignal.any([signal, AbortSignal.timeout(DEADLINE_MS.short)]);
    try {
      return (await this.told(this.pool, 'fitPrintOf', task, until, progress)) as FittedPrint;
    } catch (error) {
      throw signal.aborted ? left() : until.aborted ? tooLong() : error;
    }
  }

  /** Makes a profile, telling progress 0–1; `signal` ends the thread that makes it. */
  async makeProfile(
    task: Omit<ProfileTask, 'port'>,
    signal: AbortSignal,
    progress: (done: number) => void,
  ): Promise<Awaited<ReturnType<(typeof TASKS)['makeProfileOf']>>> {
    const until = AbortSignal.any([signal, AbortSignal.timeout(DEADLINE_MS.short)]);
    return (await this.told(this.pool, 'makeProfileOf', task, until, progress)) as Awaited<
      ReturnType<(typeof TASKS)['makeProfileOf']>
    >;
  }

  private async told(
    pool: Piscina,
    name: TaskName,
    task: object,
    signal: AbortSignal,
    progress: (done: number) => void,
    file?: string,
  ): Promise<unknown> {
    const { port1, port2 } = new MessageChannel();
    port1.on('message', progress);
    try {
      return resultOf(
        await pool.run({ name, task: { ...task, port: port2 } }, { transferList: [port2], signal }),
        file,
      );
    } catch (error) {
      throw this.closed && !signal.aborted ? stopped() : error;
    } finally {
      port1.close();
    }
  }
}

const stopped = () =>
  new RakuenError(503, 'Rakuen is being stopped.', {
    remedy: 'Start it again and do it once more; nothing was changed.',
  });

const tooLong = (file?: string) =>
  new RakuenError(422, 'This takes longer than any reading does, and was given up.', {
    file,
    remedy: 'Look whether the file is what it should be, or make it smaller.',
  });

function resultOf(answer: { result: unknown } | { fault: Fault }, file?: string): unknown {
  if ('fault' in answer)
    throw new RakuenError(422, answer.fault.message, {
      remedy: answer.fault.remedy,
      line: answer.fault.line,
      field: answer.fault.field,
      file,
    });
  return answer.result;
}
