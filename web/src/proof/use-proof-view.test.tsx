/** @jest-environment ./web/test/dom-environment.mjs */
import { act } from 'react';
import { show, using } from '../../test/studio.tsx';
import { LineChoice, optionsOf } from './line-choice.tsx';
import { ProofTools } from './proof-tools.tsx';
import { useProofView, type ProofAtHand } from './use-proof-view.ts';

const press = (key: string) =>
  act(
    async () =>
      void document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })),
  );

describe('the proof under the hand', () => {
  let hand: Awaited<ReturnType<typeof using<ProofAtHand>>>;
  beforeEach(async () => void (hand = await using(() => useProofView())));
  afterEach(() => hand.leave());
  const turned = () => hand.now().turned;

  it('begins halved, whole, without a map', () =>
    expect(turned()).toEqual({ split: 0.5, beside: false, map: 'none', part: { x: 0, y: 0, width: 1, height: 1 } }));

  it('the line goes to its ends and no further; flipped, all of it is one sheet and then the other', async () => {
    for (let i = 0; i < 100; i++) await press(']');
    expect(turned().split).toBe(1);
    await press('v');
    expect(turned().split).toBe(0);
    await press('[');
    expect(turned().split).toBe(0);
    await press('v');
    expect(turned().split).toBe(1);
  });

  it('beside each other is given up by whoever moves the line', async () => {
    await press('b');
    expect(turned().beside).toBe(true);
    await press(']');
    expect(turned().beside).toBe(false);
  });

  it('comes nearer, goes aside, and back to the whole; of the whole there is nothing aside', async () => {
    await press('ArrowRight');
    expect(turned().part.x).toBe(0);
    await press('+');
    const near = turned().part;
    expect(near.width).toBeLessThan(1);
    await press('ArrowRight');
    expect(turned().part.x).toBeGreaterThan(near.x);
    expect(turned().part.width).toBe(near.width);
    for (let i = 0; i < 40; i++) await press('ArrowRight');
    expect(turned().part.x + turned().part.width).toBeLessThanOrEqual(1 + 1e-9);
    await press('0');
    expect(turned().part).toEqual({ x: 0, y: 0, width: 1, height: 1 });
    await press('-');
    expect(turned().part.width).toBe(1);
  });
});

describe('what is done with it', () => {
  const at = (over: Partial<ProofAtHand['turned']> = {}): ProofAtHand => ({
    turned: { split: 0.5, beside: false, map: 'none', part: { x: 0, y: 0, width: 1, height: 1 }, ...over },
    change: () => undefined,
    toPart: () => undefined,
    flip: () => undefined,
    comeNearer: () => undefined,
    goFurther: () => undefined,
  });
  const tools = async (over: Partial<Parameters<typeof ProofTools>[0]> = {}) => {
    const nothing = () => undefined;
    const { page, leave } = await show(
      <ProofTools
        at={at()}
        sheets={4}
        all={false}
        same={false}
        onAll={nothing}
        onSwap={nothing}
        onCrops={() => undefined}
        onStrips={nothing}
        onCopy={nothing}
        copied="Rag"
        {...over}
      />,
    );
    const words = [...page.querySelectorAll('button')].map((b) => `${b.textContent}${b.disabled ? ' (off)' : ''}`);
    await leave();
    return words;
  };

  it('of two unlike sheets: flipped, beside each other, swapped; nothing is further off than the whole', async () =>
    expect(await tools()).toEqual([
      'On all 4 sheets',
      'Nearer',
      'Further (off)',
      'Flip',
      'Beside each other',
      'Swap hands',
      'Marked places',
      'Strips on paper',
      'Print file for Rag',
    ]));

  it('of one and the same there is nothing to flip; of two on the table all are in hand', async () => {
    expect(await tools({ same: true })).not.toContain('Flip');
    expect((await tools({ sheets: 2 })).join()).not.toContain('On all');
    expect(await tools({ onSwap: undefined })).not.toContain('Swap hands');
  });

  it('near, it says how near, and the way back', async () => {
    const words = await tools({ at: at({ part: { x: 0, y: 0, width: 0.5, height: 0.5 } }) });
    expect(words).toContain('The whole picture, now 2.0 × nearer');
    expect(words).toContain('Further');
  });
});

it('a choice in a line is named for the eye and for the ear', async () => {
  const chosen: string[] = [];
  const NAMES = { wall: 'a grey wall', mount: 'a white mount' } as const;
  const { page } = await show(
    <LineChoice
      word="On"
      label="Surround"
      value="wall"
      options={optionsOf(NAMES)}
      onChoose={(key) => chosen.push(key)}
    />,
  );
  const select = page.querySelector('select')!;
  expect(page.querySelector('label')!.textContent).toMatch(/^On/);
  expect([select.getAttribute('aria-label'), [...select.options].map((o) => o.text)]).toEqual([
    'Surround',
    ['a grey wall', 'a white mount'],
  ]);
  await act(async () => {
    select.value = 'mount';
    select.dispatchEvent(new Event('change', { bubbles: true }));
  });
  expect(chosen).toEqual(['mount']);
});
