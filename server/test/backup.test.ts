import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { readZip, writeZip } from '@rakuen/server/backup/zip';
import { blocks } from './files.ts';
import { condition, fixture, PAPER, picture, start, temporaryFolder } from './rakuen.ts';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const RUN = "import('./server/dist/bundle/studio.js').then((m) => m.main(process.argv.slice(1)))";
/** The command line of backups, as a process of its own. */
function studio(...args: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['-e', RUN, '--', ...args], {
    cwd: ROOT,
    encoding: 'utf8',
  });
  return { status, said: `${stdout}${stderr}`.trim() };
}

/** All that an eye could tell one studio from another by. */
async function told(data: string) {
  const rakuen = await start(data, []);
  const get = async (path: string) => (await rakuen.call<object[]>('GET', path)).body;
  const heads = (await get('/api/conditions')) as { id: string }[];
  const all = {
    conditions: await get(`/api/conditions/whole?ids=${heads.map((c) => c.id).join()}`),
    papers: await get('/api/papers'),
    pictures: await get('/api/pictures'),
    rates: await get('/api/rates'),
    events: await get('/api/events'),
  };
  const [{ id }] = all.pictures as { id: string }[];
  const match = await rakuen.call<object>('POST', '/api/matches', { pictureId: id });
  await rakuen.kill();
  return { ...all, match: match.body };
}

