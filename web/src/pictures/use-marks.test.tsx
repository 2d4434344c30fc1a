/** @jest-environment ./web/test/dom-environment.mjs */
import type { PictureChange, PictureView } from '@rakuen/contract/pictures';
import { markName, type Mark } from '@rakuen/core/picture/marks';
import { useState } from 'react';
import { partly } from '../../test/partly.ts';
import { refused, serve, using, type Asked } from '../../test/studio.tsx';
import { useMarks } from './use-marks.ts';

const mark = (kind: Mark['kind'], x: number, y: number): Mark => ({ kind, x, y, lab: [20, 0, 0], detailL: 1 });
const FOUND = [mark('shadow', 0.2, 0.5), mark('light', 0.8, 0.5)];

/** A picture as the server keeps it: each change needs the newest revision. Its colours are one even red. */
function server() {
  let kept: PictureView = partly({ id: 'p', revision: 4, marks: FOUND, hints: [] });
  const pixels = 4 * 4;
  const asked = serve(async ({ method, path, body, headers }: Asked) => {
    if (path.endsWith('/lab')) {
      const bytes = new ArrayBuffer(8 + pixels * 6);
      const head = new DataView(bytes);
      head.setUint32(0, 4, true);
      head.setUint32(4, 4, true);
      return new Response(bytes);
    }
    if (method !== 'PATCH') return [];
    await new Promise((done) => setTimeout(done, 15));
    if (headers.get('If-Match') !== `"${kept.revision}"`)
      return refused(412, { message: 'Changed meanwhile.', current: kept });
    kept = partly({ ...kept, ...(body as PictureChange), revision: kept.revision + 1 });
    return kept;
  });
  return {
    asked,
    kept: () => kept,
    elsewhere: (change: Partial<PictureView>) => (kept = { ...kept, ...change, revision: kept.revision + 1 }),
    changes: () => asked.filter((a) => a.method === 'PATCH'),
  };
}
const atHand = async () => {
  const studio = server();
  let follow: (picture: PictureView) => void = () => undefined;
  const hand = await using(() => {
    const [picture, setPicture] = useState(studio.kept());
    follow = setPicture;
    return useMarks(picture);
  });
  return { ...studio, ...hand, follow: () => hand.does(() => follow(studio.kept())) };
};

describe('the marks of a picture', () => {
  it('ten quick moves are all kept, each with the newest revision, and no other window is blamed', async () => {
    const { now, does, kept, changes, until } = await atHand();
    await does((at) => {
      // As fast as keys come: each moves on from where the last one left it.
      for (let i = 1; i <= 10; i++) void at.move(0, 0.2 + i * 0.01, 0.5);
    });
    await until(() => Math.abs(kept().marks[0].x - 0.3) < 1e-9);
    expect(now().marks[0]).toMatchObject({ x: expect.closeTo(0.3, 9), y: 0.5 });
    expect(now().theirs).toBeUndefined();
    expect(now().error).toBeUndefined();
    expect(changes().map((c) => c.headers.get('If-Match'))).toEqual(changes().map((_, i) => `"${4 + i}"`));
  });

  it('moved away it is no longer what was found there, and the other marks stay what they are', async () => {
    const { does, kept, until } = await atHand();
    await does((at) => at.move(0, 0.4, 0.4));
    await until(() => kept().marks[0].x === 0.4);
    expect(kept().marks.map((m) => m.kind)).toEqual(['own', 'light']);
    expect(kept().marks[0].lab).not.toEqual(FOUND[0].lab);
  });

  it('a word of the printmaker’s own stays with its mark wherever it is moved; emptied, what lies there names it again', async () => {
    const { does, kept, until } = await atHand();
    await does((at) => at.rename(0, ' the hull '));
    await until(() => kept().marks[0].word === 'the hull');
    await does((at) => void at.move(0, 0.4, 0.4));
    await until(() => kept().marks[0].x === 0.4);
    expect(kept().marks[0]).toMatchObject({ kind: 'own', word: 'the hull' });
    expect(markName(kept().marks[0])).toBe('the hull');
    await does((at) => at.rename(0, ''));
    await until(() => !kept().marks[0].word);
    expect(markName(kept().marks[0])).toMatch(/^your own place, /);
  });

  it('one is removed, one is added, and both are kept though neither was waited for', async () => {
    const { now, does, kept, until } = await atHand();
    await does((at) => {
      at.remove(0);
      void at.add();
    });
    await until(() => kept().marks.length === 2 && kept().marks[1].kind === 'own');
    expect(now().marks.map((m) => m.kind)).toEqual(['light', 'own']);
  });

  it('another window that came between is shown, and mine is kept over it or left', async () => {
    const { now, does, kept, elsewhere, follow, until } = await atHand();
    elsewhere({ marks: [FOUND[1]] });
    await does((at) => at.remove(1));
    await until((at) => at.theirs !== undefined);
    expect(kept().marks).toHaveLength(1);
    expect(now().theirs!.marks).toEqual([FOUND[1]]);
    await does((at) => at.keepMine());
    await until(() => kept().marks[0].kind === 'shadow');
    await follow();
    await until((at) => at.marks.length === 1);
    expect(now().marks[0].kind).toBe('shadow');
  });
});
