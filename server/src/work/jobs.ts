import { randomUUID } from 'node:crypto';
import { notFound, RakuenError } from '../app/errors.ts';
import type { ApiError } from '@rakuen/contract/settings';

/** How something that takes long is going. */
export interface Job<R, A = undefined> {
  readonly id: string;
  /** What the one who began it said of it. */
  readonly about: A;
  readonly state: 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';
  /** 0–1. */
  readonly progress: number;
  readonly result?: R;
  readonly error?: Pick<ApiError, 'message' | 'remedy' | 'field'>;
}

/** Jobs that ended are remembered for a while, so that the page that asked can learn how. */
const REMEMBERED = 100;

/** Work that goes on after its request was answered, with its progress; any of it can be stopped. */
export class Jobs<R, A = undefined> {
  private readonly jobs = new Map<
    string,
    { view: Job<R, A>; readonly stop: AbortController; ended: Promise<unknown> }
  >();

  /** @param noun what it is called where it is not found @param unforeseen what is said where it failed for a reason nobody foresaw */
  constructor(
    private readonly noun: string,
    private readonly unforeseen: Pick<ApiError, 'message' | 'remedy'>,
  ) {}

  begin(about: A, work: (signal: AbortSignal, progress: (share: number) => void) => Promise<R>): Job<R, A> {
    const view: Job<R, A> = { id: randomUUID(), about, state: 'waiting', progress: 0 };
    const job = { view, stop: new AbortController(), ended: Promise.resolve<unknown>(undefined) };
    this.jobs.set(job.view.id, job);
    for (const [id, { view }] of this.jobs) {
      if (this.jobs.size <= REMEMBERED) break;
      if (view.state !== 'waiting' && view.state !== 'reading') this.jobs.delete(id);
    }
    const update = (change: Partial<Job<R, A>>) => (job.view = { ...job.view, ...change });
    job.ended = work(
      job.stop.signal,
      (share) => job.view.state !== 'done' && update({ state: 'reading', progress: Math.min(0.99, share) }),
    ).then(
      (result) => update({ state: 'done', progress: 1, result }),
      (error: unknown) => {
        if (job.stop.signal.aborted) return update({ state: 'cancelled' });
        if (!(error instanceof RakuenError)) console.error(error);
        return update({
          state: 'failed',
          error: error instanceof RakuenError ? (error.getResponse() as ApiError) : this.unforeseen,
        });
      },
    );
    return job.view;
  }

  get(id: string): Job<R, A> {
    return this.find(id).view;
  }

  cancel(id: string): Job<R, A> {
    this.find(id).stop.abort();
    return this.get(id);
  }

  /** Once it is at its end, whichever that is. */
  async ended(id: string): Promise<Job<R, A>> {
    await this.find(id).ended;
    return this.get(id);
  }

  private find(id: string) {
    const job = this.jobs.get(id);
    if (!job) throw notFound(this.noun);
    return job;
  }
}
