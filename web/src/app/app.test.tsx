/** @jest-environment ./web/test/dom-environment.mjs */
import { using } from '../../test/studio.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { hand, putAway, useHanded } from './handed.ts';
import { questionOf, STEPS } from './steps.ts';

describe('files that were dropped', () => {
  it('lie ready for the screen they belong to, in their order, until they are taken', async () => {
    const [p, q, set] = ['p.tif', 'q.tif', 'set.txt'].map((name) => new File(['x'], name));
    const pictures = await using(() => useHanded('pictures'));
    await pictures.does(() => hand('pictures', [p, q]));
    await pictures.does(() => hand('readings', [set]));
    expect(pictures.now()).toEqual([p, q]);
    // A screen that is opened later finds them, too.
    const readings = await using(() => useHanded('readings'));
    expect(readings.now()).toEqual([set]);
    await pictures.does(() => putAway('pictures', p));
    expect(pictures.now()).toEqual([q]);
    await readings.does(() => putAway('readings', set));
    expect(readings.now()).toEqual([]);
    await pictures.leave();
    await readings.leave();
  });
});

describe('a word that is the same the next time', () => {
  beforeEach(() => localStorage.clear());

  it('begins as it is given, and is found again by whoever asks next', async () => {
    const first = await using(() => useRemembered('by', 'nobody'));
    expect(first.now()[0]).toBe('nobody');
    await first.does(([, say]) => say('Ines'));
    expect(first.now()[0]).toBe('Ines');
    await first.leave();
    const next = await using(() => useRemembered('by', 'nobody'));
    expect(next.now()[0]).toBe('Ines');
    const other = await using(() => useRemembered('light', 'D50'));
    expect(other.now()[0]).toBe('D50');
  });

  it('that was emptied stays empty: it is not filled in again', async () => {
    const first = await using(() => useRemembered('by', 'nobody'));
    await first.does(([, say]) => say(''));
    await first.leave();
    expect((await using(() => useRemembered('by', 'nobody'))).now()[0]).toBe('');
  });
});

it('every step of the work asks a question, and has a place of its own', () => {
  expect(new Set(STEPS.map((s) => s.path)).size).toBe(STEPS.length);
  for (const { path } of STEPS) expect(questionOf(path)).toMatch(/\?$/);
});
