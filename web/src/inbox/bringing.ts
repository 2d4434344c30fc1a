import { useSyncExternalStore } from 'react';
import type { ApiError } from '@rakuen/contract/settings';
import { said, type AppDispatch } from '../app/store.ts';
import { type Brought, inboxApi } from './inbox-api.ts';

/** How far the files of a drop are. */
interface Bringing {
  readonly done: number;
  readonly total: number;
  /** Files that did not arrive, with why. */
  readonly lost: readonly { readonly name: string; readonly error: Partial<ApiError> }[];
}
let state: Bringing = { done: 0, total: 0, lost: [] };
const listeners = new Set<() => void>();
function change(next: Partial<Bringing>): void {
  state = { ...state, ...next };
  for (const listener of listeners) listener();
}

/** One after another, whatever screen is looked at meanwhile: each is kept before the next is sent. */
export async function bring(files: readonly Brought[], dispatch: AppDispatch): Promise<void> {
  if (files.length === 0) return;
  const under = state.done < state.total;
  change(under ? { total: state.total + files.length } : { done: 0, total: files.length, lost: [] });
  for (const one of files) {
    const { error } = await dispatch(inboxApi.endpoints.bringFile.initiate(one));
    change({
      done: state.done + 1,
      ...(error && { lost: [...state.lost, { name: one.path, error: error }] }),
    });
  }
  if (state.done === state.total) dispatch(said(`${state.total - state.lost.length} of ${state.total} files came in.`));
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
export const useBringing = (): Bringing => useSyncExternalStore(subscribe, () => state);
export const forgetLost = (): void => change({ lost: [] });
