/** @jest-environment ./web/test/dom-environment.mjs */
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import { colour, lit } from '../../test/lit-condition.ts';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { NeutralsPlace } from './neutrals-place.tsx';
import type { LitCondition } from './use-light.ts';

const ramped = (name: string, over: object = {}): LitCondition => {
  const c = lit(name, { white: colour(96) }, over);
  const ramp = [0, 0.25, 0.5, 0.75, 1].map((step) => ({
    step,
    lab: [10 + 86 * step, 0, 0],
    offLine: [0, 0],
    chromaOffLine: 0,
  }));
  return { ...c, facts: partly({ ...c.facts, ramp }) };
};
async function said(...laid: LitCondition[]) {
  serve(() => null);
  const [left, right] = laid;
  const { page } = await show(
    <NeutralsPlace {...{ laid, left, right }} lit={partly({})} thresholds={DEFAULT_THRESHOLDS} />,
  );
  return page.textContent;
}

describe('ramps that are drawn together', () => {
  it('say so where they rest on unlike things, and nothing where they do not', async () => {
    const wet = { reading: { printedAt: '2026-10-31T23:50:00Z', measuredAt: '2026-11-01T00:00:00Z' } };
    expect(await said(ramped('p'), ramped('q'))).not.toMatch(/drawn together/);
    const text = await said(ramped('p'), ramped('q'), ramped('r', wet));
    expect(text).toContain(
      'p and r are drawn together, and not to be held against each other: one read before it had dried.',
    );
    expect(text).not.toContain('p and q');
  });
});
