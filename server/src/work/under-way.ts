import { Injectable } from '@nestjs/common';
import { RakuenError } from '../app/errors.ts';

/** How far something is that was asked for. */
export interface Work {
  /** One of its parts is done. */
  readonly step: () => void;
  /** So much of the whole is done, 0–1. */
  readonly reach: (share: number) => void;
  /** Fires where whoever asked has left it. */
  readonly signal: AbortSignal;
  /** @throws RakuenError (409) where whoever asked has left it */
  readonly goOn: () => void;
  readonly end: () => void;
}

interface Told {
  done: number;
  readonly total: number;
  readonly stop: AbortController;
}

/** What is under way for those who want to be told of it: each by a name of its own. */
@Injectable()
export class UnderWay {
  private readonly works = new Map<string, Told>();

  /** @param name as the asker calls it; none where nobody wants to be told @param total parts it has */
  begin(name: string | undefined, total: number): Work {
    const told: Told = { done: 0, total, stop: new AbortController() };
    if (name) this.works.set(name, told);
    return {
      step: () => void told.done++,
      reach: (share) => void (told.done = Math.round(share * total)),
      signal: told.stop.signal,
      goOn: () => {
        if (told.stop.signal.aborted) throw left();
      },
      end: () => void (name && this.works.get(name) === told && this.works.delete(name)),
    };
  }

  /** Nothing under way has no parts. */
  of(name: string): { done: number; total: number } {
    const { done = 0, total = 0 } = this.works.get(name) ?? {};
    return { done, total };
  }

  leave(name: string): void {
    this.works.get(name)?.stop.abort();
  }
}

/** What is answered to whoever left before it was done. */
export const left = () =>
  new RakuenError(409, 'It was left before it was done.', {
    remedy: 'Ask for it again; what was learned until then is kept.',
  });

/** Does something with each, so many at a time; a fault ends it before the next is begun. */
export async function eachOf<T, R>(items: readonly T[], atOnce: number, work: (item: T) => Promise<R>): Promise<R[]> {
  const results: R[] = [];
  let next = 0;
  let failed = false;
  const hand = async () => {
    while (next < items.length && !failed) {
      const at = next++;
      try {
        results[at] = await work(items[at]);
      } catch (error) {
        failed = true;
        throw error;
      }
    }
  };
  await Promise.all(Array.from({ length: Math.min(atOnce, items.length) }, hand));
  return results;
}
