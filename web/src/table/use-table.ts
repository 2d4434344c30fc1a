import { useCallback } from 'react';
import type { TableState } from '@rakuen/contract/settings';
import { TABLE_SIZE } from '@rakuen/contract/vocabulary';
import { useConditionsQuery, useLayTableMutation, usePicturesQuery, useTableQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';

const EMPTY: TableState = { conditionIds: [], pictureIds: [] };

/** What lies on the table, and the hands that move it. */
export function useTable() {
  const { data: table = EMPTY } = useTableQuery();
  const { data: conditions } = useConditionsQuery();
  const { data: pictures } = usePicturesQuery();
  const [lay] = useLayTableMutation();
  const dispatch = useAppDispatch();

  const put = useCallback(
    (next: TableState, words: string) => {
      void lay(next);
      dispatch(said(words));
    },
    [lay, dispatch],
  );

  const laid = table.conditionIds.flatMap((id) => conditions?.find((c) => c.id === id) ?? []);
  const [first, second] = laid;
  const left = laid.find((c) => c.id === table.leftHand) ?? first;
  const right =
    laid.find((c) => c.id === table.rightHand && c.id !== left?.id) ?? laid.find((c) => c.id !== left?.id) ?? second;
  const laidPictures = table.pictureIds.flatMap((id) => pictures?.find((p) => p.id === id) ?? []);
  const picture = laidPictures.find((p) => p.id === table.pictureInHand) ?? laidPictures[0];

  return {
    table,
    laid,
    left,
    right,
    laidPictures,
    picture,
    has: (id: string) => table.conditionIds.includes(id) || table.pictureIds.includes(id),

    togglePaper(id: string, name: string) {
      if (table.conditionIds.includes(id))
        return put({ ...table, conditionIds: table.conditionIds.filter((c) => c !== id) }, `${name} put back.`);
      if (table.conditionIds.length >= TABLE_SIZE)
        return void dispatch(said(`The table holds ${TABLE_SIZE} papers; put one back first.`));
      put({ ...table, conditionIds: [...table.conditionIds, id] }, `${name} laid on the table.`);
    },
    togglePicture(id: string, name: string) {
      if (table.pictureIds.includes(id))
        return put({ ...table, pictureIds: table.pictureIds.filter((p) => p !== id) }, `${name} put back.`);
      if (table.pictureIds.length >= TABLE_SIZE)
        return void dispatch(said(`The table holds ${TABLE_SIZE} pictures; put one back first.`));
      put(
        { ...table, pictureIds: [...table.pictureIds, id], pictureInHand: table.pictureInHand ?? id },
        `${name} laid on the table.`,
      );
    },
    /** Takes a paper into a hand; the other hand gives way. */
    take(hand: 'left' | 'right', id: string, name: string) {
      const other = hand === 'left' ? right?.id : left?.id;
      const released = other === id ? (hand === 'left' ? left?.id : right?.id) : other;
      put(
        { ...table, leftHand: hand === 'left' ? id : released, rightHand: hand === 'right' ? id : released },
        `${name} in the ${hand} hand.`,
      );
    },
    swapHands() {
      if (!left || !right) return;
      put(
        { ...table, leftHand: right.id, rightHand: left.id },
        `${right.paper.name} is now in the left hand, ${left.paper.name} in the right.`,
      );
    },
    holdPicture(id: string, name: string) {
      put(
        {
          ...table,
          pictureInHand: id,
          pictureIds: table.pictureIds.includes(id) ? table.pictureIds : [...table.pictureIds, id].slice(-TABLE_SIZE),
        },
        `${name} in hand.`,
      );
    },
    turnPicture(by: 1 | -1) {
      if (laidPictures.length === 0) return;
      const at = laidPictures.findIndex((p) => p.id === picture?.id);
      const next = laidPictures[(at + by + laidPictures.length) % laidPictures.length];
      put({ ...table, pictureInHand: next.id }, `${next.title} in hand.`);
    },
    move(id: string, by: 1 | -1) {
      const ids = [...table.conditionIds];
      const at = ids.indexOf(id);
      const to = at + by;
      if (at < 0 || to < 0 || to >= ids.length) return;
      [ids[at], ids[to]] = [ids[to], ids[at]];
      put({ ...table, conditionIds: ids }, 'Order changed.');
    },
  };
}

export type Table = ReturnType<typeof useTable>;
