import type { Repository } from 'typeorm';

type Columns<T extends object> = Parameters<Repository<T>['update']>[1];

/**
 * A row as it is inserted, and some columns of one as they are changed. TypeORM's own type of both takes JSON columns
 * apart into parts that may be left out, which readonly ones do not fit: what is given is checked here against the
 * entity, and handed on.
 */
export const whole = <T extends object>(row: T): Columns<T> => row;
export const wholes = <T extends object>(rows: readonly T[]): Columns<T>[] => rows.map(whole);
export const columns = <T extends object>(change: Partial<T>): Columns<T> => change as Columns<T>;

/** A row without the columns that hold nothing. */
export type Present<T> = { [K in keyof T as null extends T[K] ? never : K]: T[K] } & {
  [K in keyof T as null extends T[K] ? K : never]?: Exclude<T[K], null>;
};
export const present = <T extends object>(row: T): Present<T> =>
  Object.fromEntries(Object.entries(row).filter(([, v]) => v !== null)) as Present<T>;
