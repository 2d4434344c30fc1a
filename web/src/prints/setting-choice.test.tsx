/** @jest-environment ./web/test/dom-environment.mjs */
import type { PrintView } from '@rakuen/contract/prints';
import type { SettingKey } from '@rakuen/contract/vocabulary';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers, write } from '../../test/studio.tsx';
import { SettingChoice } from './setting-choice.tsx';

const print: PrintView = partly({
  id: 'p',
  settings: { printer: 'Press', sharpening: 'none', liftStops: 0.5, blackInk: 'photo black', blackOvercoat: false },
});

/** A setting, opened; what was chosen is told. */
async function opened(name: SettingKey, answers: Answers) {
  serve(answers);
  const chosen: unknown[] = [];
  const shown = await show(
    <SettingChoice name={name} print={print} open onOpen={() => undefined} onChoose={(v) => chosen.push(v)} />,
  );
  const settle = () => act(() => new Promise((done) => setTimeout(done, 30)));
  await settle();
  return {
    ...shown,
    chosen,
    settle,
    field: () => shown.page.querySelector<HTMLInputElement | HTMLSelectElement>('input, select'),
    options: () => [...shown.page.querySelectorAll('option')].map((o) => o.textContent),
    write: (text: string) =>
      write(shown.page.querySelector<HTMLInputElement | HTMLSelectElement>('input, select')!, text),
    send: () =>
      act(
        async () =>
          void shown.page
            .querySelector('form')!
            .dispatchEvent(new Event('submit', { bubbles: true, cancelable: true })),
      ),
  };
}
const known = (words: object) => () => ({ printer: 'Press', words });

describe('a setting written in words', () => {
  it('is chosen from what the printer knows, or written anew', async () => {
    const { options, write, send, chosen, field, leave } = await opened('sharpening', known({ sharpening: ['soft'] }));
    expect(options()).toEqual(['none', 'soft', 'another word…']);
    await write('soft');
    expect(chosen).toEqual(['soft']);
    await write('…');
    expect(field()!.tagName).toBe('INPUT');
    await write(' strong ');
    await send();
    expect(chosen).toEqual(['soft', 'strong']);
    await leave();
  });

  it('is not asked for until its words are there: no field gives way to another under the hand', async () => {
    let answer: (value: unknown) => void = () => undefined;
    const { field, settle, leave } = await opened('sharpening', () => new Promise((done) => (answer = done)));
    expect(field()).toBeNull();
    answer(known({ sharpening: ['soft'] })());
    await settle();
    expect(field()!.tagName).toBe('SELECT');
    await leave();
  });

  it('is written by hand where no word is known, or none can be had', async () => {
    const none = await opened('sharpening', known({}));
    expect(none.field()!.tagName).toBe('INPUT');
    await none.leave();
    const broken = await opened('sharpening', () => refused(500, { message: 'Something went wrong.' }));
    expect(broken.field()!.tagName).toBe('INPUT');
    await broken.leave();
  });

  it('of a fixed choice needs no words of the printer', async () => {
    const { options, leave } = await opened('blackInk', () => new Promise(() => undefined));
    expect(options()).toContain('matt black');
    expect(options()).not.toContain('another word…');
    await leave();
  });
});

describe('a setting that is a number', () => {
  it('stands there to be changed; written as it stood, it stays', async () => {
    const { field, send, write, chosen, leave } = await opened('liftStops', known({}));
    expect(field()!.value).toBe('0.5');
    await send();
    expect(chosen).toEqual([0.5]);
    await write('0,75');
    await send();
    expect(chosen).toEqual([0.5, 0.75]);
    await leave();
  });

  it('what is no number is told, and not taken for nought', async () => {
    const { write, send, chosen, page, leave } = await opened('liftStops', known({}));
    for (const text of ['a little', '']) {
      await write(text);
      await send();
    }
    expect(chosen).toEqual([]);
    expect(page.textContent).toContain('A number is needed');
    await leave();
  });
});

it('yes or no is turned with one word', async () => {
  const { page, chosen, leave } = await opened('blackOvercoat', known({}));
  const button = [...page.querySelectorAll('button')].find((b) => b.textContent === 'Set it')!;
  await act(async () => button.click());
  expect(chosen).toEqual([true]);
  await leave();
});
