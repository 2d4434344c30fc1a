/** @jest-environment ./web/test/dom-environment.mjs */
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import { MemoryRouter } from 'react-router';
import type { RankedSheet } from '@rakuen/core/match/rank';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { PlaceRow } from './place-row.tsx';

beforeEach(() => void serve(() => null));
const plain = (text: string | null | undefined) => (text ?? '').replaceAll(/[\u2009\u202f\u00a0]/g, ' ');

const condition: ConditionHead = partly({
  id: 'p',
  paper: { name: 'Rag' },
  printer: 'Press',
  mediaSetting: 'Coated',
  printMode: 'colour through a profile',
});
const picture: PictureView = partly({
  id: 'picture',
  title: 'A pier',
  widthPx: 3,
  heightPx: 2,
  commission: {},
  marks: [{}, {}],
});
const mark = (x: number) => ({
  kind: 'shadow',
  x,
  y: 0.5,
  printed: [20, 0, 0],
  deltaE: 5,
  stepsKept: 0.4,
  fromC: 20,
  toC: 14,
  hueTurnDeg: -3,
});
const place: RankedSheet = partly({
  id: 'p',
  place: 2,
  score: 5.5,
  scoreSd: 0.4,
  verdict: 'Holds most of the night: 23 of 27 shadow steps',
  reasons: [1, 2, 3, 4].map((n) => ({
    leaning: `l${n}`,
    speaks: 'for',
    sentence: `Reason ${n}.`,
    figures: [],
    cost: n / 10,
    unweighted: 0,
  })),
  figures: { marks: [mark(0.2), mark(0.8)], shadowWedge: [4, 10, 24] },
  parts: [
    { leaning: 'shadowSteps', by: 0.8, figure: { name: 'shadow steps kept', unit: '%', own: 84.6, other: 44.6 } },
    { leaning: 'money', by: -0.3, figure: { name: 'price', unit: 'EUR per m²', own: 27.19, other: 8.68 } },
    { leaning: 'brightener', by: 0.2, figure: { name: 'brightener', unit: 'Δb*', other: 4.9 } },
    { leaning: 'depth', by: 0.1 },
  ],
});

const shown = (over: object = {}) =>
  show(
    <MemoryRouter>
      <ol>
        <PlaceRow
          {...{ place, condition, picture, judged: [], shared: false, marks: [1], first: true }}
          beside={{ parts: place.parts, word: 'next', said: 'A close call: the next may be as good.' }}
          onStamp={() => undefined}
          onTakeBack={() => undefined}
          {...over}
        />
      </ol>
    </MemoryRouter>,
  );

describe('a place of a ranking', () => {
  it('begins with its verdict and the wedge of its shadows; then three differences with the figures of both', async () => {
    const { page } = await shown();
    const verdict = page.querySelector('h3')!.closest('[data-row]')!.querySelector(':scope > p')!;
    expect(plain(verdict.textContent)).toBe('Holds most of the night: 23 of 27 shadow steps');
    expect(verdict.querySelectorAll('[role=img] > span')).toHaveLength(3);
    const differences = [...page.querySelectorAll('[aria-label=Differences] li')].map((li) => plain(li.textContent));
    expect(differences).toEqual([
      'A close call: the next may be as good.',
      '+Better: Shadow steps kept 84.6 %, next 44.6',
      '−Worse: Price 27.19 EUR per m², next 8.68',
      '+Better: Brightener: next 4.9 Δb*, here none counted',
    ]);
  });

  it('folds all its reasons, the costliest first', async () => {
    const { page } = await shown();
    const folded = page.querySelector('details')!;
    expect(folded.open).toBe(false);
    expect(folded.querySelector('summary')!.textContent).toBe('All 4 reasons');
    expect([...folded.querySelectorAll('li')].map((li) => /Reason \d/.exec(li.textContent)![0])).toEqual([
      'Reason 4',
      'Reason 3',
      'Reason 2',
      'Reason 1',
    ]);
  });

  it('draws the marks that part the sheets, by their own number, and no other', async () => {
    const { page } = await shown();
    expect([...page.querySelectorAll('figure [title^="Mark"]')].map((m) => m.textContent)).toEqual(['2']);
    const none = await shown({ marks: [] });
    expect(none.page.querySelectorAll('figure [title^="Mark"]')).toHaveLength(0);
  });
});
