import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
const run = (...words: string[]) => spawnSync(process.execPath, words, { cwd: ROOT, encoding: 'utf8' });

/** Short versions of the campaigns; the long ones are run by hand. */
describe('campaigns', () => {
  it('mangled files: each is answered in time with a reason, and the server goes on', () => {
    const done = run('scripts/fuzz.mjs', '--cases', '160', '--seed', '3');
    expect(done.stderr).toBe('');
    expect(done.stdout).toMatch(/^160 mangled files/m);
    expect(done.status).toBe(0);
  });

  it('killed in the middle of its work: nothing that was acknowledged is lost', () => {
    const done = run('scripts/crash.mjs', '--cycles', '2');
    expect(done.stdout).toMatch(/2 kills, \d+ acknowledged writes, \d+ of them reading sessions, 0 lost/);
    expect(done.status).toBe(0);
  });
});
