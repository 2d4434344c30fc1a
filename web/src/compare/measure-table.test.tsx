/** @jest-environment ./web/test/dom-environment.mjs */
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import { act } from 'react';
import { colour, lit, scalar } from '../../test/lit-condition.ts';
import { serve, show } from '../../test/studio.tsx';
import { MeasureTable } from './measure-table.tsx';
import type { LitCondition } from './use-light.ts';

beforeEach(() => {
  localStorage.clear();
  serve(() => null);
});

/** The table of some papers, the first two in hand. */
async function table(laid: LitCondition[]) {
  const [left, right = left] = laid;
  const shown = await show(<MeasureTable {...{ laid, left, right }} thresholds={DEFAULT_THRESHOLDS} />);
  const rows = () => [...shown.page.querySelectorAll('tbody tr')];
  const row = (name: string) => rows().find((r) => r.querySelector('th')?.textContent?.trim().startsWith(name))!;
  const cells = (name: string) =>
    [...row(name).querySelectorAll('td')].map((td) => td.textContent.replaceAll('\u2009', ' '));
  const marks = (name: string) =>
    [...row(name).querySelectorAll('td')]
      .slice(1)
      .map((td) => (/▲/.test(td.textContent) ? '▲' : /▽/.test(td.textContent) ? '▽' : ''));
  const press = async (label: string) =>
    act(async () => shown.page.querySelector<HTMLElement>(`[aria-label="${label}"]`)!.click());
  const papers = () =>
    [...shown.page.querySelectorAll('thead th')]
      .slice(2)
      .map((th) => th.querySelector('.font-serif.truncate, .block')!.textContent);
  return { ...shown, rows, row, cells, marks, press, papers };
}

describe('the table of measures', () => {
  it('marks the best and the least where they surely lie apart', async () => {
    const { marks } = await table([
      lit('p', { dmax: scalar(2.5) }),
      lit('q', { dmax: scalar(2.1) }),
      lit('r', { dmax: scalar(1.6) }),
    ]);
    expect(marks('Dmax')).toEqual(['▲', '', '▽']);
  });

  it('marks nothing on a tie, nor within the noise', async () => {
    const tie = await table([lit('p', { dmax: scalar(2.1) }), lit('q', { dmax: scalar(2.1) })]);
    expect(tie.marks('Dmax')).toEqual(['', '']);
    const noise = await table([lit('p', { dmax: scalar(2.12, 0.2) }), lit('q', { dmax: scalar(2.1, 0.2) })]);
    expect(noise.marks('Dmax')).toEqual(['', '']);
  });

  it('one alone is not the best of one', async () => {
    const { marks } = await table([lit('p', { dmax: scalar(2.5) }), lit('q', {})]);
    expect(marks('Dmax')).toEqual(['', '']);
  });

  it('what was read wet, told by a profile or in another measurement condition is not held against the rest, and why is said', async () => {
    const dry = lit('dry', { white: colour(96) });
    const m0 = lit('m0', { white: colour(90) }, { reading: { measurementCondition: 'M0' } });
    const told = lit('told', { white: colour(88) }, { source: 'profile', reading: { source: 'profile' } });
    const wet = lit(
      'wet',
      { white: colour(87) },
      { reading: { printedAt: '2026-10-31T23:50:00Z', measuredAt: '2026-11-01T00:00:00Z' } },
    );
    for (const [other, why] of [
      [m0, 'read in M1 and M0'],
      [told, 'one measured, one told by a profile'],
      [wet, 'one read before it had dried'],
    ] as const) {
      const { cells, marks, leave } = await table([dry, other]);
      expect(cells('Paper white')[0]).toBe(`not compared: ${why}`);
      expect(marks('Paper white')).toEqual(['', '']);
      await leave();
    }
  });

  it('what could not be carried into the light stays as measured, and is held against nothing', async () => {
    const under = (keys: string[]) => ({ lit: { under: 'a warm lamp', keys: new Set(keys) } });
    const { cells, row } = await table([
      lit('p', { white: colour(96) }, { ...under(['white']), underLight: 'recomputed' }),
      lit('q', { white: colour(90) }, { ...under([]), underLight: 'no spectra' }),
    ]);
    expect(cells('Paper white')[0]).toMatch(/^not compared: not recomputed for this light/);
    expect(row('Paper white').innerHTML).toContain('Measured under D50; not recomputed for a warm lamp');
  });

  it('begins with what parts the two in hand, and says how plainly', async () => {
    const { rows, cells } = await table([
      lit('p', { dmax: scalar(2.5), linearity: scalar(2, 0.1) }),
      lit('q', { dmax: scalar(1.6), linearity: scalar(2, 0.1) }),
    ]);
    expect(rows()[0].textContent).toBe('What parts the two in hand');
    expect(rows()[1].textContent).toMatch(/^Dmax/);
    expect(cells('Dmax')[0]).toBe('visible across the room');
    // It stands there once, and not in its group again.
    expect(rows().filter((r) => r.querySelector('th')?.textContent?.startsWith('Dmax'))).toHaveLength(1);
  });

  it('is put in the order of a measure: the best first, what was not measured after, without a number', async () => {
    const laid = [lit('p', { dmax: scalar(1.6) }), lit('r', {}), lit('q', { dmax: scalar(2.5) })];
    const { press, papers, cells } = await table(laid);
    expect(papers()).toEqual(['p', 'r', 'q']);
    await press('Order the papers by Dmax');
    expect(papers()).toEqual(['q', 'p', 'r']);
    expect(
      cells('Dmax')
        .slice(1)
        .map((c) => /^\d\.(?=\d\.\d)/.exec(c)?.[0]),
    ).toEqual(['1.', '2.', undefined]);
  });

  it('where one of them rests on something else there is no order: none has a number, none a mark', async () => {
    const told = lit('told', { dmax: scalar(2.9) }, { source: 'profile', reading: { source: 'profile' } });
    const { press, papers, cells, marks } = await table([
      lit('p', { dmax: scalar(1.6) }),
      told,
      lit('q', { dmax: scalar(2.5) }),
    ]);
    await press('Order the papers by Dmax');
    expect(papers()).toEqual(['p', 'told', 'q']);
    for (const cell of cells('Dmax').slice(1)) expect(cell).not.toMatch(/^\d\.(?=\d\.\d)/);
    expect(marks('Dmax')).toEqual(['', '', '']);
  });

  it('a measure that was hidden stays hidden the next time, and is shown again on a word', async () => {
    const laid = [lit('p', { dmax: scalar(2.5) }), lit('q', { dmax: scalar(1.6) })];
    const first = await table(laid);
    await first.press('Hide Dmax');
    expect(first.row('Dmax')).toBeUndefined();
    await first.leave();
    const next = await table(laid);
    expect(next.row('Dmax')).toBeUndefined();
    const again = [...next.page.querySelectorAll('button')].find((b) => b.textContent === 'Show 1 hidden measure')!;
    await act(async () => again.click());
    expect(next.row('Dmax')).toBeDefined();
  });

  it('what a maker claims is said to be claimed, and judged by nobody', async () => {
    const { cells } = await table([lit('p', {}), lit('q', {})]);
    expect(cells('Brightener, claimed')[0]).toBe('not judged');
    expect(cells('Brightener, claimed')[1]).toContain('(claimed)');
  });
});
