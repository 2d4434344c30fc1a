/** @jest-environment ./web/test/dom-environment.mjs */
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { act } from 'react';
import { colour, lit, scalar } from '../../test/lit-condition.ts';
import { serve, show } from '../../test/studio.tsx';
import { Claimed, Measured } from './figure.tsx';
import { Strip } from './strip.tsx';
import { Typed } from './typed.tsx';

const measure = (key: string) => MEASURES.find((m) => m.key === key)!;
beforeEach(() => void serve(() => null));

describe('a figure on the screen', () => {
  it('stands with its unit; a click tells where it comes from: definition, spread, reading, condition, source', async () => {
    const p = lit('p', { dmax: scalar(2.314, 0.012) }, { reading: { instrument: 'Bench', batch: 'first box' } });
    const { page } = await show(<Measured measure={measure('dmax')} condition={p} />);
    const button = page.querySelector('button')!;
    expect(button.textContent).toMatch(/^2\.31 D$/);
    await act(async () => button.click());
    const told = document.body.textContent;
    for (const words of [
      measure('dmax').definition,
      measure('dmax').source,
      'p.txt, first box',
      'M1, D50, 2°',
      'Bench',
      'date not stated',
      '± 0.012',
    ])
      expect(told).toContain(words);
    // Nothing was read twice here: that the spread is an assumption is said.
    expect(told).toContain('our own assumption: nothing was read twice');
  });

  it('what is missing says which reading would give it, to the ear too', async () => {
    const { page } = await show(<Measured measure={measure('dmax')} condition={lit('p', {})} />);
    expect(page.querySelector('button')).toBeNull();
    expect(page.querySelector('[title]')!.getAttribute('title')).toBe('Nobody has looked yet.');
    expect(page.textContent).toBe('— Nobody has looked yet.');
  });

  it('what a profile tells is italic and not called measured; what is judged is said to be', async () => {
    const told = lit('p', { dmax: scalar(2.3) }, { source: 'profile', reading: { source: 'profile' } });
    const shown = await show(<Measured measure={measure('dmax')} condition={told} />);
    expect(shown.page.querySelector('button')!.className).toContain('italic');
    await act(async () => shown.page.querySelector('button')!.click());
    expect(document.body.textContent).toContain(`${measure('dmax').name}, told by a profile`);
    await shown.leave();
    const judged = await show(<Measured measure={measure('bronzing')} condition={lit('q', { bronzing: scalar(2) })} />);
    expect(judged.page.textContent).toMatch(/^judged /);
  });

  it('a figure of patches that was not carried into the light bears D50; a weight does not', async () => {
    const c = lit('p', { dmax: scalar(2), weight: scalar(300, 1) }, { lit: { under: 'a warm lamp', keys: new Set() } });
    const { page } = await show(
      <>
        <Measured measure={measure('dmax')} condition={c} />
        <Measured measure={measure('weight')} condition={c} />
      </>,
    );
    expect([...page.querySelectorAll('button')].map((b) => / D50$/.test(b.textContent))).toEqual([true, false]);
  });

  it('a claim is said to be one, to the eye and to the ear', async () => {
    const { page } = await show(<Claimed>310 g/m²</Claimed>);
    expect(page.textContent).toBe('◦ 310 g/m² (claimed)');
  });
});

describe('a paper at a glance', () => {
  const paper = { id: 'p', name: 'Rag', maker: 'Mill', brightenerClaim: 'none', currency: 'EUR' } as const;

  it('tells in words what it draws; what is not known of it is left out', async () => {
    const facts = { figures: { white: colour(96.4), black: colour(17.6), brightenerShift: scalar(4.94) } };
    const strip = { ...paper, thicknessUm: 480, surface: 'smooth' as const };
    const { page } = await show(
      <>
        <Strip paper={strip} facts={facts} />
        <Strip paper={paper} facts={{ ...facts, figures: { ...facts.figures, brightenerShift: scalar(0.2) } }} />
      </>,
    );
    expect([...page.querySelectorAll('svg')].map((s) => s.getAttribute('aria-label'))).toEqual([
      'Rag: white L* 96, black L* 18, 480 µm, smooth, brightener 4.9 Δb*',
      'Rag: white L* 96, black L* 18',
    ]);
  });

  it('of which nothing was read is hatched, and says so: no grey is drawn', async () => {
    const { page } = await show(<Strip paper={paper} />);
    expect(page.querySelector('svg')!.getAttribute('aria-label')).toBe('Rag: nothing measured yet');
    expect(page.querySelector('pattern')).not.toBeNull();
    expect(page.innerHTML).not.toContain('rgb(');
  });
});

describe('a field that speaks once its writer has left it', () => {
  const type = (input: HTMLInputElement, text: string) =>
    act(async () => {
      Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!.call(input, text);
      input.dispatchEvent(new Event('input', { bubbles: true }));
    });
  const key = (input: HTMLInputElement, name: string) =>
    act(async () => void input.dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true })));

  async function field(wrong?: (text: string) => string | undefined) {
    const said: string[] = [];
    const shown = await show(<Typed label="Border" value="10" onTyped={(text) => said.push(text)} wrong={wrong} />);
    return { ...shown, said, input: shown.page.querySelector('input')! };
  }

  it('one thing written is one step; Enter says it, Escape takes it back', async () => {
    const { input, said } = await field();
    for (const text of ['1', '12', '12,5']) await type(input, text);
    expect(said).toEqual([]);
    await key(input, 'Enter');
    expect(said).toEqual(['12,5']);
    await type(input, '99');
    await key(input, 'Escape');
    expect(input.value).toBe('10');
    await key(input, 'Enter');
    expect(said).toEqual(['12,5']);
  });

  it('what can’t be taken is told and kept, and not said', async () => {
    const { input, said, page } = await field((text) => (Number(text) > 0 ? undefined : 'A number above 0'));
    await type(input, 'wide');
    await key(input, 'Enter');
    expect(said).toEqual([]);
    expect(input.value).toBe('wide');
    expect(page.textContent).toContain('A number above 0');
    await type(input, '15');
    await key(input, 'Enter');
    expect(said).toEqual(['15']);
  });

  it('what was written and is what stood there is no step', async () => {
    const { input, said } = await field();
    await type(input, '11');
    await type(input, '10');
    await key(input, 'Enter');
    expect(said).toEqual([]);
  });
});
