/** @jest-environment ./web/test/dom-environment.mjs */
import type { SessionView } from '@rakuen/contract/sessions';
import { act } from 'react';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { StripMap, standing } from './strip-map.tsx';
import { StripTable } from './strip-table.tsx';

beforeEach(() => void serve(() => null));

const EXPECTED = [
  [50, 0, 0],
  [60, 10, 0],
  [70, 0, 10],
] as const;
/** A strip of three patches, with what each pass read. */
const strip = (label: string, ...passes: object[]) => ({
  label,
  patchIds: EXPECTED.map((_, i) => `s${label}p0${i + 1}`),
  device: EXPECTED.map(() => [0, 0, 0]),
  expected: EXPECTED,
  passes: passes.map((p, pass) => ({ pass, state: 'kept', labs: EXPECTED, findings: [], takenAt: '', ...p })),
});
const session = (over: object = {}): SessionView =>
  partly({
    passes: 1,
    kept: 2,
    strips: [strip('1', {}), strip('2', { state: 'questioned' }), strip('3'), strip('4')],
    questioned: { strip: 1, pass: 0 },
    next: { strip: 2, pass: 0 },
    excluded: [],
    outliers: [],
    ...over,
  });

describe('how a strip stands', () => {
  it('is told by a word for the ear and a sign for the eye, each its own', () => {
    const s = session();
    expect(s.strips.map((t, i) => standing(t, i, s))).toEqual([
      { sign: '1', word: 'read once' },
      { sign: '?', word: 'in question' },
      { sign: '▸', word: 'next' },
      { sign: '', word: 'not read' },
    ]);
  });

  it('read again, it says how often', () => {
    const s = session({ strips: [strip('1', {}, {}), strip('2', {}, {}, {})], questioned: undefined, next: undefined });
    expect(s.strips.map((t, i) => standing(t, i, s).word)).toEqual(['read twice', 'read 3 times']);
  });
});

describe('the chart under the instrument', () => {
  it('each strip is named with how it stands; arrows go from one to the next and stop at the ends', async () => {
    let chosen = 0;
    const map = () => <StripMap session={session()} chosen={chosen} onChoose={(at) => (chosen = at)} />;
    const { page } = await show(map());
    const radios = [...page.querySelectorAll<HTMLElement>('[role="radio"]')];
    expect(radios.map((r) => r.getAttribute('aria-label'))).toEqual([
      'Strip 1, read once',
      'Strip 2, in question',
      'Strip 3, next',
      'Strip 4, not read',
    ]);
    expect(radios.map((r) => r.tabIndex)).toEqual([0, -1, -1, -1]);
    const press = (key: string) =>
      act(async () => void radios[0].dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true })));
    await press('ArrowLeft');
    expect(chosen).toBe(0);
    await press('ArrowRight');
    expect(chosen).toBe(1);
    expect(document.activeElement).toBe(radios[1]);
  });

  it('a patch that was not read has an empty middle in its ring; one that was has what was read', async () => {
    const { page } = await show(<StripMap session={session()} chosen={0} onChoose={() => undefined} />);
    const fills = [...page.querySelectorAll('svg')].map((svg) =>
      [...svg.querySelectorAll('g rect:last-child')].map((r) => r.getAttribute('fill')),
    );
    expect(fills[0].every((f) => f!.startsWith('rgb('))).toBe(true);
    expect(fills[3]).toEqual(['var(--ground)', 'var(--ground)', 'var(--ground)']);
  });
});

describe('a strip, patch by patch', () => {
  const table = async (over: object) => {
    const again: unknown[] = [];
    const { page } = await show(
      <StripTable session={session(over)} at={1} open onLeaveOut={() => undefined} onAgain={(p) => again.push(p)} />,
    );
    const rows = [...page.querySelectorAll('tbody tr')];
    return { page, rows, again, text: (i: number) => rows[i].textContent.replaceAll(/\s+/g, ' ') };
  };

  it('is called by its place, with how far each pass lies from what was expected', async () => {
    const off = [EXPECTED[0], [50, 10, 0], EXPECTED[2]];
    const { rows, text } = await table({ strips: [strip('1', {}), strip('2', { labs: off })] });
    expect(rows.map((r) => r.querySelector('th')!.textContent)).toEqual(['1', '2', '3']);
    expect(text(0)).toContain('0.0');
    expect(text(1)).toMatch(/9\.\d/);
  });

  it('a patch that was found bad, or lies apart from its other passes, is marked for the ear too', async () => {
    const found = [{ misread: 'dirty patch', patches: [2], saw: '', remedy: '' }];
    const { rows } = await table({
      strips: [strip('1', {}), strip('2', { findings: found })],
      outliers: [{ patch: 3, pass: 0, deltaE: 4 }],
    });
    const marked = rows.map((r) => r.querySelector('[aria-label="lies apart"]') !== null);
    // The first strip has three patches: the fourth of the chart is the first of the second strip.
    expect(marked).toEqual([true, false, true]);
  });

  it('one that was left out is struck through, and stays to be seen', async () => {
    const { rows } = await table({
      strips: [strip('1', {}), strip('2', {})],
      excluded: [{ patch: 4, pass: 0, out: true }],
    });
    expect(rows.map((r) => r.innerHTML.includes('line-through'))).toEqual([false, true, false]);
  });

  it('is read again on a word, the pass that is meant', async () => {
    const { page, again } = await table({ passes: 2, strips: [strip('1', {}), strip('2', {}, {})] });
    const button = [...page.querySelectorAll('button')].find((b) => b.textContent === 'Read pass 2 again')!;
    await act(async () => button.click());
    expect(again).toEqual([{ strip: 1, pass: 1 }]);
  });
});
