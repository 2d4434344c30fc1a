import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { condition, fixture, start } from './rakuen.ts';

const TWO_DAYS_AGO = new Date(Date.now() - 48 * 3_600_000);

/** A file as the studio keeps them, by its content. */
function keep(data: string, content: string, at?: Date): string {
  const hash = createHash('sha256').update(content).digest('hex');
  const path = join(data, 'files', hash.slice(0, 2), hash);
  mkdirSync(join(data, 'files', hash.slice(0, 2)), { recursive: true });
  writeFileSync(path, content);
  if (at) utimesSync(path, at, at);
  return path;
}

describe('files nothing speaks of', () => {
  it('go at the next start once a day has passed; what is used, what lies in the bin, and what just came stay', async () => {
    const first = await start();
    const id = await condition(first);
    const bytes = readFileSync(fixture('fogra29l.cgats.txt'));
    await first.upload(`/api/conditions/${id}/readings`, 'used.txt', bytes);
    const binned = `${bytes.toString()}\n`;
    await first.upload(`/api/conditions/${id}/readings`, 'binned.txt', binned);
    const { body } = await first.call<{ readings: { id: string; fileName: string }[] }>('GET', `/api/conditions/${id}`);
    await first.call('DELETE', `/api/readings/${body.readings.find((r) => r.fileName === 'binned.txt')!.id}`);
    await first.kill();
    const paths = [bytes.toString(), binned].map((content) => keep(first.data, content, TWO_DAYS_AGO));
    const [old, fresh] = [keep(first.data, 'left by a crash', TWO_DAYS_AGO), keep(first.data, 'just came')];
    const database = new Database(join(first.data, 'rakuen.sqlite'));
    const answer = database.prepare('INSERT INTO answers (key, at, what, answer) VALUES (?, ?, ?, ?)');
    answer.run('long-ago-1', '2020-01-01T00:00:00.000Z', 'x', 'null');
    answer.run('just-now-1', new Date().toISOString(), 'x', 'null');
    database.close();

    const second = await start(first.data);
    try {
      expect(existsSync(old)).toBe(false);
      expect(existsSync(fresh)).toBe(true);
      expect(paths.every((p) => existsSync(p))).toBe(true);
      const now = new Database(join(first.data, 'rakuen.sqlite'), { readonly: true });
      expect(now.prepare('SELECT key FROM answers').all()).toEqual([{ key: 'just-now-1' }]);
      now.close();
    } finally {
      await second.stop();
      rmSync(first.data, { recursive: true, force: true });
    }
  });
});
