import { spawnSync } from 'node:child_process';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createServer } from 'node:net';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { blocks } from './files.ts';
import { condition, fixture, launch, PAPER, start, temporaryFolder } from './rakuen.ts';

/** A result as the database keeps it. */
interface Kept {
  readonly inputsKey: string;
  readonly value: string;
}

async function refused(args: string[]): Promise<{ code: number | null; lines: string[] }> {
  const child = launch(args);
  let output = '';
  child.stdout!.on('data', (c: Buffer) => (output += c.toString()));
  child.stderr!.on('data', (c: Buffer) => (output += c.toString()));
  const code = await new Promise<number | null>((done) => child.on('close', done));
  return { code, lines: output.trim().split('\n') };
}

describe('a start that can’t be', () => {
  it('a port in use: one line, exit code not 0', async () => {
    const other = createServer().listen(0, '127.0.0.1');
    await new Promise((done) => other.once('listening', done));
    const { port } = other.address() as { port: number };
    const { code, lines } = await refused(['--port', String(port), '--data', temporaryFolder()]);
    other.close();
    expect(code).not.toBe(0);
    expect(lines).toEqual([`Port ${port} is in use. Choose another with --port N.`]);
  });

  it('a data folder that is a file', async () => {
    const file = join(temporaryFolder(), 'notes.txt');
    writeFileSync(file, 'not a folder');
    const { code, lines } = await refused(['--port', '0', '--data', file]);
    expect(code).not.toBe(0);
    expect(lines).toHaveLength(1);
    expect(lines[0]).toContain(`The data folder ${file} can’t be used`);
  });

  it('a database that is none', async () => {
    const folder = temporaryFolder();
    writeFileSync(
      join(folder, 'rakuen.sqlite'),
      'garbage, and long enough to be taken for a header of some sort'.repeat(20),
    );
    const { code, lines } = await refused(['--port', '0', '--data', folder]);
    expect(code).not.toBe(0);
    expect(lines).toHaveLength(1);
    expect(lines[0]).toContain('is damaged');
  });

  it.each([[['--port', 'ninety']], [['--colour']], [['--data']]])('flags it does not understand: %j', async (args) => {
    const { code, lines } = await refused(args);
    expect(code).not.toBe(0);
    expect(lines).toHaveLength(1);
  });

  it('too old a Node.js', () => {
    const setup = fileURLToPath(new URL('../../scripts/setup.mjs', import.meta.url));
    const done = spawnSync(
      process.execPath,
      [
        '--input-type=module',
        '-e',
        `const { checkNode } = await import(${JSON.stringify(setup)}); Object.defineProperty(process, 'versions', { value: { node: '18.12.1' } }); checkNode();`,
      ],
      { encoding: 'utf8' },
    );
    expect(done.status).toBe(1);
    expect(done.stderr.trim()).toBe('Rakuen needs Node.js 20.19 or newer; this is 18.12.1.');
  });
});

describe('what was acknowledged survives', () => {
  it('kill -9 right after the answer, and in the middle of a picture', async () => {
    const first = await start();
    const names: string[] = [];
    for (let i = 0; i < 20; i++) {
      const name = `Sheet ${i}`;
      expect((await first.call('POST', '/api/papers', { ...PAPER, name })).status).toBe(201);
      names.push(name);
    }
    await first.upload(
      '/api/pictures',
      'half.tif',
      await blocks([
        [0.1, 0.2, 0.3],
        [0.7, 0.2, 0.3],
      ]),
    );
    await first.kill();

    const db = new Database(join(first.data, 'rakuen.sqlite'), { readonly: true });
    expect(db.pragma('journal_mode', { simple: true })).toBe('wal');
    expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
    db.close();

    const second = await start(first.data);
    const papers = await second.call<{ name: string }[]>('GET', '/api/papers');
    expect(papers.body.map((p) => p.name).sort()).toEqual(names.sort());
    const pictures = await second.call<{ figures: object }[]>('GET', '/api/pictures');
    for (const p of pictures.body) expect(p.figures).toBeDefined();
    expect(readdirSync(join(first.data, 'incoming'))).toHaveLength(0);
    await second.stop();
  });

  it('figures kept under older measures are computed anew at the next start', async () => {
    const first = await start();
    const id = await condition(first);
    await first.upload(`/api/conditions/${id}/readings`, 'u.txt', readFileSync(fixture('fogra29l.cgats.txt')));
    await first.kill();
    const db = new Database(join(first.data, 'rakuen.sqlite'));
    const kept = db.prepare("SELECT inputsKey, value FROM derived WHERE kind = 'facts'").get() as Kept;
    db.prepare("UPDATE derived SET inputsKey = ?, value = ? WHERE kind = 'facts'").run(
      'what older measures had made of it',
      JSON.stringify({ ...JSON.parse(kept.value), figures: {} }),
    );
    db.close();
    const second = await start(first.data);
    const { body } = await second.call<{ facts: { figures: { white: { lab: number[] } } } }>(
      'GET',
      `/api/conditions/${id}`,
    );
    expect(body.facts.figures.white.lab).toEqual([95.71, 0.61, -2.32]);
    await second.stop();
  });

  it('readings that can’t be read any more are told as such; what else is kept is shown all the same', async () => {
    const first = await start();
    const [sound, damaged] = [await condition(first, 'Sound'), await condition(first, 'Damaged')];
    const text = readFileSync(fixture('fogra29l.cgats.txt'));
    await first.upload(`/api/conditions/${sound}/readings`, 'u.txt', text);
    await first.upload(`/api/conditions/${damaged}/readings`, 'v.txt', `${text.toString()}\n`);
    await first.kill();
    const db = new Database(join(first.data, 'rakuen.sqlite'));
    const { contentHash } = db.prepare('SELECT contentHash FROM readings WHERE conditionId = ?').get(damaged) as {
      contentHash: string;
    };
    writeFileSync(join(first.data, 'files', contentHash.slice(0, 2), contentHash), 'torn');
    db.exec('DELETE FROM derived');
    db.close();
    const second = await start(first.data);
    const { status, body } = await second.call<{ id: string; facts: { figures: Record<string, object> } }[]>(
      'GET',
      '/api/conditions',
    );
    expect(status).toBe(200);
    const white = (id: string) => body.find((c) => c.id === id)!.facts.figures.white;
    expect(white(sound)).toMatchObject({ lab: [95.71, 0.61, -2.32] });
    expect(white(damaged)).toEqual({ shape: 'missing', why: expect.stringContaining('missing or damaged') });
    await second.stop();
  });

  it('a second server on a folder that is held: one line that says by whom; the first goes on', async () => {
    const first = await start();
    const { code, lines } = await refused(['--port', '0', '--data', first.data, '--empty']);
    expect(code).not.toBe(0);
    expect(lines).toHaveLength(1);
    expect(lines[0]).toContain('is held by another Rakuen: process ');
    expect(lines[0]).toContain(`, at ${first.url}`);
    expect((await first.call('GET', '/api/papers')).status).toBe(200);
    await first.kill();
    const second = await start(first.data);
    expect(await second.stop()).toBe(0);
  });

  it('Ctrl-C ends it cleanly', async () => {
    const rakuen = await start();
    expect(await rakuen.stop()).toBe(0);
  });
});
