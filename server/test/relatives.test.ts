import Database from 'better-sqlite3';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { USUAL_COMMISSION } from '@rakuen/core/match/commission';
import { seededRandom } from '@rakuen/core/random';
import { readChart } from '@rakuen/core/simulation/instrument';
import { standIn } from '@rakuen/core/simulation/stand-in';
import { scatteredChart } from '../../core/test/sheets.ts';
import { blocks } from './files.ts';
import { condition, picture, start, type Running } from './rakuen.ts';

let rakuen: Running;
let pictureId: string;

/** A sheet of its own for each name: no two are taken for one. */
const sheet = (name: string) =>
  standIn({
    coating: 'cotton',
    surface: 'smooth',
    brightenerClaim: 'low',
    weightGsm: 300,
    thicknessUm: 400,
    blackInk: 'matt black',
    mediaSetting: 'Fine art matt',
    printMode: 'colour through a profile',
    blackOvercoat: false,
    sheetName: name,
  });
const chart = (name: string, patches: number, seed: number) =>
  writeCgats(readChart(sheet(name), scatteredChart(patches), 'M1', seed));
const bring = (id: string, fileName: string, text: string, batch = '') =>
  rakuen.upload<{ readings: { id: string; fileName: string }[] }>(
    `/api/conditions/${id}/readings`,
    fileName,
    text,
    batch ? { batch } : {},
  );

beforeAll(async () => {
  rakuen = await start();
  const image = await blocks([
    [0.02, 0.02, 0.02],
    [0.4, 0.3, 0.2],
    [0.8, 0.8, 0.7],
  ]);
  pictureId = (await picture(rakuen, 'tones.tif', image)).job.pictureId!;
}, 240_000);
afterAll(async () => void (await rakuen.stop()));

describe('papers that were read as a whole once, and of whose new box only a strip was read', () => {
  it.each([2, 3, 5])(
    '%i of them answer all at once, and none waits for another',
    async (count) => {
      const ids = await Promise.all(
        Array.from({ length: count }, (_, i) => condition(rakuen, `Ring ${count}.${i}`, 'cotton')),
      );
      for (const [i, id] of ids.entries()) {
        const name = `Ring ${count}.${i}`;
        expect((await bring(id, `${name} whole.txt`, chart(name, 260, 10 + i))).status).toBe(201);
        expect((await bring(id, `${name} strip.txt`, chart(name, 60, 20 + i), 'new box')).status).toBe(201);
      }
      const models = await Promise.all(ids.map((id) => rakuen.call('GET', `/api/conditions/${id}/model`)));
      expect(models.map((m) => m.status)).toEqual(ids.map(() => 200));
      const match = await rakuen.call<{ places: unknown[] }>('POST', '/api/matches', { pictureId, conditionIds: ids });
      expect(match.body.places).toHaveLength(count);
      // Taken from the strip alone, none stands on its own readings, and none is a relative.
      for (const { body } of models) expect((body as { like?: object }).like).toBeUndefined();
      await rakuen.call('DELETE', `/api/conditions/${ids[0]}`);
      expect((await rakuen.call('GET', `/api/conditions/${ids[1]}/model`)).status).toBe(200);
    },
    60_000,
  );

  it('one that stands on a whole chart is the relative of a strip; the runner-up is named with its error', async () => {
    const known = await Promise.all(['Known A', 'Known B'].map((name) => condition(rakuen, name, 'cotton')));
    for (const [i, name] of ['Known A', 'Known B'].entries())
      await bring(known[i], `${name}.txt`, chart(name, 300, 40 + i));
    const few = await condition(rakuen, 'Few of it', 'cotton');
    await bring(few, 'Few of it.txt', writeCgats(readChart(sheet('Known B'), scatteredChart(50), 'M1', 44)), 'x');
    type Model = { like: { name: string; deltaE00: number }; runnerUp: { name: string; deltaE00: number } };
    const { body } = await rakuen.call<Model>('GET', `/api/conditions/${few}/model`);
    expect(body.like.name).toMatch(/Known B/);
    expect(body.runnerUp.name).toMatch(/Known A/);
    expect(body.like.deltaE00).toBeLessThan(0.5);
    expect(body.runnerUp.deltaE00).toBeGreaterThan(2 * body.like.deltaE00);
  }, 240_000);
});

const fingerprint = (of: object) => createHash('sha256').update(JSON.stringify(of)).digest('hex');

/** Steps of the random test; `STEPS=1000 npm run jest -- server/test/relatives` is the long one. */
const STEPS = Number(process.env.STEPS ?? 6);

