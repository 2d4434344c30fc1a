import { AsyncLocalStorage } from 'node:async_hooks';
import { Inject, Injectable, Logger } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { CONFIG, type Config } from '../app/config.ts';
import { WaitsFor } from './waits-for.ts';
import { Writer } from './writer.ts';

/** What something is computed from, told apart by a key: another key, another result. */
export interface Inputs<T> {
  readonly key: string;
  readonly compute: () => Promise<T>;
}

interface Told {
  readonly key: string;
  readonly value: unknown;
}

/**
 * Results that follow from what is kept. Each is computed once for its inputs, one at a time for each subject, and
 * looked up from then on; a result of inputs that have changed meanwhile is given out but not kept. They go with their
 * subject.
 */
@Injectable()
export class Derived {
  private readonly turns = new Map<string, Promise<unknown>>();
  /** The result that is being computed where another is asked for. */
  private readonly asking = new AsyncLocalStorage<string>();
  private readonly waits = new WaitsFor();
  /** Told, and not kept yet; for good where nothing may be written. */
  private readonly waiting = new Map<string, Told>();

  constructor(
    private readonly database: DataSource,
    private readonly writer: Writer,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /**
   * @param inputs asked again after the computation: only what still holds is kept
   * @throws WaitsInCircle where the result would have to wait for itself
   */
  async get<T>(subject: string, kind: string, inputs: () => Promise<Inputs<T>>): Promise<T> {
    const place = `${subject} ${kind}`;
    const asker = this.asking.getStore();
    if (asker === undefined) return this.queue(place, subject, kind, inputs);
    this.waits.add(asker, place);
    try {
      return await this.queue(place, subject, kind, inputs);
    } finally {
      this.waits.delete(asker, place);
    }
  }

  private queue<T>(place: string, subject: string, kind: string, inputs: () => Promise<Inputs<T>>): Promise<T> {
    const turn = (this.turns.get(place) ?? Promise.resolve()).then(() =>
      this.asking.run(place, () => this.inTurn(subject, kind, inputs)),
    );
    const settled = turn.catch(() => undefined);
    this.turns.set(place, settled);
    void settled.then(() => this.turns.get(place) === settled && this.turns.delete(place));
    return turn;
  }

  /**
   * Results of many subjects at once, as far as they are kept and still hold.
   * @param keys what each is to be told from, by subject
   * @param select what is wanted of each, in SQL, of the row `d`
   */
  async kept<R extends object>(
    kind: string,
    keys: ReadonlyMap<string, string>,
    select = 'd.value',
  ): Promise<(R & { readonly subject: string })[]> {
    return this.database.query(
      `SELECT d.subject, ${select} FROM json_each(?) k JOIN derived d ON d.subject = k.key AND d.inputsKey = k.value WHERE d.kind = ?`,
      [JSON.stringify(Object.fromEntries(keys)), kind],
    );
  }

  /** Keeps what was told beforehand, in the transaction of the change it follows from. */
  async keep(manager: EntityManager, subject: string, kind: string, key: string, value: unknown): Promise<void> {
    await manager.query(
      `INSERT INTO derived (subject, kind, inputsKey, value) VALUES (?, ?, ?, ?)
       ON CONFLICT (subject, kind) DO UPDATE SET inputsKey = excluded.inputsKey, value = excluded.value`,
      [subject, kind, key, JSON.stringify(value)],
    );
  }

  private async inTurn<T>(subject: string, kind: string, inputs: () => Promise<Inputs<T>>): Promise<T> {
    const { key, compute } = await inputs();
    const place = `${subject} ${kind}`;
    const told = this.waiting.get(place);
    if (told?.key === key) return told.value as T;
    const [known] = await this.database.query<{ value: string }[]>(
      'SELECT value FROM derived WHERE subject = ? AND kind = ? AND inputsKey = ?',
      [subject, kind, key],
    );
    if (known) return JSON.parse(known.value) as T;
    const now: Told = { key, value: await compute() };
    this.waiting.set(place, now);
    if (this.config.readOnly) return now.value as T;
    const kept = this.writer
      .run('derived', async () => {
        if ((await inputs()).key === key) await this.keep(this.database.manager, subject, kind, key, now.value);
      })
      // What can't be kept is told all the same, and told anew another time.
      .catch((error: unknown) => Logger.warn(`${kind} of ${subject} was not kept: ${String(error)}`, Derived.name))
      .finally(() => this.waiting.get(place) === now && this.waiting.delete(place));
    // Within a deed it is kept with it. Otherwise nobody waits for the writer: a deed may be waiting for this very result.
    if (this.writer.deed) await kept;
    return now.value as T;
  }
}
