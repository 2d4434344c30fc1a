import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('../../', import.meta.url));
/** Packages of which a file was opened when the server had been loaded, and nothing asked of it. */
const LOADED = `import('./server/dist/bundle/main.js').then(() => {
  const names = Object.keys(require('node:module')._cache).map((f) => f.split('node_modules/').pop().split('/')[0]);
  console.log(JSON.stringify([...new Set(names)]));
  process.exit();
})`;

it('a start opens the database package once, within the bundle, and nothing that draws on paper', () => {
  const { stdout, status } = spawnSync(process.execPath, ['-e', LOADED], { cwd: ROOT, encoding: 'utf8' });
  expect(status).toBe(0);
  const opened = JSON.parse(stdout) as string[];
  // What has binaries of its own is no part of the bundle.
  expect(opened).toContain('better-sqlite3');
  for (const name of ['typeorm', 'pdfkit', 'fontkit', 'opentype.js']) expect(opened).not.toContain(name);
});
