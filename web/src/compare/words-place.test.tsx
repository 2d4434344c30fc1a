/** @jest-environment ./web/test/dom-environment.mjs */
import { jest } from '@jest/globals';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import { act } from 'react';
import { colour, lit } from '../../test/lit-condition.ts';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import type { CompareProps } from './compare-props.ts';

/** Papers of which the desk does not know what their brightener does. */
const unknown = new Set<string>();
jest.unstable_mockModule('./desk.ts', () => ({
  desk: () => ({
    lit: async (id: string) => ({ figures: { white: colour(96, 0, 2) }, brightenerUnknown: unknown.has(id) }),
  }),
}));
const { WordsPlace } = await import('./words-place.tsx');

/** What is said of a brightened sheet beside one that is not, in daylight. */
async function said(over: object = {}) {
  localStorage.clear();
  serve(() => null);
  const [left, right] = [lit('bright', { white: colour(96, 1, -6) }), lit('plain', { white: colour(96, 0, 2) }, over)];
  const laid = [left, right];
  const props: CompareProps = {
    laid,
    left,
    right,
    thresholds: DEFAULT_THRESHOLDS,
    lit: partly({ ready: true, plain: true, conditions: laid, light: TABLE_LIGHTS[0], glass: GLASSES[0] }),
  };
  const { page } = await show(<WordsPlace {...props} />);
  await act(async () => new Promise((done) => setTimeout(done, 20)));
  return page.textContent;
}

describe('whether it is the UV of the light that parts two whites', () => {
  beforeEach(() => unknown.clear());

  it('is said of a pair of which it is known', async () =>
    expect(await said()).toMatch(/the left white is 8\.0 bluer; without UV the two whites are the same/));

  it('is not said where one was not read with and without UV', async () => {
    unknown.add('bright');
    expect(await said()).not.toMatch(/without UV/);
  });

  it('nor where the two whites were read in unlike ways', async () =>
    expect(await said({ reading: { measurementCondition: 'M0' } })).not.toMatch(/without UV/));
});
