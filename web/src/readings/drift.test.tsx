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

const compared = (over: object = {}) => ({
  common: 312,
  mean: 0.21,
  p95: 0.5,
  max: 0.9,
  noise: 0.2,
  chance: 0.4,
  verdict: 'within your noise',
  singles: 0,
  worst: [{ id: 'A7', device: [1, 0, 0], later: [50, 60, 40], first: [50, 52, 40], deltaE00: 3.5, beyondNoise: true }],
  ...over,
});

async function drift(...entries: HistoryEntry[]) {
  const asked = serve(({ path }) => (path.includes('/against/') ? against : null));
  const { page, leave } = await show(<Drift entries={entries} />);
  await act(async () => new Promise((done) => setTimeout(done, 20)));
  return {
    page,
    leave,
    asked,
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

let against: object = compared();
beforeEach(() => (against = compared()));

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
    expect(page.textContent).toContain('No visible difference in the one figure that both sets have.');
    expect(page.textContent).toContain('No difference beyond the noise of the readings: mean 0.2,');
    await leave();
  });

  it('colours that differ are said to, though white and black agree; the worst patches are listed', async () => {
    against = compared({ mean: 3.85, p95: 6.8, max: 9.1, chance: 0.005, verdict: 'visible across the room' });
    const { page, asked, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.651) }));
    expect(asked.map((a) => a.path)).toContain('readings/second/against/first');
    expect(page.querySelector('[aria-label="What can be seen"]')!.textContent).toContain(
      'Prints of these two sets differ, visible across the room: mean 3.9, 95th percentile 6.8, largest 9.1 ΔE00 over 312 patches in both sets.',
    );
    const row = [...page.querySelectorAll('[aria-label="Patches furthest apart"] tbody tr')][0];
    expect(row.textContent).toMatch(/^A7255 0 0 50.0\s+60.0\s+40.0 50.0\s+52.0\s+40.03.50beyond the noise/);
    await leave();
  });

  it('a set that repeats no patch has no known noise; a few patches alone are to be read again', async () => {
    against = compared({ noise: undefined, verdict: 'a few patches differ', singles: 2, max: 12 });
    const { page, leave } = await drift(entry('first'), entry('second'));
    expect(page.textContent).toContain(
      '2 of 312 patches differ by up to 12.0 ΔE00; the others agree. Read them again.',
    );
    expect(page.textContent).toContain('not known: a set repeats no patch');
    await leave();
  });

  it.each([
    ['read before it had dried', { driedHours: 1 }],
    ['told by a profile', { source: 'profile' }],
  ])('one %s is not held against one that was measured dry', async (why, over) => {
    const { page, row, asked, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.5), ...over }));
    expect(row('Dmax')![2].textContent).toMatch(/^not compared: /);
    expect(row('Dmax')![2].textContent).toContain(why);
    expect(page.textContent).toContain('No figure of these two sets can be compared.');
    expect(asked.filter((a) => a.path.includes('/against/'))).toEqual([]);
    await leave();
  });

  it('a set is not compared with itself', async () => {
    const { page, choose, leave } = await drift(entry('first'), entry('second', { figures: dmax(1.5) }));
    await choose('Later set', 'first');
    expect(page.textContent).toContain('This is one and the same set');
    expect(page.querySelector('table')).toBeNull();
    await choose('against', 'second');
    expect(page.querySelector('[aria-label="What can be seen"]')!.textContent).toMatch(/blacker/);
    await leave();
  });
});
