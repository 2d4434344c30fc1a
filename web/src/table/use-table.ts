import { useCallback, useMemo } from 'react';
import type { TableState } from '@rakuen/contract/settings';
import { handsOf, TABLE_SIZE, type TableDeedName } from '@rakuen/core/table/table';
import { useConditionsQuery, useAtTableMutation, usePicturesQuery, useTableQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';

const EMPTY: TableState = { conditionIds: [], pictureIds: [] };

/** What lies on the table, and the hands that move it. */
export function useTable() {
  const { data: table = EMPTY, isLoading: coming } = useTableQuery();
  const { data: conditions } = useConditionsQuery();
  const { data: pictures } = usePicturesQuery();
  const [atTable] = useAtTableMutation();
  const dispatch = useAppDispatch();

  const does = useCallback(
    (deed: TableDeedName, id: string | undefined, words: string) => {
      void atTable({ deed, id });
      dispatch(said(words));
    },
    [atTable, dispatch],
  );

  const lying = table.conditionIds.join();
  const laid = useMemo(
    () => (lying === '' ? [] : lying.split(',')).flatMap((id) => conditions?.find((c) => c.id === id) ?? []),
    [lying, conditions],
  );
  const hands = handsOf({ ...table, conditionIds: laid.map((c) => c.id) });
  const left = laid.find((c) => c.id === hands.left);
  const right = laid.find((c) => c.id === hands.right);
  const laidPictures = table.pictureIds.flatMap((id) => pictures?.find((p) => p.id === id) ?? []);
  const picture = laidPictures.find((p) => p.id === table.pictureInHand) ?? laidPictures[0];

  return {
    table,
    /** What lies there is not known yet: nothing may be chosen by it. */
    coming,
    laid,
    left,
    right,
    laidPictures,
    picture,
    has: (id: string) => table.conditionIds.includes(id) || table.pictureIds.includes(id),

    togglePaper(id: string, name: string) {
      if (table.conditionIds.includes(id)) return does('put paper back', id, `${name} put back.`);
      if (table.conditionIds.length >= TABLE_SIZE)
        return void dispatch(said(`The table holds ${TABLE_SIZE} papers; put one back first.`));
      does('lay paper', id, `${name} laid on the table.`);
    },
    togglePicture(id: string, name: string) {
      if (table.pictureIds.includes(id)) return does('put picture back', id, `${name} put back.`);
      if (table.pictureIds.length >= TABLE_SIZE)
        return void dispatch(said(`The table holds ${TABLE_SIZE} pictures; put one back first.`));
      does('lay picture', id, `${name} laid on the table.`);
    },
    /** Takes a paper into a hand; the other hand gives way. */
    take(hand: 'left' | 'right', id: string, name: string) {
      does(`${hand} hand`, id, `${name} in the ${hand} hand.`);
    },
    swapHands() {
      if (!left || !right) return;
      does('swap hands', undefined, `${right.paper.name} is now in the left hand, ${left.paper.name} in the right.`);
    },
    holdPicture(id: string, name: string) {
      does('hold picture', id, `${name} in hand.`);
    },
    turnPicture(by: 1 | -1) {
      if (laidPictures.length === 0) return;
      const at = laidPictures.findIndex((p) => p.id === picture?.id);
      const next = laidPictures[(at + by + laidPictures.length) % laidPictures.length];
      does('hold picture', next.id, `${next.title} in hand.`);
    },
    move(id: string, by: 1 | -1) {
      does(by === 1 ? 'move on' : 'move back', id, 'Order changed.');
    },
  };
}

export type Table = ReturnType<typeof useTable>;
