/** @jest-environment ./web/test/dom-environment.mjs */
import type { SessionView } from '@rakuen/contract/sessions';
import { act, useState } from 'react';
import { partly } from '../../test/partly.ts';
import { freshStore, refused, serve, using, type Answers } from '../../test/studio.tsx';
import { useReading } from './use-reading.ts';

const pass = (takenAt: string) => ({ strip: 0, pass: 0, state: 'kept', labs: [], findings: [], takenAt });
/** Three strips on one sheet, of which the first is read. */
const begun = (over: object = {}): SessionView =>
  partly({
    id: 's',
    state: 'open',
    passes: 1,
    stripCount: 3,
    kept: 1,
    strips: [{ passes: [pass('2026-03-01T10:00:00Z')] }, { passes: [] }, { passes: [] }],
    next: { strip: 1, pass: 0 },
    excluded: [],
    outliers: [],
    ...over,
  });

/** A session whose state the server gives back with each deed. */
async function session(first: SessionView, answers: Answers = () => first) {
  const asked = serve(answers);
  let put: (s: SessionView) => void = () => undefined;
  const store = freshStore();
  const used = await using(() => {
    const [now, setNow] = useState(first);
    put = setNow;
    return useReading(now);
  }, store);
  return {
    ...used,
    store,
    asked: () => asked.filter((a) => a.method === 'POST').map((a) => [a.path, a.body]),
    becomes: (s: SessionView) => act(async () => put(s)),
    key: (key: string) =>
      act(async () => void document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))),
    settled: () => act(() => new Promise((done) => setTimeout(done, 25))),
  };
}
const saidOf = (store: ReturnType<typeof freshStore>) => store.getState().view.said;

describe('a chart under the instrument', () => {
  it('the next strip is read by its key, and none while another sheet has to be laid', async () => {
    const at = await session(begun());
    await at.key('s');
    await at.settled();
    expect(at.asked()).toEqual([['sessions/s/read', '']]);
    await at.becomes(begun({ lay: { sheet: 2, of: 2 } }));
    expect(at.now().canRead).toBe(false);
    await at.key('s');
    await at.settled();
    expect(at.asked()).toHaveLength(1);
    await at.key('l');
    await at.settled();
    expect(at.asked()[1]).toEqual(['sessions/s/lay', { sheet: 2 }]);
    await at.leave();
  });

  it('is read on by itself until nothing is left, and stops where it is refused', async () => {
    const at = await session(begun(), () => refused(409, { message: 'Lay the sheet the other way round.' }));
    await at.key('o');
    await at.settled();
    expect(at.now().runs).toBe(false);
    expect(at.asked()).toHaveLength(1);
    expect(at.now().error).toMatchObject({ message: 'Lay the sheet the other way round.' });
    await at.leave();
  });

  it('read on, it waits at a sheet that has to be laid, goes on when it lies there, and ends with the last strip', async () => {
    const at = await session(begun({ lay: { sheet: 2, of: 2 } }));
    await at.key('o');
    expect(at.now().runs).toBe(false);
    await at.becomes(begun());
    await at.key('o');
    await at.settled();
    const before = at.asked().length;
    expect(before).toBeGreaterThan(0);
    await at.becomes(begun({ lay: { sheet: 2, of: 2 } }));
    await at.settled();
    const laid = at.asked().length;
    await at.settled();
    expect(at.asked()).toHaveLength(laid);
    await at.becomes(begun({ next: undefined, kept: 3 }));
    await at.settled();
    expect(at.now().runs).toBe(false);
    await at.leave();
  });

  it('the last strip is withdrawn, and said so once it is; before any was read there is none', async () => {
    const at = await session(begun());
    await at.does((now) => now.undo());
    await at.settled();
    expect(saidOf(at.store)).toBe('The last strip is withdrawn.');
    await at.becomes(begun({ kept: 0, strips: [{ passes: [] }], next: { strip: 0, pass: 0 } }));
    expect(at.now().canUndo).toBe(false);
    await at.key('u');
    await at.settled();
    expect(at.asked().filter(([path]) => path === 'sessions/s/undo')).toHaveLength(1);
    await at.leave();
  });

  it('nothing is said to be done that was refused', async () => {
    const at = await session(begun(), () => refused(409, { message: 'No.' }));
    await at.does((now) => now.calibrate());
    await at.settled();
    expect(saidOf(at.store)).toBe('');
    await at.leave();
  });

  it('a strip in question is read again by its key; the map follows what was read last until a hand looks elsewhere', async () => {
    const at = await session(begun({ questioned: { strip: 2, pass: 0 }, next: undefined }));
    expect(at.now().chosen).toBe(0);
    await at.does((now) => now.setLooked(2));
    expect(at.now().chosen).toBe(2);
    await at.key('a');
    await at.settled();
    expect(at.asked()).toEqual([['sessions/s/again', { strip: 2, pass: 0 }]]);
    expect(at.now().chosen).toBe(0);
    await at.leave();
  });

  it('one that is finished takes nothing more', async () => {
    const at = await session(begun({ state: 'finished', kept: 3, next: undefined }));
    for (const key of ['s', 'o', 'u', 'a', 'l']) await at.key(key);
    await at.settled();
    expect(at.asked()).toEqual([]);
    await at.leave();
  });
});
