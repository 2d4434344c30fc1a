/* global fetch, FormData, Blob, performance, setTimeout */
import { spawn } from 'node:child_process';
import { Buffer } from 'node:buffer';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import sharp from 'sharp';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

/**
 * Sends mangled files to everything that takes one: readings, profiles, lamps, pictures, scans, papers as files. The
 * server must answer each in time with a reason, and go on. `--cases N` how many, `--seed S` which.
 */
checkNode();
installPackages();
build();
const number = (name, otherwise) => {
  const at = process.argv.indexOf(name);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const cases = number('--cases', 1000);
const seed = number('--seed', 1);
const from = (path) => import(pathToFileURL(join(ROOT, 'core/dist', path)).href);
const [{ seededRandom }, { readChart }, { surfaceChart }, { standIn }, { writeCgats }, { writeCxf }, { writeCsv }] =
  await Promise.all(
    [
      'random.js',
      'simulation/instrument.js',
      'simulation/chart.js',
      'simulation/stand-in.js',
      'formats/cgats-write.js',
      'formats/cxf-write.js',
      'formats/csv-write.js',
    ].map(from),
  );
const SLOWEST_MS = 5000;
const MOST_BYTES = 2 ** 30;
const AT_ONCE = 3;
const PAPER = {
  maker: 'Fuzzmill',
  name: 'Sheet',
  coating: 'matt',
  base: 'cotton',
  surface: 'smooth',
  brightenerClaim: 'none',
  weightGsm: 300,
  thicknessUm: 400,
  sizes: [],
  currency: 'EUR',
};
const CONDITION = {
  printer: 'Press',
  inkSet: 'inks',
  blackInk: 'matt black',
  mediaSetting: 'Matt',
  resolution: '720',
  printMode: 'colour through a profile',
  profile: '',
  blackOvercoat: false,
};

const data = mkdtempSync(join(tmpdir(), 'rakuen-fuzz-'));
const run = "import('./server/dist/bundle/main.js').then((m) => m.main(process.argv.slice(1)))";
const server = spawn(process.execPath, ['-e', run, '--', '--port', '0', '--data', data, '--empty'], { cwd: ROOT });
let complaints = '';
server.stderr.on('data', (text) => (complaints += text));
const url = await new Promise((done, fail) => {
  server.stdout.on('data', (text) => {
    const at = /Rakuen is at (http:\S+)/.exec(text)?.[1];
    if (at) done(at);
  });
  server.on('exit', () => fail(new Error(`the server did not start: ${complaints}`)));
});
const post = async (path, body) =>
  (
    await fetch(url + path, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  ).json();
const upload = (path, name, bytes, fields = {}) => {
  const form = new FormData();
  for (const [key, value] of Object.entries(fields)) form.append(key, value);
  form.append('file', new Blob([bytes]), name);
  return fetch(url + path, { method: 'POST', body: form });
};

// Sound files to begin from, and where each goes.
const sheet = standIn({
  coating: 'matt',
  surface: 'smooth',
  brightenerClaim: 'low',
  weightGsm: 300,
  thicknessUm: 400,
  blackInk: 'matt black',
  mediaSetting: 'Fine art matt',
  printMode: 'colour through a profile',
  blackOvercoat: false,
});
const paper = await post('/api/papers', PAPER);
const { id } = await post('/api/conditions', { ...CONDITION, paperId: paper.id });
const reading = readChart(sheet, surfaceChart(3, 9, 2), 'M1', 1);
const picture = sharp({ create: { width: 48, height: 32, channels: 3, background: '#7a5c40' } });
await upload(`/api/conditions/${id}/readings`, 'first.txt', writeCgats(reading));
const bundle = new Uint8Array(await (await fetch(`${url}/api/papers/${paper.id}/bundle`)).arrayBuffer());
const icc = ['sRGB.icc', 'compatibleWithAdobeRGB1998.icc'].map((f) =>
  readFileSync(join(ROOT, 'core/test/fixtures', f)),
);
const CORPUS = [
  ...[writeCgats(reading), writeCxf(reading), writeCsv(reading), 'nm,power\n380,0.1\n390,0.2\n400,0.4\n410,0.7\n'].map(
    (text) => ({ bytes: Buffer.from(text), to: ['/api/readings/preview', '/api/lights'] }),
  ),
  ...icc.map((bytes) => ({ bytes, to: ['/api/readings/preview', '/api/profiles', '/api/profiles'] })),
  { bytes: await picture.clone().jpeg().toBuffer(), to: ['/api/pictures', `/api/conditions/${id}/scans`] },
  { bytes: await picture.clone().png().toBuffer(), to: ['/api/pictures', `/api/conditions/${id}/scans`] },
  { bytes: await picture.clone().tiff().toBuffer(), to: ['/api/pictures', `/api/conditions/${id}/scans`] },
  { bytes: Buffer.from(bundle), to: ['/api/papers/bundle', '/api/papers/bundle', '/api/papers/bundle'] },
];
const TOKENS = [
  'BEGIN_DATA',
  'END_DATA',
  '"',
  '""',
  '<',
  '>',
  '<!--',
  '&amp;',
  'NaN',
  '1e999',
  '-1',
  '\u202e',
  '\0',
  '{',
  '[',
  ',',
  ';',
  '\t',
  '\r',
  '9'.repeat(400),
];
/** What else a form says, by where it goes. */
const FIELDS = {
  lights: { name: 'lamp' },
  scans: { takenAt: new Date().toISOString(), by: 'fuzz', ppi: '400' },
};

/** A file changed in one to six places: bytes turned, pieces taken out, doubled, put in from elsewhere, the end cut off. */
function mangled(random, bytes) {
  let out = Buffer.from(bytes);
  const at = () => Math.floor(random() * Math.max(1, out.length));
  for (let i = Math.ceil(random() * 6); i > 0; i--) {
    const [start, length] = [at(), Math.ceil(random() ** 3 * 400)];
    const kind = Math.floor(random() * 7);
    if (kind === 0) for (let n = 0; n < 1 + length / 40; n++) out[at()] = Math.floor(random() * 256);
    else if (kind === 1) out = Buffer.concat([out.subarray(0, start), out.subarray(start + length)]);
    else if (kind === 2)
      out = Buffer.concat([out.subarray(0, start), out.subarray(start, start + length), out.subarray(start)]);
    else if (kind === 3) out = out.subarray(0, start);
    else if (kind === 4)
      out = Buffer.concat([
        out.subarray(0, start),
        Buffer.from(TOKENS[Math.floor(random() * TOKENS.length)].repeat(1 + Math.floor(random() ** 4 * 5000))),
        out.subarray(start),
      ]);
    else if (kind === 5) {
      const other = CORPUS[Math.floor(random() * CORPUS.length)].bytes;
      const cut = Math.floor(random() * other.length);
      out = Buffer.concat([out.subarray(0, start), other.subarray(cut, cut + length), out.subarray(start)]);
    } else if (out.length > 8)
      out.writeUInt32BE(
        [0, 1, 0x7fffffff, 0xffffffff, out.length][Math.floor(random() * 5)],
        Math.min(start, out.length - 4),
      );
  }
  return out;
}

const answers = new Map();
const faults = [];
let next = 0;
let slowest = 0;
async function worker() {
  while (next < cases && faults.length < 20) {
    const number = next++;
    const random = seededRandom(seed * 1_000_003 + number);
    const { bytes, to } = CORPUS[Math.floor(random() * CORPUS.length)];
    const path = to[Math.floor(random() * to.length)];
    const began = performance.now();
    const where = `case ${number}, seed ${seed}, ${path}`;
    try {
      let answer = await upload(path, 'fuzz.bin', mangled(random, bytes), FIELDS[path.split('/').pop()]);
      let body = await answer.json();
      if (path === '/api/pictures' && answer.ok) {
        while (['waiting', 'reading'].includes(body.state)) {
          await new Promise((done) => setTimeout(done, 15));
          body = await (await fetch(`${url}/api/pictures/jobs/${body.id}`)).json();
        }
        if (body.state === 'failed' && /too large for the memory/.test(body.error?.remedy ?? ''))
          faults.push(`${where}: a damaged picture is called too large`);
      }
      const took = performance.now() - began;
      slowest = Math.max(slowest, took);
      answers.set(answer.status, (answers.get(answer.status) ?? 0) + 1);
      if (answer.status >= 500) faults.push(`${where}: ${answer.status} ${JSON.stringify(body)}`);
      else if (!answer.ok && !body.message) faults.push(`${where}: ${answer.status} without a word`);
      if (took > SLOWEST_MS) faults.push(`${where}: ${took.toFixed(0)} ms`);
    } catch (error) {
      faults.push(`${where}: ${error.message}`);
    }
    if (server.exitCode !== null) return;
  }
}
const began = Date.now();
await Promise.all(Array.from({ length: AT_ONCE }, worker));
const status = server.exitCode === null ? readFileSync(`/proc/${server.pid}/status`, 'utf8') : '';
const peak = Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? NaN) * 1024;
if (server.exitCode !== null) faults.push(`the server stopped (${server.exitCode}): ${complaints.slice(-500)}`);
if (peak > MOST_BYTES) faults.push(`the server took ${(peak / 2 ** 20).toFixed(0)} MB`);
server.kill('SIGINT');
await new Promise((done) => server.on('exit', done));
rmSync(data, { recursive: true, force: true });
console.log(
  `${next} mangled files in ${((Date.now() - began) / 1000).toFixed(0)} s, seed ${seed}: ${[...answers].map(([s, n]) => `${n} × ${s}`).join(', ')}; slowest ${slowest.toFixed(0)} ms, at most ${(peak / 2 ** 20).toFixed(0)} MB`,
);
for (const fault of faults) console.error(fault);
if (faults.length > 0 && complaints) console.error(complaints.slice(0, 4000));
process.exitCode = faults.length > 0 ? 1 : 0;
