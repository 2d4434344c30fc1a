/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import { serve, show } from '../../test/studio.tsx';
import { Conflict, wordsOf } from './conflict.tsx';
import { sheetsLie, UnderWay, workOf } from './under-way.tsx';

const press = (page: HTMLElement, words: string) =>
  act(async () => [...page.querySelectorAll('button')].find((b) => b.textContent === words)!.click());

describe('two windows at one thing', () => {
  it('both versions are shown, field by field, and either can be taken', async () => {
    const done: string[] = [];
    const { page } = await show(
      <Conflict
        mine={{ name: 'Rag', mediaSetting: 'Coated', same: 1 }}
        theirs={{ name: 'Rag II', mediaSetting: 'Heavy', same: 1 }}
        onMine={() => done.push('mine')}
        onTheirs={() => done.push('theirs')}
      />,
    );
    expect(page.querySelector('[role="alert"]')).not.toBeNull();
    expect([...page.querySelectorAll('tbody tr')].map((tr) => [...tr.children].map((c) => c.textContent))).toEqual([
      ['name', 'Rag', 'Rag II'],
      ['media setting', 'Coated', 'Heavy'],
    ]);
    await press(page, 'Keep yours');
    await press(page, 'Take theirs');
    expect(done).toEqual(['mine', 'theirs']);
  });

  it('where only what is not shown differs, there is no empty table', async () => {
    const nothing = () => undefined;
    const { page } = await show(<Conflict mine={{ a: 1 }} theirs={{ a: 1 }} onMine={nothing} onTheirs={nothing} />);
    expect(page.querySelector('table')).toBeNull();
  });

  it('fields are named as words', () => expect(wordsOf('settings.mediaSetting')).toBe('settings media setting'));
});

describe('what takes long', () => {
  it('says how far it is once it is worth a word, and is left by the name it was asked under', async () => {
    const work = workOf('match');
    const asked = serve(({ method }) =>
      method === 'GET' ? { done: 2, total: 9 } : new Response(null, { status: 204 }),
    );
    const { page, leave } = await show(<UnderWay what="Laying the picture" work={work} far={sheetsLie} />);
    expect(page.textContent).toBe('Laying the picture…');
    await act(() => new Promise((done) => setTimeout(done, 700)));
    expect(page.textContent).toContain('2 of 9 sheets lie there');
    expect(page.querySelector('progress')).toMatchObject({ value: 2, max: 9 });
    await press(page, 'Leave it');
    await act(() => new Promise((done) => setTimeout(done, 50)));
    expect(asked.filter((a) => a.method === 'DELETE').map((a) => a.path)).toEqual([`under-way/${work}`]);
    expect(workOf('match')).toBe(work);
    expect(workOf('show')).not.toBe(work);
    await leave();
  });
});
