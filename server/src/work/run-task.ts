import { runOrder, type RunAsked, type RunPlan } from '@rakuen/core/print/run-order';

/** The order of a run at the printer: hundreds of thousands of orders may be tried for it. */
export const planRun = (asked: RunAsked): Promise<RunPlan> => Promise.resolve(runOrder(asked));
