/** @jest-environment ./web/test/dom-environment.mjs */
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers } from '../../test/studio.tsx';
import { leadOf, PortfolioPlace } from './portfolio-place.tsx';

describe('the sheet that leads', () => {
  it.each([
    ['clear of the next', [7, 8.2, 6], 8.2],
    ['by too little', [8, 8.2, 6], undefined],
    ['level with another', [8, 8, 2], undefined],
    ['with no other beside it', [8], undefined],
    ['where no other is known', [8, undefined], undefined],
    ['where none is known', [undefined, undefined], undefined],
  ] as const)('%s', (_, scores, lead) => expect(leadOf(scores)).toBe(lead));
});

const pictures: PictureView[] = ['Salt', 'Fog'].map((title) => partly({ id: title, title }));
const conditions: ConditionHead[] = ['Rag', 'Baryta'].map((name) =>
  partly({ id: name, paper: { name }, printer: 'Press', mediaSetting: 'Matt', printMode: 'colour through a profile' }),
);
const SHOW = {
  scores: [
    { pictureId: 'Salt', conditionId: 'Rag', score: 8.4 },
    { pictureId: 'Salt', conditionId: 'Baryta', score: 6.1 },
    { pictureId: 'Fog', conditionId: 'Rag', score: 7.1 },
    { pictureId: 'Fog', conditionId: 'Baryta', score: 7.3 },
  ],
  choices: [
    { conditionIds: ['Rag'], meanScore: 7.75, worst: { pictureId: 'Fog', score: 7.1 } },
    { conditionIds: ['Rag', 'Baryta'], meanScore: 7.85, worst: { pictureId: 'Fog', score: 7.3 } },
  ],
  unknown: ['Washi'],
};

async function shown(answers: Answers) {
  serve(answers);
  const place = await show(<PortfolioPlace pictures={pictures} conditions={conditions} weights={partly({})} />);
  await act(() => new Promise((done) => setTimeout(done, 40)));
  return place;
}

describe('a show', () => {
  it('marks the sheet that stands clear, and none where two are level; a sheet more that wins little is told so', async () => {
    const { page, leave } = await shown(() => SHOW);
    const marked = [...page.querySelectorAll('td')].filter((td) => td.className.includes('underline'));
    expect(marked.map((td) => td.textContent)).toEqual(['8.4']);
    expect(page.textContent).toContain('Rag · worst served: Fog, 7.1');
    expect(page.textContent).toContain('7.8 of 10');
    expect(page.textContent).toContain('wins little or nothing');
    expect(page.textContent).toContain('Not compared, since not known for every picture: a removed condition.');
    await leave();
  });

  it('that was left says so, and is asked for again', async () => {
    let times = 0;
    const { page, leave } = await shown(({ method }) => {
      if (method !== 'POST') return null;
      return times++ === 0 ? refused(409, { message: 'This was left.', remedy: 'Ask for it again.' }) : SHOW;
    });
    expect(page.textContent).toContain('This was left.');
    const again = [...page.querySelectorAll('button')].find((b) => b.textContent.includes('again'))!;
    await act(async () => again.click());
    await act(() => new Promise((done) => setTimeout(done, 40)));
    expect(page.textContent).toContain('The fewest sheets');
    await leave();
  });
});
