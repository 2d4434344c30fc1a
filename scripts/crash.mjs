/* global fetch, FormData, Blob, Buffer, setTimeout */
import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build, checkNode, installPackages, ROOT } from './setup.mjs';

/** Kills the server in the middle of its work, again and again, and looks that nothing it had acknowledged is lost. */
checkNode();
installPackages();
build();
const Database = createRequire(join(ROOT, 'server/package.json'))('better-sqlite3');
const cyclesAt = process.argv.indexOf('--cycles');
const cycles = cyclesAt < 0 ? 10 : Number(process.argv[cyclesAt + 1]);
const data = mkdtempSync(join(tmpdir(), 'rakuen-crash-'));
const READINGS = readFileSync(join(ROOT, 'core/test/fixtures/fogra29l.cgats.txt'), 'latin1');
const PAPER = {
  maker: 'Crashmill',
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

const acknowledged = {
  papers: new Set(),
  conditions: new Set(),
  readings: new Set(),
  notes: new Map(),
  begun: new Set(),
  prints: new Set(),
  numbers: [],
  /** Notes of the ledger, and events that tell of what holds for the studio. */
  said: new Set(),
  rates: 0,
  /** Reading sessions that were finished. */
  finished: new Set(),
};
/** A chart that is read in a moment. */
const CHART = { purpose: 'neutral', patches: 150, sheet: 'A3', patchMm: 9, dpi: 300, seed: 5 };
const SESSION = {
  instrument: 'Simulated bench spectrophotometer',
  passes: 1,
  printedAt: '2026-01-02T10:00:00.000Z',
  batch: '',
  rehearsal: 'none',
};
const RATES = { currency: 'EUR', inkPerMl: 0.7, solidMlPerM2: 14, finishing: 2, asOf: '2026-01-01' };
/** A small grey picture. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAABAAAAAQCAIAAACQkWg2AAAACXBIWXMAAAPoAAAD6AG1e1JrAAAAHElEQVQokWOIIhEwjGogAjAQowgZjGogBtA+lACLQw4Q9pw+FgAAAABJRU5ErkJggg==',
  'base64',
);
let made = 0;

async function started() {
  const run = "import('./server/dist/bundle/main.js').then((m) => m.main(process.argv.slice(1)))";
  const child = spawn(process.execPath, ['-e', run, '--', '--port', '0', '--data', data, '--empty'], { cwd: ROOT });
  let said = '';
  const url = await new Promise((done, fail) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => {
        said += chunk;
        const at = /Rakuen is at (http:\S+)/.exec(said)?.[1];
        if (at) done(at);
      });
    child.on('exit', () => fail(new Error(`the server did not start: ${said}`)));
  });
  return { child, url, ended: new Promise((done) => child.on('exit', done)) };
}

/** The request that was under way when the server went: whoever sent it sends it again, under the same key. */
let unanswered;

/** Requests to a server; what is not answered with 2xx is thrown. */
function sender(url) {
  return async (method, path, body, key = `crash-${randomUUID()}`) => {
    if (method === 'POST') unanswered = { path, body, key };
    const response = await fetch(url + path, {
      method,
      headers: { 'content-type': 'application/json', ...(method === 'POST' && { 'Idempotency-Key': key }) },
      body: JSON.stringify(body),
    });
    const answer = await response.json();
    unanswered = undefined;
    if (!response.ok) throw new Error(`${response.status} ${JSON.stringify(answer)}`);
    return answer;
  };
}

/** Writes of every kind until the server is gone; what was answered with 2xx is remembered. */
async function write(url) {
  const send = sender(url);
  const edition = known;
  if (unanswered) {
    const { path, body, key } = unanswered;
    const answer = await send('POST', path, body, key);
    if (path === '/api/prints/begin') acknowledged.begun.add(answer.id);
    if (/numbers$/.test(path)) acknowledged.numbers.push(answer.number);
    if (path === '/api/sessions') open = answer.id;
    if (/finish$/.test(path)) finished(path.split('/').at(-2));
  }
  for (;;) {
    const name = `Sheet ${made++}`;
    const paper = await send('POST', '/api/papers', { ...PAPER, name });
    acknowledged.papers.add(paper.id);
    const { id } = await send('POST', '/api/conditions', { ...CONDITION, paperId: paper.id });
    acknowledged.conditions.add(id);
    await send('PUT', `/api/papers/${paper.id}`, { ...PAPER, name, notes: `note of ${name}` });
    acknowledged.notes.set(paper.id, `note of ${name}`);
    // A print is begun, comes out, and gets the next number of its edition.
    const print = await send('POST', '/api/prints/begin', edition.of);
    acknowledged.begun.add(print.id);
    await send('PATCH', `/api/prints/${print.id}`, { widthMm: 100, heightMm: 100, copies: 1 });
    await send('POST', `/api/prints/${print.id}/done`, {});
    acknowledged.prints.add(print.id);
    const given = await send('POST', `/api/editions/${edition.id}/numbers`, { series: 'edition', printId: print.id });
    acknowledged.numbers.push(given.number);
    acknowledged.said.add((await send('POST', '/api/notes', { text: `Said of ${name}.`, conditionId: id })).id);
    await send('PUT', '/api/rates', { ...RATES, perHour: made });
    acknowledged.rates = made;
    await readOn(url, send, id);
    if (made % 3 === 0) {
      const form = new FormData();
      form.append('file', new Blob([`${READINGS}# ${made}\n`]), 'u.txt');
      const response = await fetch(`${url}/api/conditions/${id}/readings`, { method: 'POST', body: form });
      if (response.status === 201) acknowledged.readings.add(id);
    }
  }
}

/** The reading session that lies open; it goes on after every kill, a few strips at a time. */
let open;
const READS = 6;

/** Some strips of the open session, by the simulated instrument; where none is left it is finished, and kept as readings. */
async function readOn(url, send, conditionId) {
  open ??= (await send('POST', '/api/sessions', { ...SESSION, conditionId, chartId: known.chartId })).id;
  for (let i = 0; i < READS; i++) {
    if ((await fetch(`${url}/api/sessions/${open}/read`, { method: 'POST' })).ok) continue;
    await send('POST', `/api/sessions/${open}/finish`, { takeDriftOut: false });
    finished(open);
    return;
  }
}

function finished(session) {
  acknowledged.finished.add(session);
  open = undefined;
}

/** The edition whose numbers are given: founded once, with its picture and its sheet. */
async function foundEdition(url) {
  const send = sender(url);
  const form = new FormData();
  form.append('file', new Blob([PICTURE]), 'grey.png');
  const job = await (await fetch(`${url}/api/pictures`, { method: 'POST', body: form })).json();
  let read = job;
  while (read.state === 'waiting' || read.state === 'reading') {
    await new Promise((done) => setTimeout(done, 20));
    read = await (await fetch(`${url}/api/pictures/jobs/${job.id}`)).json();
  }
  if (!read.pictureId) throw new Error(`the picture was not read: ${JSON.stringify(read)}`);
  const paper = await send('POST', '/api/papers', { ...PAPER, name: `Edition ${made++}` });
  const condition = await send('POST', '/api/conditions', { ...CONDITION, paperId: paper.id });
  const of = { pictureId: read.pictureId, conditionId: condition.id };
  const sizes = { name: `Edition ${made++}`, artist: 0, printer: 0, good: 0, widthMm: 100, heightMm: 100, batch: '' };
  const { id } = await send('POST', '/api/editions', { ...of, ...sizes });
  const chart = await send('POST', '/api/charts', { name: 'Chart', spec: CHART });
  return { id, of, chartId: chart.id };
}

const first = await started();
const known = await foundEdition(first.url);
first.child.kill('SIGKILL');
await first.ended;

const lost = [];
for (let cycle = 0; cycle < cycles; cycle++) {
  const { child, url, ended } = await started();
  const writing = write(url).catch((error) => {
    if (!/fetch failed|terminated|other side closed|ECONN/.test(String(error?.message) + String(error?.cause)))
      throw error;
  });
  await new Promise((done) => setTimeout(done, 150 + Math.random() * 2500));
  child.kill('SIGKILL');
  await ended;
  await writing;
  const database = new Database(join(data, 'rakuen.sqlite'));
  if (database.pragma('integrity_check', { simple: true }) !== 'ok') lost.push(`cycle ${cycle}: integrity_check`);
  const has = (sql, id) => database.prepare(sql).get(id) !== undefined;
  for (const id of acknowledged.papers) if (!has('SELECT 1 FROM papers WHERE id = ?', id)) lost.push(`paper ${id}`);
  for (const id of acknowledged.conditions)
    if (!has('SELECT 1 FROM conditions WHERE id = ?', id)) lost.push(`condition ${id}`);
  for (const id of acknowledged.readings)
    if (
      !has(
        "SELECT 1 FROM readings r JOIN derived d ON d.subject = r.conditionId AND d.kind = 'facts' WHERE r.conditionId = ?",
        id,
      )
    )
      lost.push(`readings of ${id}`);
  for (const [id, notes] of acknowledged.notes)
    if (database.prepare('SELECT notes FROM papers WHERE id = ?').get(id)?.notes !== notes) lost.push(`notes of ${id}`);
  for (const id of acknowledged.prints)
    if (!has(`SELECT 1 FROM prints WHERE id = ? AND state = 'printed'`, id)) lost.push(`print ${id}`);
  for (const id of acknowledged.said)
    if (!has(`SELECT 1 FROM notes n JOIN entries e ON e.id = n.id WHERE n.id = ?`, id)) lost.push(`note ${id}`);
  const { value } = database.prepare("SELECT value FROM rules WHERE id = 'rates'").get();
  if (acknowledged.rates > 0 && !(JSON.parse(value ?? '{}').perHour >= acknowledged.rates))
    lost.push(`rates of ${acknowledged.rates}`);
  for (const id of acknowledged.finished)
    if (
      !has(
        `SELECT 1 FROM sessions s JOIN readings r ON r.conditionId = s.conditionId WHERE s.id = ? AND s.state = 'finished'`,
        id,
      )
    )
      lost.push(`session ${id}`);
  // A session is finished with its readings or not at all.
  for (const id of database
    .prepare(
      `SELECT s.id FROM sessions s WHERE s.state = 'finished' AND (SELECT COUNT(*) FROM readings r WHERE r.conditionId = s.conditionId) < 3`,
    )
    .pluck()
    .all())
    lost.push(`half a session ${id}`);
  // One more may have been begun and not answered yet; it is the one that is asked for again.
  const begun = database.prepare('SELECT COUNT(*) FROM prints').pluck().get();
  const open = unanswered?.path === '/api/prints/begin' ? 1 : 0;
  if (begun < acknowledged.begun.size || begun > acknowledged.begun.size + open)
    lost.push(`cycle ${cycle}: ${begun} prints where ${acknowledged.begun.size} were begun`);
  const given = database.prepare('SELECT number FROM numbers ORDER BY number').pluck().all();
  for (const number of acknowledged.numbers) if (!given.includes(number)) lost.push(`number ${number}`);
  if (given.some((number, i) => number !== i + 1)) lost.push(`cycle ${cycle}: numbers have a gap or a twin`);
  database.close();
}
if (new Set(acknowledged.numbers).size !== acknowledged.numbers.length) lost.push('a number was given twice');
const count =
  acknowledged.papers.size +
  acknowledged.conditions.size +
  acknowledged.readings.size +
  acknowledged.notes.size +
  acknowledged.prints.size +
  acknowledged.said.size +
  acknowledged.finished.size +
  acknowledged.numbers.length;
console.log(
  `${cycles} kills, ${count} acknowledged writes, ${acknowledged.finished.size} of them reading sessions, ${lost.length} lost.`,
);
for (const what of lost.slice(0, 20)) console.error(what);
rmSync(data, { recursive: true, force: true });
process.exit(lost.length === 0 ? 0 : 1);