describe('a studio saved and put back', () => {
  let data: string;
  let before: Awaited<ReturnType<typeof told>>;
  let backup: string;
  beforeAll(async () => {
    const rakuen = await start();
    data = rakuen.data;
    const id = await condition(rakuen, 'Saved');
    await rakuen.upload(`/api/conditions/${id}/readings`, 'u.txt', readFileSync(fixture('fogra29l.cgats.txt')));
    await picture(
      rakuen,
      'p.tif',
      await blocks([
        [0.1, 0.2, 0.3],
        [0.7, 0.2, 0.3],
      ]),
    );
    const { said: _, revision: __, ...rates } = (await rakuen.call<Record<string, unknown>>('GET', '/api/rates')).body;
    expect((await rakuen.call('PUT', '/api/rates', { ...rates, perHour: 47 })).status).toBe(200);
    // While the server runs, and while it is written to.
    const [made] = await Promise.all([
      rakuen.call<{ name: string; bytes: number }>('POST', '/api/backups'),
      rakuen.call('POST', '/api/papers', { ...PAPER, name: 'Meanwhile' }),
    ]);
    expect(made).toMatchObject({ status: 201, body: { name: expect.stringMatching(/^asked-.*\.zip$/) } });
    const response = await fetch(`${rakuen.url}/api/backups/${made.body.name}`);
    expect(response.headers.get('content-type')).toBe('application/zip');
    expect((await response.arrayBuffer()).byteLength).toBe(made.body.bytes);
    expect((await rakuen.call('GET', '/api/backups/..%2Frakuen.sqlite')).status).toBe(404);
    await rakuen.kill();
    before = await told(data);
    backup = join(temporaryFolder(), 'b.zip');
    expect(studio('backup', '--data', data, '--to', backup).status).toBe(0);
  });
  afterAll(() => rmSync(data, { recursive: true, force: true }));

  it('into an empty folder: every list, figure and event is the same', async () => {
    const folder = join(temporaryFolder(), 'new');
    expect(studio('restore', backup, '--data', folder)).toMatchObject({ status: 0 });
    expect(await told(folder)).toEqual(before);
  });

  it('over a studio that is there: refused unless it is said; then that one is kept whole beside it', async () => {
    const other = await start();
    await condition(other, 'Other');
    await other.kill();
    expect(studio('restore', backup, '--data', other.data)).toMatchObject({
      status: 1,
      said: expect.stringContaining('There is a studio'),
    });
    const done = studio('restore', backup, '--data', other.data, '--over');
    expect(done).toMatchObject({ status: 0, said: expect.stringMatching(/What was there is kept in .*replaced-/) });
    const aside = readdirSync(other.data).find((n) => n.startsWith('replaced-'))!;
    const db = new Database(join(other.data, aside, 'rakuen.sqlite'));
    expect(db.prepare('SELECT name FROM papers').all()).toEqual([{ name: 'Other' }]);
    db.close();
  });

  it('changed by one byte: refused, and nothing is touched', () => {
    const bytes = Buffer.from(readFileSync(backup));
    const broken = join(temporaryFolder(), 'broken.zip');
    let refused = 0;
    for (const at of [0.4, 0.9]) {
      const changed = Buffer.from(bytes);
      changed[Math.floor(bytes.length * at)] ^= 0xff;
      writeFileSync(broken, changed);
      const folder = join(temporaryFolder(), 'none');
      const { status, said } = studio('restore', broken, '--data', folder);
      if (status !== 0) {
        refused++;
        expect(said).toContain('can’t be put back');
        expect(existsSync(join(folder, 'rakuen.sqlite'))).toBe(false);
      }
    }
    expect(refused).toBe(2);
  });

  it('through the interface: looked over now, in place at the next start', async () => {
    const rakuen = await start();
    await condition(rakuen, 'Before the restore');
    expect((await rakuen.upload('/api/backups/restore', 'none.zip', 'no zip at all')).status).toBe(422);
    expect((await rakuen.upload('/api/backups/restore', 'b.zip', readFileSync(backup))).status).toBe(202);
    await rakuen.kill();
    const again = await start(rakuen.data, []);
    expect((await again.call<object[]>('GET', '/api/papers')).body).toEqual(before.papers);
    await again.stop();
  });

  it('told as an open archive and brought in again: the same figures', async () => {
    const archive = join(temporaryFolder(), 'studio.zip');
    expect(studio('export', '--data', data, '--to', archive).status).toBe(0);
    const folder = join(temporaryFolder(), 'imported');
    expect(studio('import', archive, '--data', folder)).toMatchObject({ status: 0 });
    expect(await told(folder)).toEqual(before);
    expect(studio('import', archive, '--data', folder)).toMatchObject({ status: 1 });

    // An archive of an earlier Rakuen keeps what holds for the studio among the documents.
    const unpacked = temporaryFolder();
    await readZip(archive, unpacked);
    const { tables, ...rest } = JSON.parse(readFileSync(join(unpacked, 'studio.json'), 'utf8')) as {
      tables: Record<string, { id: string; value: string | null; revision: number }[]>;
      files: string[];
    };
    const { rules, ...earlier } = tables;
    const rates = rules.find((r) => r.id === 'rates')!;
    const document = { key: 'rates', value: JSON.stringify({ ...JSON.parse(rates.value!), revision: rates.revision }) };
    const old = { ...rest, tables: { ...earlier, documents: [...earlier.documents, document] } };
    const earlierArchive = join(temporaryFolder(), 'earlier.zip');
    await writeZip(earlierArchive, [
      { name: 'studio.json', bytes: Buffer.from(JSON.stringify(old)) },
      ...rest.files.map((name) => ({ name: `files/${name}`, path: join(unpacked, 'files', name) })),
    ]);
    const again = join(temporaryFolder(), 'earlier');
    expect(studio('import', earlierArchive, '--data', again)).toMatchObject({ status: 0 });
    expect(await told(again)).toEqual(before);
  });
});

