import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, checkNode, installPackages, prepareStudio, ROOT } from './setup.mjs';

/** Everything that decides whether a change may land: set-up, lint, types, Jest, Playwright; closes with the counts. */
checkNode();
installPackages();
build();
// Laid out once: every test that begins with a worked-in studio takes a copy.
process.env.RAKUEN_PREPARED = prepareStudio();
/** Programs of Debian that the tests use, with the packages they come in. */
const PROGRAMS = [
  [process.env.CHROMIUM ?? '/usr/bin/chromium', 'chromium', 'CHROMIUM'],
  [process.env.PDFTOTEXT ?? '/usr/bin/pdftotext', 'poppler-utils', 'PDFTOTEXT'],
  [process.env.TRANSICC ?? '/usr/bin/transicc', 'liblcms2-utils', 'TRANSICC'],
];
const lacking = PROGRAMS.filter(([path]) => !existsSync(path));
if (lacking.length > 0) {
  const packages = lacking.map(([, name]) => name);
  console.log(`Installing Debian’s ${packages.join(' and ')}.`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  for (const words of [
    ['apt-get', 'update', '-qq'],
    ['apt-get', 'install', '-y', '-qq', ...packages],
  ]) {
    const [command, ...args] = [...sudo, ...words];
    if (
      spawnSync(command, args, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status !== 0
    ) {
      console.error(
        `${packages.join(' and ')} could not be installed; name another place with ${lacking.map(([, , variable]) => variable).join(' and ')}.`,
      );
      process.exit(1);
    }
  }
}

const results = join(ROOT, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const failed = [];
const began = Date.now();
function step(name, command, args) {
  const from = Date.now();
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', env: process.env });
  console.log(`== ${name}: ${status === 0 ? 'passed' : 'FAILED'} in ${((Date.now() - from) / 1000).toFixed(0)} s`);
  if (status !== 0) failed.push(name);
}

/** The same for steps that keep one core each: beside each other, what they say after one another. */
async function steps(named) {
  const ended = named.map(async ([name, script]) => {
    const from = Date.now();
    const child = spawn('npm', ['run', '--silent', script], { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
    const said = [];
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (part) => said.push(part));
    const status = await new Promise((done) => child.on('close', done));
    return { name, status, said: said.join(''), seconds: (Date.now() - from) / 1000 };
  });
  for (const { name, status, said, seconds } of await Promise.all(ended)) {
    console.log(`\n== ${name}\n${said.trimEnd()}`);
    console.log(`== ${name}: ${status === 0 ? 'passed' : 'FAILED'} in ${seconds.toFixed(0)} s`);
    if (status !== 0) failed.push(name);
  }
}

await steps([
  ['Lint', 'lint'],
  ['Types', 'typecheck'],
]);
step('Jest', 'npm', ['run', '--silent', 'jest', '--', '--json', '--outputFile=test-results/jest.json', '--silent']);
const jest = counts('jest.json', (r) => [
  r.numPassedTests,
  r.numFailedTests + r.numRuntimeErrorTestSuites,
  r.numPendingTests,
]);
step('Playwright', 'npm', ['run', '--silent', 'e2e']);
const playwright = counts('playwright.json', (r) => [r.stats.expected, r.stats.unexpected, r.stats.skipped]);

function counts(file, read) {
  const path = join(results, file);
  return existsSync(path) ? read(JSON.parse(readFileSync(path, 'utf8'))) : [0, 1, 0];
}

const [passed, wrong, skipped] = [0, 1, 2].map((i) => jest[i] + playwright[i]);
console.log(
  `\nJest ${jest[0]} passed, Playwright ${playwright[0]} passed, in ${((Date.now() - began) / 1000).toFixed(0)} s${failed.length > 0 ? `; failed: ${failed.join(', ')}` : ''}`,
);
console.log(`${passed} passed, ${wrong} failed, ${skipped} skipped`);
process.exit(failed.length === 0 && wrong === 0 ? 0 : 1);
