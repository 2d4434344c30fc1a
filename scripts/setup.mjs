import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const STAMPS = join(ROOT, '.stamp');
const NEEDED = [20, 19];

/** Ends with one line where Node.js is too old. Plain syntax only: an old Node.js must be able to read it. */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < NEEDED[0] || (major === NEEDED[0] && minor < NEEDED[1])) {
    console.error(`Rakuen needs Node.js ${NEEDED.join('.')} or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
}

/** Runs a command in the project; its output is shown only when it fails, unless `show`. */
export function run(command, args, { show = false, env = {} } = {}) {
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: show ? 'inherit' : 'pipe',
    env: { ...process.env, ...env },
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  if (done.status !== 0 && !show) process.stderr.write(`${done.stdout ?? ''}${done.stderr ?? ''}`);
  return done.status ?? 1;
}

function filesBelow(folder, keep) {
  if (!existsSync(folder)) return [];
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    return entry.isDirectory() ? filesBelow(path, keep) : keep(path) ? [path] : [];
  });
}

function fingerprint(files) {
  const hash = createHash('sha256');
  for (const file of files) hash.update(file.slice(ROOT.length)).update('\0').update(readFileSync(file)).update('\0');
  return hash.digest('hex');
}

/** Does `work` when `files` are not what they were when it last succeeded, or `result` is missing. */
function whenStale(name, files, result, work) {
  const stamp = join(STAMPS, name);
  const now = fingerprint(files);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === now && result.every((r) => existsSync(join(ROOT, r))))
    return false;
  rmSync(stamp, { force: true });
  work();
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(stamp, now);
  return true;
}

const PARTS = ['core', 'contract', 'demo', 'server', 'web'];

/**
 * Where the headers of this very Node.js lie, for what is compiled at installation: most installations carry them, and
 * without this they are fetched from a site that a closed network does not reach.
 */
function ownHeaders() {
  const home = dirname(dirname(process.execPath));
  return existsSync(join(home, 'include/node/node.h')) ? { npm_config_nodedir: home } : {};
}

/** Installs the packages if the lock file changed or they are missing. */
export function installPackages() {
  whenStale('packages', [join(ROOT, 'package-lock.json')], ['node_modules/.package-lock.json'], () => {
    console.error('Installing packages, once; this takes some minutes.');
    // Not `npm ci`: it refuses when a registry lacks the optional binaries of platforms that are not this one.
    const install = ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'];
    if (run('npm', install, { env: ownHeaders() }) !== 0) {
      console.error('The packages could not be installed; the lines above say why.');
      process.exit(1);
    }
  });
}

/** Pictures of the invented studio are drawn once, two at a time: they take longer than all the rest of a first start. */
function drawPictures() {
  const scenes = filesBelow(join(ROOT, 'demo/src/pictures'), (f) => f.endsWith('.ts'));
  whenStale('pictures', scenes, ['demo/dist/drawn/tonedHall.tif'], () => {
    console.error('Drawing the pictures of the invented studio, once.');
    if (run('node', ['scripts/draw-pictures.mjs']) !== 0) process.exit(1);
  });
}

/** Builds what is stale. */
export function build() {
  const sources = PARTS.flatMap((part) =>
    filesBelow(join(ROOT, part, 'src'), (f) => /\.(tsx?|css|html|json)$/.test(f) && !/\.test\.tsx?$/.test(f)),
  );
  const configs = [
    'package-lock.json',
    'tsconfig.base.json',
    'web/index.html',
    'web/vite.config.ts',
    'server/rolldown.config.mjs',
    ...PARTS.map((p) => `${p}/tsconfig.json`),
    ...PARTS.map((p) => `${p}/package.json`),
  ].map((f) => join(ROOT, f));
  whenStale('build', [...sources, ...configs], ['server/dist/bundle/main.js', 'web/dist/index.html'], () => {
    console.error('Building.');
    const steps = [
      ['npx', ['tsc', '-b', 'core', 'contract', 'demo', 'server']],
      ['npx', ['rolldown', '-c', 'server/rolldown.config.mjs']],
      ['npx', ['vite', 'build', 'web', '--logLevel', 'error']],
    ];
    for (const [command, args] of steps) {
      if (run(command, args) !== 0) {
        console.error('The build failed; the lines above say why.');
        process.exit(1);
      }
    }
  });
  drawPictures();
}

const STUDIO = join(ROOT, 'demo/dist/studio');
const madeBy = (name) => (existsSync(join(STAMPS, name)) ? readFileSync(join(STAMPS, name), 'utf8') : undefined);

/** The invented studio as this build laid it out, for a first start to copy; undefined where it is none of this build. */
export const preparedStudio = () =>
  madeBy('studio') !== undefined && madeBy('studio') === madeBy('build') && existsSync(join(STUDIO, 'rakuen.sqlite'))
    ? STUDIO
    : undefined;

/** Lays the invented studio out once for this build, so that a first start takes as long as a copy. */
export function prepareStudio() {
  if (preparedStudio()) return STUDIO;
  console.error('Laying the invented studio out, once.');
  rmSync(STUDIO, { recursive: true, force: true });
  const words = "import('./server/dist/bundle/main.js').then((m) => m.layOut(process.argv.slice(1)))";
  if (run(process.execPath, ['-e', words, '--', '--data', STUDIO]) !== 0) process.exit(1);
  writeFileSync(join(STAMPS, 'studio'), madeBy('build'));
  return STUDIO;
}
