/** @jest-environment ./web/test/dom-environment.mjs */
import type { PaperView } from '@rakuen/contract/papers';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { refused, serve, show, type Answers, write } from '../../test/studio.tsx';
import { PaperDialog } from './paper-dialog.tsx';

const KEPT: PaperView = partly({
  id: 'p',
  revision: 3,
  maker: 'Testmill',
  name: 'Rag',
  coating: 'cotton',
  brightenerClaim: 'none',
  weightGsm: 310.5,
  sizes: [],
  currency: 'EUR',
  notes: '',
  createdAt: '2026-01-01T00:00:00Z',
});

let leave: () => Promise<void>;
afterEach(() => leave());

/** The dialog over a server that answers so. */
async function dialog(answers: Answers, paper?: PaperView) {
  const asked = serve(answers);
  const added: PaperView[] = [];
  let closed = false;
  const shown = await show(
    <PaperDialog paper={paper} onClose={() => (closed = true)} onAdded={(p) => void added.push(p)} />,
  );
  leave = shown.leave;
  const box = () => document.querySelector('[role="dialog"]')!;
  const field = (label: string) => {
    const found = [...box().querySelectorAll('label')].find((l) => l.textContent.startsWith(label))!;
    return document.getElementById(found.htmlFor) as HTMLInputElement;
  };
  return {
    ...shown,
    asked,
    added,
    isClosed: () => closed,
    field,
    text: () => box().textContent,
    write: (label: string, text: string) => write(field(label), text),
    press: async (words: string) => {
      const button = [...box().querySelectorAll('button')].find((b) => b.textContent.startsWith(words))!;
      await act(async () => button.click());
      await act(() => new Promise((done) => setTimeout(done, 30)));
    },
  };
}
const sent = (asked: { method: string; body: unknown }[]) => asked.filter((a) => a.method !== 'GET').map((a) => a.body);

describe('a paper is added', () => {
  it('by its maker and its name alone; what is left open is not sent as something', async () => {
    const { write, press, asked, added } = await dialog(() => ({ ...KEPT, id: 'new' }));
    await write('Maker', 'Testmill');
    await write('Name', 'Rag');
    await press('Add and say');
    expect(sent(asked)).toEqual([
      { maker: 'Testmill', name: 'Rag', brightenerClaim: 'not stated', sizes: [], currency: 'EUR', notes: '' },
    ]);
    expect(added.map((p) => p.id)).toEqual(['new']);
  });

  it('weight and thickness as a hand writes them', async () => {
    const { write, press, asked } = await dialog(() => KEPT);
    for (const [label, text] of [
      ['Maker', 'Testmill'],
      ['Name', 'Rag'],
      ['Weight', '310,5'],
      ['Thickness', ' 480 '],
    ])
      await write(label, text);
    await press('Add and say');
    expect(sent(asked)[0]).toMatchObject({ weightGsm: 310.5, thicknessUm: 480 });
  });

  it('what is missing or wrong is told beside its field, and nothing is sent', async () => {
    const { write, press, asked, text, field } = await dialog(() => KEPT);
    await write('Name', 'Rag');
    await write('Weight', 'heavy');
    await press('Add and say');
    expect(asked).toEqual([]);
    expect(text()).toContain('This is needed');
    expect(text()).toContain('A number above 0');
    expect(field('Maker').getAttribute('aria-invalid')).toBe('true');
    expect(field('Weight').getAttribute('aria-describedby')).not.toBeNull();
    expect(field('Name').getAttribute('aria-invalid')).toBeNull();
  });

  it('a price that is no number is told, and not left out in silence', async () => {
    const { write, press, asked, text, field } = await dialog(() => KEPT);
    await write('Maker', 'Testmill');
    await write('Name', 'Rag');
    await press('Add a size');
    for (const [label, words] of [
      ['Size', 'A3'],
      ['Width', '297'],
      ['Length', '420'],
      ['Pack price', 'forty'],
    ])
      await write(label, words);
    await press('Add and say');
    expect(asked).toEqual([]);
    expect(text()).toContain('A number above 0');
    expect(field('Pack price').getAttribute('aria-invalid')).toBe('true');
    await write('Pack price', '41,90');
    await press('Add and say');
    expect(sent(asked)[0]).toMatchObject({
      sizes: [{ label: 'A3', widthMm: 297, heightMm: 420, sheets: 25, packPrice: 41.9 }],
    });
  });

  it('refused by the server: why, what to do, and everything that was typed', async () => {
    const { write, press, text, field, added } = await dialog(() =>
      refused(409, { message: 'There is a paper of that name.', remedy: 'Give it another name.' }),
    );
    await write('Maker', 'Testmill');
    await write('Name', 'Rag');
    await press('Add and say');
    expect(text()).toContain('There is a paper of that name.');
    expect(text()).toContain('Give it another name.');
    expect([field('Maker').value, field('Name').value]).toEqual(['Testmill', 'Rag']);
    expect(added).toEqual([]);
  });
});

describe('a paper is changed', () => {
  it('from the revision the form began with', async () => {
    const { write, press, asked, isClosed, field } = await dialog(() => KEPT, KEPT);
    expect(field('Weight').value).toBe('310.5');
    await write('Name', 'Rag II');
    await press('Keep the change');
    expect(asked[0].headers.get('If-Match')).toBe('"3"');
    expect(asked[0].body).toMatchObject({ name: 'Rag II', weightGsm: 310.5, coating: 'cotton' });
    expect(isClosed()).toBe(true);
  });

  it('another window was quicker: both are shown; mine is kept over theirs', async () => {
    const theirs = { ...KEPT, name: 'Rag, theirs', revision: 7 };
    const { write, press, asked, text, isClosed } = await dialog(
      ({ headers }) =>
        headers.get('If-Match') === '"7"' ? KEPT : refused(412, { message: 'Changed meanwhile.', current: theirs }),
      KEPT,
    );
    await write('Name', 'Rag, mine');
    await press('Keep the change');
    expect(isClosed()).toBe(false);
    expect(text()).toContain('changed in another window');
    expect(text()).toContain('Rag, mine');
    expect(text()).toContain('Rag, theirs');
    await press('Keep yours');
    expect(asked[asked.length - 1].headers.get('If-Match')).toBe('"7"');
    expect(asked[asked.length - 1].body).toMatchObject({ name: 'Rag, mine' });
    expect(isClosed()).toBe(true);
  });

  it('… or theirs is taken, and changed from there', async () => {
    const theirs = { ...KEPT, name: 'Rag, theirs', revision: 7 };
    let quicker = true;
    const { write, press, asked, field } = await dialog(() => {
      if (!quicker) return KEPT;
      quicker = false;
      return refused(412, { message: 'Changed meanwhile.', current: theirs });
    }, KEPT);
    await write('Name', 'Rag, mine');
    await press('Keep the change');
    await press('Take theirs');
    expect(field('Name').value).toBe('Rag, theirs');
    await write('Notes', 'thin');
    await press('Keep the change');
    expect(asked[asked.length - 1].headers.get('If-Match')).toBe('"7"');
    expect(asked[asked.length - 1].body).toMatchObject({ name: 'Rag, theirs', notes: 'thin' });
  });
});
