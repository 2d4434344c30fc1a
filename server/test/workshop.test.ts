import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));

/** A process that opens its threads and closes them again after each of these times. */
const OPENED_AND_CLOSED = `
  import { Workshop } from './server/dist/work/workshop.js';
  for (const ms of [0, 60, 120, 180, 240, 300, 360, 420]) {
    const workshop = new Workshop();
    workshop.makeReady();
    await new Promise((done) => setTimeout(done, ms));
    await workshop.onModuleDestroy();
    workshop.makeReady();
    await workshop.run('lightSpectrum', {}).catch((error) => {
      if (error.status !== 503) throw error;
    });
  }
  console.log('closed');
`;

describe('the worker threads', () => {
  it('are closed while they open, and the process goes on', () => {
    const { status, signal, stdout, stderr } = spawnSync(
      process.execPath,
      ['--input-type=module', '-e', OPENED_AND_CLOSED],
      { cwd: ROOT, encoding: 'utf8' },
    );
    expect({ status, signal, stdout, stderr }).toEqual({ status: 0, signal: null, stdout: 'closed\n', stderr: '' });
  });

  it('load their work without requiring it, where ending one would abort the process', async () => {
    const required: unknown = createRequire(import.meta.url)('../dist/work/thread.cjs');
    expect(required).toBeInstanceOf(Promise);
    expect(await required).toBeInstanceOf(Function);
  });
});
