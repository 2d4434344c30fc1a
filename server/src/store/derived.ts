import { Inject, Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { CONFIG, type Config } from '../app/config.ts';
import { Writer } from './writer.ts';

/** What something is computed from, told apart by a key: another key, another result. */
export interface Inputs<T> {
  readonly key: string;
  readonly compute: () => Promise<T>;
}

/**
 * Results that follow from what is kept. Each is computed once for its inputs, one at a time for each subject, and looked up from then on; a result of inputs
 * that have changed meanwhile is given out but not kept.
 */
@Injectable()
export class Derived {
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly database: DataSource,
    private readonly writer: Writer,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  /** @param inputs told anew after the computation: only what still holds is kept */
  async get<T>(subject: string, kind: string, inputs: () => Promise<Inputs<T>>): Promise<T> {
    const place = `${subject} ${kind}`;
    const turn = (this.turns.get(place) ?? Promise.resolve()).then(() => this.inTurn(subject, kind, inputs));
    const settled = turn.catch(() => undefined);
    this.turns.set(place, settled);
    void settled.then(() => this.turns.get(place) === settled && this.turns.delete(place));
    return turn;
  }

  private async inTurn<T>(subject: string, kind: string, inputs: () => Promise<Inputs<T>>): Promise<T> {
    const { key, compute } = await inputs();
    const [known] = await this.database.query<{ value: string }[]>(
      'SELECT value FROM derived WHERE subject = ? AND kind = ? AND inputsKey = ?',
      [subject, kind, key],
    );
    if (known) return JSON.parse(known.value) as T;
    const value = await compute();
    if (this.config.readOnly) return value;
    await this.writer.run('derived', async () => {
      if ((await inputs()).key !== key) return;
      await this.database.query(
        `INSERT INTO derived (subject, kind, inputsKey, value) VALUES (?, ?, ?, ?)
         ON CONFLICT (subject, kind) DO UPDATE SET inputsKey = excluded.inputsKey, value = excluded.value`,
        [subject, kind, key, JSON.stringify(value)],
      );
    });
    return value;
  }
}
