import { AsyncLocalStorage } from 'node:async_hooks';
import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';

/** What is being done: the record of events files every change of a row under it. */
export interface Deed {
  readonly id: string;
  /** In words of the interface to come: "PUT papers/:id". */
  readonly what: string;
}

/**
 * One writer: whatever changes the database waits for its turn, whole deeds one after another, so that what a deed has
 * looked up still holds when it writes. Reads go on beside it.
 */
@Injectable()
export class Writer {
  private last: Promise<unknown> = Promise.resolve();
  private readonly inside = new AsyncLocalStorage<Deed>();

  constructor(private readonly database: DataSource) {}

  /** The deed under way, where one is. */
  get deed(): Deed | undefined {
    return this.inside.getStore();
  }

  /** Runs a deed in its turn; one begun within another belongs to that. */
  async run<T>(what: string, deed: () => Promise<T>): Promise<T> {
    if (this.inside.getStore()) return deed();
    const turn = this.last.then(async () => {
      const own: Deed = { id: randomUUID(), what };
      // The triggers of the record read it from there.
      await this.database.query('UPDATE deed SET id = ?, what = ?', [own.id, own.what]);
      return this.inside.run(own, deed);
    });
    this.last = turn.catch(() => undefined);
    return turn;
  }
}
