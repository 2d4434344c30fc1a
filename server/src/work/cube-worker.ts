import { workerData } from 'node:worker_threads';
import { throughCodes } from '@rakuen/core/characterisation/code-cube';
import { TURN, type Shared } from './cube-helper.ts';

/** Entry of the thread that looks up the second half of every run. */
const { control, nodes, values, samples, top, out } = workerData as Shared;
const state = new Int32Array(control);
// Who asks may be done before this thread has begun.
Atomics.compareExchange(state, 0, TURN.starting, TURN.ready);
for (;;) {
  Atomics.wait(state, 0, TURN.ready);
  if (Atomics.load(state, 0) !== TURN.asked) break;
  const count = state[1];
  throughCodes({ nodes, values }, samples.subarray(0, count), top, out.subarray(0, count));
  Atomics.store(state, 0, TURN.ready);
  Atomics.notify(state, 0);
}
