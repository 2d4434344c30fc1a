/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import type { EditionView } from '@rakuen/contract/editions';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, write } from '../../test/studio.tsx';
import { NumberGiver } from './number-giver.tsx';

const EDITION: EditionView = partly({
  id: 'e',
  name: 'Tide',
  batch: 'spring',
  pictureId: 'p',
  conditionId: 'c',
  widthMm: 300,
  heightMm: 200,
  numbers: [],
});
const print = (id: string, boxId?: string) =>
  partly<object>({
    id,
    boxId,
    pictureId: 'p',
    conditionId: 'c',
    widthMm: 300,
    heightMm: 200,
    copies: 1,
    printedOn: '2026-03-04',
  });

async function giver(printId?: string) {
  const asked = serve(({ method, path }) => {
    if (method === 'POST') return refused(409, { message: 'It is asked for.', field: 'batch' });
    if (path.startsWith('prints')) return [print('boxed', 'b'), print('loose'), { ...print('three', 'b'), copies: 3 }];
    return [{ id: 'b', batch: 'autumn' }];
  });
  const { page, leave } = await show(<NumberGiver editions={[EDITION]} printId={printId} />);
  await act(() => new Promise((done) => setTimeout(done, 40)));
  const field = () => [...page.querySelectorAll('label')].find((l) => l.textContent.startsWith('Formulation'));
  return {
    page,
    leave,
    field,
    give: async () => {
      const button = [...page.querySelectorAll('button')].find((b) => b.textContent === 'Give the next number')!;
      await act(async () => button.click());
      await act(() => new Promise((done) => setTimeout(done, 30)));
      return asked.filter((a) => a.method === 'POST').map((a) => a.body);
    },
  };
}

describe('a number is given', () => {
  it('to a print whose box is known: it is shown, and not asked for', async () => {
    const at = await giver('boxed');
    expect(at.field()).toBeUndefined();
    expect(at.page.textContent).toContain('The sheet came from the box “autumn”.');
    expect(await at.give()).toEqual([{ series: 'edition', count: 1, printId: 'boxed' }]);
    expect(at.page.textContent).toContain('It is asked for.');
    await at.leave();
  });

  it('to a print whose box is not known: the formulation is asked for and sent as it is entered', async () => {
    const at = await giver('loose');
    await write(document.getElementById(at.field()!.htmlFor) as HTMLInputElement, ' spring ');
    expect(await at.give()).toEqual([{ series: 'edition', count: 1, printId: 'loose', batch: 'spring' }]);
    await at.leave();
  });

  it('names the prints that suit, each with its box', async () => {
    const at = await giver();
    const options = [...at.page.querySelectorAll('option')].map((o) => o.textContent);
    expect(options[0]).toBe('not recorded here');
    expect(options[1]).toMatch(/1 copy, box autumn$/);
    expect(options[2]).toMatch(/1 copy, box not known$/);
    await at.leave();
  });

  it('as many at once as copies are left; what was typed for another print does not count for a single copy', async () => {
    const at = await giver('three');
    const numbers = () => [...at.page.querySelectorAll('label')].find((l) => l.textContent === 'Numbers');
    await write(document.getElementById(numbers()!.htmlFor) as HTMLInputElement, '3');
    const button = () =>
      [...at.page.querySelectorAll('button')].find((b) => b.textContent.startsWith('Give the next'))!;
    expect([button().textContent, button().disabled]).toEqual(['Give the next numbers', false]);
    await write(document.getElementById(numbers()!.htmlFor) as HTMLInputElement, '4');
    expect(button().disabled).toBe(true);
    await at.leave();
    const single = await giver('boxed');
    expect([...single.page.querySelectorAll('label')].map((l) => l.textContent)).not.toContain('Numbers');
    expect(await single.give()).toEqual([{ series: 'edition', count: 1, printId: 'boxed' }]);
    await single.leave();
  });
});
