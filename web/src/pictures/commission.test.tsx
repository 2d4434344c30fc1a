/** @jest-environment ./web/test/dom-environment.mjs */
import type { PictureView } from '@rakuen/contract/pictures';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { serve, show, write } from '../../test/studio.tsx';
import { CommissionDialog } from './commission-dialog.tsx';

const PICTURE: PictureView = partly({
  id: 'p',
  title: 'Salt',
  widthPx: 600,
  heightPx: 400,
  revision: 7,
  commissioned: false,
  commission: {
    longSideMm: 400,
    viewingMm: 800,
    copies: 1,
    handled: false,
    light: 'D50',
    glass: 'none',
    lux: 300,
    mustLast: true,
    vetoes: [],
  },
});

async function dialog() {
  const asked = serve(({ method, path }) =>
    method !== 'GET'
      ? PICTURE
      : path === 'pictures'
        ? ['p', 'q', 'r'].map((id) => ({ ...PICTURE, id }))
        : path === 'table'
          ? { conditionIds: [], pictureIds: [] }
          : [],
  );
  let closed = false;
  const { store, leave } = await show(<CommissionDialog picture={PICTURE} onClose={() => (closed = true)} />);
  const box = () => document.querySelector('[role="dialog"]')!;
  const field = (label: string) =>
    document.getElementById(
      [...box().querySelectorAll('label')].find((l) => l.textContent.startsWith(label))!.htmlFor,
    ) as HTMLInputElement;
  return {
    store,
    leave,
    isClosed: () => closed,
    errorOf: (label: string) => field(label).parentElement!.querySelector('[role="alert"]')?.textContent,
    write: (label: string, text: string) => write(field(label), text),
    choose: async (label: string, value: string) => {
      const select = field(label) as unknown as HTMLSelectElement;
      await act(async () => {
        select.value = value;
        select.dispatchEvent(new Event('change', { bubbles: true }));
      });
    },
    keep: async () => {
      const keep = [...box().querySelectorAll('button')].find((b) => b.textContent === 'Save')!;
      await act(async () => keep.click());
      await act(() => new Promise((done) => setTimeout(done, 30)));
    },
    sentForMany: () => asked.filter((a) => a.method === 'PUT').map((a) => a.body),
    sent: () => asked.filter((a) => a.method === 'PATCH').map((a) => (a.body as { commission: object }).commission),
  };
}

describe('where a picture will live', () => {
  it('is kept as a hand writes it: a decimal comma, centimetres, a ground of three numbers', async () => {
    const at = await dialog();
    await at.write('Longer side', '420,5');
    await at.write('Viewing distance', '90');
    await at.write('Ground of the original', '94,1; 0,2; 1,5');
    await at.keep();
    expect(at.sent()).toEqual([
      expect.objectContaining({ longSideMm: 420.5, viewingMm: 900, originalGround: [94.1, 0.2, 1.5] }),
    ]);
    expect(at.sent()[0]).not.toHaveProperty('editionOf');
    expect(at.isClosed()).toBe(true);
    await at.leave();
  });

  it('takes both sides of the size, a format and a price class', async () => {
    const at = await dialog();
    await at.write('Shorter side', '297');
    await at.choose('Format', 'roll');
    await at.choose('Price class', 'economical');
    await at.keep();
    expect(at.sent()).toEqual([
      expect.objectContaining({ longSideMm: 400, shortSideMm: 297, format: 'roll', priceClass: 'economical' }),
    ]);
    await at.leave();
  });

  it('is saved for many pictures at once: for all but this one in one request, after its own was taken', async () => {
    const at = await dialog();
    await at.choose('Also save it for', 'all');
    await at.keep();
    expect(at.sent()).toHaveLength(1);
    expect(at.sentForMany()).toEqual([{ pictureIds: ['q', 'r'], commission: at.sent()[0] }]);
    expect(at.isClosed()).toBe(true);
    await at.leave();
  });

  it.each([
    ['Longer side', 'large', 'A number, as 120 or 120,5'],
    ['Copies', '', 'A number, as 120 or 120,5'],
    // Would be an open edition if it were dropped.
    ['Numbered, of', 'a dozen', 'A number, as 120 or 120,5'],
    ['Ground of the original', '94,1; 0,2', 'Three numbers, as 94,1; 0,2; 1,5'],
    ['Ground of the original', 'cream', 'Three numbers, as 94,1; 0,2; 1,5'],
    ['Ground of the original', '94; 0; 1; 2', 'Three numbers, as 94,1; 0,2; 1,5'],
  ])('%s: “%s” is told at its field, and nothing is sent nor lost', async (label, typed, told) => {
    const at = await dialog();
    await at.write(label, typed);
    await at.keep();
    expect(at.errorOf(label)).toBe(told);
    expect(at.sent()).toEqual([]);
    expect(at.isClosed()).toBe(false);
    await at.leave();
  });
});
