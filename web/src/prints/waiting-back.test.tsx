/** @jest-environment ./web/test/dom-environment.mjs */
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintLook, PrintView } from '@rakuen/contract/prints';
import { act } from 'react';
import { MemoryRouter } from 'react-router';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers } from '../../test/studio.tsx';
import { WaitingBack } from './waiting-back.tsx';

const print = (over: object = {}): PrintView =>
  partly({
    id: 'w',
    revision: 4,
    state: 'waiting',
    widthMm: 300,
    heightMm: 200,
    copies: 1,
    settings: { printer: 'Press', mediaSetting: 'Matt', feed: 'rear' },
    carriedOver: ['mediaSetting', 'feed'],
    carriedFrom: { feed: 'the last print' },
    misprints: 0,
    misprintCause: '',
    ...over,
  });
const look = (over: object = {}, differs: object[] = [], open: string[] = []): PrintLook =>
  partly({ print: print(over), differs, open, since: [], learned: [], cautions: [], photographs: [] });
const DIFFERS = [{ key: 'mediaSetting', from: 'the last sheet', sentence: 'The last sheet went in as Baryta.' }];

const picture: PictureView = partly({ id: 'p', title: 'Salt', widthPx: 300, heightPx: 200 });
const condition: ConditionHead = partly({ id: 'c', paper: { name: 'Rag' }, printer: 'Press' });

async function back(shown: PrintLook, answers: Answers = () => null) {
  const asked = serve((one) => (one.method === 'GET' ? [] : answers(one)));
  const { page, store, leave } = await show(
    <MemoryRouter>
      <WaitingBack look={shown} picture={picture} condition={condition} />
    </MemoryRouter>,
  );
  const button = (words: string) =>
    [...page.querySelectorAll('button')].find((b) => b.textContent.startsWith(words)) as HTMLButtonElement;
  return {
    page,
    store,
    leave,
    button,
    press: async (words: string) => {
      await act(async () => button(words).click());
      await act(() => new Promise((done) => setTimeout(done, 25)));
    },
    sent: () => asked.filter((a) => a.method !== 'GET').map((a) => [a.method, a.path, a.body]),
    asked,
  };
}

describe('a print that waits', () => {
  it('is not printed while a setting differs that nobody looked at; how many is said', async () => {
    const { button, page, leave } = await back(look({}, DIFFERS, ['media setting']));
    expect(button('Mark as printed').disabled).toBe(true);
    expect(page.textContent).toContain('Not checked yet: media setting.');
    expect(page.textContent).toContain('The last sheet went in as Baryta.');
    await leave();
  });

  it('looked at, it is: with the revision it was looked at in', async () => {
    const { press, asked, leave } = await back(look({}, DIFFERS));
    await press('Setting is right');
    const settled = asked.find((a) => a.method === 'PATCH')!;
    expect(settled.body).toEqual({ looked: ['mediaSetting'] });
    expect(settled.headers.get('if-match')).toContain('4');
    await leave();
  });

  it('what differs and was looked at stands in no way; it is said to be in the ledger once it is', async () => {
    const { button, press, page, store, leave } = await back(look({ carriedOver: ['feed'] }, DIFFERS), () => print());
    expect(page.textContent).toContain('checked');
    expect(button('Mark as printed').disabled).toBe(false);
    await press('Mark as printed');
    expect(store.getState().view.said).toMatch(/^Salt is in the ledger/);
    await leave();
  });

  it('is marked as printed without a check for a reason, which is sent', async () => {
    const { press, page, asked, leave } = await back(look({}, DIFFERS, ['media setting']), () => print());
    await press('Mark as printed without these checks');
    const field = page.querySelector<HTMLInputElement>('input[name=reason]')!;
    field.value = 'same stack as before';
    await act(async () => field.form!.requestSubmit());
    await act(() => new Promise((done) => setTimeout(done, 25)));
    expect(asked.find((a) => a.path.endsWith('/done'))!.body).toEqual({
      passReason: 'same stack as before',
      printedOn: new Date().toLocaleDateString('sv'),
    });
    await leave();
  });

  it('what is as last time is small, and looked at all at once', async () => {
    const { press, asked, leave } = await back(look());
    await press('Mark all as checked');
    expect(asked.find((a) => a.method === 'PATCH')!.body).toEqual({ looked: ['mediaSetting', 'feed'] });
    await leave();
  });

  it('not to be printed after all: where that is refused it stays, with the reason', async () => {
    const { press, page, leave } = await back(look(), ({ method }) =>
      method === 'DELETE' ? refused(409, { message: 'It lies in a run.', remedy: 'Close the run first.' }) : null,
    );
    await press('Cancel this print');
    expect(page.textContent).toContain('It lies in a run.');
    await leave();
  });

  it('changed in another window meanwhile: both are shown', async () => {
    const { press, page, leave } = await back(look({}, DIFFERS), ({ method }) =>
      method === 'PATCH'
        ? refused(412, { message: 'Changed meanwhile.', current: print({ revision: 5, copies: 3 }) })
        : null,
    );
    await press('Setting is right');
    expect(page.textContent).toContain('This was changed in another window meanwhile.');
    await leave();
  });
});
