/** @jest-environment ./web/test/dom-environment.mjs */
import type { HistoryEntry } from '@rakuen/contract/readings';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { Drift } from './drift.tsx';

const dmax = (value: number, sd = 0.005) => ({ dmax: { shape: 'scalar', value, sd } });
const entry = (readingId: string, over: object = {}): HistoryEntry =>
  partly({
    readingId,
    fileName: `${readingId}.txt`,
    batch: readingId,
    source: 'measured',
    measurementCondition: 'M1',
    at: '2026-03-01T10:00:00Z',
    driedHours: 30,
    figures: dmax(1.65),
    ...over,
  });

async function drift(...entries: HistoryEntry[]) {
  serve(() => null);
  const { page, leave } = await show(<Drift entries={entries} />);
  return {
    page,
    leave,
    choose: (label: string, id: string) =>
      act(async () => {
        const select = [...page.querySelectorAll('label')]
          .find((l) => l.textContent.startsWith(label))!
          .querySelector('select')!;
        select.value = id;
        select.dispatchEvent(new Event('change', { bubbles: true }));
      }),
    row: (name: string) =>
      [...page.querySelectorAll('tr')]
        .find((tr) => tr.querySelector('th')?.textContent!.startsWith(name))
        ?.querySelectorAll('td'),
  };
}

describe('a later set against an earlier one', () => {
  it('says what can be seen, measure by measure', async () => {
    const { page, row, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.5) }));
    expect(row('Dmax')![2].textContent).toMatch(/^visible/);
    expect(page.querySelector('[aria-label="What can be seen"]')!.textContent).toMatch(/less black/);
    await leave();
  });

  it('a change within the noise is told as that', async () => {
    const { page, row, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.651) }));
    expect(row('Dmax')![2].textContent).toBe('within your noise');
    expect(page.textContent).toContain('Nobody could tell prints of these two sets apart');
    await leave();
  });

  it.each([
    ['read before it had dried', { driedHours: 1 }],
    ['told by a profile', { source: 'profile' }],
  ])('one %s is not held against one that was measured dry', async (why, over) => {
    const { page, row, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.5), ...over }));
    expect(row('Dmax')![2].textContent).toMatch(/^not compared: /);
    expect(row('Dmax')![2].textContent).toContain(why);
    expect(page.textContent).toContain('Nothing of these two sets can be held against each other.');
    await leave();
  });

  it('a set is not compared with itself', async () => {
    const { page, choose, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.5) }));
    await choose('Later set', 'first');
    expect(page.textContent).toContain('It is one and the same set');
    expect(page.querySelector('table')).toBeNull();
    await choose('against', 'second');
    expect(page.querySelector('[aria-label="What can be seen"]')!.textContent).toMatch(/blacker/);
    await leave();
  });
});
