/** Papers and pictures that lie on the table at once, at most. */
export const TABLE_SIZE = 6;

/** What lies on the table, which is in hand, and under which light. */
export interface Table {
  readonly conditionIds: readonly string[];
  readonly pictureIds: readonly string[];
  readonly leftHand?: string;
  readonly rightHand?: string;
  readonly pictureInHand?: string;
  readonly light?: string;
  readonly glass?: string;
}

/** Single things done at the table; `id` is a print condition's, a picture's, a light's or a glass's key. */
export const TABLE_DEEDS = [
  'lay paper',
  'put paper back',
  'lay picture',
  'put picture back',
  'left hand',
  'right hand',
  'swap hands',
  'hold picture',
  'move on',
  'move back',
  'light',
  'glass',
] as const;
export type TableDeedName = (typeof TABLE_DEEDS)[number];
export interface TableDeed {
  readonly deed: TableDeedName;
  readonly id?: string;
}

/** The table holds no more. */
export class TableFull extends Error {
  override readonly name = 'TableFull';
}

const without = (ids: readonly string[], id: string) => ids.filter((i) => i !== id);

function laid(ids: readonly string[], id: string): readonly string[] {
  if (ids.includes(id)) return ids;
  if (ids.length >= TABLE_SIZE) throw new TableFull(`The table holds ${TABLE_SIZE}.`);
  return [...ids, id];
}

/** The papers in the two hands: those that were taken, else the first that lie there. */
export function handsOf({ conditionIds, leftHand, rightHand }: Table): { left?: string; right?: string } {
  const left = conditionIds.find((id) => id === leftHand) ?? conditionIds[0];
  const right = conditionIds.find((id) => id === rightHand && id !== left) ?? conditionIds.find((id) => id !== left);
  return { left, right };
}

function moved(ids: readonly string[], id: string, by: 1 | -1): readonly string[] {
  const at = ids.indexOf(id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= ids.length) return ids;
  const next = [...ids];
  [next[at], next[to]] = [next[to]!, next[at]!];
  return next;
}

/**
 * The table after one deed: two windows that each do their own leave both done.
 * @throws TableFull when nothing more can be laid
 */
export function afterDeed(table: Table, { deed, id = '' }: TableDeed): Table {
  const { left, right } = handsOf(table);
  switch (deed) {
    case 'lay paper':
      return { ...table, conditionIds: laid(table.conditionIds, id) };
    case 'put paper back':
      return { ...table, conditionIds: without(table.conditionIds, id) };
    case 'lay picture':
      return { ...table, pictureIds: laid(table.pictureIds, id), pictureInHand: table.pictureInHand ?? id };
    case 'put picture back':
      return { ...table, pictureIds: without(table.pictureIds, id) };
    // The other hand gives way: it takes what this one held.
    case 'left hand':
      return { ...table, leftHand: id, rightHand: right === id ? left : right };
    case 'right hand':
      return { ...table, rightHand: id, leftHand: left === id ? right : left };
    case 'swap hands':
      return { ...table, leftHand: right, rightHand: left };
    case 'hold picture':
      return {
        ...table,
        pictureInHand: id,
        pictureIds: table.pictureIds.includes(id) ? table.pictureIds : [...table.pictureIds, id].slice(-TABLE_SIZE),
      };
    case 'move on':
      return { ...table, conditionIds: moved(table.conditionIds, id, 1) };
    case 'move back':
      return { ...table, conditionIds: moved(table.conditionIds, id, -1) };
    case 'light':
      return { ...table, light: id };
    case 'glass':
      return { ...table, glass: id };
  }
}
