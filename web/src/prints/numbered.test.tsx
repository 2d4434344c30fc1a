/** @jest-environment ./web/test/dom-environment.mjs */
import type { NumberView } from '@rakuen/contract/editions';
import { act } from 'react';
import { MemoryRouter } from 'react-router';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers } from '../../test/studio.tsx';
import { Numbered } from './numbered.tsx';

const GIVEN: NumberView = partly({
  id: 'n',
  revision: 2,
  series: 'edition',
  number: 3,
  written: '3/12',
  fate: 'sold',
  to: 'A. Collector',
  price: 900,
  currency: 'EUR',
  note: '',
  batch: 'second box',
});

/** A number whose whereabouts are written down. */
async function opened(number: NumberView, answers: Answers = () => number) {
  const asked = serve(answers);
  const shown = await show(
    <MemoryRouter>
      <Numbered number={number} />
    </MemoryRouter>,
  );
  const { page } = shown;
  const press = (words: string) =>
    act(async () => [...page.querySelectorAll('button')].find((b) => b.textContent === words)!.click());
  await press('Where it is');
  return {
    ...shown,
    write: (name: string, text: string) =>
      act(async () => void (page.querySelector<HTMLInputElement>(`[name="${name}"]`)!.value = text)),
    enter: async () => {
      await press('Save');
      await act(() => new Promise((done) => setTimeout(done, 25)));
    },
    sent: () => asked.filter((a) => a.method !== 'GET').map((a) => a.body),
  };
}

describe('a number that was given', () => {
  it('says where its print is, to whom it went, and for how much', async () => {
    const { page, leave } = await opened(GIVEN);
    expect(page.textContent).toContain('sold, to A. Collector, 900 EUR');
    expect(page.textContent).toContain('box second box');
    await leave();
  });

  it('a price as a hand writes it is kept, with its currency', async () => {
    const at = await opened(GIVEN);
    await at.write('price', '1200,50');
    await at.write('currency', 'chf');
    await at.enter();
    expect(at.sent()).toEqual([{ fate: 'sold', to: 'A. Collector', price: 1200.5, currency: 'CHF' }]);
    await at.leave();
  });

  it('a price that is no number is told, and neither dropped nor sent', async () => {
    const at = await opened(GIVEN);
    await at.write('price', 'twelve hundred');
    await at.enter();
    expect(at.sent()).toEqual([]);
    expect(at.page.querySelector<HTMLInputElement>('[name="price"]')!.validity.valid).toBe(false);
    await at.leave();
  });

  it('without a price none is sent, nor a currency', async () => {
    const at = await opened(GIVEN);
    await at.write('price', '');
    await at.enter();
    expect(at.sent()).toEqual([{ fate: 'sold', to: 'A. Collector' }]);
    await at.leave();
  });

  it('where it is refused the words stay, with the reason', async () => {
    const at = await opened(GIVEN, ({ method }) =>
      method === 'GET' ? [] : refused(412, { message: 'This was changed in another window.' }),
    );
    await at.write('to', 'B. Collector');
    await at.enter();
    expect(at.page.textContent).toContain('This was changed in another window.');
    expect(at.page.querySelector<HTMLInputElement>('[name="to"]')!.value).toBe('B. Collector');
    await at.leave();
  });
});
