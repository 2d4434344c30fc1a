/** @jest-environment ./web/test/dom-environment.mjs */
import { afterDeed, TABLE_SIZE } from '@rakuen/core/table/table';
import type { TableDeedInput, TableState } from '@rakuen/contract/settings';
import { serve, using } from '../../test/studio.tsx';
import { useTable } from './use-table.ts';

const ids = Array.from({ length: TABLE_SIZE + 2 }, (_, i) => `c${i}`);
const conditions = ids.map((id) => ({ id, paper: { name: `Paper ${id}` } }));
const pictures = ['p', 'q', 'r'].map((id) => ({ id, title: `Picture ${id}` }));

/** A server on which so much lies already. */
async function laid(start: Partial<TableState>) {
  let table: TableState = { conditionIds: [], pictureIds: [], ...start };
  const deeds: TableDeedInput[] = [];
  serve(({ method, path, body }) => {
    if (path === 'conditions') return conditions;
    if (path === 'pictures') return pictures;
    if (method === 'POST') {
      deeds.push(body as TableDeedInput);
      const { conditionIds, pictureIds, ...rest } = afterDeed(table, body as TableDeedInput);
      table = { ...rest, conditionIds: [...conditionIds], pictureIds: [...pictureIds] };
    }
    return table;
  });
  const hand = await using(() => useTable());
  await hand.until((t) => !t.coming && (t.laid.length > 0 || start.conditionIds === undefined));
  const said = () => (hand.store.getState() as { view: { said: string } }).view.said;
  return { ...hand, deeds, said };
}

describe('the table', () => {
  it('the first two papers lie in the hands', async () => {
    const { now } = await laid({ conditionIds: ['c0', 'c1', 'c2'] });
    expect([now().left?.id, now().right?.id]).toEqual(['c0', 'c1']);
  });

  it('a paper is laid and put back, and it is said', async () => {
    const { does, now, until, said } = await laid({ conditionIds: ['c0'] });
    await does((t) => t.togglePaper('c1', 'Paper c1'));
    await until((t) => t.has('c1'));
    expect(said()).toBe('Paper c1 laid on the table.');
    await does((t) => t.togglePaper('c1', 'Paper c1'));
    await until((t) => !t.has('c1'));
    expect(said()).toBe('Paper c1 put back.');
    expect(now().laid.map((c) => c.id)).toEqual(['c0']);
  });

  it('holds so many papers and no more; what doesn’t fit is said, and nothing is sent', async () => {
    const { does, deeds, said } = await laid({ conditionIds: ids.slice(0, TABLE_SIZE) });
    await does((t) => t.togglePaper(ids[TABLE_SIZE], 'One more'));
    expect(deeds).toEqual([]);
    expect(said()).toBe(`The table holds ${TABLE_SIZE} papers; put one back first.`);
  });

  it('hands are swapped by the names of what they hold; with one paper there is nothing to swap', async () => {
    const two = await laid({ conditionIds: ['c0', 'c1'] });
    await two.does((t) => t.swapHands());
    await two.until((t) => t.left?.id === 'c1');
    expect(two.said()).toBe('Paper c1 is now in the left hand, Paper c0 in the right.');
    const one = await laid({ conditionIds: ['c0'] });
    await one.does((t) => t.swapHands());
    expect(one.deeds).toEqual([]);
  });

  it('pictures are turned in a ring', async () => {
    const { does, now, until } = await laid({ pictureIds: ['p', 'q', 'r'], pictureInHand: 'r' });
    await until((t) => t.picture?.id === 'r');
    await does((t) => t.turnPicture(1));
    await until((t) => t.picture?.id === 'p');
    await does((t) => t.turnPicture(-1));
    await until((t) => t.picture?.id === 'r');
    expect(now().laidPictures).toHaveLength(3);
  });

  it('what was removed meanwhile lies there no longer', async () => {
    const { now } = await laid({ conditionIds: ['gone', 'c1'], leftHand: 'gone' });
    expect(now().laid.map((c) => c.id)).toEqual(['c1']);
    expect(now().left?.id).toBe('c1');
  });
});