it(
  'whatever is changed, in whatever order: each answer is the one computed from nothing',
  async () => {
    const random = seededRandom(Number(process.env.SEED ?? 3));
    const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
    const database = new Database(join(rakuen.data, 'rakuen.sqlite'));
    const ids = await Promise.all(['Turn A', 'Turn B', 'Turn C'].map((name) => condition(rakuen, name, 'cotton')));
    for (const [i, id] of ids.entries())
      await bring(id, `Turn ${'ABC'[i]} 0.txt`, chart(`Turn ${'ABC'[i]}`, 220 + i * 40, 60 + i));
    type View = { readings: { id: string; leftOut: string[] }[]; facts?: object; paperId: string };
    const view = async (id: string) => (await rakuen.call<View>('GET', `/api/conditions/${id}`)).body;
    const readings = async () =>
      (await Promise.all(ids.map(view))).flatMap((v, i) => v.readings.map((r) => ({ ...r, at: ids[i] })));
    const undo = async () => {
      const { body } = await rakuen.call<{ change: string; undoable: boolean }[]>('GET', '/api/events');
      const last = body.find((e) => e.undoable);
      if (last) await rakuen.call('POST', `/api/events/${last.change}/undo`);
    };
    let made = 0;
    const steps: Record<string, () => Promise<unknown>> = {
      bring: async () => {
        const at = Math.floor(random() * ids.length);
        const name = `Turn ${'ABC'[at]}`;
        const [patches, batch] = [pick([30, 120, 230]), pick(['', '', 'box 2'])];
        return bring(ids[at], `${name} ${++made}.txt`, chart(name, patches, 100 + made), batch);
      },
      remove: async () => {
        const all = await readings();
        return all.length > 2 && rakuen.call('DELETE', `/api/readings/${pick(all).id}`);
      },
      choose: async () => {
        const one = pick(await readings());
        return (
          one &&
          rakuen.call('PUT', `/api/conditions/${one.at}/figures-from`, random() < 0.5 ? {} : { readingId: one.id })
        );
      },
      leaveOut: async () => {
        const one = pick(await readings());
        const patches = one?.leftOut.length ? [] : [`P${2 + Math.floor(random() * 20)}`];
        return one && rakuen.call('PUT', `/api/readings/${one.id}/left-out`, { patches });
      },
      threshold: async () => {
        const { body } = await rakuen.call<{ thresholds: { deltaE: object } }>('GET', '/api/settings');
        const deltaE = { ...body.thresholds.deltaE, edgeToEdge: pick([0.8, 1, 1.4]) };
        return rakuen.call('PUT', '/api/settings', { ...body, thresholds: { ...body.thresholds, deltaE } });
      },
      paper: async () => {
        const { paperId } = await view(pick(ids));
        const { body } = await rakuen.call<Record<string, unknown>[]>('GET', '/api/papers');
        const {
          id: _,
          createdAt: __,
          pricePerM2: ___,
          conditionCount: ____,
          revision: _____,
          ...paper
        } = body.find((p) => p.id === paperId)!;
        return rakuen.call('PUT', `/api/papers/${paperId}`, { ...paper, coating: pick(['cotton', 'matt']) });
      },
      light: async () => {
        const commission = { ...USUAL_COMMISSION, light: pick(TABLE_LIGHTS).key, glass: pick(GLASSES).key };
        return rakuen.call('PATCH', `/api/pictures/${pictureId}`, { commission });
      },
      fromTheBin: async () => {
        const { body } = await rakuen.call<{ change: string }[]>('GET', '/api/bin');
        return body.length > 0 && rakuen.call('POST', `/api/events/${pick(body).change}/undo`);
      },
      undo,
    };
    const answers = async () =>
      Promise.all(
        ids.map(async (id) => {
          const [{ facts }, laid, model, match] = await Promise.all([
            view(id),
            rakuen.call<object>('GET', `/api/conditions/${id}/laid?light=led-warm&glass=plain`),
            rakuen.call<{ error?: object; like?: object }>('GET', `/api/conditions/${id}/model`),
            rakuen.call<{ places: { figures: object }[] }>('POST', '/api/matches', { pictureId, conditionIds: [id] }),
          ]);
          const seen = match.body.places?.[0]?.figures;
          return JSON.stringify([facts, fingerprint(laid.body), model.status, model.body.error, model.body.like, seen]);
        }),
      );
    for (let step = 0; step < STEPS; step++) {
      const name = pick(Object.keys(steps));
      const done = (await steps[name]()) as { status?: number; body?: object } | false | undefined;
      // A step that is refused would test nothing.
      if (done && done.status !== undefined)
        expect([name, done.status < 300, done.body]).toEqual([name, true, done.body]);
      const told = await answers();
      database.pragma('busy_timeout = 5000');
      database.prepare('DELETE FROM derived').run();
      expect({ step, name, answers: await answers() }).toEqual({ step, name, answers: told });
    }
    database.close();
  },
  60_000 + STEPS * 20_000,
);
