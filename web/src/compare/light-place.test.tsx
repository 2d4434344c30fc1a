/** @jest-environment ./web/test/dom-environment.mjs */
import { jest } from '@jest/globals';
import { GLASSES } from '@rakuen/core/light/glass';
import type { ScreenMatch } from '@rakuen/core/light/screen-match';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import type { Turn } from '@rakuen/core/light/turns';
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import { act } from 'react';
import { colour, lit } from '../../test/lit-condition.ts';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import type { CompareProps } from './compare-props.ts';
import type { LitCondition } from './use-light.ts';

/** What the desk finds of each paper. */
const found: Record<string, { turn?: Omit<Turn, 'light'>; mean?: number; match?: object }> = {};
jest.unstable_mockModule('./desk.ts', () => ({
  desk: () => ({
    turns: async (id: string) =>
      found[id].turn && {
        list: TABLE_LIGHTS.slice(1).map((light) => ({ light, ...found[id].turn })),
        mean: found[id].mean,
      },
    screen: async (id: string) => found[id].match,
  }),
}));
const { LightPlace } = await import('./light-place.tsx');

const known = (mean: number) => ({ turn: { white: mean, greys: mean }, mean });
const matched = (over: Partial<ScreenMatch>) => ({
  match: {
    asItIs: { white: 1, greys: 1, colours: 1 },
    toPaperWhite: { white: 0, greys: 0.1, colours: 0.1 },
    toInks: { white: 0.1, greys: 0.1, colours: 0.1, xy: [0.34, 0.35] },
    lift: { white: 0, colours: 0 },
    paperWhiteXy: [0.34, 0.35],
    ...over,
  },
});

async function place(papers: Record<string, (typeof found)[string]>, over: Record<string, object> = {}, plain = true) {
  localStorage.clear();
  serve(() => []);
  Object.assign(found, papers);
  const laid = Object.keys(papers).map((id): LitCondition => lit(id, { white: colour(95) }, over[id]));
  const props: CompareProps = {
    laid,
    left: laid[0],
    right: laid[1],
    thresholds: DEFAULT_THRESHOLDS,
    lit: partly({ ready: true, plain, light: TABLE_LIGHTS[0], glass: GLASSES[0] }),
  };
  const { page } = await show(<LightPlace {...props} />);
  await act(async () => new Promise((done) => setTimeout(done, 20)));
  const section = (name: string) => page.querySelector(`section[aria-label="${name}"]`)!;
  const colours = section('Holding its colour');
  return {
    heads: [...colours.querySelectorAll('thead th')].slice(1).map((th) => th.querySelector('span')!.textContent),
    first: [...colours.querySelectorAll('tbody tr')[0].querySelectorAll('td')].map((td) => td.textContent),
    over: [...colours.querySelectorAll('tbody tr:last-child td')].map((td) => td.textContent),
    said: colours.textContent,
    screen: section('A monitor beside the print').textContent,
  };
}

describe('which paper holds its colour', () => {
  it('the steadiest is first, and those that are level share their place', async () => {
    const { heads, over, said } = await place({ p: known(2.31), q: known(0.12), r: known(0.14) });
    expect(heads).toEqual(['1. B q', '1. C r', '3. A p']);
    expect(over).toEqual(['0.1 ΔE00', '0.1 ΔE00', '2.3 ΔE00']);
    expect(said).toContain('The steadiest paper is first.');
  });

  it('a sheet of which the brightener is not known takes no place, though it seems to turn least; why is said', async () => {
    const { heads, first, over, said } = await place({
      p: known(2.3),
      unknown: { turn: { greys: 0.1 } },
      r: known(0.4),
      few: { turn: { white: 0 } },
      told: {},
    });
    expect(heads).toEqual(['1. C r', '2. A p', 'B unknown', 'D few']);
    expect(first[2]).toBe('– white, 0.1 greys');
    expect(over).toEqual(['0.4 ΔE00', '2.3 ΔE00', '–', '–']);
    expect(said).toMatch(/unknown: not read both with and without UV/);
    expect(said).toMatch(/few: too few greys/);
    expect(said).toMatch(/told: without spectra/);
  });

  it('what was read wet is put in no order with what had dried', async () => {
    const wet = { reading: { printedAt: '2026-10-31T23:50:00Z', measuredAt: '2026-11-01T00:00:00Z' } };
    const { heads, said } = await place({ p: known(2.3), q: known(0.1) }, { q: wet });
    expect(heads).toEqual(['A p', 'B q']);
    expect(said).toContain('put in no order: one read before it had dried.');
    expect(said).not.toContain('steadiest');
  });

  it('what light is over the table does not bear on it', async () => {
    const waiting = { lit: { under: 'tungsten', keys: new Set() } };
    const { heads, said } = await place({ p: known(2.3), q: known(0.1) }, { p: waiting, q: waiting }, false);
    expect(heads).toEqual(['1. B q', '2. A p']);
    expect(said).not.toContain('no order');
  });

  it('one alone is not the steadiest of one', async () =>
    expect((await place({ p: known(2.3), q: { turn: { greys: 0.1 } } })).heads).toEqual(['A p', 'B q']));
});

describe('a monitor beside the print', () => {
  it('a screen matches a sheet only where that is known', async () => {
    const { screen } = await place({
      p: { ...known(0.1), ...matched({}) },
      q: { ...known(0.1), ...matched({ lift: undefined }) },
      r: { ...known(0.1), ...matched({ toInks: undefined, toPaperWhite: { white: 0, greys: 0.1 } }) },
      s: {},
    });
    expect(screen).toContain('p: set to its white, the screen matches it');
    expect(screen).toContain('q was not read both with and without UV (M1 and M2)');
    expect(screen).toContain('r was read without colours');
    expect(screen).toContain('s: without spectra nothing can be said');
    expect(screen.match(/the screen matches it/g)).toHaveLength(1);
  });

  it('of a white that is known under D50 alone no other light is told', async () => {
    const unread = { q: { turn: { greys: 0.1 }, ...matched({ lift: undefined, toInks: undefined }) } };
    expect((await place(unread)).screen).toContain('x 0.3400, y 0.3500');
    expect((await place(unread, {}, false)).screen).not.toContain('x 0.3400');
  });
});
