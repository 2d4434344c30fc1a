import { spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, rmSync, statfsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PAPER, start, temporaryFolder } from './rakuen.ts';

/** A disk of its own, small enough to be filled; whoever may not mount one looks at the answers' code alone, in `storage`. */
const disk = temporaryFolder();
const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=40m', 'tmpfs', disk]).status === 0;
afterAll(() => void (mounted && spawnSync('umount', ['-l', disk])));
const MEGA = 2 ** 20;
const freeBytes = () => {
  const { bavail, bsize } = statfsSync(disk);
  return bavail * bsize;
};

(mounted ? it : it.skip)(
  'a disk that fills up is named; what was acknowledged stays; with room again it goes on',
  async () => {
    const data = join(disk, 'studio');
    mkdirSync(data);
    let rakuen = await start(data);
    const made = new Set<string>();
    let refused: { status: number; body: { message: string; remedy: string } } | undefined;
    const ballast = join(disk, 'ballast');
    writeFileSync(ballast, Buffer.alloc(Math.max(0, freeBytes() - MEGA)));
    const notes = 'n'.repeat(3500);
    for (let i = 0; i < 2000 && !refused; i++) {
      const answer = await rakuen.call<{ id: string; message: string; remedy: string }>('POST', '/api/papers', {
        ...PAPER,
        name: `Sheet ${i}`,
        notes,
      });
      if (answer.status === 201) made.add(answer.body.id);
      else refused = answer;
    }
    expect(refused).toMatchObject({ status: 507, body: { message: expect.stringMatching(/full/i) } });
    expect(refused!.body.remedy.length).toBeGreaterThan(10);
    expect(made.size).toBeGreaterThan(10);

    // A file that does not fit is refused as such, and leaves nothing behind.
    const large = Buffer.alloc(4 * MEGA, 'CGATS.17\n');
    const upload = await rakuen.upload<{ message: string }>('/api/readings/preview', 'large.txt', large);
    expect(upload).toMatchObject({ status: 507, body: { message: expect.stringMatching(/full/i) } });
    expect(readdirSync(join(data, 'incoming'))).toEqual([]);

    // It goes on answering, and shows what is kept.
    const listed = async () =>
      new Set((await rakuen.call<{ id: string }[]>('GET', '/api/papers')).body.map((p) => p.id));
    expect(await listed()).toEqual(made);

    rmSync(ballast);
    const again = await rakuen.call<{ id: string }>('POST', '/api/papers', { ...PAPER, name: 'With room again' });
    expect(again.status).toBe(201);
    made.add(again.body.id);
    await rakuen.kill();
    rakuen = await start(data);
    expect(await listed()).toEqual(made);
    await rakuen.stop();
  },
  120_000,
);
