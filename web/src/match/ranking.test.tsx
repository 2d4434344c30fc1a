/** @jest-environment ./web/test/dom-environment.mjs */
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { CostEdge } from '@rakuen/core/match/cost-edge';
import { partly } from '../../test/partly.ts';
import { serve, show } from '../../test/studio.tsx';
import { AllAlike, NotRanked } from './beside-ranking.tsx';
import { CostPlace } from './cost-place.tsx';
import { Score } from './score.tsx';
import type { Ranked, RankingAtHand } from './use-ranking.ts';

beforeEach(() => void serve(() => null));
const plain = (text: string | null) => (text ?? '').replaceAll(/[\u2009\u202f\u00a0]/g, ' ');
const condition = (id: string, name: string, over: object = {}): ConditionHead =>
  partly({
    id,
    paperId: `paper-${name}`,
    paper: { name },
    printer: 'Press',
    mediaSetting: 'Coated',
    printMode: 'colour through a profile',
    ...over,
  });
const known = [condition('p', 'Rag'), condition('q', 'Baryta'), condition('r', 'Rag', { mediaSetting: 'Heavy' })];
const conditionOf = (id: string) => known.find((c) => c.id === id);
const at = (over: object): RankingAtHand => partly({ conditionOf, current: { leftOut: [] }, ...over });

describe('what takes no part in a ranking', () => {
  it('is named with its reason: refused here, or left out by the server, each once', async () => {
    const { page } = await show(
      <NotRanked
        at={at({
          current: {
            leftOut: [
              { conditionId: 'p', why: 'Nothing was measured of it yet.' },
              { conditionId: 'q', why: 'An older word of the server.' },
              { conditionId: 'gone', why: 'Its lamp is gone.' },
            ],
          },
          ranking: { refused: [{ id: 'q', why: 'No gloss was asked for, and it is a baryta sheet.' }], uncounted: [] },
        })}
      />,
    );
    expect([...page.querySelectorAll('li')].map((li) => li.textContent)).toEqual([
      'Rag, Press · Coated: Nothing was measured of it yet.',
      'A removed condition: Its lamp is gone.',
      'Baryta, Press · Coated: No gloss was asked for, and it is a baryta sheet.',
    ]);
  });

  it('figures that are not known of all count for none, and of which they lack is said once a paper', async () => {
    const uncounted = [{ what: 'weight', unknownOf: ['p', 'r', 'gone'] }];
    const { page } = await show(<NotRanked at={at({ ranking: { refused: [], uncounted } })} />);
    expect(page.querySelector('h3')).toBeNull();
    expect(page.textContent).toBe('Counted for none: weight, which is not known of Rag, a removed condition.');
  });

  it('where everything takes part nothing is said', async () => {
    const { page } = await show(<NotRanked at={at({ ranking: { refused: [], uncounted: [] } })} />);
    expect(page.innerHTML).toBe('');
  });
});

it('what is said of all sheets alike parts none; what speaks neither way is not said', async () => {
  const shared = [
    { speaks: 'against', sentence: 'It will be handled.' },
    { speaks: 'neither', sentence: 'Hardly matters.' },
  ];
  const ranking = (list: object[]): Ranked['ranking'] => partly({ shared: list });
  const said = await show(<AllAlike ranking={ranking(shared)} />);
  expect(said.page.textContent).toBe('On all of them: It will be handled.');
  const silent = await show(<AllAlike ranking={ranking(shared.slice(1))} />);
  expect(silent.page.innerHTML).toBe('');
});

describe('what a sheet costs against what it gives', () => {
  const edge: CostEdge = {
    currency: 'EUR',
    sheets: [
      { id: 'p', pricePerM2: 12.5, fit: 6.2 },
      { id: 'q', pricePerM2: 20, fit: 6.1, beatenBy: 'p' },
      { id: 'r', pricePerM2: 31, fit: 7, closeTo: 'p' },
    ],
  };

  it('which are worth their price, which are beaten and by whom, and where it is a close call', async () => {
    const { page } = await show(<CostPlace edge={edge} unpriced={[]} conditionOf={conditionOf} />);
    const rows = [...page.querySelectorAll('tbody tr')].map((tr) => [...tr.children].map((c) => plain(c.textContent)));
    expect(rows).toEqual([
      ['Rag, Press, Coated', '12.50', '6.2', 'worth its price'],
      ['Baryta', '20.00', '6.1', 'Rag, Press, Coated gives as much or more, for no more'],
      ['Rag, Press, Heavy', '31.00', '7.0', 'a close call with Rag, Press, Coated, which costs less'],
    ]);
    expect(page.textContent).toContain('Prices are claimed');
  });

  it('a sheet without a price in that currency is not compared, and named', async () => {
    const { page } = await show(
      <CostPlace edge={{ ...edge, sheets: edge.sheets.slice(0, 2) }} unpriced={['r']} conditionOf={conditionOf} />,
    );
    expect(page.textContent).toContain('Not compared, since no price in EUR is known: Rag, Press, Heavy.');
  });
});

it('a score is told with how sure it is, in strokes that are never more than ten', async () => {
  const { page } = await show(
    <>
      <Score score={4.44} sd={0.52} />
      <Score score={10} sd={0} />
      <Score score={0} sd={0.1} />
    </>,
  );
  const scores = [...page.children].map((s) => [
    plain(s.textContent),
    s.querySelectorAll('path[stroke="var(--ink)"]').length,
  ]);
  expect(scores).toEqual([
    ['4.4 ± 0.5 of 10', 5],
    ['10.0 ± 0.0 of 10', 10],
    ['0.0 ± 0.1 of 10', 0],
  ]);
});
