/* global fetch */
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import Database from 'better-sqlite3';
import { inFolder, measured, photograph, pictureOf, serve } from './studio.mjs';

const CONDITIONS = 209;
const PRINTS = 5000;
const DECISIONS = 5000;
const ASKED = 40;
const WARM = 2;
const LISTS = [
  '/api/papers',
  '/api/conditions',
  '/api/prints',
  '/api/decisions',
  '/api/pictures',
  '/api/ledger',
  '/api/ledger?q=quiet',
  '/api/events',
  '/api/editions',
  '/api/boxes',
];
const MOST_BYTES = 300_000;
const UUID = `lower(hex(randomblob(4)) || '-' || hex(randomblob(2)) || '-4' || substr(hex(randomblob(2)), 2) || '-a' || substr(hex(randomblob(2)), 2) || '-' || hex(randomblob(6)))`;
const upTo = (n) => `WITH RECURSIVE i(n) AS (SELECT 1 UNION ALL SELECT n + 1 FROM i WHERE n < ${n})`;

/** Rows like one that is there, as many as asked for, `but` with other values in some columns. */
function like(db, table, count, but) {
  const columns = db.pragma(`table_info(${table})`).map((c) => `"${c.name}"`);
  const values = columns.map((c) => but[c.slice(1, -1)] ?? `t.${c}`);
  db.exec(
    `${upTo(count)} INSERT INTO ${table} (${columns.join(', ')}) SELECT ${values.join(', ')} FROM i, (SELECT * FROM ${table} ORDER BY rowid LIMIT 1) t`,
  );
}

/** A studio of years: the rows are made in the database, like those a hand recorded. */
export async function fill(data, files) {
  const studio = await serve(data);
  const id = await measured(studio, 'Sheet 0', files(0));
  const pictureId = await photograph(studio);
  await studio.send('POST', '/api/decisions', {
    pictureId,
    conditionId: id,
    stamp: 'chosen',
    reason: 'Its quiet greys.',
  });
  const begun = await studio.send('POST', '/api/prints/begin', { pictureId, conditionId: id });
  await studio.stop();
  const db = new Database(join(data, 'rakuen.sqlite'));
  like(db, 'papers', CONDITIONS - 1, { id: UUID, name: `'Sheet ' || i.n` });
  like(db, 'conditions', CONDITIONS - 1, {
    id: UUID,
    paperId: `(SELECT id FROM papers WHERE name = 'Sheet ' || i.n)`,
    figuresFrom: 'NULL',
  });
  db.exec(`UPDATE prints SET state = 'printed' WHERE id = '${begun.print?.id ?? begun.id}'`);
  like(db, 'prints', PRINTS - 1, {
    id: UUID,
    printedOn: `date('2026-01-01', '-' || (i.n / 6) || ' days')`,
    verdictReason: `'A quiet print, number ' || i.n`,
  });
  like(db, 'decisions', DECISIONS - 1, {
    id: UUID,
    decidedAt: `strftime('%Y-%m-%dT%H:%M:%fZ', '2026-01-01', '-' || i.n || ' hours')`,
  });
  db.close();
}

async function p99(url, path) {
  const took = [];
  let bytes = 0;
  for (let i = 0; i < WARM; i++) await (await fetch(url + path)).text();
  for (let i = 0; i < ASKED; i++) {
    const began = performance.now();
    const answer = await fetch(url + path);
    const text = await answer.text();
    took.push(performance.now() - began);
    if (!answer.ok) throw new Error(`${path}: ${text.slice(0, 200)}`);
    bytes = text.length;
  }
  return { path, bytes, ms: took.sort((p, q) => p - q)[Math.ceil(0.99 * ASKED) - 1] };
}

/**
 * The slowest list of a full studio while a large picture is read beside it, and a request that asks for nothing; ms.
 * @returns [list, empty, all]
 */
export async function lists(files, largePicture) {
  return inFolder(async (data) => {
    await fill(data, files);
    const studio = await serve(data);
    try {
      const empty = await p99(studio.url, '/api/table');
      const reading = await studio.upload('/api/pictures', 'large.tif', largePicture);
      const all = [];
      for (const path of LISTS) all.push(await p99(studio.url, path));
      await pictureOf(studio, reading);
      const large = all.find((l) => l.bytes > MOST_BYTES);
      if (large) throw new Error(`${large.path} answers with ${large.bytes} bytes.`);
      return [Math.max(...all.map((l) => l.ms)), empty.ms, all];
    } finally {
      await studio.stop();
    }
  });
}
