import type { MigrationInterface, QueryRunner } from 'typeorm';
import { seededRandom, shuffled } from '@rakuen/core/random';
import { columnsChange } from '../record-again.ts';

/**
 * The pairs of a blind comparison as they were shown are kept with it: another way of ordering them must not change what
 * was answered. And how clear a difference was expected.
 */
export class Pairs1781000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'eye_sessions', async () => {
      await runner.query(
        `ALTER TABLE eye_sessions ADD COLUMN pairs TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(pairs))`,
      );
      await runner.query(
        `ALTER TABLE eye_sessions ADD COLUMN clarity TEXT NOT NULL DEFAULT 'clear' CHECK (clarity IN ('obvious', 'clear', 'slight'))`,
      );
      const rows = (await runner.query('SELECT id, conditionIds, times, seed FROM eye_sessions')) as {
        id: string;
        conditionIds: string;
        times: number;
        seed: number;
      }[];
      for (const { id, conditionIds, times, seed } of rows) {
        const pairs = earlierOrder((JSON.parse(conditionIds) as string[]).length, times, seed);
        await runner.query('UPDATE eye_sessions SET pairs = ? WHERE id = ?', [JSON.stringify(pairs), id]);
      }
    });
  }

  async down(runner: QueryRunner): Promise<void> {
    await columnsChange(runner, 'eye_sessions', async () => {
      for (const column of ['pairs', 'clarity']) await runner.query(`ALTER TABLE eye_sessions DROP COLUMN ${column}`);
    });
  }
}

/** How pairs were ordered before they were kept. */
function earlierOrder(count: number, times: number, seed: number): { left: number; right: number }[] {
  const random = seededRandom(seed);
  const pairs: { left: number; right: number }[] = [];
  for (let i = 0; i < count; i++) {
    for (let j = i + 1; j < count; j++) {
      const start = random() < 0.5;
      for (let t = 0; t < times; t++)
        pairs.push((t % 2 === 0) === start ? { left: i, right: j } : { left: j, right: i });
    }
  }
  return shuffled(pairs, random);
}
