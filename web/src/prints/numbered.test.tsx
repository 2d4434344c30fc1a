/** @jest-environment ./web/test/dom-environment.mjs */
import type { MoveView } from '@rakuen/contract/clients';
import type { NumberView } from '@rakuen/contract/editions';
import { act } from 'react';
import { MemoryRouter } from 'react-router';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers } from '../../test/studio.tsx';
import { day } from '../parts/label.ts';
import { Numbered } from './numbered.tsx';

const SOLD: MoveView = partly({
  id: 'm',
  numberId: 'n',
  to: 'sold',
  copies: 1,
  standing: 1,
  who: 'A. Collector',
  where: '',
  what: 'Tide 3/12',
  on: '2026-03-04',
  price: 900,
  currency: 'EUR',
  note: '',
  daysOverdue: 0,
});
const GIVEN: NumberView = partly({
  id: 'n',
  revision: 2,
  series: 'edition',
  number: 3,
  written: '3/12',
  moves: [SOLD],
  batch: 'second box',
});

/** A number whose whereabouts are written down. */
async function opened(
  number: NumberView,
  answers: Answers = ({ path }) => (path === 'rates' ? { currency: 'CHF' } : []),
) {
  const asked = serve(answers);
  const shown = await show(
    <MemoryRouter>
      <Numbered number={number} />
    </MemoryRouter>,
  );
  const { page } = shown;
  const press = (words: string) =>
    act(async () => [...page.querySelectorAll('button')].find((b) => b.textContent === words)!.click());
  await press('Move');
  return {
    ...shown,
    choose: (to: string) =>
      act(async () => {
        const choice = page.querySelector<HTMLSelectElement>('form select')!;
        Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value')!.set!.call(choice, to);
        choice.dispatchEvent(new Event('change', { bubbles: true }));
      }),
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
    expect(page.textContent).toContain(`sold to A. Collector, ${day('2026-03-04')}, 900 EUR`);
    expect(page.textContent).toContain('box second box');
    await leave();
  });

  it('a price as a hand writes it is kept, with its currency; it goes on from where it stands', async () => {
    const at = await opened(GIVEN);
    await at.choose('sold');
    await at.write('withWhom', 'B. Collector');
    await at.write('price', '1200,50');
    await at.write('currency', 'chf');
    await at.enter();
    expect(at.sent()).toEqual([
      { numberId: 'n', fromId: 'm', to: 'sold', withWhom: 'B. Collector', price: 1200.5, currency: 'CHF' },
    ]);
    await at.leave();
  });

  it('an invalid price is reported, and neither dropped nor sent', async () => {
    const at = await opened(GIVEN);
    await at.choose('sold');
    await at.write('price', 'twelve hundred');
    await at.enter();
    expect(at.sent()).toEqual([]);
    expect(at.page.querySelector<HTMLInputElement>('[name="price"]')!.validity.valid).toBe(false);
    await at.leave();
  });

  it('without a price none is sent, nor a currency; only what is lent or on consignment is asked when it comes back', async () => {
    const at = await opened(GIVEN);
    expect(at.page.querySelector('[name="until"]')).toBeNull();
    await at.choose('lent');
    await at.write('until', '2027-01-31');
    await at.enter();
    expect(at.sent()).toEqual([{ numberId: 'n', fromId: 'm', to: 'lent', until: '2027-01-31' }]);
    await at.leave();
  });

  it('a destroyed print does not move', async () => {
    serve(() => []);
    const { page, leave } = await show(
      <MemoryRouter>
        <Numbered number={{ ...GIVEN, moves: [{ ...SOLD, to: 'destroyed' }] }} />
      </MemoryRouter>,
    );
    expect([...page.querySelectorAll('button')].map((b) => b.textContent)).not.toContain('Move');
    expect(page.textContent).toContain('destroyed, A. Collector');
    await leave();
  });

  it('where it is refused the words stay, with the reason', async () => {
    const at = await opened(GIVEN, ({ method }) =>
      method === 'GET' ? [] : refused(409, { message: 'No copy is there any more.' }),
    );
    await at.choose('given');
    await at.write('withWhom', 'B. Collector');
    await at.enter();
    expect(at.page.textContent).toContain('No copy is there any more.');
    expect(at.page.querySelector<HTMLInputElement>('[name="withWhom"]')!.value).toBe('B. Collector');
    await at.leave();
  });
});