describe('a backup that can’t be finished', () => {
  const FILES = ['aa', 'bb', 'cc'];

  it('is told as an error where a file goes away, and leaves nothing behind', async () => {
    const folder = temporaryFolder();
    const to = join(folder, 'b.zip');
    for (const name of FILES) writeFileSync(join(folder, name), name);
    const entries = FILES.map((name) => ({ name, path: join(folder, name) }));
    // All were there when they were listed; the last is gone when its turn comes.
    const writing = writeZip(to, [...entries, { name: 'gone', path: join(folder, 'gone') }]);
    await expect(writing).rejects.toThrow(/ENOENT.*gone/);
    expect(readdirSync(folder).sort()).toEqual(FILES);
    rmSync(folder, { recursive: true });
  });

  it('is given up when the server is stopped: no crash, no half of a backup', async () => {
    const rakuen = await start();
    const kept = join(rakuen.data, 'files', 'aa');
    mkdirSync(kept, { recursive: true });
    writeFileSync(join(kept, 'a'.repeat(64)), '');
    truncateSync(join(kept, 'a'.repeat(64)), 4 * 2 ** 30);
    const asked = rakuen.call('POST', '/api/backups').catch(() => undefined);
    const parts = () => readdirSync(join(rakuen.data, 'backups')).filter((name) => name.endsWith('.part'));
    while (!existsSync(join(rakuen.data, 'backups')) || parts().length === 0)
      await new Promise((r) => setTimeout(r, 5));
    expect(await rakuen.end()).toBe(0);
    await asked;
    expect(readdirSync(join(rakuen.data, 'backups'))).toEqual([]);
    expect(readdirSync(rakuen.data).filter((name) => name.startsWith('backup-'))).toEqual([]);
    rmSync(rakuen.data, { recursive: true });
  });
});

describe('a studio of an earlier Rakuen', () => {
  it('is saved before it takes its next step, and keeps everything', async () => {
    const folder = temporaryFolder();
    const tar = fileURLToPath(new URL('./fixtures/studio-1765000000000.tar.gz', import.meta.url));
    expect(spawnSync('tar', ['xzf', tar, '-C', folder]).status).toBe(0);
    const db = new Database(join(folder, 'rakuen.sqlite'), { readonly: true });
    const count = (table: string) => (db.prepare(`SELECT COUNT(*) AS n FROM ${table}`).get() as { n: number }).n;
    const had = Object.fromEntries(
      ['conditions', 'readings', 'pictures', 'observations', 'decisions', 'prints'].map((t) => [t, count(t)]),
    );
    db.close();
    expect(had.conditions).toBeGreaterThan(0);
    const rakuen = await start(folder, []);
    const now = new Database(join(folder, 'rakuen.sqlite'), { readonly: true });
    for (const [table, n] of Object.entries(had))
      expect([table, (now.prepare(`SELECT COUNT(*) AS n FROM ${table}`).get() as { n: number }).n]).toEqual([table, n]);
    now.close();
    expect(readdirSync(join(folder, 'backups'))).toEqual([
      expect.stringMatching(/^before-Record1766000000000-.*\.zip$/),
    ]);
    expect((await rakuen.call<unknown[]>('GET', '/api/conditions')).body).toHaveLength(had.conditions);

    // A print that was removed under the earlier one, when it told its spoilt sheets itself.
    const [print] = (await rakuen.call<{ id: string }[]>('GET', '/api/prints')).body;
    const write = new Database(join(folder, 'rakuen.sqlite'));
    const removed = randomUUID();
    const row = write.prepare('SELECT * FROM prints WHERE id = ?').get(print.id) as object;
    write
      .prepare(
        "INSERT INTO events (change, what, at, deed, subject, id, before) VALUES ('then', 'removed', '2026-01-01', 'removed', 'prints', ?, ?)",
      )
      .run(removed, JSON.stringify({ ...row, id: removed, misprints: 3, misprintCause: 'Head strike' }));
    write.close();
    expect((await rakuen.call('POST', '/api/events/then/undo')).status).toBe(204);
    const prints = (await rakuen.call<{ id: string; misprints: number; misprintCause: string }[]>('GET', '/api/prints'))
      .body;
    expect(prints.find((p) => p.misprints === 3)).toMatchObject({
      misprintCause: expect.stringMatching(/head strike/i),
    });
    await rakuen.stop();
  });
});
