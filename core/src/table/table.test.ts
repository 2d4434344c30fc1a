import fc from 'fast-check';
import { afterDeed, handsOf, TABLE_DEEDS, TABLE_SIZE, TableFull, type Table, type TableDeed } from './table.ts';

const BARE: Table = { conditionIds: [], pictureIds: [] };
const does = (table: Table, ...deeds: TableDeed[]) => deeds.reduce(afterDeed, table);

describe('the table', () => {
  it('two windows that each lay a paper leave both', () =>
    expect(does(BARE, { deed: 'lay paper', id: 'a' }, { deed: 'lay paper', id: 'b' }).conditionIds).toEqual([
      'a',
      'b',
    ]));

  it('holds six, and no seventh', () => {
    const full = { ...BARE, conditionIds: [...'abcdef'] };
    expect(() => afterDeed(full, { deed: 'lay paper', id: 'g' })).toThrow(TableFull);
    expect(afterDeed(full, { deed: 'lay paper', id: 'a' })).toEqual(full);
  });

  it('a paper taken into the other hand’s place makes the hands change', () => {
    const two = { ...BARE, conditionIds: ['a', 'b'] };
    expect(handsOf(two)).toEqual({ left: 'a', right: 'b' });
    expect(handsOf(afterDeed(two, { deed: 'left hand', id: 'b' }))).toEqual({ left: 'b', right: 'a' });
    expect(handsOf(afterDeed(two, { deed: 'swap hands' }))).toEqual({ left: 'b', right: 'a' });
  });

  it('whatever is done, nothing lies there twice, and no hand holds what does not lie there', () => {
    const deed = fc.record({ deed: fc.constantFrom(...TABLE_DEEDS), id: fc.constantFrom(...'abcdefgh') });
    fc.assert(
      fc.property(fc.array(deed, { maxLength: 40 }), (deeds) => {
        const table = deeds.reduce<Table>((t, d) => {
          try {
            return afterDeed(t, d);
          } catch (error) {
            if (error instanceof TableFull) return t;
            throw error;
          }
        }, BARE);
        expect(new Set(table.conditionIds).size).toBe(table.conditionIds.length);
        expect(table.conditionIds.length).toBeLessThanOrEqual(TABLE_SIZE);
        expect(table.pictureIds.length).toBeLessThanOrEqual(TABLE_SIZE);
        const { left, right } = handsOf(table);
        for (const hand of [left, right]) if (hand) expect(table.conditionIds).toContain(hand);
        if (left) expect(left).not.toBe(right);
      }),
    );
  });
});
