/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import { serve, show } from '../../test/studio.tsx';
import { BinButton } from './bin-button.tsx';

beforeEach(() => void serve(() => null));

/** The button, with what it was told to do. */
async function button(onBin: () => Promise<unknown>, over: object = {}) {
  const shown = await show(<BinButton onBin={onBin} {...over} />);
  const now = () => shown.page.querySelector('button')!;
  return {
    ...shown,
    now,
    press: async () => {
      await act(async () => now().click());
      await act(() => new Promise((done) => setTimeout(done, 10)));
    },
  };
}

describe('a thing that is removed', () => {
  it('is asked for twice', async () => {
    let gone = 0;
    const { now, press, leave } = await button(() => Promise.resolve(gone++));
    expect(now().textContent).toBe('Remove');
    await press();
    expect([gone, now().textContent]).toEqual([0, 'Put in the bin']);
    await press();
    expect(gone).toBe(1);
    await leave();
  });

  it('where it is refused stands as before the question', async () => {
    const { now, press, leave } = await button(() => Promise.reject(new Error('Prints rest on it.')));
    await press();
    await press();
    expect(now().textContent).toBe('Remove');
    await leave();
  });

  it('is named to those who don’t see where it stands, in its own words before and after', async () => {
    const { now, press, leave } = await button(() => Promise.resolve(), {
      of: 'Rag',
      words: 'Remove this paper',
      sureWords: 'Remove with its readings',
    });
    expect(now().getAttribute('aria-label')).toBe('Remove this paper: Rag');
    await press();
    expect(now().getAttribute('aria-label')).toBe('Remove with its readings: Rag');
    await leave();
  });
});
