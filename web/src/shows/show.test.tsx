/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import type { ShowPlanView, ShowView } from '@rakuen/contract/shows';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, using } from '../../test/studio.tsx';
import { ShowVerdict } from './show-verdict.tsx';
import { NEW_SHOW, useShow } from './use-show.ts';

const SHOW: ShowView = {
  ...NEW_SHOW,
  id: 's',
  name: 'Salt',
  createdAt: '2026-01-02T00:00:00Z',
  revision: 3,
  pictureIds: ['a', 'b', 'c', 'd'],
};
const settle = () => act(() => new Promise((done) => setTimeout(done, 60)));

describe('changes of a show', () => {
  it('wait for each other: each is sent with the revision that the last one returned, and all of them are kept', async () => {
    let revision = 3;
    const asked = serve(async ({ body, headers }) => {
      await new Promise((done) => setTimeout(done, 5));
      if (headers.get('If-Match') !== `"${revision}"`) return refused(412, { message: 'changed', current: SHOW });
      revision++;
      return { ...SHOW, ...(body as object), revision };
    });
    const at = await using(() => useShow(SHOW));
    await at.does((s) => {
      for (let i = 0; i < 3; i++) s.move('a', 1);
      s.change({ maxLoss: 1 });
    });
    expect(at.now().now.pictureIds).toEqual(['b', 'c', 'd', 'a']);
    await settle();
    const puts = asked.filter((a) => a.method === 'PUT');
    expect(puts.map((p) => p.headers.get('If-Match'))).toEqual(puts.map((_, i) => `"${3 + i}"`));
    expect(puts.at(-1)!.body).toMatchObject({ pictureIds: ['b', 'c', 'd', 'a'], maxLoss: 1 });
    expect(at.now().theirs).toBeUndefined();
    await at.leave();
  });

  it('a picture at an end is not moved beyond it', async () => {
    serve(() => SHOW);
    const at = await using(() => useShow(SHOW));
    await at.does((s) => s.move('a', -1));
    await at.does((s) => s.move('d', 1));
    expect(at.now().now.pictureIds).toEqual(['a', 'b', 'c', 'd']);
    await at.leave();
  });

  it('where another window came between, theirs is shown, and yours is kept on top of it when asked', async () => {
    const theirs = { ...SHOW, place: 'South wall', revision: 9 };
    const asked = serve(({ headers, body }) =>
      headers.get('If-Match') === '"9"'
        ? { ...SHOW, ...(body as object), revision: 10 }
        : refused(412, { message: 'changed', current: theirs }),
    );
    const at = await using(() => useShow(SHOW));
    await at.does((s) => s.change({ maxLoss: 2 }));
    await settle();
    expect(at.now().theirs).toMatchObject({ place: 'South wall', revision: 9 });
    await at.does((s) => s.keepMine());
    await settle();
    expect(asked.at(-1)!.body).toMatchObject({ maxLoss: 2 });
    expect(at.now().theirs).toBeUndefined();
    await at.leave();
  });
});

const pictures: PictureView[] = ['Salt', 'Fog'].map((title) => partly({ id: title, title }));
const PLAN: ShowPlanView = {
  exactScores: true,
  exactSearch: true,
  papers: ['Rag', 'Baryta', 'Gloss'].map((name) => ({
    paperId: name,
    name,
    standing: 'considered' as const,
    conditionIds: [name],
  })),
  pictures: [],
  choices: [
    {
      paperIds: ['Rag'],
      meanScore: 7.75,
      meanLoss: 0.6,
      hardest: { pictureId: 'Fog', score: 7.1, loss: 1.2 },
      atMost: 7.75,
    },
    {
      paperIds: ['Rag', 'Baryta'],
      meanScore: 8.35,
      meanLoss: 0,
      hardest: { pictureId: 'Fog', score: 8.3, loss: 0 },
      atMost: 8.35,
    },
  ],
  fewest: 0,
  drops: [{ paperId: 'Rag', byMean: -7.75, pictures: 2, most: { pictureId: 'Salt', by: -8.4 } }],
  additions: [{ paperId: 'Baryta', byMean: 0.6, pictures: 1, most: { pictureId: 'Fog', by: 1.2 } }],
  unlike: [],
  leftOut: [],
};
const verdict = async (over: Partial<ShowPlanView> = {}) =>
  show(<ShowVerdict show={{ ...NEW_SHOW, maxLoss: 1 }} plan={{ ...PLAN, ...over }} pictures={pictures} />);

describe('the verdict on a show', () => {
  it('names the fewest papers, the picture that loses most, and what one more improves', async () => {
    const { page, leave } = await verdict();
    expect(page.textContent).toContain('One paper carries the show: Rag. Mean score 7.8 of 10, mean loss 0.60.');
    expect(page.textContent).toContain('Fog loses most: it scores 7.1, 1.2 below its best paper.');
    expect(page.textContent).toContain('Baryta raises the mean by 0.60, for one picture; Fog gains 1.2.');
    expect(page.textContent).toContain('All combinations of these papers were tried.');
    await leave();
  });

  it('says where no choice stays within the loss, what was not tried, and which chosen papers do not match', async () => {
    const { page, leave } = await verdict({
      fewest: undefined,
      exactSearch: false,
      unlike: [['Rag', 'Gloss']],
      meanWithoutWish: 8.75,
    });
    expect(page.textContent).toContain('No choice stays within a mean loss of 1.00.');
    expect(page.textContent).toContain('no other two papers can have a mean above 8.35');
    expect(page.textContent).toContain('Rag and Gloss are both chosen, but do not have one look.');
    expect(page.textContent).toContain('The wish for one look costs 0.4 of the mean score.');
    await leave();
  });
});

it('a change that is refused is said, and the show stands as the server has it', async () => {
  serve(() => refused(409, { message: 'There is a show with the name Ice already.', field: 'name' }));
  const at = await using(() => useShow(SHOW));
  await at.does((s) => s.change({ name: 'Ice' }));
  await settle();
  expect(at.now().now.name).toBe('Salt');
  expect(at.now().error).toMatchObject({ message: 'There is a show with the name Ice already.' });
  await at.leave();
});
