/** @jest-environment ./web/test/dom-environment.mjs */
import { PLAIN, type Recipe } from '@rakuen/core/proof/recipe';
import { refused, serve, using, type Asked } from '../../test/studio.tsx';
import { useRecipe } from './use-recipe.ts';

const lifted = (liftStops: number): Recipe => ({ ...PLAIN, liftStops });

/** Keeps recipes as the server does: a revision for each, and a word where another was quicker. */
function kitchen() {
  const kept = new Map<string, { id: string; name: string; conditionId: string; values: Recipe; revision: number }>();
  const asked = serve(({ method, body, headers }: Asked) => {
    if (method === 'GET') return [...kept.values()];
    const { conditionId, name, values } = body as { conditionId: string; name: string; values: Recipe };
    const key = `${conditionId} ${name}`;
    const known = kept.get(key);
    const from = headers.get('If-Match');
    if (from !== null && from !== `"${known?.revision ?? 0}"`)
      return refused(412, { message: 'Changed meanwhile.', current: known });
    const next = { id: key, name, conditionId, values, revision: (known?.revision ?? 0) + 1 };
    kept.set(key, next);
    return next;
  });
  return {
    kept,
    asked,
    written: () => asked.filter((a) => a.method === 'PUT').map((a) => a.body as { values: Recipe }),
  };
}
const atHand = async () => {
  const server = kitchen();
  const hand = await using(() => useRecipe('picture', 'sheet'));
  return { ...server, ...hand };
};

describe('a recipe in hand', () => {
  it('begins plain; what is turned is seen at once and kept', async () => {
    const { now, does, kept, until } = await atHand();
    expect(now().recipe).toEqual(PLAIN);
    expect([now().undo, now().redo]).toEqual([undefined, undefined]);
    await does((r) => r.set(lifted(0.5)));
    expect(now().recipe.liftStops).toBe(0.5);
    await until(() => kept.get('sheet ')?.values.liftStops === 0.5);
  });

  it('each step is taken back and made again; a new one after it ends what was taken back', async () => {
    const { now, does, kept, until } = await atHand();
    for (const stops of [0.2, 0.4, 0.6]) await does((r) => r.set(lifted(stops)));
    await does((r) => r.undo!());
    await does((r) => r.undo!());
    expect(now().recipe.liftStops).toBe(0.2);
    await does((r) => r.redo!());
    expect(now().recipe.liftStops).toBe(0.4);
    await does((r) => r.set(lifted(0.9)));
    expect(now().redo).toBeUndefined();
    await does((r) => r.undo!());
    await does((r) => r.undo!());
    await does((r) => r.undo!());
    // Back to what stood before anything was turned.
    expect(now().recipe).toEqual(PLAIN);
    expect(now().undo).toBeUndefined();
    await until(() => kept.get('sheet ')?.values.liftStops === 0);
  });

  it('turned faster than it is kept: one after another, and what was turned last is what stays', async () => {
    const { does, kept, written, until } = await atHand();
    const steps = Array.from({ length: 12 }, (_, i) => (i + 1) / 10);
    for (const stops of steps) await does((r) => r.set(lifted(stops)));
    await until(() => written().length === steps.length);
    expect(written().map((w) => w.values.liftStops)).toEqual(steps);
    expect(kept.get('sheet ')).toMatchObject({ values: { liftStops: 1.2 }, revision: 12 });
  });

  it('a version is kept by its name, beside what is turned', async () => {
    const { does, now, kept, until } = await atHand();
    await does((r) => r.set(lifted(0.3)));
    await does((r) => r.keepAs('for the hall'));
    await until(() => now().kept.length === 1);
    expect(now().kept[0]).toMatchObject({ name: 'for the hall', values: { liftStops: 0.3 } });
    await does((r) => r.set(lifted(0.7)));
    expect(kept.get('sheet for the hall')!.values.liftStops).toBe(0.3);
  });

  it('another window was quicker: both are shown; mine is kept over it', async () => {
    const { does, now, kept, until } = await atHand();
    await does((r) => r.set(lifted(0.3)));
    await until(() => kept.size === 1);
    kept.set('sheet ', { ...kept.get('sheet ')!, values: lifted(2), revision: 7 });
    await does((r) => r.set(lifted(0.4)));
    await until((r) => r.conflict !== undefined);
    expect(now().conflict!.theirs.liftStops).toBe(2);
    expect(kept.get('sheet ')!.values.liftStops).toBe(2);
    await does((r) => r.conflict!.keepMine());
    await until(() => kept.get('sheet ')!.values.liftStops === 0.4);
    expect(kept.get('sheet ')!.revision).toBe(8);
    await until((r) => r.conflict === undefined);
  });

  it('… or theirs is taken, and turned on from there', async () => {
    const { does, now, kept, until } = await atHand();
    await does((r) => r.set(lifted(0.3)));
    await until(() => kept.size === 1);
    kept.set('sheet ', { ...kept.get('sheet ')!, values: lifted(2), revision: 7 });
    await does((r) => r.set(lifted(0.4)));
    await until((r) => r.conflict !== undefined);
    await does((r) => r.conflict!.takeTheirs());
    expect(now().recipe.liftStops).toBe(2);
    expect(now().conflict).toBeUndefined();
    await does((r) => r.set(lifted(2.5)));
    await until(() => kept.get('sheet ')!.values.liftStops === 2.5);
  });
});

it('each sheet has steps of its own, and finds them again', async () => {
  const { kept } = kitchen();
  let sheet = 'p';
  const { does, now, until, again } = await using(() => useRecipe('picture', sheet));
  await does((r) => r.set(lifted(1)));
  await until(() => kept.size === 1);
  sheet = 'q';
  await again();
  expect(now().recipe).toEqual(PLAIN);
  expect(now().undo).toBeUndefined();
  await does((r) => r.set(lifted(0.2)));
  await until(() => kept.get('q ')?.values.liftStops === 0.2);
  sheet = 'p';
  await again();
  expect(now().recipe.liftStops).toBe(1);
  await does((r) => r.undo!());
  await until(() => kept.get('p ')?.values.liftStops === 0);
  expect(kept.get('q ')!.values.liftStops).toBe(0.2);
});
