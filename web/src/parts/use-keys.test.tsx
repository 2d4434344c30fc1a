/** @jest-environment ./web/test/dom-environment.mjs */
import { show, using } from '../../test/studio.tsx';
import { focusedRow, moveFocus, useKeys } from './use-keys.ts';

const press = (key: string, on: Element = document.body, more: KeyboardEventInit = {}) => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  on.dispatchEvent(event);
  return event;
};

describe('single keys', () => {
  it('act while nobody types and no dialog is open', async () => {
    const pressed: string[] = [];
    const hand = await using(() => useKeys({ s: () => pressed.push('s'), '?': () => pressed.push('?') }));
    expect(press('s').defaultPrevented).toBe(true);
    press('?');
    expect(press('x').defaultPrevented).toBe(false);
    expect(pressed).toEqual(['s', '?']);
    await hand.leave();
    press('s');
    expect(pressed).toEqual(['s', '?']);
  });

  it.each([
    ['a line that is typed', <input key="i" id="here" />],
    ['a text', <textarea key="t" id="here" />],
    ['a list to choose from', <select key="s" id="here" />],
    [
      'a dialog',
      <div key="d" role="dialog">
        <button id="here" />
      </div>,
    ],
    [
      'a menu',
      <div key="m" role="menu">
        <button id="here" />
      </div>,
    ],
  ])('in %s a letter is a letter', async (_, place) => {
    const pressed: string[] = [];
    const hand = await using(() => useKeys({ s: () => pressed.push('s') }));
    const shown = await show(place);
    press('s', shown.page.querySelector('#here')!);
    expect(pressed).toEqual([]);
    await shown.leave();
    await hand.leave();
  });

  it('on a box to tick they act; with a modifier they are the browser’s', async () => {
    const pressed: string[] = [];
    const hand = await using(() => useKeys({ s: () => pressed.push('s') }));
    const shown = await show(<input type="checkbox" />);
    press('s', shown.page.querySelector('input')!);
    for (const more of [{ ctrlKey: true }, { metaKey: true }, { altKey: true }]) press('s', document.body, more);
    expect(pressed).toEqual(['s']);
    await shown.leave();
    await hand.leave();
  });

  it('do what they mean now, not what they meant when the screen opened', async () => {
    let meaning = 'old';
    const pressed: string[] = [];
    const hand = await using(() => {
      const means = meaning;
      useKeys({ s: () => pressed.push(means) });
    });
    meaning = 'new';
    await hand.again();
    press('s');
    expect(pressed).toEqual(['new']);
    await hand.leave();
  });
});

describe('rows of a list', () => {
  const List = () => (
    <ul onKeyDown={moveFocus}>
      {['a', 'b', 'c'].map((id) => (
        <li key={id} data-row data-kind="paper" data-id={id} tabIndex={-1}>
          {id} <button>open {id}</button>
        </li>
      ))}
    </ul>
  );

  it('up and down go from row to row and stop at the ends', async () => {
    const { page, leave } = await show(<List />);
    const rows = [...page.querySelectorAll<HTMLElement>('li')];
    rows[0].focus();
    press('ArrowDown', rows[0]);
    expect(document.activeElement).toBe(rows[1]);
    press('ArrowDown', rows[1]);
    press('ArrowDown', rows[2]);
    expect(document.activeElement).toBe(rows[2]);
    press('ArrowUp', rows[2]);
    expect(document.activeElement).toBe(rows[1]);
    expect(press('ArrowLeft', rows[1]).defaultPrevented).toBe(false);
    await leave();
  });

  it('a button within a row stands for its row; another kind of row does not', async () => {
    const { page, leave } = await show(<List />);
    page.querySelectorAll('button')[2].focus();
    expect(focusedRow('paper')).toBe('c');
    expect(focusedRow('picture')).toBeUndefined();
    press('ArrowUp', page.querySelectorAll('button')[2]);
    expect(focusedRow('paper')).toBe('b');
    await leave();
  });
});
