import { proxy, wrap, type Remote } from 'comlink';
import type { Desk } from './compare-worker.ts';

let remote: Remote<Desk> | undefined;

/** The worker that computes for the comparison; one for the window, begun when it is first asked. */
export function desk(): Remote<Desk> {
  remote ??= wrap<Desk>(new Worker(new URL('./compare-worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

export { proxy };
